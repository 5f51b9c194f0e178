using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>Somebody who presses what is next, and now and then something else.</summary>
/// <param name="card">The card.</param>
/// <param name="random">Chooses.</param>
/// <param name="watch">Is shown what the card was, when, and what it decided, press by press; null for nobody.</param>
internal sealed class Wanderer(JobCard card, Random random, Action<JobCard, DateTimeOffset, Decision>? watch = null)
{
    private static readonly string[] Kinds = ["aside", "drop", "stop", "back", "early", "lift", "cut", "leak", "loose", "little", "much",
        "leave", "overfill", "short", "measure", "out", "fail", "kit", "order", "right", "jump", "weep", "dry", "light"];

    private DateTimeOffset _now = card.History[^1].At;

    internal JobCard Card { get; private set; } = card;

    /// <summary>The card that a seed leads to, worked to its end; the same seed gives the same card.</summary>
    internal static JobCard Through(int seed, Action<JobCard, DateTimeOffset, Decision>? watch = null)
    {
        var walk = Make(seed, watch);
        walk.Through();
        return walk.Card;
    }

    private static Wanderer Make(int seed, Action<JobCard, DateTimeOffset, Decision>? watch)
    {
        var random = new Random(seed);
        var sheets = Shipped.Sheets.Values.OrderBy(s => s.Id.Text, StringComparer.Ordinal).ToArray();
        var sheet = sheets[seed % sheets.Length];
        JobId[] jobs = [.. sheet.Jobs.Keys.OrderBy(_ => random.Next()).Take(1 + random.Next(3))];
        return new(On(sheet.Id.Text, jobs), random, watch);
    }

    private void Through()
    {
        for (var presses = 0; presses < 90 && Card.Ended is null && Card.Next is not null; presses++)
            if (random.Next(4) == 0)
                Stray();
            else
                GoOn();
        Finish();
    }

    private string Told =>
        $"{Card.Sheet.Id} [{string.Join(", ", Card.Opened.Jobs)}] after "
            + $"{string.Join("; ", Card.History.TakeLast(6).Select(h => h.Event.ToString()![..Math.Min(90, h.Event.ToString()!.Length)]))}";

    private bool Give(CardCommand command, Person? by = null)
    {
        var decided = Card.Decide(command, by ?? Iona, _now, UsualPress.Facts(Card.Sheet));
        watch?.Invoke(Card, _now, decided);
        if (decided is not Accepted accepted)
            return false;
        Card = Card.Taking(accepted, Guid.NewGuid(), by ?? Iona, _now).Card;
        // What is remembered from deciding is what is found by reading the card again.
        if (Card.History.Count % 7 == 0)
            Assert.Equal(JobCard.Replay(Card.Sheet, Card.History).Next?.Id, Card.Next?.Id);
        return true;
    }

    private void GoOn()
    {
        var step = Card.Next!;
        _now += step.Takes;
        foreach (var wait in Card.Waits.Where(w => w.Until > _now && (w.Id == step.Id || step.Awaits.Contains(w.Id))))
            _now = wait.Until;
        if (step.Cold && Card.InTheWay(step, _now).Count > 0)
            _now += Card.Sheet.CoolsIn;
        if (Give(UsualPress.Of(Card, step)))
            return;
        // What a refusal names must be there to be done: the lead decides, too much torque is settled, a level is answered, a lift is
        // moved by hand.
        foreach (var stop in Card.Stops.ToList())
            if (Give(new DecideStop(stop.Seq, random.Next(2) == 0, "Looked at and let go"), Una))
                return;
        foreach (var seq in Card.WantingCountersignature.ToList())
            if (Give(new Countersign(seq), Una))
                return;
        if (Card.IsOverTorqued(step.Id) && Give(new SettleOverTorque(step.Id, "New part, thread is good"), Una))
            return;
        if (Card.Decide(UsualPress.Of(Card, step), Iona, _now, UsualPress.Facts(Card.Sheet)) is Asked { Question: PourQuestion asked }
            && Give(new Pour(step.Id, asked.Amount, true)))
            return;
        if (Card.Decide(UsualPress.Of(Card, step), Iona, _now, UsualPress.Facts(Card.Sheet)) is Asked { Question: LevelQuestion read }
            && Give(read.Depth is { } depth ? new ReadRod(step.Id, depth, true) : new ReadGauge(step.Id, read.Level, true)))
            return;
        Assert.Fail($"Stuck at “{step.Title}”: "
            + $"{Describe(Card.Decide(UsualPress.Of(Card, step), Iona, _now, UsualPress.Facts(Card.Sheet)))} — {Told} — lift "
            + $"{(Card.LiftUp ? "up" : "down")}, left {string.Join(" ", Card.Remaining.Select(r => r.Id))}");
    }

    private void Stray()
    {
        var step = Card.Next!;
        var any = Card.Steps[random.Next(Card.Steps.Count)];
        switch (Kinds[random.Next(Kinds.Length)])
        {
            case "aside": Give(new PutAside(random.Next(3) == 0 ? any.Id : step.Id, "Part is on the boat")); break;
            case "drop" when random.Next(3) == 0
                && Card.Jobs.Count > 0: Give(new DropJob(Card.Jobs[random.Next(Card.Jobs.Count)], "Plug is seized")); break;
            case "stop": Give(new NoteFinding(any.Id, random.Next(2) == 0 ? FindingGrade.Stop : FindingGrade.KeepAnEye,
                "Slivers")); break;
            case "back" when Card.LastPressOf(Iona.Id) is { } last: Give(new TakeBack(last.Seq)); break;
            case "early": Give(new TakeEarly(any.Id)); break;
            case "lift": Give(new MoveLift(!Card.LiftUp, true)); break;
            case "cut" when Card.Waits.FirstOrDefault(w => w.Until > _now) is { } wait: Give(new CutWait(wait.Id,
                "It stopped dripping")); break;
            case "leak" when Card.JointsOpened.ToList() is { Count: > 0 } joints: Give(new ReportLeak(step.Id,
                joints[random.Next(joints.Count)].Id)); break;
            case "loose" when step.Kind == StepKind.Tighten: Give(new SayJointWasLoose(step.Id)); break;
            case "little" when step.Kind == StepKind.Tighten: Give(new TakeReading(step.Id, Nm(1.1m), true)); break;
            case "much" when step.Kind == StepKind.Tighten: Give(new TakeReading(step.Id, Nm(900), true)); break;
            case "leave": Give(new Deviate(step.Id, random.Next(2) == 0 ? DeviationKind.StepLeftOut : DeviationKind.NoReading,
                "No time today")); break;
            case "overfill" when step.Kind == StepKind.Pour: Give(new Pour(step.Id,
                Litres(Card.Sheet.Fluids[step.What].Amount.Value.In(Volume.Litre) * 1.3m), true)); break;
            case "overfill" when step.Kind == StepKind.Gauge: Give(new ReadGauge(step.Id, new(random.Next(-20, 40) / 20m))); break;
            case "short" when step.Kind is StepKind.Pour or StepKind.Gauge: Give(new Pour(step.Id, Litres(0.1m), true)); break;
            case "measure" when step.Kind == StepKind.Measure: Give(new Measure(step.Id,
                Litres(Card.Sheet.Fluids[step.What].Amount.Value.In(Volume.Litre) * random.Next(1, 30) / 15m), true)); break;
            case "out" when step.Kind == StepKind.Gauge: Give(new TakeOut(step.Id,
                Litres(Card.Fluid(step.What).Poured.In(Volume.Litre) * random.Next(1, 20) / 20m))); break;
            case "fail" when step.Kind == StepKind.Reset: Give(new FailReset(step.Id)); break;
            case "weep" when step.Kind == StepKind.Look && Card.JointsOpened.ToList() is { Count: > 0 } opened:
                Give(new ReportWeep(step.Id, opened[random.Next(opened.Count)].Id)); break;
            case "dry" when step.Kind == StepKind.Look && Card.JointsOpened.ToList() is { Count: > 0 } opened:
                Give(new ReportDry(step.Id, opened[random.Next(opened.Count)].Id)); break;
            case "light" when step.Kind == StepKind.Run: Give(new LightStaysOn(step.Id)); break;
            case "kit" when Card.Kit is not null && Card.Steps.FirstOrDefault(s =>
                s.Kind == StepKind.Kit) is { } kit: Give(UsualPress.Of(Card, kit)); break;
            case "order": Give(new OrderAgain()); break;
            case "right": PutRight(); break;
            case "jump" when Card.State(any.Id).Status == StepStatus.Waiting: Give(UsualPress.Of(Card, any)); break;
        }
    }

    private void PutRight()
    {
        if (Card.CanBePutRight.Where(h => h.Event is ReadingTaken).ToList() is { Count: > 0 } readings)
            Give(new CorrectReading(readings[random.Next(readings.Count)].Seq, Nm(random.Next(3) switch { 0 => 1.1m, 1 => 900, _ => 25 }),
                "Read the wrong line"));
    }

    private void Finish()
    {
        Work();
        // At hand-over the readings are seen together, and it is then that one is found wrong.
        PutRight();
        Work();
        foreach (var stop in Card.Stops.ToList())
            Give(new DecideStop(stop.Seq, true, "Mended"), Una);
        foreach (var seq in Card.WantingCountersignature.ToList())
            Give(new Countersign(seq), Una);
        Assert.True(Give(new Sign()), $"Not signable: {string.Join(" ", Card.BeforeSigning())} — {Told}");
    }

    private void Work()
    {
        for (var presses = 0; Card.Ended is null && Card.Next is not null; presses++)
        {
            Assert.True(presses < 600, $"It never ends: {Told}");
            GoOn();
        }
    }
}
