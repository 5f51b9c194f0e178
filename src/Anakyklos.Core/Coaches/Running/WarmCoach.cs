using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>
/// The engine is run warm and switched off again. Where the sheet says for how long, it runs by the clock from the press that says so,
/// ridden or where it stands, and nothing else is done to the vehicle meanwhile.
/// </summary>
internal sealed class WarmCoach : PressedCoach
{
    public override string Kind => "warm";

    public override StepTraits Traits(SheetStep step) =>
        new() { Engine = EngineUse.Warms, MayBeLeftOut = true, IsMeasured = step.Spec is WarmSpec };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fluids.ContainsKey(step.What) ? null : "a fluid";

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("warm", WarmSpec.Read, false);

    // What stands in the way of an engine that is started stands in the way of this, too; it is asked for all kinds alike.
    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        BeginWarming when at.Step.Spec is not WarmSpec => NotHere(at),
        BeginWarming c => Running(at) ?? at.NotNow() ?? Unlooked(at, c.LookedAbove)
            ?? (Decision)Yes(new WarmingBegun(at.Id, ((WarmSpec)at.Step.Spec!).Lasts, c.LookedAbove)),
        // A fault that shows on the way ends it at once.
        Deviate { Kind: DeviationKind.StepLeftOut } d when at.Card.IsAway(at.Step) => base.Decide(at.Unwaited, d),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        WarmingBegun begun => [new SetsOff(step.Id), new WaitBegins(step.Id, step.IsDriven ? "Ridden warm" : "Runs warm", begun.For)],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => step.Spec is WarmSpec && !card.IsAway(step)
        ? new BeginWarming(step.Id, AsksToLookAbove(card))
        : new ConfirmStep(step.Id, LookedAbove: step.Spec is not WarmSpec && AsksToLookAbove(card));

    protected override bool AsksToLookAbove(JobCard card) => card.ToolsAbove.Count > 0;

    // It is warmed before most of the work, and then nothing is looked over; only who worked up there before has to look.
    protected override Decision Pressed(StepAt at, ConfirmStep said)
    {
        if (at.Step.Spec is not WarmSpec)
            return Unlooked(at, said.LookedAbove) ?? Ended(at, said, said.LookedAbove);
        if (said.LookedAbove)
            return No("Nothing is looked over now: it runs.", "Say that it is warm and off, and nothing else.", field: "lookedAbove");
        return Warming.Of(at.Card, at.Step).Begun is { } begun ? Ended(at, said, begun.LookedAbove)
            : No("Nobody has said since when it runs.", at.Step.IsDriven ? "Say when it sets off, and ride it by the clock."
                : "Say when it runs, and let it run by the clock.");
    }

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [.. Back(card, step), new EngineHeats()];

    protected override IReadOnlyList<Effect> Leaves(JobCard card, SheetStep step, string reason) =>
        [.. Back(card, step), .. base.Leaves(card, step, reason)];

    private static IEnumerable<Effect> Back(JobCard card, SheetStep step) =>
        card.IsAway(step) ? [new ComesBack(), new WaitEnds(step.Id)] : [];

    private Decision Ended(StepAt at, ConfirmStep said, bool lookedAbove) =>
        base.Pressed(at, said) is Accepted ? Yes(new StepDone(at.Id, LookedAbove: lookedAbove)) : base.Pressed(at, said);

    private static Refused? Running(StepAt at) =>
        at.Card.IsAway(at.Step) ? No("It runs already.", "Say when it is warm and off.") : null;

    private Refused? Unlooked(StepAt at, bool lookedAbove) => AsksToLookAbove(at.Card) == lookedAbove ? null
        : lookedAbove ? No("Nothing is looked over at this step.", "Say that it is done, and nothing else.", field: "lookedAbove")
        : No($"There was work in the engine bay: {string.Join(", ", at.Card.ToolsAbove)}.",
            "Look it over for tools and rags, then say that nothing lies there.", field: "lookedAbove");
}
