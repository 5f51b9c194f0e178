using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Bleeding;

/// <summary>
/// One wheel is bled by two people: press, open, shut, release, until fresh fluid runs without air; then its screw is tightened. The
/// reservoir is the same for all wheels, and never falls below its lower line.
/// </summary>
internal sealed class BleedCoach : TorqueCoach
{
    public override string Kind => "bleed";

    public override StepTraits Traits(SheetStep step) => new() { ShutsAgain = true, IsMeasured = true, CatchesInABottle = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) =>
        !sheet.Fasteners.TryGetValue(step.What, out var screw) || screw.Tightening.Value is not ToTorque ? "a bleed screw with a torque"
        : step.Spec is BleedSpec { Fluid: var fluid } && sheet.Fluids.ContainsKey(fluid) ? null : "the fluid that is driven through";

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("bleed", BleedSpec.Read);

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var fluid = ((BleedSpec)step.Spec!).Fluid;
        if (card.Steps.FirstOrDefault(s => s.Traits.Fills && s.What == fluid) is { } fill
            && (card.IsLeft(fill.Id) || card.Fluid(fluid).Out))
            yield return new("The reservoir is not filled with fresh fluid.", "Fill it first; dry, it would draw air.", fill.Id,
                Ground: Ground.Filled);
        foreach (var r in StandsStill(card, step))
            yield return r;
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        MakeStrokes c => at.NotNow() ?? Stroke(at, c.Strokes),
        SeeHose c => at.NotNow() ?? Look(at, c.How),
        FillReservoir c => at.NotNow() ?? ReservoirFilling.Fill(at, ((BleedSpec)at.Step.Spec!).Fluid, c),
        ConfirmStep => at.NotNow() ?? No("Bleeding is counted stroke by stroke.", "Say what was done: strokes, what runs, the screw.",
            ground: Ground.Measured),
        DrawInOrder or TakeReading or TakeWrench or Deviate { Kind: DeviationKind.NoReading } =>
            at.NotNow() ?? NotClear(at) ?? base.Decide(at, said),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        StrokesMade when !card.HasOpen(Screw(card.Sheet, step)) =>
            [new Opens(new(OpenKind.Fastener, step.What), Screw(card.Sheet, step).Name, "opened to bleed", step.Id), Falls(step)],
        StrokesMade => [Falls(step)],
        HoseSeen => [],
        ReservoirFilled filled => ReservoirFilling.Goes(card, ((BleedSpec)step.Spec!).Fluid, filled),
        BleedScrewShut => [new Closes(new(OpenKind.Fastener, step.What)), new StepEnds(step.Id)],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => BleedState.Of(card, step) switch
    {
        { IsClear: true } => base.ByTheBook(card, step),
        { Strokes: var made, Spec.Strokes: var wanted } when made >= wanted => new SeeHose(step.Id, Runs.Clear),
        { Left: 0 } => new FillReservoir(step.Id),
        var state => new MakeStrokes(step.Id, Math.Min(state.Left, state.Spec.Strokes - state.Strokes)),
    };

    internal override CardCommand? Takes(JobCard card, SheetStep step, MeasuredValue measured, DeviceId device) =>
        BleedState.Of(card, step).IsClear ? base.Takes(card, step, measured, device) : null;

    internal override (Typed<Torque> Reading, TorqueOutcome Outcome)? TorqueOf(CardEvent happened) =>
        happened is BleedScrewShut s ? (s.Reading, s.Outcome) : base.TorqueOf(happened);

    protected override IEnumerable<Effect> Tight(SheetStep step) => [new Closes(new(OpenKind.Fastener, step.What))];

    // What is bled again is shut until the first stroke.
    protected override bool CountsAsTight(JobCard card, SheetStep step) => !card.HasOpen(Screw(card.Sheet, step));

    // What was proved of it, and filled up after it, is done again with it.
    protected override IEnumerable<Effect> Loose(JobCard card, SheetStep step, string why) =>
        [.. card.CountsAsOpen(step, why), .. ProvedAgain(card, step)];

    // Where fluid came out, air may have gone in.
    internal override IEnumerable<Effect> Leaks(JobCard card, SheetStep step) => [.. base.Leaks(card, step), .. ProvedAgain(card, step)];

    private static IEnumerable<Effect> ProvedAgain(JobCard card, SheetStep step)
    {
        var proofs = card.Steps.Where(s => s.Spec is PedalSpec p && p.Again.Contains(step.Id)).ToList();
        var filled = proofs.SelectMany(p => ((PedalSpec)p.Spec!).Again).Select(card.Step).OfType<SheetStep>().Where(s => s.Traits.Fills);
        return proofs.Concat(filled).Distinct().Where(s => !card.IsLeft(s.Id)).Select(s => new StepBeginsAgain(s.Id));
    }

    private static Fastener Screw(ModelSheet sheet, SheetStep step) => sheet.Fasteners[step.What];

    private static FluidFalls Falls(SheetStep step) => new(((BleedSpec)step.Spec!).Fluid);

    private static Decision Stroke(StepAt at, int strokes)
    {
        var left = BleedState.Of(at.Card, at.Step).Left;
        return strokes < 1 ? No("No stroke is nothing to count.", "Count full strokes.", field: "strokes")
            : left == 0 ? No("The reservoir stands at its lower line.", "Fill it to the upper line first, or air is drawn in.",
                ground: Ground.Filled)
            : strokes > left ? No($"The reservoir holds {left} more {(left == 1 ? "stroke" : "strokes")}, not {strokes}.",
                "If so many were made, air may be in: look at the reservoir, say that it was filled, and begin this wheel again with "
                    + "bubbles seen.", field: "strokes")
            : Yes(new StrokesMade(at.Id, strokes));
    }

    private static Decision Look(StepAt at, Runs how) =>
        !Enum.IsDefined(how) ? No("Nobody knows what runs there.", "Dark, bubbles or clear.")
        : at.Card.HasOpen(Screw(at.Sheet, at.Step)) ? Yes(new HoseSeen(at.Id, how))
        : No("Nothing runs before the first stroke.", "Make a stroke, then look at the hose.", ground: Ground.Looked);

    private static Refused? NotClear(StepAt at)
    {
        var state = BleedState.Of(at.Card, at.Step);
        return state.IsClear ? null
            : state.Strokes < state.Spec.Strokes
                ? No($"Only {state.Strokes} of {state.Spec.Strokes} strokes were made since it was begun.", "Go on until it runs clear.",
                    ground: Ground.Measured)
            : No("It has not been seen to run clear since the last stroke.", "Look at the hose and say what runs.", ground: Ground.Looked);
    }
}
