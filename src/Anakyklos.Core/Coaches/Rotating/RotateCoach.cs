using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Rotating;

/// <summary>Wheels change their places, by the pattern for their tread: what carries an arrow stays on its side.</summary>
internal sealed class RotateCoach : PressedCoach
{
    public override string Kind => "rotate";

    public override StepTraits Traits(SheetStep step) => new() { MayBeLeftOut = true };

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("rotate", RotateSpec.Read);

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    internal override Decision Decide(StepAt at, CardCommand said) => said is LookAtTread look
        ? at.NotNow() ?? (Decision)Yes(new TreadLookedAt(at.Id, look.Arrowed)) : base.Decide(at, said);

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) =>
        happened is TreadLookedAt ? [] : base.Effects(card, step, happened);

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        Rotation.Of(card, step).Arrowed is null ? new LookAtTread(step.Id, false) : new ConfirmStep(step.Id);

    // The pattern follows from the tread: nobody says that they lie in their places before somebody looked at it.
    protected override Decision Pressed(StepAt at, ConfirmStep said) => Rotation.Of(at.Card, at.Step).Arrowed is null
        ? No("Nobody has looked whether the treads carry an arrow.", "Look at the sidewalls, and say so: the pattern follows from it.",
            field: "arrowed", ground: Ground.Looked)
        : base.Pressed(at, said);

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [];
}
