using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

/// <summary>Where sources disagree, somebody says first what holds: the lead in the library, or whoever works here, for this
/// card.</summary>
public sealed partial class JobCard
{
    /// <summary>The disputed values that a step uses and on which nobody has ruled, in the order of the sheet; none on cards from before
    /// that was asked.</summary>
    /// <param name="step">A step of this card.</param>
    public IEnumerable<DisputedValue> UnruledAt(SheetStep step) => Opened.Rulings is null || !IsLeft(step.Id) ? []
        : Sheet.Disputed().Where(d => IsUsedAt(d.Use, d.Thing, step) && RulingOn(d) is null);

    /// <summary>The ruling on a disputed value; null where there is none.</summary>
    /// <param name="value">The value.</param>
    public Ruling? RulingOn(DisputedValue value) =>
        _state.Rulings.Concat(Opened.Rulings ?? []).FirstOrDefault(value.IsRuledBy);

    /// <summary>The rulings on values that steps of this card use, in the order of the sheet.</summary>
    public IEnumerable<Ruling> RulingsUsed =>
        Sheet.Disputed().Where(d => Steps.Any(s => IsUsedAt(d.Use, d.Thing, s))).Select(RulingOn).OfType<Ruling>();

    /// <summary>The values of a step that fewer than two people have compared with their source; none once it is done.</summary>
    /// <param name="step">A step of this card.</param>
    public IEnumerable<UncheckedValue> UncheckedAt(SheetStep step) => !IsLeft(step.Id) ? []
        : Sheet.Unchecked().Where(v => IsUsedAt(v.Use, v.Thing, step));

    private bool IsUsedAt(DisputeUse use, ThingId thing, SheetStep step) => use switch
    {
        DisputeUse.Kit => step.Traits.LaysOut
            && (PartsWanted.Any(p => (ThingId)p.Id == thing) || FluidsWanted.Any(f => (ThingId)f.Id == thing)),
        DisputeUse.Filling => step.Traits is { Fills: true } or { Levels: true } && step.What == thing,
        DisputeUse.Tightening => step.Traits is { Fastens: true } or { Checks: true } && step.What == thing,
        _ => throw new InvalidOperationException($"Nobody has said where a value for {use} is used."),
    };

    // What says that a step is not done, or what stands in its way, uses none of its values.
    private Refused? Unruled(StepCommand said) => said is Deviate { Kind: DeviationKind.StepLeftOut } || Step(said.Step) is not { } step
        || UnruledAt(step).FirstOrDefault() is not { } value ? null
        : No($"{value.Of}: {value.Holds} in the sheet, {value.OthersSay}.", "Say first what holds, and why.", step.Id,
            ground: Ground.Disputed);

    private Decision Rule(RuleValue c) => Disputed(c.Step, c.Value) is not { } value ? NotDisputed()
        : Wordless(c.Reason, "words", "The reason")
            ?? (Decision)Yes(new ValueRuled(c.Step, value.Ruled(c.Reason.Trim(), "", default), false),
                new DeviationTaken(c.Step, DeviationKind.DisputedValue, value.Thing, $"{value.Of}: {value.Holds} used; {value.OthersSay}",
                    c.Reason.Trim(), IsEssential(Known(c.Step))));

    private Decision TakeRuling(TakeRuling c, CardFacts facts) => Disputed(c.Step, c.Value) is not { } value ? NotDisputed()
        : facts.Rulings?.FirstOrDefault(value.IsRuledBy) is { } ruling ? Yes(new ValueRuled(c.Step, ruling, true))
        : No($"The lead has not ruled on this: {value.Of}.", "Say here what holds, and why, or ask the lead.", ground: Ground.Disputed);

    private DisputedValue? Disputed(StepId step, string key) =>
        Step(step) is { } at ? UnruledAt(at).FirstOrDefault(d => d.Key == key) : null;

    private static Refused NotDisputed() => No("Nothing is to be ruled on there.", "Go on with the step.", ground: Ground.Already);
}
