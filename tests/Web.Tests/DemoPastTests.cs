using Anakyklos.Core.Cards;
using Anakyklos.Storage;
using Anakyklos.Storage.Sealing;
using Anakyklos.Web.Demo;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>The demo's years of services, and how another start takes them up.</summary>
public sealed class DemoPastTests : InTheDemo
{
    private static readonly DateOnly Today = new(2026, 3, 9);

    private readonly string _folder = Directory.CreateTempSubdirectory("anakyklos-past-").FullName;

    private SealFolder Seals => new(Path.Combine(_folder, "seal"));

    private string Workshop => Path.Combine(_folder, "anakyklos.db");

    private CardStore Cards => Host.Services.GetRequiredService<CardStore>();

    [Fact]
    public void Every_vehicle_has_its_years_of_signed_cards_and_what_they_took_came_in_before()
    {
        foreach (var life in DemoLives.All)
        {
            var signed = Cards.OfVehicle(life.Plate).Where(c => c.SignedAt is not null).ToList();
            Assert.Equal(life.Visits.Length, signed.Count);
            // One card after the other, in the order of their numbers.
            Assert.Equal(signed.OrderByDescending(c => c.OpenedAt).Select(c => c.Id), signed.Select(c => c.Id));
            Assert.All(signed.Zip(signed.Skip(1)), p => Assert.True(p.Second.SignedAt < p.First.OpenedAt));
            Assert.All(signed, c => Assert.Empty(Cards.Find(c.Id)!.WantingCountersignature));
        }
        Assert.Empty(Verification.Run(Host.Services.GetRequiredService<WorkshopDatabase>(), out _, out _));
        // Nothing was poured out of a container or taken off the shelf that had not come in before.
        var shelf = Host.Services.GetRequiredService<ShelfStore>();
        Assert.All(shelf.Read().Containers, c => Assert.True(c.Left >= default(Core.Quantities.Quantity<Core.Quantities.Volume>)));
        foreach (var part in shelf.Book(int.MaxValue).Where(l => !l.IsOil).GroupBy(l => l.Name))
        {
            var there = 0;
            foreach (var line in part.Reverse())
                Assert.True((there += int.Parse(line.Amount, System.Globalization.CultureInfo.InvariantCulture)) >= 0, part.Key);
        }
    }

    [Fact]
    public async Task The_batch_search_tells_which_vehicles_got_of_it()
    {
        var wanted = Host.Services.GetRequiredService<ShelfStore>().Read().Containers
            .First(c => c.Product == "Gannet Lowash 5W-30" && c.Id > 100);
        await Me.Get($"/find?q={wanted.Batch}");
        var got = Cards.OfVehicle("HD-07").Concat(Cards.OfVehicle("HD-08")).Concat(Cards.OfVehicle("HD-04"))
            .Where(c => Cards.Find(c.Id)!.CansOf("engine-oil").Any(f => f.Batch == wanted.Batch)).ToList();
        Assert.NotEmpty(got);
        Assert.All(got, c => Assert.Contains(c.Plate, Me.Text));
    }

    [Fact]
    public void It_is_taken_up_on_the_same_day_only_and_only_where_it_was_kept_whole()
    {
        var database = Host.Services.GetRequiredService<WorkshopDatabase>();
        Assert.False(new DemoPast(_folder, Seals, Today).Lay());
        new DemoPast(_folder, Seals, Today).Keep(database);
        Assert.False(File.Exists(Workshop));
        Assert.False(new DemoPast(_folder, Seals, Today.AddDays(1)).Lay());
        Assert.False(File.Exists(Workshop));
        Assert.True(new DemoPast(_folder, Seals, Today).Lay());
        Assert.Equal(File.ReadAllBytes(Path.Combine(_folder, "past.db")), File.ReadAllBytes(Workshop));
        // Another build says something else of itself.
        var label = Path.Combine(_folder, "past.txt");
        File.AppendAllText(label, "Anakyklos.Core.dll 00\n");
        Assert.False(new DemoPast(_folder, Seals, Today).Lay());
        // What is kept anew takes its place; a label alone is nothing.
        new DemoPast(_folder, Seals, Today).Keep(database);
        Assert.True(new DemoPast(_folder, Seals, Today).Lay());
        File.Delete(Path.Combine(_folder, "past.db"));
        Assert.False(new DemoPast(_folder, Seals, Today).Lay());
    }

    [Fact]
    public async Task A_start_with_its_past_adds_the_cards_of_today_and_nothing_else()
    {
        await using var first = await WorkshopHost.WithModels();
        await first.Services.GetRequiredService<DemoDepot>().Fill(new DemoPast(_folder, Seals, Today));
        Assert.True(new DemoPast(_folder, Seals, Today).Lay());
        await using var second = await WorkshopHost.From(await File.ReadAllBytesAsync(Workshop));
        Assert.Empty(second.Services.GetRequiredService<CardStore>().Unsigned());
        await second.Services.GetRequiredService<DemoDepot>().Fill();
        var (one, other) = (first.Services.GetRequiredService<CardStore>(), second.Services.GetRequiredService<CardStore>());
        Assert.Equal(3, other.Unsigned().Count);
        for (CardNumber id = 1001; one.Entry(id) is { } entry; id = id.Value + 1)
        {
            Assert.Equal(entry, other.Entry(id));
            Assert.Equal(one.Find(id)!.History.Select(h => h.Event.GetType()), other.Find(id)!.History.Select(h => h.Event.GetType()));
            Assert.Equal(entry.IsOpen, one.HeadHash(id) != other.HeadHash(id));
        }
        Assert.Null(other.Entry(1059));
    }

    public override async ValueTask DisposeAsync()
    {
        await base.DisposeAsync();
        Directory.Delete(_folder, true);
    }
}
