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

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [];
}
