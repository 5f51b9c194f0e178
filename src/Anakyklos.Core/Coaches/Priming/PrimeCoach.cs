using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Priming;

/// <summary>A system is filled or freed of air, so that the engine can start.</summary>
internal sealed class PrimeCoach : PressedCoach
{
    public override string Kind => "prime";

    public override StepTraits Traits(SheetStep step) => new() { Primes = true, IsMeasured = step.Spec is PrimeSpec };

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("prime", PrimeSpec.Read, false);

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        HoldPrimer or CountPrimer when at.Step.Spec is not PrimeSpec => NotHere(at),
        HoldPrimer => at.NotNow() ?? (Decision)(((PrimeSpec)at.Step.Spec!).Each is { } each ? Yes(new PrimeHeld(at.Id, each))
            : No("Nothing is held here.", "Count the strokes.", ground: Ground.Held)),
        CountPrimer c => at.NotNow() ?? Count(at, c.Times),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        PrimeHeld held => [new WaitBegins(step.Id, "Held", held.For)],
        PrimeCounted => [new WaitEnds(step.Id)],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => step.Spec is not PrimeSpec spec ? base.ByTheBook(card, step)
        : Priming.Of(card, step) switch
        {
            { Left: 0 } => new ConfirmStep(step.Id),
            { HeldUntil: not null } => new CountPrimer(step.Id, 1),
            { Left: var left } => spec.Each is null ? new CountPrimer(step.Id, left) : new HoldPrimer(step.Id),
        };

    // Dry, it would only be cranked: fewer than the sheet wants fill nothing.
    protected override Decision Pressed(StepAt at, ConfirmStep said) =>
        at.Step.Spec is PrimeSpec spec && Priming.Of(at.Card, at.Step) is { Left: > 0 } priming
            ? No($"Only {priming.Made} of {spec.Times} {spec.Of} were made.", $"Make {priming.Left} more, and count them.",
                ground: Ground.Filled)
            : base.Pressed(at, said);

    // What is held counts one by one, once its clock is over; a wait that was cut held nothing.
    private static Decision Count(StepAt at, int times)
    {
        var priming = Priming.Of(at.Card, at.Step);
        return times is < 1 or > 500 ? No($"{times} {priming.Spec.Of} cannot be.", "Count them.", field: "times")
            : priming.Spec.Each is null ? Yes(new PrimeCounted(at.Id, times))
            : times > 1 ? No("Each is held by the clock, and counted by itself.", "Say one after the other.", field: "times")
            : priming.HeldUntil is null
                ? No("Nothing was held for so long as the sheet wants.", "Turn it on, say so, and wait for the clock.", ground: Ground.Held)
            : Yes(new PrimeCounted(at.Id, 1));
    }

    public override string? Wants(ModelSheet sheet, SheetStep step) =>
        step.What.IsEmpty || sheet.Fluids.ContainsKey(step.What) || sheet.Parts.ContainsKey(step.What) ? null
            : "a fluid, a part or nothing";

    // What is not in yet, or not shut, cannot be filled.
    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) =>
    [
        .. card.Remaining.Where(s => s.Traits.Fits && s.What == step.What).Take(1)
            .Select(s => new Refusal($"“{card.TitleOf(s)}” is not done yet.", "Fit it first, then fill it.", s.Id, Ground: Ground.Filled)),
        .. card.OpenPlugs("It would run out or draw air. Tighten it first.", f => f.Fitted.Contains((PartId)step.What)),
        // From the cab the key runs the pump; a hand primer needs no current.
        .. step.Place == Place.Cab ? card.WithoutCurrent() : [],
    ];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [];
}
