using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Bleeding;

/// <summary>
/// The pedal or lever is pressed and held for so long, by the clock, before the vehicle moves. Where it sinks or gives like a spring there
/// is air, and what is bled is bled again.
/// </summary>
internal sealed class PedalCoach : Coach
{
    public override string Kind => "pedal";

    public override StepTraits Traits(SheetStep step) => new() { IsMeasured = true, FeelsPedal = true, MayBeLeftOut = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => !sheet.Fluids.ContainsKey(step.What) ? "a fluid"
        : step.Spec is PedalSpec spec
            && spec.Again.All(a => sheet.Steps.TryGetValue(a, out var s) && Reservoir.BledFrom(s) == (FluidId)step.What) ? null
            : "steps that bleed or fill that fluid, under “again”";

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("pedal", PedalSpec.Read);

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => card.OpenPlugs(
        "Pressed now, it would run out there. Tighten it first.", f => f.System == step.What);

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        PressPedal => Unwaited(at).NotNow() ?? (Decision)Yes(new PedalPressed(at.Id, ((PedalSpec)at.Step.Spec!).Hold)),
        FeelPedal c => Feel(at, c),
        ConfirmStep => at.NotNow() ?? No("This one is pressed, held and felt.", "Press it and say so, then say what it did.",
            ground: Ground.Measured),
        Deviate { Kind: DeviationKind.StepLeftOut } d => Unwaited(at).Leave(d, $"Left out: {at.Card.TitleOf(at.Step)}", true),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        PedalPressed pressed => [new WaitBegins(step.Id, "It is held down", pressed.For)],
        PedalFelt { How: Pedal.Hard } => [new WaitEnds(step.Id), new StepEnds(step.Id)],
        PedalFelt => [new WaitEnds(step.Id), .. ((PedalSpec)step.Spec!).Again.Where(a => card.Step(a) is not null && !card.IsLeft(a))
            .Select(a => new StepBeginsAgain(a))],
        DeviationTaken { Kind: DeviationKind.StepLeftOut } left => [new WaitEnds(step.Id), new StepLeftOut(step.Id, left.Reason)],
        _ => throw Foreign(happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        HeldUntil(card, step) is null ? new PressPedal(step.Id) : new FeelPedal(step.Id, Pedal.Hard);

    /// <summary>Until when it is held that was pressed; null when nobody presses it, or it was let go.</summary>
    internal static DateTimeOffset? HeldUntil(JobCard card, SheetStep step) => card.Waits.FirstOrDefault(w => w.Id == step.Id)?.Until;

    // What it does is felt at any time; that it holds is known only once the time is over. A wait that was cut held nothing.
    private static Decision Feel(StepAt at, FeelPedal said)
    {
        if (!Enum.IsDefined(said.How))
            return No("Nobody knows what that pedal does.", "Hard, soft, or it sinks.", field: "pedal");
        if (said.How != Pedal.Hard)
            return Unwaited(at).NotNow() ?? (Decision)Yes(new PedalFelt(at.Id, said.How));
        return at.NotNow() ?? (Decision)(HeldUntil(at.Card, at.Step) is null
            ? No("It was not held for so long as the sheet wants.", "Press it, say so, and hold it until the clock is over.",
                ground: Ground.Held)
            : Yes(new PedalFelt(at.Id, Pedal.Hard)));
    }

    private static StepAt Unwaited(StepAt at) => HeldUntil(at.Card, at.Step) is { } until && until > at.Now ? at with { Now = until } : at;
}
