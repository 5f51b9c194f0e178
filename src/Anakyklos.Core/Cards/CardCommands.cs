using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Cards;

/// <summary>What a person wants to do to a card.</summary>
public abstract record CardCommand
{
    /// <summary>Whether it cannot be answered without what only the server knows: stores, weather, pictures.</summary>
    public virtual bool AsksServer => false;
}

/// <summary>What a person wants to do at a step; the kind of that step answers.</summary>
/// <param name="Step">Step id.</param>
public abstract record StepCommand(StepId Step) : CardCommand;

/// <summary>What was noted earlier is put right; the kind of the step at which it was noted answers.</summary>
/// <param name="Of">Its seq.</param>
public abstract record CorrectionCommand(int Of) : CardCommand;

/// <summary>The step is done.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Count">Fasteners out or in; null when all of them.</param>
/// <param name="Reason">Why fewer went in; empty otherwise.</param>
/// <param name="LookedAbove">Whether the engine bay was looked over for tools and rags, where that is asked.</param>
public sealed record ConfirmStep(StepId Step, int? Count = null, string Reason = "", bool LookedAbove = false) : StepCommand(Step);

/// <summary>Parts, pans and oil are laid out. It may be said again at any time: what is in the vehicle already stays as it was.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Parts">What lies there for each part id.</param>
/// <param name="Pans">What each drain pan holds; one that is emptied in between counts once more.</param>
/// <param name="Oils">What is in hand for each fluid, by fluid id.</param>
public sealed record ConfirmKit(StepId Step, IReadOnlyDictionary<PartId, KitPart> Parts, IReadOnlyList<Quantity<Volume>> Pans,
    IReadOnlyDictionary<FluidId, OilLaidOut> Oils) : StepCommand(Step)
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>Takes a step before its turn; the rest is put in order around it.</summary>
/// <param name="Step">Step id.</param>
public sealed record TakeEarly(StepId Step) : CardCommand;

/// <summary>Puts what is left in its best order from here.</summary>
public sealed record OrderAgain : CardCommand;

/// <summary>A wait is ended early.</summary>
/// <param name="Wait">Id of the wait.</param>
/// <param name="Reason">Why.</param>
public sealed record CutWait(StepId Wait, string Reason) : CardCommand;

/// <summary>Somebody felt with the back of a hand that the engine is cold as the vehicle came in.</summary>
public sealed record FeelCold : CardCommand;

/// <summary>A drain pan was emptied.</summary>
/// <param name="Pan">Which pan of the kit, from 0.</param>
public sealed record EmptyPan(int Pan) : CardCommand;

/// <summary>The step is left for later.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Reason">Why.</param>
public sealed record PutAside(StepId Step, string Reason) : CardCommand;

/// <summary>What this person pressed last was a mistake of the thumb.</summary>
/// <param name="Of">Seq of the event to take back.</param>
public sealed record TakeBack(int Of) : CardCommand;

/// <summary>Strays from the book at a step.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Kind">No reading, or step left out.</param>
/// <param name="Reason">Why.</param>
public sealed record Deviate(StepId Step, DeviationKind Kind, string Reason) : StepCommand(Step);

/// <summary>Puts a second name to a deviation.</summary>
/// <param name="Of">Its seq.</param>
public sealed record Countersign(int Of) : CardCommand;

/// <summary>Notes what was seen.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Grade">How bad.</param>
/// <param name="Text">What.</param>
/// <param name="Photo">The id of a picture that was brought in for this card; empty for none.</param>
public sealed record NoteFinding(StepId Step, FindingGrade Grade, string Text, string Photo = "") : CardCommand
{
    /// <inheritdoc/>
    public override bool AsksServer => Photo.Length > 0;
}

/// <summary>The lead decides about a finding that was graded stop: from now on the vehicle may be started, driven and signed for.</summary>
/// <param name="Of">Seq of the finding.</param>
/// <param name="Mended">What was found is put right; otherwise it goes on as it is, and stands on the vehicle's next card.</param>
/// <param name="Words">What was decided, in the lead's words.</param>
public sealed record DecideStop(int Of, bool Mended, string Words) : CardCommand;

/// <summary>A stop that came from an earlier card is mended; the lead says so.</summary>
/// <param name="Index">Its place in the card's list of carried stops, from 0.</param>
/// <param name="Words">What was done.</param>
public sealed record MendCarried(int Index, string Words) : CardCommand;

/// <summary>A job cannot be finished and is given up: what it opened is closed, the rest goes on.</summary>
/// <param name="Job">Job id.</param>
/// <param name="Reason">Why.</param>
public sealed record DropJob(JobId Job, string Reason) : CardCommand;

/// <summary>The card is to come to nothing: nothing was opened, and nothing will be done. Another person puts a name to it.</summary>
/// <param name="Reason">Why.</param>
public sealed record VoidCard(string Reason) : CardCommand;

/// <summary>Moves the lift outside the plan.</summary>
/// <param name="Up">Up or down.</param>
/// <param name="LookedOver">Lifting points, or the space underneath, were looked at just now.</param>
public sealed record MoveLift(bool Up, bool LookedOver) : CardCommand;

/// <summary>Says which value holds where sources disagree, for this card alone: the sheet's, as a deviation.</summary>
/// <param name="Step">The step that uses it.</param>
/// <param name="Value">The value, by its key.</param>
/// <param name="Reason">Why.</param>
public sealed record RuleValue(StepId Step, string Value, string Reason) : CardCommand;

/// <summary>Takes what the lead has ruled in the library since the card was opened.</summary>
/// <param name="Step">The step that uses it.</param>
/// <param name="Value">The value, by its key.</param>
public sealed record TakeRuling(StepId Step, string Value) : CardCommand
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>Signs the card.</summary>
public sealed record Sign : CardCommand;

/// <summary>Puts right what a signed card says.</summary>
/// <param name="Of">What, as <see cref="Amendable.Of"/> names it.</param>
/// <param name="Words">How it really was, and how that came out.</param>
public sealed record Amend(string Of, string Words) : CardCommand;

/// <summary>The card waits for something that is not in hand.</summary>
/// <param name="Number">Part number or oil product.</param>
/// <param name="Name">What it is.</param>
/// <param name="Boat">The day it should be here, or null.</param>
public sealed record AwaitPart(string Number, string Name, DateOnly? Boat) : CardCommand;

/// <summary>What the card waited for was booked in; the stores say so, too.</summary>
/// <param name="Number">Part number or oil product.</param>
public sealed record PartIsHere(string Number) : CardCommand;
