using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Pages;

/// <summary>What the lift shows of one step: the one value, what stands beside it, and what the big button says and does.</summary>
public sealed class LiftScene
{
    public sealed record Fact(string Label, string Text);

    /// <param name="Words">What the hands did.</param>
    /// <param name="Handler">Page handler.</param>
    /// <param name="Fields">Hidden fields that go with it.</param>
    public sealed record Press(string Words, string Handler, IReadOnlyDictionary<string, string> Fields);

    private LiftScene(JobCard card, SheetStep step) => (Card, Step) = (card, step);

    public JobCard Card { get; }
    public SheetStep Step { get; }
    public string Number { get; private set; } = "";
    public string Unit { get; private set; } = "";
    public IReadOnlyList<string> Beside { get; private set; } = [];
    public List<Fact> Facts { get; } = [];
    public IReadOnlyList<string> Cautions { get; private set; } = [];
    public IReadOnlyList<Refusal> InTheWay { get; private set; } = [];
    public RunningWait? WaitsFor { get; private set; }
    public Press? Main { get; private set; }
    public FillAdvice? Advice { get; private set; }
    public FluidSystem? Fluid { get; private set; }
    public DipstickFill? Fill { get; private set; }

    public bool IsDone => Card.State(Step.Id).Status is StepStatus.Done or StepStatus.LeftOut;
    public int Place => Card.Steps.ToList().IndexOf(Step) + 1;
    public bool HasFigure => Number.Length > 0 || WantsReading || IsKit || IsOverTorqued;
    public bool IsLongFigure => Number.Length > 6;
    public bool WantsAmount => Step.Kind == StepKind.Measure && !IsDone;
    public bool IsKit => Step.Kind == StepKind.Kit;
    public bool IsFilling => Step.Kind is StepKind.Pour or StepKind.Gauge;
    public bool WantsReading => Step.Kind == StepKind.Gauge && WaitsFor is null && InTheWay.Count == 0 && Advice is null && !IsDone;
    public bool TakesTorque => Step.Kind is StepKind.Tighten or StepKind.Retighten && Card.Sheet.Fasteners[Step.What].Tightening.Value is ToTorque;
    public bool LiftIsWrong => (Step.Lift == LiftNeed.Up && !Card.LiftUp || Step.Lift == LiftNeed.Down && Card.LiftUp) && Card.Steps.Any(s => s.Kind == StepKind.Raise && Card.State(s.Id).Status == StepStatus.Done);
    public bool LiftNeeded => Step.Lift == LiftNeed.Up && !Card.LiftUp || Step.Lift == LiftNeed.Down && Card.LiftUp;
    public bool IsOverTorqued => Card.IsOverTorqued(Step.Id);

    /// <summary>What to do, in the words of the sheet; of a seal that goes back in it does not say that it is new.</summary>
    public string Title => OldAgain ? Step.Title.Replace("new ", "old ", StringComparison.Ordinal) : Step.Title;

    /// <summary>The last reading of this step when it was too little; null when it passed or there was none.</summary>
    public Typed<Torque>? TooLittle => IsDone || Card.History.Select(h => h.Event).OfType<ReadingTaken>().LastOrDefault(r =>
        r.Step == Step.Id) is not { Outcome: TorqueOutcome.TooLittle } last ? null : last.Reading;

    private bool OldAgain => Step.Kind is StepKind.Fit or StepKind.Tighten && (Step.Kind == StepKind.Fit ? Step.What
        : Card.Sheet.Fasteners[Step.What].Seal) is { } seal
        && Card.Kit?.Parts.GetValueOrDefault(seal) == KitConfirmed.OldOneAgain;
    public OpenItem? Counted => Step.Kind == StepKind.Close ? Card.Open.FirstOrDefault(o => o.Id == Step.What && o.Count > 0) : null;
    public Access? Access => Step.Kind is StepKind.Open or StepKind.Close ? Card.Sheet.Access.GetValueOrDefault(Step.What) : null;

    /// <summary>The scene of a step.</summary>
    public static LiftScene Of(JobCard card, SheetStep step, Viewer viewer, DateTimeOffset now, IReadOnlyList<TorqueWrench> wrenches)
    {
        var scene = new LiftScene(card, step)
        {
            Cautions = [.. step.Cautions.Select(c => Caution.ByKey[c])],
            InTheWay = card.State(step.Id).Status is StepStatus.Waiting or StepStatus.Aside ? card.InTheWay(step, now) : [],
        };
        var waits = step.Awaits.Append(step.Id).Select(id => card.Waits.FirstOrDefault(w => w.Id == id && w.Until > now)).OfType<RunningWait>().ToList();
        if (waits.Count > 0 && scene.InTheWay.Count == waits.Count && !scene.IsDone)
            (scene.WaitsFor, scene.InTheWay) = (waits.MaxBy(w => w.Until), []);
        scene.ByKind(viewer, now, wrenches);
        scene.Facts.AddRange(step.Notes.Select(n => new Fact(n.Label, n.Text)));
        if (step.From is { } from)
            scene.Facts.Add(new("Source", from.ToString()));
        if (scene.WaitsFor is { } wait)
        {
            (scene.Number, scene.Unit, scene.Beside, scene.Main) = (LiftWords.Clock(wait.Until - now), "", [], null);
        }
        return scene;
    }

    private void ByKind(Viewer viewer, DateTimeOffset now, IReadOnlyList<TorqueWrench> wrenches)
    {
        (Number, Unit) = Step.Hold is { } hold ? DriveWords.Split(LiftWords.Hold(hold)) : Step.Value.Length > 0
            ? DriveWords.Split(Step.Value) : ("", "");
        var said = Step.Said.Length > 0 ? Step.Said : "Done";
        switch (Step.Kind)
        {
            case StepKind.Tighten or StepKind.Retighten:
                Tighten(Card.Sheet.Fasteners[Step.What], viewer, wrenches);
                return;
            case StepKind.Pour:
                Pour(viewer);
                return;
            case StepKind.Gauge:
                Gauge(viewer, now);
                return;
            case StepKind.Kit:
                return;
            case StepKind.Measure:
                Fluid = Card.Sheet.Fluids[Step.What];
                Facts.Add(new("The book says", Fluid.Amount.Value.Print(viewer.VolumeUnits[0]).ToString()));
                Main = new("", "Measure", new Dictionary<string, string>());
                return;
            case StepKind.Open or StepKind.Close when Access is { } access:
                Facts.Add(new("Tool", access.Tool));
                if (access.Count > 0)
                    (Number, Unit, said) = ($"{Counted?.Count ?? access.Count}", access.CountOf, $"All {Counted?.Count ?? access.Count} {access.CountOf} {(Step.Kind == StepKind.Open ? "out" : "in")}");
                break;
            case StepKind.Open or StepKind.Drain:
                (Number, Unit) = DriveWords.Figure(Card.Sheet.Fasteners[Step.What].Drive);
                if (Number.Length == 0)
                    Facts.Add(new("Tool", Card.Sheet.Fasteners[Step.What].Drive));
                break;
            case StepKind.Fit:
                var part = Card.Sheet.Parts[Step.What];
                Number = Card.Kit?.Parts.GetValueOrDefault(part.Id) ?? part.Number.Value;
                Facts.Add(new("Part", $"{part.Name}{(part.ReusableTimes is { } n ? n == 0 ? ", one use" : $", may be used again {(n == 1 ? "once" : $"{n} times")}" : "")}"));
                break;
            case StepKind.Reset:
                if (Step.Expect.Length > 0)
                    Facts.Add(new("Display", Step.Expect));
                Facts.Add(new("If it fails", Card.Sheet.Resets[Step.What].Again));
                said = Step.Expect.Length > 0 ? "The display says so" : "Done";
                break;
        }
        Main = new(said, "Done", new Dictionary<string, string>());
    }

    private void Tighten(Fastener fastener, Viewer viewer, IReadOnlyList<TorqueWrench> wrenches)
    {
        if (fastener.Count > 1)
            Facts.Add(new("How many", $"{fastener.Count}{(fastener.Order.Length > 0 ? $", {fastener.Order}" : "")}"));
        Facts.Add(new("Thread", $"{(fastener.Thread.Length > 0 ? fastener.Thread + " in " : "")}{fastener.Material}"));
        if (fastener.Seal is { } seal)
            Facts.Add(new("Seal", $"{Card.Sheet.Parts[seal].Name}, {Card.Kit?.Parts.GetValueOrDefault(seal) ?? Card.Sheet.Parts[seal].Number.Value}"));
        Facts.Add(new("Source", fastener.Tightening.From.ToString()));
        Disputed(fastener.Tightening);
        switch (fastener.Tightening.Value)
        {
            case ToTorque to:
                var unit = viewer.TorqueUnits[0];
                var wrench = TorqueWrench.For(wrenches, to);
                (Number, Unit) = Printed(to.Target.Print(unit));
                Beside = [.. viewer.TorqueUnits.Skip(1).Select(u => to.Target.Print(u).ToString()), $"{to.Low.Print(unit).Number} to {to.High.Print(unit).Number} passes"];
                Facts.Insert(0, new("Tool",
                    $"{DriveWords.Tool(fastener.Drive)}, {(wrench is null ? "and no wrench here in calibration reaches it" : $"wrench {wrench.Name} set to {wrench.Setting(to).Print(wrench.Scale)}")}"));
                Main = new($"Clicked at {Number}", "Reading", new Dictionary<string, string> { ["torque"] = to.Target.Print(unit).ToString() });
                break;
            case TurnAfterContact turn:
                (Number, Unit) = (Turns(turn.Turns), turn.Turns > 1 ? "turns after contact" : "turn after contact");
                Beside = [$"{turn.Turns * 360:0}° from where the ring touches"];
                Main = new($"Turned {Turns(turn.Turns)} after contact", "Done", new Dictionary<string, string>());
                break;
            case ByHand hand:
                Facts.Insert(0, new("By hand", hand.How));
                Main = new("Tight by hand", "Done", new Dictionary<string, string>());
                break;
        }
    }

    private void Pour(Viewer viewer)
    {
        Fluid = Card.Sheet.Fluids[Step.What];
        Fill = Card.FillsByMarks(Step.What) ? Card.FillOf(Step.What) : null;
        var state = Card.Fluid(Step.What);
        Offer(Card.Wanted(Step.What) - state.Poured, viewer, Fluid.FillBy switch
        {
            FillBy.Overflow => "is the book; stop when it runs out of the hole",
            FillBy.MeasuredReturn => "came out, so as much goes back",
            FillBy.Book => "exactly, from a measuring cup",
            _ => Fluid.Pumped ? "brings it to the bottom mark once the filter is full" : "brings it to the lower mark",
        });
        var additives = Fluid.Additives.Count > 0 ? $", with the additive {string.Join(" and ", Fluid.Additives)}" : "";
        Facts.Add(new("Oil",
            $"{string.Join(" or ", Fluid.Grades.Value)}{(Fluid.Approvals.Value.Count > 0 ? $", {string.Join(" or ", Fluid.Approvals.Value)}" : "")}{additives}"));
        Disputed(Fluid.Amount);
    }

    private void Gauge(Viewer viewer, DateTimeOffset now)
    {
        (Fluid, Fill) = (Card.Sheet.Fluids[Step.What], Card.FillOf(Step.What));
        var state = Card.Fluid(Step.What);
        var read = state is { Level: { } level, Pours: > 0 } && state.SinceReading == Quantity<Volume>.Zero ? Fill.After(level) : (FillAdvice?)null;
        if (read is { Verdict: FillVerdict.Pour or FillVerdict.TakeOut } advice && !IsDone)
        {
            Advice = advice;
            InTheWay = [];
            var where = advice.Reaches.Fraction >= Fill.Target.Fraction - 0.1m ? $"brings it {LiftWords.School(Fill.School)}" : $"brings it {(advice.Reaches.ToString() is var w && w.StartsWith("at") ? w : "to " + w)}";
            Offer(advice.Amount, viewer, advice.Verdict == FillVerdict.Pour ? where : "it stands above the top mark");
            return;
        }
        Facts.Add(new("Read", Fluid.Reading!.Value));
        Disputed(Fluid.Amount);
        Facts.Add(new("Aim", $"{LiftWords.School(Fill.School)}, {Fill.Between.Print(viewer.VolumeUnits[0])} lie between the marks"));
        Main = new("The oil stands here", "Gauge", new Dictionary<string, string>());
    }

    private void Offer(Quantity<Volume> amount, Viewer viewer, string why)
    {
        var unit = viewer.VolumeUnits[0];
        // What is said is never more than what is wanted: rounded up it would pass the mark.
        var printed = amount.PrintDown(unit);
        (Number, Unit) = Printed(printed);
        Beside = [.. viewer.VolumeUnits.Skip(1).Take(1).Select(u => amount.PrintDown(u).ToString()), why];
        var takeOut = Advice?.Verdict == FillVerdict.TakeOut;
        Main = new(takeOut ? $"Took {Number} {Unit} out" : "Poured to the line", takeOut ? "TakeOut" : "Pour",
            new Dictionary<string, string> { ["amount"] = printed.ToString() });
    }

    private void Disputed<T>(Sourced<T> value)
    {
        foreach (var other in value.Disputed)
            Facts.Add(new("Disputed", $"{other.Says} in {other.From.Source.Title}, {other.From.At}"));
    }

    private static string Turns(decimal turns) => turns switch { 0.25m => "1/4", 0.5m => "1/2", 0.75m => "3/4", 1.25m => "1 1/4", 1.5m =>
        "1 1/2", _ => $"{turns:0.##}" };

        private static (string, string) Printed(Printed printed) => (printed.Number, printed.Unit);
}
