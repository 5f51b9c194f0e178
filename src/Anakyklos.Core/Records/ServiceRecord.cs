using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Records;

/// <summary>How something on the record stands.</summary>
public enum RecordState
{
    /// <summary>It is still to be done.</summary>
    NotYet,

    /// <summary>It is done.</summary>
    Done,

    /// <summary>It was left out for good; why stands among what strayed from the book.</summary>
    LeftOut,
}

/// <summary>A fastener that was tightened, or checked where it sat.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Reading">The reading that holds; null when there is none, as where it is tightened by hand.</param>
/// <param name="Outcome">How that reading compares; null without one.</param>
/// <param name="Book">What the book asks; null where it asks for no torque.</param>
/// <param name="State">How its step stands.</param>
/// <param name="IsCheck">It was checked, not undone.</param>
public sealed record TightenedLine(string Name, Typed<Torque>? Reading, TorqueOutcome? Outcome, ToTorque? Book, RecordState State,
    bool IsCheck);

/// <summary>A fluid that went in.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Product">What was printed on the can; empty while nothing lies there.</param>
/// <param name="In">How much went in.</param>
/// <param name="Book">How much the book gives.</param>
/// <param name="CameOut">What was measured coming out; null when it was not.</param>
/// <param name="Level">The last level read; null when none was.</param>
/// <param name="School">Where between the marks this workshop fills to; null where no marks are read.</param>
public sealed record FilledLine(string Name, string Product, Quantity<Volume> In, Quantity<Volume> Book, Quantity<Volume>? CameOut,
    Level? Level, TargetSchool? School);

/// <summary>A part that was laid out for the card.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Number">The number of what lies there; empty while nothing does.</param>
/// <param name="OldAgain">The old one goes back.</param>
/// <param name="State">Whether it is in its place; what is used up and not fitted counts with the kit.</param>
public sealed record FittedLine(string Name, string Number, bool OldAgain, RecordState State);

/// <summary>Something that strayed from the book.</summary>
/// <param name="What">What.</param>
/// <param name="Reason">Why.</param>
/// <param name="By">Who did it.</param>
/// <param name="SecondName">Who put a second name to it; null when nobody did.</param>
/// <param name="NeedsSecondName">Whether one is needed.</param>
public sealed record StrayedLine(string What, string Reason, string By, string? SecondName, bool NeedsSecondName);

/// <summary>Something that was seen.</summary>
/// <param name="Grade">How bad.</param>
/// <param name="Text">What.</param>
/// <param name="By">Who saw it.</param>
/// <param name="Decided">What the lead decided about it; null when nothing was to be decided, or is not yet.</param>
public sealed record SeenLine(FindingGrade Grade, string Text, string By, StopDecision? Decided);

/// <summary>What the lead decided about a stop.</summary>
/// <param name="By">Who.</param>
/// <param name="Mended">Put right; otherwise it goes on as it is.</param>
/// <param name="Words">In the lead's words.</param>
public sealed record StopDecision(string By, bool Mended, string Words);

/// <summary>The card as others read it: page, print and JSON show this and work nothing out themselves.</summary>
/// <param name="Tightened">In the order of the card.</param>
/// <param name="Filled">In the order of the card.</param>
/// <param name="Fitted">In the order of the card.</param>
/// <param name="Strayed">In the order it happened.</param>
/// <param name="Seen">In the order it happened.</param>
/// <param name="Due">When each job falls due next; empty until the card is signed.</param>
public sealed record ServiceRecord(IReadOnlyList<TightenedLine> Tightened, IReadOnlyList<FilledLine> Filled,
    IReadOnlyList<FittedLine> Fitted, IReadOnlyList<StrayedLine> Strayed, IReadOnlyList<SeenLine> Seen, IReadOnlyList<JobDue> Due)
{
    /// <summary>The record of a card as it stands.</summary>
    public static ServiceRecord Of(JobCard card) => new(
        [.. card.Steps.Where(s => s.Traits.Fastens || s.Traits.Checks).Select(s => Line(card, s))],
        [.. card.FluidsWanted.Select(f => Line(card, f))],
        [.. card.PartsWanted.Select(p => Line(card, p))],
        [.. card.Deviations.Select(d => new StrayedLine(d.Event.What, d.Event.Reason, d.Recorded.By.Name, SecondName(card, d.Seq),
            d.Event.NeedsCountersignature))],
        [.. card.Findings.Select(f => new SeenLine(f.Event.Grade, f.Event.Text, f.Recorded.By.Name, card.DecisionOn(f.Seq) is { } decided
            ? new(decided.Recorded.By.Name, decided.Event.Mended, decided.Event.Words) : null))],
        card.Signature?.Event is Signed signed ? signed.Due : []);

    private static TightenedLine Line(JobCard card, SheetStep step)
    {
        var fastener = card.Sheet.Fasteners[step.What];
        var state = StateOf(card, step);
        var read = state == RecordState.Done ? card.TorqueAt(step) : null;
        return new(fastener.Name, read?.Reading, read?.Outcome, fastener.Tightening.Value as ToTorque, state, step.Traits.Checks);
    }

    private static FilledLine Line(JobCard card, FluidSystem fluid)
    {
        var state = card.Fluid(fluid.Id);
        return new(fluid.Name, card.OilInHand(fluid.Id)?.Product ?? "", state.Poured, fluid.Amount.Value, state.CameOut, state.Level,
            card.FillsByMarks(fluid.Id) ? card.FillOf(fluid.Id).School : null);
    }

    private static FittedLine Line(JobCard card, Part part)
    {
        var number = card.Kit?.Parts.GetValueOrDefault(part.Id) ?? "";
        var isIn = card.IsFitted(part.Id) || (number.Length > 0 && !IsFittedByAStep(card, part.Id));
        var old = number == KitConfirmed.OldOneAgain;
        return new(part.Name, old ? "" : number, old, isIn ? RecordState.Done : RecordState.NotYet);
    }

    private static bool IsFittedByAStep(JobCard card, string part) => card.Steps.Any(s => (s.Traits.Fits && s.What == part)
        || (s.Traits.Tightens && card.Sheet.Fasteners[s.What] is var f && (f.Seal == part || f.Holds.Contains(part))));

    private static string? SecondName(JobCard card, int seq) =>
        card.History.FirstOrDefault(h => h.Event is Countersigned c && c.Of == seq)?.By.Name;

    private static RecordState StateOf(JobCard card, SheetStep step) => card.State(step.Id).Status switch
    {
        StepStatus.Done => RecordState.Done,
        StepStatus.LeftOut => RecordState.LeftOut,
        _ => RecordState.NotYet,
    };
}
