using Anakyklos.Core.Cards;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Reading;

/// <summary>
/// What came out is looked at: magnet, fluid, filter, seal, one after the other. From what is seen an outcome follows, which becomes a
/// finding where it is more than to carry on; the lead decides about the worst two before anything runs.
/// </summary>
internal sealed class ReadCoach : Coach
{
    public override string Kind => "read";

    public override StepTraits Traits(SheetStep step) =>
        new() { Reads = true, Engine = EngineUse.Either, IsMeasured = true, MayBeLeftOut = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => !step.What.IsEmpty ? "nothing"
        : step.Spec is not ReadSpec read ? "what is looked at"
        : read.Fluid.IsEmpty || sheet.Fluids.ContainsKey(read.Fluid) ? null : "a fluid of this sheet";

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("reads", Sheets.ReadSpec.Read);

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        See c => at.NotNow() ?? Looked(at, c.Look),
        ConfirmStep => at.NotNow() ?? No("This one asks what was seen.", "Choose the picture that it looks like.", ground: Ground.Looked),
        Deviate { Kind: DeviationKind.StepLeftOut } d =>
            at.Leave(d, $"Left out: {at.Card.TitleOf(at.Step)}", at.Card.IsEssential(at.Step)),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        Seen seen when card.ToLookAt(step).Any(s => s != seen.Look.Subject) => [new LooksLike(step.Id, seen.Look, seen.Leads)],
        Seen seen => [new LooksLike(step.Id, seen.Look, seen.Leads), new StepEnds(step.Id)],
        DeviationTaken { Kind: DeviationKind.StepLeftOut } left => [new StepLeftOut(step.Id, left.Reason)],
        _ => throw Foreign(happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step)
    {
        var subject = card.ToLookAt(step)[0];
        return new See(step.Id, new(subject, LookRules.Usual(subject)));
    }

    private static Decision Looked(StepAt at, Look look)
    {
        var card = at.Card;
        if (!card.ToLookAt(at.Step).Contains(look.Subject))
            return No("That is not looked at now.", "Choose one of the pictures that are shown.", field: "subject");
        if (!LookRules.Knows(look))
            return No("That cannot be seen of it.", "Choose one of the pictures that are shown.", field: "looks");
        var leads = card.LeadsTo(at.Step, look);
        var seen = new Seen(at.Id, look, leads);
        return leads == LookOutcome.CarryOn ? Yes(seen)
            : Yes([seen, new FindingNoted(at.Id, Grade(leads), $"{card.LookedAt(at.Step, look.Subject)}: {LookRules.Says(look)}")]);
    }

    private static FindingGrade Grade(LookOutcome leads) => leads switch
    {
        LookOutcome.Shorten => FindingGrade.KeepAnEye,
        LookOutcome.Sample => FindingGrade.PlanIt,
        _ => FindingGrade.Stop,
    };
}
