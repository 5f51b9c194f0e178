using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Cards;

public sealed partial class JobCard
{
    /// <summary>
    /// What a step says is to be done, in the words of the sheet; of a seal that goes back in it does not say that it is new.
    /// </summary>
    /// <returns>The title as it is told on this card, at the lift, in the plan and in the record alike.</returns>
    public string TitleOf(SheetStep step) => !GoesBack(step) ? step.Title
        : step.Title.Replace("new ", "old ", StringComparison.Ordinal).Replace("New ", "Old ", StringComparison.Ordinal);

    /// <summary>What a step says is to be done, also of one that a change of plan took away after it was done.</summary>
    /// <returns>The title as it is told on this card, or the id where it never had such a step.</returns>
    public string TitleOf(StepId step) => StepEver(step) is { } known ? TitleOf(known) : step.Text;

    /// <summary>The title of the step that a press ended, as it stands in the record.</summary>
    /// <returns>The told title; of what happened under earlier rules the sheet's, so that a signed card reads for ever as it was
    /// signed.</returns>
    public string TitleOf(StepDone done) => done.Frozen is { Rules: >= FrozenEffects.SinceTitlesAreTold } ? TitleOf(done.Step)
        : StepEver(done.Step)?.Title ?? done.Step.Text;

    /// <summary>A step of this card, also one that a change of plan took away after something happened at it.</summary>
    /// <param name="step">Step id.</param>
    /// <returns>Null where it never had such a step.</returns>
    public SheetStep? StepEver(StepId step) => Step(step) ?? Formerly(step);

    private SheetStep? Formerly(StepId step) => History.Select(h => h.Event).OfType<PlanChanged>().SelectMany(p => p.Steps)
        .Concat(Opened.Steps).FirstOrDefault(s => s.Id == step);

    /// <summary>Whether the old one goes back in place of a new one, as the kit was laid out.</summary>
    internal bool IsOldAgain(PartId seal) => Kit?.Parts.GetValueOrDefault(seal) == KitConfirmed.OldOneAgain;

    private bool GoesBack(SheetStep step) => (step.Traits switch
    {
        { Fits: true } => (PartId?)step.What,
        { Tightens: true } => Sheet.Fasteners[step.What].Seal,
        _ => null,
    }) is { } seal && IsOldAgain(seal);
}
