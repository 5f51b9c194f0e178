using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation.Tests;

/// <summary>The dash of a simulated vehicle obeys the ritual of its sheet, and nothing else puts its indicator out.</summary>
public sealed class DashTests
{
    private static readonly DateTimeOffset Start = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);

    public static TheoryData<string> Sheets => [.. BothWalk.Sheets.Keys.Select(k => k.Text).Order(StringComparer.Ordinal)];

    private static (Vehicle Vehicle, ResetRitual Ritual) Dash(string sheet) =>
        (Vehicle.AsItComes(BothWalk.Sheets[sheet], Start), BothWalk.Sheets[sheet].Resets.Values.Single());

    private static Vehicle Does(Vehicle vehicle, Happening what) => vehicle.Answer(what, vehicle.Now).Vehicle;

    private static WorksDash Right(ResetRitual ritual, ResetMove move) =>
        new(ritual.Id, move.Uses, move.Hold ?? TimeSpan.Zero, move.Types switch
        {
            NextService.Distance => $"{ritual.Types!.Step.Value.Print(Distance.Kilometre)}",
            NextService.Months => "6",
            _ => "",
        });

    private static Vehicle Right(Vehicle vehicle, ResetRitual ritual, int from, int to)
    {
        foreach (var move in ritual.Moves.Skip(from).Take(to - from))
        {
            for (var times = 0; times < move.Times; times++)
                vehicle = Does(vehicle, Right(ritual, move));
            if (vehicle.Display.Answers is { } at && at > vehicle.Now)
                vehicle = vehicle.Until(at).Vehicle;
        }
        return vehicle;
    }

    [Theory]
    [MemberData(nameof(Sheets))]
    public void Worked_as_the_sheet_has_it_each_move_shows_what_is_expected_and_the_last_puts_it_out(string sheet)
    {
        var (vehicle, ritual) = Dash(sheet);
        for (var made = 0; made < ritual.Moves.Count; made++)
        {
            Assert.Contains(ritual.Id, vehicle.Lit);
            vehicle = Right(vehicle, ritual, made, made + 1);
            var move = ritual.Moves[made];
            if (move is { Types: NextService.None, Shows: NextService.None, Expect.Length: > 0 })
                Assert.Equal(move.Expect, vehicle.ShowsOf(ritual.Id));
        }
        Assert.Empty(vehicle.Lit);
    }

    [Theory]
    [MemberData(nameof(Sheets))]
    public void Let_go_too_early_or_at_the_wrong_thing_it_stays_lit_and_says_something_else(string sheet)
    {
        var (fresh, ritual) = Dash(sheet);
        for (var at = 0; at < ritual.Moves.Count; at++)
        {
            var (before, move) = (Right(fresh, ritual, 0, at), ritual.Moves[at]);
            var wrong = Right(ritual, move) with { Control = (DashControl)(((int)move.Uses + 1) % 10) };
            var hands = move.Hold is { } hold
                ? new[] { (wrong, "Order"), (Right(ritual, move) with { Held = hold - TimeSpan.FromSeconds(1) }, "Early") }
                : [(wrong, "Order")];
            foreach (var (hand, trouble) in hands)
            {
                var after = Does(before, hand);
                Assert.Contains(ritual.Id, after.Lit);
                Assert.Equal(move.Else.FirstOrDefault(e => e.When.ToString() == trouble)?.Shows ?? "- - -", after.ShowsOf(ritual.Id));
                Assert.True(after.Display.Made <= before.Display.Made);
                // From where it begins again it goes all the same.
                Assert.Empty(Right(after, ritual, after.Display.Made, ritual.Moves.Count).Lit);
            }
        }
    }

    [Fact]
    public void A_door_that_is_open_a_reset_that_fails_once_and_a_distance_too_long()
    {
        var (van, pedals) = Dash("tarn-courier-20d");
        van = Does(van, new DoorAjar());
        Assert.Equal("DOOR", Right(van, pedals, 0, 1).ShowsOf(pedals.Id));
        Assert.Equal(0, Right(van, pedals, 0, 1).Display.Made);
        van = Does(Does(van, new ShutsDoors()), new ResetFailsOnce(pedals.Id));
        var failed = Right(van, pedals, 0, 5);
        Assert.Equal(("SERVICE NOW", 0), (failed.ShowsOf(pedals.Id), failed.Display.Made));
        Assert.Contains(pedals.Id, failed.Lit);
        var done = Right(failed, pedals, 0, 5);
        Assert.Empty(done.Lit);
        Assert.Equal("20000 km", done.ShowsOf(pedals.Id));
        // Two of three presses are not three.
        Assert.Equal(2, Does(Does(Right(van, pedals, 0, 2), Right(pedals, pedals.Moves[2])), Right(pedals, pedals.Moves[2])).Display.Made);
        var (bus, menu) = Dash("hespin-16");
        bus = Right(bus, menu, 0, 3);
        foreach (var far in new[] { "31000 km", "0 km", "far", "" })
            Assert.Equal("TOO LONG", Does(bus, new WorksDash(menu.Id, DashControl.Stalk, default, far)).ShowsOf(menu.Id));
        bus = Right(Does(bus, new WorksDash(menu.Id, DashControl.Stalk, default, "8000 km")), menu, 4, 7);
        Assert.Equal("8000 km", bus.ShowsOf(menu.Id));
    }

    [Fact]
    public void Who_works_something_while_it_makes_up_its_mind_begins_again_and_a_tool_pulled_out_has_done_half()
    {
        var (ridge, tool) = Dash("maelor-ridge-900");
        var asked = Right(ridge, tool, 0, 3);
        Assert.Equal("SURE?", asked.ShowsOf(tool.Id));
        var busy = Does(asked, Right(tool, tool.Moves[3]));
        Assert.Equal(DashStands.Busy, busy.ShowsOf(tool.Id));
        var seven = busy.Until(busy.Now + TimeSpan.FromSeconds(7)).Vehicle;
        Assert.Equal(DashStands.Busy, seven.ShowsOf(tool.Id));
        Assert.Equal(("HALF", 0), Says(Does(seven, new WorksDash(tool.Id, DashControl.Plug, default))));
        Assert.Equal(("- - -", 0), Says(Does(seven, Right(tool, tool.Moves[3]))));
        Assert.Equal(("DONE", 4), Says(seven.Until(busy.Now + TimeSpan.FromSeconds(8)).Vehicle));
        Assert.Equal(("NO LINK", 0), Says(Does(ridge, Right(tool, tool.Moves[0]) with { Trouble = DashTrouble.NoLink })));
        Assert.Equal(("OTHER VEHICLE", 0), Says(Does(Right(ridge, tool, 0, 1),
            Right(tool, tool.Moves[1]) with { Trouble = DashTrouble.OtherVehicle })));
        // A battery that would not turn the engine over is not one to write with.
        var weak = Right(Does(ridge, new WeakBattery()), tool, 0, 3);
        Assert.Equal(("REFUSED", 0), Says(Does(weak, Right(tool, tool.Moves[3]))));
        Assert.Empty(Right(Does(weak, new Charges()), tool, 3, 5).Lit);

        (string, int) Says(Vehicle vehicle) => (vehicle.ShowsOf(tool.Id), vehicle.Display.Made);
    }

    [Fact]
    public void Where_somebody_is_at_the_dash_the_card_alone_puts_nothing_out()
    {
        var walk = new BothWalk(BothWalk.Sheets["tarn-courier-20d"], ["engine-oil-and-filter"]);
        walk.UpTo("reset-1");
        walk.Happens(new WorksDash("service-indicator", DashControl.Key, default));
        Assert.Contains((ResetId)"service-indicator", walk.Vehicle.Lit);
        walk.UpTo("reset-5");
        foreach (var move in walk.Card.Sheet.Resets["service-indicator"].Moves.Skip(1))
            for (var times = 0; times < move.Times; times++)
                walk.Happens(new WorksDash("service-indicator", move.Uses, move.Hold ?? default));
        Assert.Empty(walk.Vehicle.Lit);
        walk.ByTheBook();
    }

    [Fact]
    public void A_motorcycle_whose_stand_is_up_says_so_and_is_put_out_once_it_is_down()
    {
        var (fresh, ritual) = Dash("maelor-ridge-900");
        var minds = ritual.Moves.TakeWhile(m => m.Else.All(e => e.When != DashTrouble.Door)).Count();
        var up = Right(fresh, ritual, 0, minds).With(new DoorAjar());
        var refused = Does(up, Right(ritual, ritual.Moves[minds]));
        Assert.Equal("STAND", refused.ShowsOf(ritual.Id));
        Assert.Contains(ritual.Id, refused.Lit);
        var down = Does(refused, new ShutsDoors());
        Assert.Empty(Right(down, ritual, down.Display.Made, ritual.Moves.Count).Lit);
    }

    [Fact]
    public void The_lights_that_may_stay_burn_with_the_key_and_none_without()
    {
        var (fresh, _) = Dash("tarn-courier-20d");
        Assert.Equal([("Glow coil", false), ("Filter light", false)], fresh.WarningLights);
        Assert.All(Does(fresh, new TurnsKey(true)).WarningLights, l => Assert.True(l.Burns));
        Assert.All(Does(Does(fresh, new TurnsKey(true)), new TurnsKey(false)).WarningLights, l => Assert.False(l.Burns));
    }
}
