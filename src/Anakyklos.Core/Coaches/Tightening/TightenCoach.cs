using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Tightening;

/// <summary>A fastener that was out is tightened. One that leaked was loose, or wants a new seal, before it is.</summary>
internal sealed class TightenCoach : TorqueCoach
{
    public override string Kind => "tighten";

    public override StepTraits Traits(SheetStep step) => new() { Tightens = true };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var fastener = Of(card.Sheet, step);
        if (!card.HasOpen(fastener))
            yield return new($"The {Words.Low(fastener.Name)} {fastener.Is} not open.", "Go on with the next step.",
                Ground: Ground.Already);
        foreach (var part in fastener.Fitted.Where(p => !card.IsFitted(p)))
            yield return new($"The {Words.Low(card.Sheet.Parts[part].Name)} has not been fitted.", "Fit it first.",
                card.First(s => s.Traits.Fits && s.What == part), Ground: Ground.Kit);
        foreach (var r in card.NeedsOpen(fastener.Needs))
            yield return r;
        foreach (var r in StandsStill(card, step))
            yield return r;
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        SayJointWasLoose => at.NotNow() ?? WasLoose(at),
        RenewSeal renew => at.NotNow() ?? Renew(at, renew.Number.Trim()),
        ConfirmStep or DrawInOrder or TakeReading => at.NotNow() ?? Unsealed(at) ?? base.Decide(at, said),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        JointWasLoose => [new SealStays(step.What)],
        SealRenewed renewed => [new SealIsNew(step.What, Of(card.Sheet, step).SealsWith!.Value, renewed.Number), .. LetDown(card, step)],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => WantsSeal(card, step)
        ? new RenewSeal(step.Id, card.Sheet.Parts[Of(card.Sheet, step).SealsWith!.Value].Number.Value) : base.ByTheBook(card, step);

    protected override IEnumerable<Effect> Tight(SheetStep step) => [new Closes(new(OpenKind.Fastener, step.What))];

    protected override IEnumerable<Effect> Loose(JobCard card, SheetStep step, string why) => card.CountsAsOpen(step, why);

    private static bool WantsSeal(JobCard card, SheetStep step) =>
        card.SealAt(step.What) is SealAfterLeak.Leaked or SealAfterLeak.LeakedAgain;

    // The same oil goes back; how much of it, the level says.
    private static IEnumerable<Effect> LetDown(JobCard card, SheetStep step) => Of(card.Sheet, step) switch
    {
        { Drains: { } fluid } => card.LevelIsReadAgain(fluid),
        { HoldsBack: true, System: { } fluid } => card.LevelIsReadAgain(fluid),
        // The new one is empty, and drinks.
        { IsSpinOn: true, System: { } fluid } => card.LevelIsReadAgain(fluid),
        _ => [],
    };

    private static Refused? Unsealed(StepAt at) => !WantsSeal(at.Card, at.Step) ? null
        : No($"The {Words.Low(Of(at.Sheet, at.Step).Name)} leaked.", at.Card.SealAt(at.Step.What) == SealAfterLeak.LeakedAgain
            ? "It leaked with this seal before: put a new one in."
            : "Set the wrench on it: say that it turned, or put a new seal in.", ground: Ground.Shut);

    private static Decision WasLoose(StepAt at) => at.Card.SealAt(at.Step.What) switch
    {
        SealAfterLeak.Leaked => Yes(new JointWasLoose(at.Id)),
        SealAfterLeak.LeakedAgain => No("It was tightened before and leaks again.", "Put a new seal in.", ground: Ground.Shut),
        _ => No("It did not leak.", "Go on with the step."),
    };

    private static Decision Renew(StepAt at, string number)
    {
        if (!WantsSeal(at.Card, at.Step))
            return No("No new seal is wanted here.", "Go on with the step.");
        var seal = at.Sheet.Parts[Of(at.Sheet, at.Step).SealsWith!.Value];
        if (number.Length is 0 or > 40)
            return No(number.Length == 0 ? $"The number on the new {Words.Low(seal.Name)} is missing." : "That is too long for a number.",
                $"Scan it, or type it: it is {seal.Number.Value}.", field: "number");
        return at.Facts.Shelf.IsGoodFor(number, seal.Number.Value) ? Yes(new SealRenewed(at.Id, number))
            : No(seal.WrongButFits.FirstOrDefault(w => PartNumber.Same(w.Key, number)) is { Key: { } wrong, Value: var why }
                ? $"{wrong} is the wrong {Words.Low(seal.Name)}: {why}." : $"{number} is not the number of the {Words.Low(seal.Name)}.",
                $"It needs {seal.Number.Value}.", field: "number");
    }
}
