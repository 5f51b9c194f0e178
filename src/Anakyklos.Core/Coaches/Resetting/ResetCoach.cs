using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Resetting;

/// <summary>The display did not answer: the reset starts over.</summary>
/// <param name="Step">Step id of the move that failed.</param>
public sealed record ResetFailed(StepId Step) : CardEvent, IStepEvent;

/// <summary>The display did not answer.</summary>
/// <param name="Step">Step id.</param>
public sealed record FailReset(StepId Step) : StepCommand(Step);

/// <summary>What may be said while an indicator is put out.</summary>
internal sealed class ResetCommands : ICommandPage
{
    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("fail", "The display did not answer", [Field.Step], said => new FailReset(said.Of(Field.Step))),
    ];
}

/// <summary>An indicator is put out by the moves of its ritual, one step a move.</summary>
internal sealed class ResetCoach : PressedCoach
{
    public override string Kind => "reset";

    public override StepTraits Traits(SheetStep step) => new() { PutsOut = true, MayBeLeftOut = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Resets.ContainsKey(step.What) ? null : "a reset";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => Moves(card, step).TakeWhile(s => s.Id != step.Id)
        .Where(s => card.State(s.Id).Status != StepStatus.Done).Take(1)
        .Select(s => new Refusal("The moves of the reset come in order.", $"Do “{s.Title}” first.", s.Id))
        .Concat(card.WithoutCurrent());

    internal override Decision Decide(StepAt at, CardCommand said) => said is not FailReset ? base.Decide(at, said)
        : at.NotNow() ?? (Decision)Yes(new ResetFailed(at.Id));

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened is ResetFailed
        ? [.. Moves(card, step).Select(m => new StepBeginsAgain(m.Id))] : base.Effects(card, step, happened);

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => step.EndsReset ? [Out(step)] : [];

    protected override Decision Left(StepAt at, Deviate said) =>
        at.Leave(said, $"{at.Sheet.Resets[at.Step.What].Name} left lit", true);

    protected override IReadOnlyList<Effect> Leaves(JobCard card, SheetStep step, string reason) =>
        [.. Moves(card, step).Select(m => new StepLeftOut(m.Id, reason)), Out(step)];

    private static Closes Out(SheetStep step) => new(new(OpenKind.Indicator, step.What));

    private static IEnumerable<SheetStep> Moves(JobCard card, SheetStep step) =>
        card.Steps.Where(s => s.Traits.PutsOut && s.What == step.What);
}
