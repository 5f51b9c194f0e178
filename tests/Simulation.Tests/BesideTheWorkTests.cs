using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation.Tests;

/// <summary>
/// Walks on which everything is done that is offered beside the work: the filter is filled first, a little is poured through, what came out
/// is measured, and now and then a hand strays. The vehicle comes to no harm, and every card can be signed.
/// </summary>
public sealed class BesideTheWorkTests
{
    private const int Walks = 126;

    public static TheoryData<int> Seeds => [.. Enumerable.Range(1, Walks)];

    [Theory]
    [MemberData(nameof(Seeds))]
    public void What_is_offered_beside_the_work_does_no_harm(int seed)
    {
        var random = new Random(seed);
        var sheets = BothWalk.Sheets.Values.OrderBy(s => s.Id.Text, StringComparer.Ordinal).ToArray();
        var sheet = sheets[seed % sheets.Length];
        var oils = sheet.Jobs.Values.Where(j => j.WorksOn.Any(w => sheet.Fluids.ContainsKey(w))).Select(j => j.Id)
            .OrderBy(j => j.Text, StringComparer.Ordinal);
        var walk = new BothWalk(sheet, [.. oils.OrderBy(_ => random.Next()).Take(1 + random.Next(3))], hot: random.Next(2) == 0,
            schools: new(random.Next(2) == 0 ? DrainSchool.AirFirst : DrainSchool.PlugFirst, 20, FilterSchool.Filled))
        {
            HasEyes = true,
            BringsOnePan = random.Next(2) == 0,
            SpareLitres = random.Next(2),
        };
        for (var presses = 0; presses < 160 && walk.Card.Next is not null; presses++)
        {
            if (random.Next(2) == 0)
                Beside(walk, random);
            if (random.Next(9) == 0)
                AgainstTheGrainTests.Stray(walk, random);
            else
                walk.GoOn();
        }
        walk.ByTheBook();
        var wrong = ByTheBookTests.Wrong(walk).ToList();
        Assert.True(wrong.Count == 0, $"Seed {seed}: {string.Join("; ", wrong)}. {walk.Told}");
    }

    [Fact]
    public void All_of_it_happens_on_these_walks()
    {
        var seen = new HashSet<string>();
        foreach (var id in new[] { "corran-fen-12", "skelling-tourer-1100" })
        {
            var sheet = BothWalk.Sheets[id];
            var walk = new BothWalk(sheet, ["engine-oil-and-filter"], schools: new(Filter: FilterSchool.Filled))
            {
                HasEyes = true,
                SpareLitres = 1,
            };
            for (var presses = 0; presses < 200 && walk.Card.Next is not null; presses++)
            {
                Beside(walk, new Random(1), always: true);
                walk.GoOn();
            }
            seen.UnionWith(walk.Card.History.Select(h => h.Event.GetType().Name));
            Assert.Contains(walk.Card.History, h => h.Event is PartFilled);
            walk.ByTheBook();
        }
        Assert.Superset(new HashSet<string> { nameof(Rinsed), nameof(Measured) }, seen);
    }

    private static void Beside(BothWalk walk, Random random, bool always = false)
    {
        if (walk.Card.ToRinse(walk.Now) is { } rinse && walk.NothingRuns && (always || random.Next(2) == 0))
            walk.Try(new Rinse(rinse.Id, new(walk.Card.Sheet.Fluids[Fluid(walk, rinse)].Rinse!.Value, Volume.Litre)));
        if (walk.Card.ToMeasure(walk.Now) is { } came)
            walk.Try(new Measure(came.Id, new(Quantity<Volume>.Of(Math.Round(
                walk.Vehicle.Fluids[Fluid(walk, came)].Pan.In(Volume.Litre), 2), Volume.Litre), Volume.Litre), true));
    }

    private static FluidId Fluid(BothWalk walk, SheetStep drain) => walk.Card.Sheet.Fasteners[drain.What].Drains!.Value;
}
