using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Fitting;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Coaches.Looking;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation.Tests;

/// <summary>
/// Walks on which now and then something else is pressed than what is next: whatever the card accepts, the vehicle comes to no harm, and
/// what the card believes is what is. The number of a walk is its seed.
/// </summary>
public sealed class AgainstTheGrainTests
{
    private static readonly string[] Strays = ["aside", "drop", "stop", "back", "early", "lift", "cut", "leak", "loose", "little", "much",
        "leave", "swap", "wrong", "cold", "short", "out", "order", "right", "jump", "empty", "amiss", "hurry", "hurry", "hurry", "hurry"];

    private static readonly Func<SheetStep, bool>[] Tempting = [s => s.RunsEngine, s => s.IsDriven, s => s.Traits.Lift == LiftMove.Raises,
        s => s.Traits.Lift == LiftMove.Lowers, s => s.Traits.Lift == LiftMove.ReadyToLower, s => s.Traits.Fills, s => s.Traits.Opens,
        s => s.Traits.LetsOut, s => s.Traits.Tightens, s => s.Cold, s => s.Traits.LooksAtJoints];

    public static TheoryData<int> Seeds => [.. WalkSeeds.All];

    [Theory]
    [MemberData(nameof(Seeds))]
    public void Whatever_is_accepted_does_no_harm(int seed)
    {
        var random = new Random(seed);
        var sheets = BothWalk.Sheets.Values.OrderBy(s => s.Id.Text, StringComparer.Ordinal).ToArray();
        var sheet = sheets[seed % sheets.Length];
        var walk = new BothWalk(sheet, [.. sheet.Jobs.Keys.OrderBy(j => j.Text, StringComparer.Ordinal).OrderBy(_ => random.Next())
            .Take(1 + random.Next(3))], hot: random.Next(2) == 0,
            schools: seed / sheets.Length % 3 == 1 ? new(DrainSchool.PlugFirst, 20) : null)
        {
            HasEyes = true,
            BringsOnePan = random.Next(2) == 0,
        };
        for (var faults = random.Next(3); faults > 0; faults--)
            if (walk.Ailing(random) is var fault && walk.Vehicle.Faults.All(f => f.GetType() != fault.GetType()))
                walk.Happens(fault);
        for (var presses = 0; presses < 90 && walk.Card.Next is not null; presses++)
            if (walk.Card.Steps.FirstOrDefault(s => walk.Card.IsOverTorqued(s.Id)) is { } far && random.Next(3) == 0)
                walk.Try(new SettleOverTorque(far.Id, "Thread is good"), BothWalk.Una);
            else if (walk.Card.Next is { Kind: StepKind.Bleed } wheel && random.Next(6) == 0)
                walk.Try(new MakeStrokes(wheel.Id, 1 + random.Next(15)));
            else if (walk.Card.Next is { Kind: "pedal" } pedal && random.Next(3) == 0)
                walk.Try(random.Next(2) == 0 ? new PressPedal(pedal.Id) : new FeelPedal(pedal.Id, (Pedal)random.Next(4)));
            else if (random.Next(4) == 0)
                Stray(walk, random);
            else
                walk.GoOn();
        walk.ByTheBook();
        var wrong = ByTheBookTests.Wrong(walk).ToList();
        Assert.True(wrong.Count == 0, $"{string.Join("; ", wrong)}. {walk.Told}");
    }

    internal static void Stray(BothWalk walk, Random random)
    {
        var (card, step) = (walk.Card, walk.Card.Next!);
        var any = card.Steps[random.Next(card.Steps.Count)];
        var torque = card.Sheet.Fasteners.GetValueOrDefault(step.What) is not null && step.Kind == StepKind.Tighten;
        Typed<Torque> Nm(decimal nm) => new(Quantity<Torque>.Of(nm, Torque.NewtonMetre), Torque.NewtonMetre);
        Typed<Volume> Litres(decimal l) => new(Quantity<Volume>.Of(l, Volume.Litre), Volume.Litre);
        _ = Strays[random.Next(Strays.Length)] switch
        {
            "aside" => walk.Try(new PutAside(random.Next(3) == 0 ? any.Id : step.Id, "Part is on the boat")),
            "drop" when random.Next(3) == 0 && card.Jobs.Count > 0 => walk.Try(new DropJob(card.Jobs[random.Next(card.Jobs.Count)],
                "Plug is seized")),
            "stop" => walk.Try(new NoteFinding(any.Id, random.Next(2) == 0 ? FindingGrade.Stop : FindingGrade.KeepAnEye, "Slivers")),
            "back" when card.LastPressOf(walk.By.Id) is { } last => walk.Try(new TakeBack(last.Seq)),
            "wrong" => walk.GoesWrong(random),
            "swap" => walk.Swap(),
            "cold" when !walk.Vehicle.IsHot => walk.Try(new FeelCold()),
            "early" => walk.Try(new TakeEarly(any.Id)),
            "lift" => walk.Try(new MoveLift(!card.LiftUp, true)),
            // Only what has really run out is said to have.
            "cut" when walk.NothingRuns && card.Waits.FirstOrDefault(w => w.Until > walk.Now) is { } wait =>
                walk.Try(new CutWait(wait.Id, "It dripped out")),
            "leak" when card.JointsOpened.ToList() is { Count: > 0 } joints => walk.Try(new ReportLeak(step.Id,
                joints[random.Next(joints.Count)].Id)),
            "loose" when torque => walk.Try(new SayJointWasLoose(step.Id)),
            "little" when torque => walk.Try(new TakeReading(step.Id, Nm(1.1m), true)),
            "much" when torque => walk.Try(new TakeReading(step.Id, Nm(900), true)),
            "leave" => walk.Looks(step) && walk.Try(new Deviate(step.Id,
                random.Next(2) == 0 ? DeviationKind.StepLeftOut : DeviationKind.NoReading, "No time today")),
            "short" when step.Kind == StepKind.Gauge
                || (step.Kind == StepKind.Pour && card.Sheet.Fluids[step.What].FillBy != FillBy.Overflow) =>
                walk.Looks(step) && walk.Try(new Pour(step.Id, Litres(0.1m), true)),
            "out" when step.Kind == StepKind.Gauge => walk.Try(new TakeOut(step.Id, Litres(0.2m))),
            "amiss" => Amiss(walk, step, random),
            "empty" when card.Pans.Count > 0 => walk.Try(new EmptyPan(random.Next(card.Pans.Count))),
            "order" => walk.Try(new OrderAgain()),
            "right" when card.CanBePutRight.Where(h => h.Event is ReadingTaken).ToList() is { Count: > 0 } readings =>
                walk.Try(new CorrectReading(readings[random.Next(readings.Count)].Seq, Nm(random.Next(2) == 0 ? 1.1m : 25),
                    "Read the wrong line")),
            "jump" when card.State(any.Id).Status == StepStatus.Waiting => walk.Press(any),
            // What does the most harm too early is tried too early.
            "hurry" when card.Remaining.Where(s => card.State(s.Id).Status == StepStatus.Waiting)
                .Where(Tempting[random.Next(Tempting.Length)]).ToList() is { Count: > 0 } soon =>
                walk.Press(soon[random.Next(Math.Min(2, soon.Count))]),
            _ => false,
        };
    }

    // The wrong way round, found otherwise than usual, or cranked without firing, and that only once or the battery is flat.
    private static bool Amiss(BothWalk walk, SheetStep step, Random random) => step switch
    {
        { Kind: StepKind.Fit } => walk.Try(new FitPart(step.Id,
            walk.Card.Sheet.Parts.GetValueOrDefault(step.What)?.Asks?.Answers.FirstOrDefault(a => a.Leads == AnswerLeads.Mend)?.Says
                ?? "so")),
        { Spec: InspectSpec spec } when spec.Points[random.Next(spec.Points.Count)] is { Answers: { Count: > 0 } answers } point =>
            walk.Try(new AnswerPoint(step.Id, point.Id, answers[random.Next(answers.Count)].Says)),
        { Kind: StepKind.Run } when walk.Card.History.All(h => h.Event is not EngineCranked) => walk.Try(new CrankEngine(step.Id)),
        _ => false,
    };
}
