using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What runs into which pan, how much is in each, and when the card says that one must be emptied.</summary>
public sealed class PanTests
{
    private static readonly ModelSheet Brae = ComposerTests.Sheets["ostler-brae-28d"];

    private JobCard _card = On("ostler-brae-28d", "front-axle-oil", "rear-axle-oil");
    private DateTimeOffset _now = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);

    private Decision Try(CardCommand command)
    {
        var decision = _card.Decide(command, Iona, _now, UsualPress.Facts(_card.Sheet));
        if (decision is Accepted accepted)
            _card = _card.Taking(accepted, Guid.NewGuid(), Iona, _now).Card;
        return decision;
    }

    private void Do(CardCommand command)
    {
        var decision = Try(command);
        Assert.True(decision is Accepted, $"{command}: {Describe(decision)}");
    }

    // By the usual press with these pans until a step is next; an hour goes by at each, so that nothing is waited for.
    private void UpTo(StepId stop, params Quantity<Volume>[] pans)
    {
        for (var presses = 0; _card.Next is { } step && step.Id != stop; presses++)
        {
            Assert.True(presses < 200, $"“{stop}” does not come.");
            _now += TimeSpan.FromHours(1);
            Do(UsualPress.Of(_card, step) is ConfirmKit kit ? kit with { Pans = pans } : UsualPress.Of(_card, step));
        }
    }

    private string Pans => string.Join("; ", Enumerable.Range(0, _card.Pans.Count).Select(_card.InPan));

    private string Refused(CardCommand command) => string.Join(" ", Assert.IsType<Refused>(Try(command)).Reasons);

    // 1.50 L of front axle oil and 2.10 L of rear axle oil.
    [Fact]
    public void A_pan_fills_and_the_card_says_when_to_empty_it()
    {
        UpTo("drain-front-axle-oil", L(2.2m));
        Assert.Contains("Nothing is in the pan", Refused(new EmptyPan(0)));
        Assert.Contains("no such pan", Refused(new EmptyPan(1)));
        Assert.Contains("no such pan", Refused(new EmptyPan(-1)));
        UpTo("tighten-front-axle-drain-plug", L(2.2m));
        Assert.Equal("the pan holds 2.20 L, and 1.50 L of front axle oil is in it", Pans);
        Assert.Contains("still out above the pan", Refused(new EmptyPan(0)));
        UpTo("drain-rear-axle-oil", L(2.2m));
        var rear = _card.Step("drain-rear-axle-oil")!;
        Assert.Equal("No pan has room for 2.10 L of rear axle oil: the pan holds 2.20 L, and 1.50 L of front axle oil is in it. "
            + "Empty the pan into its drum and say so.", Refused(new ConfirmStep(rear.Id)));
        // It is said where the work stands: nothing else is done first for its sake.
        Assert.Equal((rear.Id, (int?)0), (_card.Next!.Id, _card.PanToEmpty(rear)));
        Do(new EmptyPan(0));
        Assert.Equal("the pan holds 2.20 L, and it is empty", Pans);
        Do(new ConfirmStep(rear.Id));
        Assert.Equal("the pan holds 2.20 L, and 2.10 L of rear axle oil is in it", Pans);
    }

    [Fact]
    public void What_still_runs_keeps_its_pan_while_there_is_another()
    {
        UpTo("drain-rear-axle-oil", L(9), L(2.2m));
        Do(new ConfirmStep("drain-rear-axle-oil"));
        // The large pan stands under the front axle, whose plug is still out.
        Assert.Equal("pan 1 holds 9.00 L, and 1.50 L of front axle oil is in it; pan 2 holds 2.20 L, and 2.10 L of rear axle oil is in it",
            Pans);
        _card = On("ostler-brae-28d", "engine-oil-and-filter", "front-axle-oil");
        UpTo("drain-front-axle-oil", L(9), L(2.2m));
        Do(new ConfirmStep("drain-front-axle-oil"));
        Assert.Equal("pan 1 holds 9.00 L, and 7.20 L of engine oil is in it; pan 2 holds 2.20 L, and 1.50 L of front axle oil is in it",
            Pans);
    }

    // What ran out before the other pan was emptied runs over again at the hole: a tenth of the fill finds no room beside 2.10 of 2.10 L.
    [Fact]
    public void What_runs_over_a_hole_wants_room_too()
    {
        UpTo("drain-rear-axle-oil", L(2.1m));
        Do(new EmptyPan(0));
        Do(new ConfirmStep("drain-rear-axle-oil"));
        var fill = _card.Step("fill-front-axle-oil")!;
        Assert.Contains("rear axle drain plug is still out above the pan", Refused(UsualPress.Of(_card, fill)));
        UpTo("fill-front-axle-oil", L(2.1m));
        Assert.Contains("No pan has room for what runs over of the front axle oil", Refused(UsualPress.Of(_card, fill)));
        Do(new EmptyPan(0));
        Do(UsualPress.Of(_card, fill));
    }

    // 8.00 L of engine oil and 7.50 L of gearbox oil, both let out warm and the second measured: no pan can be emptied between them.
    [Fact]
    public void What_is_out_at_the_same_time_must_find_room_at_the_same_time()
    {
        var bus = ComposerTests.Sheets["hespin-16"];
        _card = On("hespin-16", "engine-oil-and-filter", "gearbox-oil");
        Assert.Equal([["engine-oil", "gearbox-oil"]], PanPlan.Together(bus, _card.Steps).Select(g => g.Select(f => f.Id.Text)));
        var kit = (ConfirmKit)UsualPress.Of(_card, _card.Next!);
        Assert.Contains("8.00 L of engine oil, 7.50 L of automatic gearbox oil will come out together, and the engine oil and the "
            + "automatic gearbox oil cannot share one", Refused(kit with { Pans = [L(16)] }));
        // By hand: the axles of the Brae are let out one after the other.
        Assert.Equal([["front-axle-oil"], ["rear-axle-oil"]],
            PanPlan.Together(Brae, On("ostler-brae-28d", "front-axle-oil", "rear-axle-oil").Steps).Select(g => g.Select(f => f.Id.Text)));
    }

    [Fact]
    public void What_is_measured_stays_in_its_pan_until_it_is()
    {
        _card = On("hespin-16", "gearbox-oil");
        UpTo("measure-gearbox-oil", L(8));
        Assert.Contains("has not been measured yet", Refused(new EmptyPan(0)));
        Do(UsualPress.Of(_card, _card.Next!));
        Do(new EmptyPan(0));
        Assert.Equal("the pan holds 8.00 L, and it is empty", Pans);
    }

    [Fact]
    public void The_pans_are_empty_when_what_was_in_them_is_in_its_drums()
    {
        UpTo("used-oil", L(4));
        Assert.Equal("the pan holds 4.00 L, and 1.50 L of front axle oil and 2.10 L of rear axle oil is in it", Pans);
        Do(new ConfirmStep("used-oil"));
        Assert.Equal("the pan holds 4.00 L, and it is empty", Pans);
        Assert.Equal(Pans, string.Join("; ", JobCard.Replay(Brae, _card.History).Pans.Select((_, i) => _card.InPan(i))));
    }

    [Fact]
    public void What_is_in_a_pan_stays_in_it_when_the_kit_is_laid_out_again()
    {
        UpTo("tighten-front-axle-drain-plug", L(2.2m));
        var kit = (ConfirmKit)UsualPress.Of(_card, _card.Step("lay-out-kit")!) with { Pans = [L(5), L(2.2m)] };
        Do(kit);
        Assert.Equal("pan 1 holds 5.00 L, and it is empty; pan 2 holds 2.20 L, and 1.50 L of front axle oil is in it", Pans);
        Do(kit with { Pans = [L(5)] });
        Assert.Equal("the pan holds 5.00 L, and it is empty", Pans);
    }

    /// <summary>Whatever comes, into whatever pans: no pan is ever asked to take more than it holds or two that must not meet, and where
    /// one is to be emptied it helps.</summary>
    [Fact]
    public void No_pan_takes_more_than_it_holds()
    {
        var random = new Random(20260311);
        FluidSystem[] fluids = [.. Brae.Fluids.Values.Concat(ComposerTests.Sheets["hespin-16"].Fluids.Values)];
        for (var round = 0; round < 3000; round++)
        {
            PanInUse[] pans = [.. Enumerable.Range(0, 1 + random.Next(3)).Select(_ => new PanInUse(L(1 + random.Next(12))))];
            for (var comes = 0; comes < 6; comes++)
            {
                var next = (Fluid: fluids[random.Next(fluids.Length)], Amount: L(random.Next(1, 80) / 10m));
                var later = (Fluid: fluids[random.Next(fluids.Length)], Amount: L(random.Next(1, 80) / 10m));
                if (PanPlan.Into(next, [], [later], pans, _ => false) is { } into)
                {
                    var fits = pans.Select((p, i) => i).Where(i => pans[i].Takes(next.Fluid, next.Amount)).ToList();
                    Assert.Contains(into, fits);
                    bool Leaves(int pan) => pans.Select((p, i) => i == pan ? p.With(next.Fluid, next.Amount) : p)
                        .Any(p => p.Takes(later.Fluid, later.Amount));
                    Assert.True(Leaves(into) || !fits.Any(Leaves), $"Round {round}: {next} leaves no room for {later}.");
                    pans[into] = pans[into].With(next.Fluid, next.Amount);
                }
                else if (PanPlan.ToEmpty(next, pans, _ => false) is { } full)
                    pans[full] = new(pans[full].Holds);
                else
                    Assert.All(pans, p => Assert.True(p.Holds < next.Amount || (p.In.Count == 0 && !p.Takes(next.Fluid, next.Amount))));
                Assert.All(pans, p => Assert.True(p.Filled <= p.Holds, $"Round {round}: {p.Filled} in {p.Holds}."));
                Assert.All(pans.SelectMany(p => p.In.SelectMany(a => p.In.Select(b => (A: a.Fluid, B: b.Fluid)))),
                    p => Assert.True(p.A.Id == p.B.Id || PanPlan.MayShare(p.A, p.B)));
            }
        }
    }
}
