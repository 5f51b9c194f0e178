using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Bleeding;

/// <summary>
/// One wheel is bled by two people: press, open, shut, release, until fresh fluid runs without air; then its screw is tightened. The
/// reservoir is the same for all wheels, and never falls below its lower line.
/// </summary>
internal sealed class BleedCoach : Coach
{
    internal const string Word = "bleed";

    public override string Kind => Word;

    public override StepTraits Traits(SheetStep step) => new() { ShutsAgain = true, IsMeasured = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) =>
        !sheet.Fasteners.TryGetValue(step.What, out var screw) || screw.Tightening.Value is not ToTorque ? "a bleed screw with a torque"
        : step.Spec is BleedSpec { Fluid: var fluid } && sheet.Fluids.ContainsKey(fluid) ? null : "the fluid that is driven through";

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("bleed", BleedSpec.Read);

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var fluid = ((BleedSpec)step.Spec!).Fluid;
        if (card.Steps.Any(Fills) && !card.Fluid(fluid).Good)
            yield return new("The reservoir is not filled with fresh fluid.", "Fill it first; dry, it would draw air.", card.First(Fills));

        bool Fills(SheetStep s) => s.Traits.Fills && s.What == fluid;
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        MakeStrokes c => at.NotNow() ?? Stroke(at, c.Strokes),
        SeeHose c => at.NotNow() ?? Look(at, c.How),
        FillReservoir => at.NotNow() ?? (Decision)Yes(new ReservoirFilled(at.Id)),
        ShutBleedScrew c => at.NotNow() ?? NotClear(at) ?? Shut(at, c.Reading),
        ConfirmStep => at.NotNow() ?? No("Bleeding is counted stroke by stroke.", "Say what was done: strokes, what runs, the screw."),
        Deviate { Kind: DeviationKind.NoReading } d => at.NotNow() ?? NotClear(at)
            ?? at.Leave(d, $"{Screw(at.Sheet, at.Step).Name}: tightened without a reading", true),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        StrokesMade when !card.HasOpen(Screw(card.Sheet, step)) =>
            [new Opens(new(OpenKind.Fastener, step.What), Screw(card.Sheet, step).Name, "opened to bleed", step.Id)],
        StrokesMade or HoseSeen or ReservoirFilled => [],
        BleedScrewShut or DeviationTaken { Kind: DeviationKind.NoReading } =>
            [new Closes(new(OpenKind.Fastener, step.What)), new StepEnds(step.Id)],
        _ => throw Foreign(happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => BleedState.Of(card, step) switch
    {
        { IsClear: true } => new ShutBleedScrew(step.Id, new(Torque(card.Sheet, step).Target, Quantities.Torque.NewtonMetre)),
        { Strokes: var made, Spec.Strokes: var wanted } when made >= wanted => new SeeHose(step.Id, Runs.Clear),
        { Left: 0 } => new FillReservoir(step.Id),
        var state => new MakeStrokes(step.Id, Math.Min(state.Left, state.Spec.Strokes - state.Strokes)),
    };

    internal override (Typed<Torque> Reading, TorqueOutcome Outcome)? TorqueOf(CardEvent happened) =>
        happened is BleedScrewShut s ? (s.Reading, s.Outcome) : null;

    private static Fastener Screw(ModelSheet sheet, SheetStep step) => sheet.Fasteners[step.What];

    private static ToTorque Torque(ModelSheet sheet, SheetStep step) => (ToTorque)Screw(sheet, step).Tightening.Value;

    private static Decision Stroke(StepAt at, int strokes)
    {
        var left = BleedState.Of(at.Card, at.Step).Left;
        return strokes < 1 ? No("No stroke is nothing to count.", "Count full strokes.", field: "strokes")
            : left == 0 ? No("The reservoir stands at its lower line.", "Fill it to the upper line first, or air is drawn in.")
            : strokes > left ? No($"The reservoir holds {left} more {(left == 1 ? "stroke" : "strokes")}, not {strokes}.",
                "If so many were made, air may be in: look at the reservoir, say that it was filled, and begin this wheel again with "
                    + "bubbles seen.", field: "strokes")
            : Yes(new StrokesMade(at.Id, strokes));
    }

    private static Decision Look(StepAt at, Runs how) =>
        !Enum.IsDefined(how) ? No("Nobody knows what runs there.", "Dark, bubbles or clear.")
        : at.Card.HasOpen(Screw(at.Sheet, at.Step)) ? Yes(new HoseSeen(at.Id, how))
        : No("Nothing runs before the first stroke.", "Make a stroke, then look at the hose.");

    private static Refused? NotClear(StepAt at)
    {
        var state = BleedState.Of(at.Card, at.Step);
        return state.IsClear ? null
            : state.Strokes < state.Spec.Strokes
                ? No($"Only {state.Strokes} of {state.Spec.Strokes} strokes were made since it was begun.", "Go on until it runs clear.")
            : No("It has not been seen to run clear since the last stroke.", "Look at the hose and say what runs.");
    }

    private static Decision Shut(StepAt at, Typed<Torque> reading)
    {
        var (screw, to) = (Screw(at.Sheet, at.Step), Torque(at.Sheet, at.Step));
        if (reading.Value <= Quantity<Torque>.Zero || reading.Value > Quantity<Torque>.Of(200, Quantities.Torque.NewtonMetre))
            return No($"{reading} cannot be on a bleed screw.", "Type what the wrench said, with its unit.", field: "torque");
        var outcome = to.Judge(reading).Outcome;
        return outcome switch
        {
            TorqueOutcome.TooLittle => No($"{reading} is too little.", $"Go on to {to.Target}.", field: "torque"),
            TorqueOutcome.Passes => Yes(new BleedScrewShut(at.Id, reading, outcome)),
            // A hollow screw that was turned too far may break off or leak later: what was read stands, and the lead looks at it.
            TorqueOutcome.TooMuch => Yes(new BleedScrewShut(at.Id, reading, outcome), new FindingNoted(at.Id, FindingGrade.Stop,
                $"{screw.Name} tightened with {reading}, at most {to.High}")),
            _ => throw new InvalidOperationException($"Nobody has said what follows {outcome}."),
        };
    }
}
