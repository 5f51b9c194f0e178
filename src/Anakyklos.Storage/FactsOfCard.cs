using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Workshop;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>Gathers what the workshop knows for a decision on a card, as the transaction sees it.</summary>
internal static class FactsOfCard
{
    /// <summary>Stores, tool crib, oil book, weather, warranty and pictures; what is kept for this card counts as free.</summary>
    /// <param name="connection">The connection, inside the transaction.</param>
    /// <param name="parts">The parts of the stores, read for this card.</param>
    /// <param name="id">Card number.</param>
    /// <param name="card">The card.</param>
    /// <param name="today">The day in the workshop.</param>
    internal static CardFacts Read(SqliteConnection connection, PartList parts, CardNumber id, JobCard card, DateOnly today)
    {
        var until = connection.QuerySingleOrDefault<string?>("select warranty_until from vehicle where plate = @Plate",
            new { card.Opened.Plate });
        var warranty = until is not null && today <= DateOnly.ParseExact(until, "O", CultureInfo.InvariantCulture);
        var settings = SettingStore.Read(connection);
        return new(Shelf.Empty with
        {
            Parts = parts,
            Containers = ShelfStore.ReadContainers(connection),
            Oils = ShelfStore.ReadOils(connection),
            Wrenches = [.. settings.Wrenches.Select(w => w.InCrib)],
        },
            settings.Climate, warranty, PhotoStore.Of(connection, id), RulingStore.Of(connection, card.Sheet.Id),
            Brakes(connection, settings));
    }

    /// <summary>What is known where nothing is asked but who may work on brakes.</summary>
    internal static CardFacts WhoMay(SqliteConnection connection) =>
        CardFacts.None with { Brakes = Brakes(connection, SettingStore.Read(connection)) };

    /// <summary>The lesson that is asked for before brakes, and who has done it well; null where none is.</summary>
    internal static BrakeLesson? Brakes(SqliteConnection connection, WorkshopSettings settings) => settings.BeforeBrakes is not { } asked
        ? null : new(asked.Lesson, asked.Name, asked.By, asked.Since, PracticeStore.WhoPassed(connection, asked.Lesson),
            PeopleStore.WhoWorks(connection).ToDictionary(p => p.Id));
}
