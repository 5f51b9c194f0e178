using Anakyklos.Core.Sheets;
using CsCheck;

namespace Anakyklos.Core.Tests;

public sealed class BeltRouteTests
{
    private static BeltRoute Route(params (int X, int Y, int Radius, bool Back)[] pulleys) =>
        new("belt", [.. pulleys.Select((p, i) => new BeltPulley($"{i}", p.X, p.Y, p.Radius, p.Back))]);

    [Fact]
    public void Round_two_equal_pulleys_it_runs_along_the_top_and_back_along_the_bottom()
    {
        var stretches = Route((20, 50, 10, false), (80, 50, 10, false)).Stretches();
        Assert.Equal((20, 40), stretches[0].Off);
        Assert.Equal((80, 40), stretches[1].Onto);
        Assert.Equal((80, 60), stretches[1].Off);
        Assert.Equal((20, 60), stretches[0].Onto);
        Assert.All(stretches, s => Assert.Equal(180, s.Wrap, 9));
    }

    // Centres 50 apart, radii 20 and 10, crossed: the inner tangent makes asin(30/50) with the line of centres, so 3-4-5: it leaves the
    // large one at 20·(0.6, −0.8).
    [Fact]
    public void Onto_a_pulley_that_its_back_runs_on_it_takes_the_inner_tangent()
    {
        var stretches = Route((20, 60, 20, false), (70, 60, 10, true)).Stretches();
        Assert.Equal(20 + 12, stretches[0].Off.X, 9);
        Assert.Equal(60 - 16, stretches[0].Off.Y, 9);
        Assert.Equal(70 - 6, stretches[1].Onto.X, 9);
        Assert.Equal(60 + 8, stretches[1].Onto.Y, 9);
    }

    [Fact]
    public void Every_straight_stretch_touches_both_its_pulleys() =>
        Gen.Select(Gen.Int[0, 100], Gen.Int[0, 120], Gen.Int[1, 15], Gen.Bool).Array[2, 7].Where(p => Route(p).Clash is null).Sample(p =>
        {
            var stretches = Route(p).Stretches();
            for (var i = 0; i < stretches.Count; i++)
            {
                var (a, b) = (stretches[i], stretches[(i + 1) % stretches.Count]);
                var (dx, dy) = (b.Onto.X - a.Off.X, b.Onto.Y - a.Off.Y);
                foreach (var (end, pulley) in new[] { (a.Off, a.Pulley), (b.Onto, b.Pulley) })
                {
                    var (rx, ry) = (end.X - pulley.X, end.Y - pulley.Y);
                    Assert.Equal(pulley.Radius, Math.Sqrt(rx * rx + ry * ry), 6);
                    Assert.Equal(0, rx * dx + ry * dy, 6);
                }
            }
            // A belt that closes has turned whole rounds: a clockwise pulley turns it one way, one under its back the other.
            var rounds = stretches.Sum(s => s.Pulley.Back ? -s.Wrap : s.Wrap) / 360;
            Assert.Equal(Math.Round(rounds), rounds, 6);
        });

    [Fact]
    public void Pulleys_that_touch_are_told_by_name()
    {
        var reading = SheetReader.Read(Workbench.SheetText.Replace("\"name\": \"compressor\", \"x\": 15",
            "\"name\": \"compressor\", \"x\": 33"));
        Assert.Null(reading.Sheet);
        Assert.Contains(reading.Errors, e => e.Field == "maps.belt.belts" && e.What.Contains("compressor") && e.What.Contains("touch"));
    }

    [Fact]
    public void The_belt_of_the_courier_turns_once_round()
    {
        var belt = Workbench.Courier.Maps["belt"].Belts.Single();
        Assert.Equal(360, belt.Stretches().Sum(s => s.Pulley.Back ? -s.Wrap : s.Wrap), 6);
    }
}
