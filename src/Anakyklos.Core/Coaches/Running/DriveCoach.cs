using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>
/// The vehicle is driven: everything is closed by then. Where the sheet says what is tried, each has its answer, and how far and where is
/// noted; until it is back nothing else is done to it.
/// </summary>
internal sealed class DriveCoach : PressedCoach
{
    private static readonly Quantity<Distance> Longest = Quantity<Distance>.Of(300, Distance.Kilometre);

    public override string Kind => "drive";

    public override StepTraits Traits(SheetStep step) =>
        new() { Engine = EngineUse.Drives, MayBeLeftOut = true, IsMeasured = step.Spec is DriveSpec };

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("drive", DriveSpec.Read, false);

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        SetOff or SayTried or ComeBack when at.Step.Spec is not DriveSpec => NotHere(at),
        SetOff => at.NotNow() ?? (Decision)(at.Card.IsAway(at.Step) ? No("It is on the road.", "Say how it went, and that it is back.")
            : Yes(new RoadBegun(at.Id))),
        SayTried c => at.NotNow() ?? OnRoad(at) ?? Tried(at, c),
        ComeBack c => at.NotNow() ?? OnRoad(at) ?? Back(at, c),
        ConfirmStep when at.Step.Spec is DriveSpec => at.NotNow()
            ?? No("A road test is told try by try.", "Set off, say how each went, then how far and where."),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        RoadBegun => [new SetsOff(step.Id)],
        RoadTried t => [new TryGoes(step.Id, t.Try, t.Went)],
        // What did not do what it should, or was loose, is tried again once that is put right.
        RoadEnded when RoadTest.Of(card, step).HasFailed || card.Open.Any(o => o.Kind == OpenKind.Fastener) =>
            [new ComesBack(), new StepBeginsAgain(step.Id)],
        RoadEnded => [new ComesBack(), new StepEnds(step.Id)],
        DeviationTaken { Kind: DeviationKind.StepLeftOut } left when card.IsAway(step) =>
            [new ComesBack(), new StepLeftOut(step.Id, left.Reason)],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => step.Spec is not DriveSpec spec ? base.ByTheBook(card, step)
        : !card.IsAway(step) ? new SetOff(step.Id)
        : RoadTest.Of(card, step).Next is { } next ? new SayTried(step.Id, next, TryWent.Well)
        : new ComeBack(step.Id, spec.Far, "Bay road");

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [];

    private static Refused? OnRoad(StepAt at) => at.Card.IsAway(at.Step) ? null
        : No("It has not set off.", "Say that it sets off; nobody else is at it until it is back.");

    // What does not do what it should is not driven on before the lead has decided.
    private static Decision Tried(StepAt at, SayTried said)
    {
        var spec = (DriveSpec)at.Step.Spec!;
        if (said.Try < 0 || said.Try >= spec.Tries.Count || !Enum.IsDefined(said.Went))
            return No("That is not among what is tried.", "Choose one from the list.", field: "try");
        if (said.Went == TryWent.Well)
            return Yes(new RoadTried(at.Id, said.Try, said.Went, ""));
        if (Wordless(said.Words, "words", "What it did") is { } missing)
            return missing;
        var words = said.Words.Trim();
        return Yes(new RoadTried(at.Id, said.Try, said.Went, words), new FindingNoted(at.Id,
            said.Went == TryWent.Failed ? FindingGrade.Stop : FindingGrade.PlanIt,
            $"On the road, {Words.Low(spec.Tries[said.Try].Do)}: {words}"));
    }

    private static Decision Back(StepAt at, ComeBack said)
    {
        var test = RoadTest.Of(at.Card, at.Step);
        if (test.Next is { } left && !test.HasFailed)
            return No($"“{test.Spec.Tries[left].Do}” has no answer.", "Say how it went, or leave the road test out with a reason.");
        if (said.Far.Value <= Quantity<Distance>.Zero || said.Far.Value > Longest)
            return No($"{said.Far} is no road test.", "Read the odometer: how far was it driven?", field: "far");
        return Wordless(said.Where, "where", "Where it was driven") ?? (Decision)Yes(new RoadEnded(at.Id, said.Far, said.Where.Trim()));
    }
}
