using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Opening;

/// <summary>An access is opened, or a fastener undone.</summary>
internal sealed class OpenCoach : PressedCoach
{
    public override string Kind => "open";

    public override StepTraits Traits(SheetStep step) => new() { Opens = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) =>
        sheet.Access.ContainsKey(step.What) || sheet.Fasteners.ContainsKey(step.What) ? null : "an access or a fastener";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => card.Sheet.Access.TryGetValue(step.What, out var access)
        ? card.BeforeOpening(access) : card.BeforeUndoing(card.Sheet.Fasteners[step.What]);

    protected override Decision Pressed(StepAt at, ConfirmStep said)
    {
        if (said.Count is not { } count || !at.Sheet.Access.TryGetValue(at.Step.What, out var access) || access.Count == 0)
            return base.Pressed(at, said);
        return count < 0 || count > access.Count ? No($"{count} {access.CountOf} cannot be: there are {access.Count}.", "Count again.",
            field: "count")
            : Yes(new StepDone(at.Id, count));
    }

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => card.Opening(step, done.Count);
}
