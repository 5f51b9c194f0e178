using Anakyklos.Core.Quantities;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>What a workshop is asked for in its first hour, in the order in which one thing needs the other.</summary>
public enum HourStage
{
    /// <summary>What the workshop is called.</summary>
    Name,

    /// <summary>Its bays, and which have a lift.</summary>
    Bays,

    /// <summary>The units that come first.</summary>
    Units,

    /// <summary>The weather that oils must bear.</summary>
    Climate,

    /// <summary>Somebody beside the lead.</summary>
    People,

    /// <summary>A torque wrench with its calibration.</summary>
    Wrenches,

    /// <summary>A drain pan.</summary>
    Pans,

    /// <summary>When the supplier brings what is ordered.</summary>
    Deliveries,

    /// <summary>The oil book, and a container of something.</summary>
    Oils,

    /// <summary>A model sheet.</summary>
    Model,

    /// <summary>A vehicle.</summary>
    Vehicle,

    /// <summary>A card.</summary>
    Card,
}

/// <summary>How a stage of the first hour stands.</summary>
/// <param name="Stage">Which.</param>
/// <param name="IsDone">What it asks for is there.</param>
/// <param name="IsSkipped">It was skipped, and can be done at any time.</param>
public sealed record HourStanding(HourStage Stage, bool IsDone, bool IsSkipped);

/// <summary>The way from an empty workshop to its first card. What is done is seen by what is there.</summary>
public sealed class FirstHour(SettingStore settings, PeopleStore people, ShelfStore shelf, SheetStore sheets, VehicleStore vehicles,
    CardStore cards)
{
    /// <summary>All stages, in their order.</summary>
    public IReadOnlyList<HourStanding> Stands()
    {
        var (now, stores) = (settings.Read(), shelf.Read());
        return [.. Enum.GetValues<HourStage>().Select(s =>
            new HourStanding(s, IsDone(s, now, stores), now.Skipped?.Contains($"{s}") == true))];
    }

    /// <summary>What is still asked for; nothing once all of it was done or skipped, then for good.</summary>
    public IReadOnlyList<HourStage> Asked() => settings.Read().HourIsOver == true ? []
        : [.. Stands().Where(s => !s.IsDone && !s.IsSkipped).Select(s => s.Stage)];

    /// <summary>Skips a stage, or asks for it again.</summary>
    /// <param name="stage">Which.</param>
    /// <param name="skip">Whether it is skipped.</param>
    public Task<bool> Skip(HourStage stage, bool skip) => settings.Change(now => now with
    {
        Skipped = skip ? [.. (now.Skipped ?? []).Append($"{stage}").Distinct()] : [.. (now.Skipped ?? []).Where(s => s != $"{stage}")],
    });

    /// <summary>The first hour is over, or begins again.</summary>
    /// <param name="over">Whether it is.</param>
    public Task<bool> End(bool over) => settings.Change(now => now with { HourIsOver = over ? true : null });

    /// <summary>Sets the units that come first for whoever is new, and for the lead who sets them.</summary>
    /// <param name="units">metric or us.</param>
    /// <param name="lead">The lead.</param>
    /// <returns>Whether these are units.</returns>
    public async Task<bool> SetUnits(string? units, Member lead)
    {
        if (units is not ("metric" or "us"))
            return false;
        await settings.Change(now => now with { Units = units });
        await people.Prefer(lead.Id, units, lead.Look, lead.Language);
        return true;
    }

    private bool IsDone(HourStage stage, WorkshopSettings now, Core.Stores.Shelf stores) => stage switch
    {
        HourStage.Name => now.Name.Length > 0,
        HourStage.Bays => now.Inside is not null,
        HourStage.Units => now.Units is not null,
        HourStage.Climate => now.Climate is not null,
        HourStage.People => people.All().Count > 1,
        HourStage.Wrenches => now.Wrenches.Count > 0,
        HourStage.Pans => stores.Pans.Count > 0,
        HourStage.Deliveries => now.Deliveries is not null,
        HourStage.Oils => stores.Oils.Products.Count > 0 && stores.Containers.Any(c => c.Left > Quantity<Volume>.Zero),
        HourStage.Model => sheets.Newest().Count > 0,
        HourStage.Vehicle => vehicles.All().Count > 0,
        HourStage.Card => cards.LastAt() is not null,
        _ => throw new ArgumentOutOfRangeException(nameof(stage)),
    };
}
