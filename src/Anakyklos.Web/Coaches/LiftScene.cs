using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches;

/// <summary>What the lift shows of one step: the one value, what stands beside it, and what the big button says and does.</summary>
public sealed class LiftScene
{
    public sealed record Fact(string Label, string Text);

    /// <param name="Words">What the hands did.</param>
    /// <param name="Command">The command that it gives.</param>
    /// <param name="Fields">Hidden fields that go with it.</param>
    public sealed record Press(string Words, string Command, params (string Name, string Value)[] Fields);

    /// <summary>A button beside the big one.</summary>
    /// <param name="Words">What the hands did.</param>
    /// <param name="Command">The command that it gives.</param>
    /// <param name="Key">The key that presses it.</param>
    /// <param name="Asks">Whether its fields are typed first.</param>
    /// <param name="Fields">Hidden fields that go with it.</param>
    public sealed record Other(string Words, string Command, string Key, bool Asks = false,
        IReadOnlyList<(string Name, string Value)>? Fields = null)
    {
        /// <summary>What it does when it is pressed.</summary>
        public Press Press => new(Words, Command, [.. Fields ?? []]);
    }

    /// <summary>A panel in place of a press.</summary>
    /// <param name="Words">What is done there.</param>
    /// <param name="Panel">Which.</param>
    public sealed record Way(string Words, string Panel);

    /// <param name="Left">In place of ring and open items; empty for those.</param>
    /// <param name="Middle">In place of the one value; empty for that.</param>
    /// <param name="Right">In place of map or place; empty for those.</param>
    /// <param name="Under">Below the one value and what stands beside it; empty for nothing.</param>
    /// <param name="Facts">How many short lines have room below what stands in the middle.</param>
    public sealed record WorkPictures(string Left = "", string Middle = "", string Right = "", string Under = "", int Facts = 1);

    private LiftScene(JobCard card, SheetStep step) => (Card, Step) = (card, step);

    public JobCard Card { get; }
    public SheetStep Step { get; }
    public string Number { get; internal set; } = "";
    public string Unit { get; internal set; } = "";
    public IReadOnlyList<string> Beside { get; internal set; } = [];
    public List<Fact> Facts { get; } = [];
    public IReadOnlyList<string> Cautions { get; private set; } = [];
    public IReadOnlyList<Refusal> InTheWay { get; internal set; } = [];
    public RunningWait? WaitsFor { get; private set; }
    public Press? Main { get; internal set; }
    public FillAdvice? Advice { get; internal set; }

    /// <summary>What else the hands may have done: a press, or, when it must be typed, the name of a command to ask for.</summary>
    public List<Other> Others { get; } = [];

    /// <summary>What the hands may say while the wait of this step runs.</summary>
    public List<Other> Meanwhile { get; } = [];

    /// <summary>What is held can be let go of by one of those presses: ending its clock with a reason would bring nobody on.</summary>
    public bool LetsGo { get; internal set; }

    /// <summary>Drawings of this work, as partials of its own folder.</summary>
    public WorkPictures Pictures { get; internal set; } = new();

    /// <summary>How the label stands that was sent to a printer last; null where there is no printer.</summary>
    public string? Printer { get; internal set; }

    /// <summary>What goes in now, to the digit that is said; zero when nothing is poured.</summary>
    public Quantity<Volume> Pours { get; internal set; }

    /// <summary>The fluid that is poured; empty when nothing is.</summary>
    public FluidId PourOf { get; internal set; }

    /// <summary>Out of which containers it is poured; null when nothing is, or the stores have none of it.</summary>
    public PourPlan? Plan { get; internal set; }
    public FluidSystem? Fluid { get; internal set; }
    public DipstickFill? Fill { get; internal set; }

    public bool IsDone => Card.State(Step.Id).Status is StepStatus.Done or StepStatus.LeftOut;
    public int Place => Card.Steps.ToList().IndexOf(Step) + 1;
    public bool HasFigure => Number.Length > 0 || Pictures.Middle.Length > 0 || WantsReading || IsKit || IsOverTorqued;
    public bool IsLongFigure => Number.Length > 6;
    public bool WantsAmount => Disputes is null && Step.Traits.MeasuresOut && !IsDone;
    public bool IsKit => Step.Traits.LaysOut && Disputes is null;
    public bool IsFilling => Disputes is null && Step.Traits is { Fills: true } or { Levels: true };
    public bool WantsReading =>
        Disputes is null && Step.Traits.Levels && WaitsFor is null && InTheWay.Count == 0 && Advice is null && !IsDone;

    /// <summary>The field that a level is read into.</summary>
    public string ReadInto => Fluid?.Rod is null ? "level" : "depth";

    /// <summary>The torque that a wrench is set to now; of a step that is done, the last one. Null where none is.</summary>
    public ToTorque? Torque { get; internal set; }

    /// <summary>What is across the head of the wrench, or null.</summary>
    public CrowFoot? CrowFoot { get; internal set; }

    /// <summary>The wrench in the hand; empty where none can be set.</summary>
    public string WrenchName { get; internal set; } = "";

    /// <summary>The wrenches in calibration.</summary>
    public IReadOnlyList<TorqueWrench> Wrenches { get; private init; } = [];

    /// <summary>The form in the middle that the big button sends, and what it says; null where it gives a command of its own.</summary>
    public (string Id, string Words)? Sends { get; internal set; }

    /// <summary>The point of a list that is inspected now; null for every other step.</summary>
    public InspectPoint? Point { get; internal set; }

    /// <summary>What was typed into a field of a form in the middle that was refused, or empty.</summary>
    public Func<string, string> Typed { get; internal set; } = _ => "";

    /// <summary>The joint whose looks are to be said by itself; null for none.</summary>
    public FastenerId? Joint { get; internal set; }

    /// <summary>The panel to go to where there is nothing to press; null where there is.</summary>
    public Way? Asks { get; internal set; }

    public bool TakesTorque => Torque is not null;
    public bool LiftIsWrong => (Step.Lift == LiftNeed.Up && !Card.LiftUp || Step.Lift == LiftNeed.Down && Card.LiftUp)
        && Card.Steps.Any(s => s.Traits.Lift == LiftMove.Raises && Card.State(s.Id).Status == StepStatus.Done);
    public bool LiftNeeded => Step.Lift == LiftNeed.Up && !Card.LiftUp || Step.Lift == LiftNeed.Down && Card.LiftUp;
    public bool IsOverTorqued => Card.IsOverTorqued(Step.Id) && Card.BeforeSettling(Step).Count == 0;

    /// <inheritdoc cref="JobCard.TitleOf(SheetStep)"/>
    public string Title => Card.TitleOf(Step);

    /// <summary>The last reading of this step when it was too little; null when it passed or there was none.</summary>
    public Typed<Torque>? TooLittle =>
        !IsDone && Card.TorqueAt(Step) is (var reading, TorqueOutcome.TooLittle) ? reading : null;

    public OpenItem? Counted => Step.Traits.Closes ? Card.Open.FirstOrDefault(o => o.Id == Step.What && o.Count > 0) : null;
    public Access? Access => Step.Traits is { Opens: true, LetsOut: false } or { Closes: true }
        ? Card.Sheet.Access.GetValueOrDefault(Step.What) : null;

    /// <summary>The press that empties the pan which stands in the way; null when none does, or something else stands there too.</summary>
    public Press? Empties => InTheWay.Count == 1 && Card.PanToEmpty(Step) is { } pan
        ? new($"{char.ToUpperInvariant(Card.PanName(pan)[0])}{Card.PanName(pan)[1..]} is empty now", "emptyPan", ("pan", $"{pan}")) : null;

    /// <summary>The scene of a step.</summary>
    public static LiftScene Of(JobCard card, SheetStep step, DateTimeOffset now, Looker to)
    {
        var scene = new LiftScene(card, step)
        {
            Wrenches = to.Wrenches,
            Cautions = [.. step.Cautions.Select(c => Caution.ByKey[c])],
            Unread = [.. card.UncheckedAt(step)],
            InTheWay = card.State(step.Id).Status is StepStatus.Waiting or StepStatus.Aside ? card.InTheWay(step, now) : [],
        };
        var waits = step.Awaits.Append(step.Id).Select(id =>
            card.Waits.FirstOrDefault(w => w.Id == id && w.Until > now)).OfType<RunningWait>().ToList();
        if (waits.Count > 0 && scene.InTheWay.Count == waits.Count && !scene.IsDone)
            (scene.WaitsFor, scene.InTheWay) = (waits.MaxBy(w => w.Until), []);
        (scene.Number, scene.Unit) = step.Value.Length > 0 ? DriveWords.Split(step.Value) : ("", "");
        if (scene is { InTheWay.Count: 0, WaitsFor: null } && card.UnruledAt(step).FirstOrDefault() is { } disputed)
            return scene.AskedToRule(disputed, to.Rulings?.FirstOrDefault(disputed.IsRuledBy));
        WorkScene.Of(step.Kind).Draw(scene, to);
        Inspecting.InspectScene.TellWhySlackened(scene);
        BalanceWords.Tell(scene, to.Viewer, DateOnly.FromDateTime(now.DateTime));
        BalanceWords.OfferToReadBeforeRun(scene);
        BalanceWords.OfferToRinse(scene, now);
        BalanceWords.OfferToMeasure(scene, now);
        scene.Facts.AddRange(step.Notes.Select(n => new Fact(n.Label, n.Text)));
        if (step.From is { } from && !scene.Facts.Contains(new("Source", from.ToString())))
            scene.Facts.Add(new("Source", from.ToString()));
        if (scene.WaitsFor is { } wait)
        {
            (scene.Number, scene.Unit, scene.Beside, scene.Main) = (LiftWords.Clock(wait.Until - now), "", [], null);
        }
        return scene;
    }

    /// <summary>The values of the step that fewer than two people have read in their source.</summary>
    public IReadOnlyList<UncheckedValue> Unread { get; private init; } = [];

    /// <summary>The disputed value on which somebody rules before the step is done; null for none.</summary>
    public DisputedValue? Disputes { get; private set; }

    /// <summary>What the lead has ruled on it since the card was opened; null for nothing.</summary>
    public Ruling? Ruled { get; private set; }

    private LiftScene AskedToRule(DisputedValue disputed, Ruling? ruled)
    {
        (Disputes, Ruled, Number, Unit) = (disputed, ruled, "", "");
        Pictures = new(Middle: "~/Coaches/_Dispute.cshtml");
        if (ruled is not null)
            Main = new($"{ruled.By} ruled: {disputed.Holds}", "ruled", ("value", disputed.Key));
        else
            Sends = ("rule", $"{disputed.Holds} on this card");
        return this;
    }

    /// <summary>Offers the big button.</summary>
    /// <param name="said">What the hands did.</param>
    /// <param name="command">The command that it gives.</param>
    internal void Offer(string said, string command = "done") => Main = new(said, command);

    /// <summary>Other values for the same thing, where sources differ.</summary>
    internal void Disputed<T>(Sourced<T> value)
    {
        foreach (var other in value.Disputed)
            Facts.Add(new("Disputed", $"{other.Says} in {other.From.Source.Title}, {other.From.At}"));
    }
}
