using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Coaches.Lifting;

/// <summary>The vehicle is made safe to raise: what holds it is set, or the lifting points are looked at.</summary>
internal sealed class SecureCoach : PressedCoach
{
    public override string Kind => "secure";

    public override StepTraits Traits(SheetStep step) => !step.What.IsEmpty ? new() { Sets = true }
        : new() { Lift = LiftMove.ReadyToRaise };

    public override string? Wants(ModelSheet sheet, SheetStep step) =>
        step.What.IsEmpty || sheet.Access.ContainsKey(step.What) ? null : "an access or nothing";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) =>
        !step.What.IsEmpty ? card.BeforeOpening(card.Sheet.Access[step.What]) : [];

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) =>
        !step.What.IsEmpty ? card.Opening(step, done.Count) : [];
}
