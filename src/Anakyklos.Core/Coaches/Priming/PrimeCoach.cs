using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Priming;

/// <summary>A system is filled or freed of air, so that the engine can start.</summary>
internal sealed class PrimeCoach : PressedCoach
{
    public override string Kind => "prime";

    public override StepTraits Traits(SheetStep step) => new() { Primes = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) =>
        step.What.IsEmpty || sheet.Fluids.ContainsKey(step.What) || sheet.Parts.ContainsKey(step.What) ? null
            : "a fluid, a part or nothing";

    // What is not in yet, or not shut, cannot be filled.
    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) =>
    [
        .. card.Remaining.Where(s => s.Traits.Fits && s.What == step.What).Take(1)
            .Select(s => new Refusal($"“{card.TitleOf(s)}” is not done yet.", "Fit it first, then fill it.", s.Id)),
        .. card.OpenPlugs("It would run out or draw air. Tighten it first.", f => f.Fitted.Contains((PartId)step.What)),
        // From the cab the key runs the pump; a hand primer needs no current.
        .. step.Place == Place.Cab ? card.WithoutCurrent() : [],
    ];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [];
}
