using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Practice.Tests;

/// <summary>What a run takes and refuses, what it remembers, and what it tells afterwards.</summary>
public sealed class PracticeRunTests
{
    private static readonly DateTimeOffset Morning = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);
    private static readonly Person Tavish = PracticeHand.Tavish;
    private static readonly Person Iona = new("iona", "Iona R.", Role.Technician);

    private static Lesson On(string sheet, string job, params Fault[] faults) => new("lesson", "Lesson", 1, "", "", sheet, [job], true, 2,
        faults, [], [], "", [], null, []);

    private static PracticeRun Begin(Lesson lesson) => PracticeRun.Begin(lesson, PracticeHand.Sheets[lesson.Sheet], Morning, Tavish);

    private static PracticeRun Do(PracticeRun run, Person by, params string[] choices)
    {
        foreach (var choice in choices)
        {
            var at = choice.IndexOf(' ');
            var (next, problem) = run.Do(by, at > 0 ? choice[..at] : choice, at > 0 ? choice[(at + 1)..] : "",
                run.Vehicle.Now + TimeSpan.FromMinutes(1));
            Assert.True(problem.Length == 0, $"{choice}: {problem}");
            run = next;
        }
        return run;
    }

    private static string No(PracticeRun run, string choice, string typed = "")
    {
        var (next, problem) = run.Do(Tavish, choice, typed, Morning);
        Assert.Same(run, next);
        return problem;
    }

    [Fact]
    public void What_is_not_in_reach_or_cannot_be_read_is_refused_and_nothing_happens()
    {
        var run = Begin(On("tarn-courier-20d", "engine-oil-and-filter"));
        Assert.Contains("cannot be done from where you stand", No(run, "hologram"));
        Assert.Contains("cannot be done from where you stand", No(run, "fastener:engine-drain-plug/undo"));
        Assert.Contains("cannot be done from where you stand", No(run, "feet/below"));
        run = Do(run, Tavish, "wrenches/TW-1", "feet/top", "access:bonnet/off", "access:engine-cover/off", "access:oil-filler-cap/off");
        foreach (var bad in (string[])["", "much", "-1 L", "0 L", "99 L", "1e30"])
            Assert.NotEmpty(No(run, "fluid:engine-oil/pour", bad));
        Assert.Contains("from 0 to", No(Do(run, Tavish, "feet/side", "lift/arms", "lift/raise", "feet/below", "access:undertray/off"),
            "access:undertray/on-some", "99"));
    }

    [Fact]
    public void What_was_measured_twice_and_came_out_the_same_stands_once_in_the_look_back()
    {
        var run = Do(Begin(On("tarn-courier-20d", "engine-oil-and-filter")), Tavish, "tyres/measure", "tyres/measure", "tyres/measure");
        Assert.EndsWith("(3 times)", Assert.Single(Debrief.Of(run).Readings));
    }

    [Fact]
    public void Each_one_reaches_what_is_where_they_stand_and_holds_a_wrench_of_their_own()
    {
        var run = Do(Begin(On("tarn-courier-20d", "engine-oil-and-filter")), Tavish, "wrenches/TW-1", "lift/arms", "lift/raise",
            "feet/below", "access:undertray/off");
        Assert.Contains(run.Reach("Tavish M."), t => t.Id == "fastener:engine-drain-plug"
            && t.Choices.Any(c => c.Id.EndsWith("/tighten", StringComparison.Ordinal)));
        Assert.DoesNotContain(run.Reach("Iona R."), t => t.Id.StartsWith("fastener:", StringComparison.Ordinal));
        run = Do(run, Iona, "feet/below");
        Assert.DoesNotContain(run.Reach("Iona R.").Single(t => t.Id == "fastener:engine-drain-plug").Choices,
            c => c.Id.EndsWith("/tighten", StringComparison.Ordinal));
        // Whoever is still under it when the other lowers it is hurt.
        run = Do(run, Tavish, "below/clear");
        run = Do(run, Iona, "feet/below");
        run = Do(run, Tavish, "lift/lower");
        Assert.Contains(run.Harms, h => h.Harm is { Kind: HarmKind.Crushed, What: "Iona R." });
    }

    [Fact]
    public void What_is_not_looked_at_is_not_known_and_cannot_be_put_right()
    {
        var run = Do(Begin(On("tarn-courier-20d", "engine-oil-and-filter", new OldRingStays("oil-filter-cap"))), Tavish, "lift/arms",
            "lift/raise", "feet/below", "access:undertray/off", "pan-1/under-engine-oil", "fastener:engine-drain-plug/undo");
        Assert.Empty(run.Known);
        if (run.Reach("Tavish M.").All(t => t.Id != "fastener:oil-filter-cap"))
            run = Do(run, Tavish, "feet/side", "below/look");
        run = Do(run, Tavish, "fastener:oil-filter-cap/undo");
        Assert.Contains("cannot be done", No(run, "fastener:oil-filter-cap/pick"));
        run = Do(run, Tavish, "fastener:oil-filter-cap/face");
        Assert.Equal("The old ring is still there.", Assert.IsType<HandDid>(run.Log[^1]).Sees!.Says);
        run = Do(run, Tavish, "fastener:oil-filter-cap/pick", "fastener:oil-filter-cap/face");
        Assert.Equal("It is clean and bare.", Assert.IsType<HandDid>(run.Log[^1]).Sees!.Says);
    }

    // The card believes all of it, since nothing stands against it there; the vehicle tells.
    [Fact]
    public void A_hand_that_only_talks_is_told_so_at_every_kind_of_step()
    {
        var hand = new PracticeHand(On("tarn-courier-20d", "engine-oil-and-filter"), hasEyes: false) { Means = _ => null };
        var debrief = hand.Through();
        var claims = string.Join('\n', debrief.Claims.Select(c => c.Says));
        foreach (var words in (string[])["nobody had set the wheel chocks", "nobody had taken the undertray off",
            "nobody had looked at the lifting points", "the vehicle stood on its wheels", "nobody had undone the engine drain plug",
            "nobody had fitted a new", "went in", "the engine did not run", "the indicator was still lit"])
            Assert.Contains(words, claims);
        Assert.False(debrief.IsPassed);
    }

    [Fact]
    public void A_gate_that_stopped_somebody_tells_what_it_saved()
    {
        var lesson = On("tarn-courier-20d", "engine-oil-and-filter");
        var run = Do(Begin(lesson), Tavish, "lift/arms", "lift/raise", "feet/below", "access:undertray/off",
            "fastener:engine-drain-plug/undo");
        var lower = run.Card.Steps.First(s => s.Traits.Lift == LiftMove.Lowers);
        var (after, decision) = run.Tell(new ConfirmStep(lower.Id), Guid.NewGuid(), Tavish, run.Vehicle.Now);
        Assert.IsType<Refused>(decision);
        var stopped = Assert.Single(Debrief.Of(after).Stopped);
        Assert.Contains(stopped.Saved, h => h.Kind == HarmKind.LoweredOnto);
        Assert.NotEmpty(stopped.Reasons);
        // Nothing was done to either by it.
        Assert.True(after.Vehicle.IsUp);
        Assert.Equal(run.Card.History.Count, after.Card.History.Count);
        Assert.DoesNotContain(after.Harms, h => h.Harm.Kind == HarmKind.LoweredOnto);
    }

    [Fact]
    public void A_look_back_holds_time_and_order_against_the_best()
    {
        var debrief = new PracticeHand(On("corran-fen-12", "air-filter"), hasEyes: true).Through();
        Assert.Equal(debrief.Best.Select(s => s.Id), debrief.Order.Select(s => s.Id));
        Assert.InRange(debrief.Took, debrief.Planned * 0.5, debrief.Planned * 3);
        Assert.True(debrief.IsEnded);
        var begun = Debrief.Of(Begin(On("corran-fen-12", "air-filter")));
        Assert.False(begun.IsEnded);
        Assert.Equal(["The ring is not closed: the card is not signed."], begun.Better);
        Assert.Equal(TimeSpan.Zero, begun.Took);
    }

    [Fact]
    public void A_wrench_is_set_by_the_numbers_on_its_scale()
    {
        var lesson = On("tarn-courier-20d", "engine-oil-and-filter") with { Wrenches = [new("TW-9", Torque.PoundFoot)] };
        var run = Do(Begin(lesson), Tavish, "wrenches/TW-9", "lift/arms", "lift/raise", "feet/below", "access:undertray/off");
        Assert.Equal("Its scale is in lbf·ft.", run.Log.OfType<HandDid>().First().Sees!.Says);
        run = Do(run, Tavish, "fastener:engine-drain-plug/slacken", "fastener:engine-drain-plug/tighten 28");
        Assert.Equal(37.96m, Math.Round(run.Vehicle.Joints["engine-drain-plug"].Torque!.Value.In(Torque.NewtonMetre), 2));
    }
}
