using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Inspecting;

/// <summary>
/// A list of points, each measured against its limit or found in one of several ways. What can be set is set and measured again; what is
/// worn, or found otherwise than usual, becomes a finding; how long the rest lasts follows from the cards before.
/// </summary>
internal sealed class InspectCoach : Coach
{
    public override string Kind => "inspect";

    public override StepTraits Traits(SheetStep step) => new()
    {
        IsMeasured = true, MayBeLeftOut = true,
        OnlyLooks = step.Spec is InspectSpec spec && spec.Points.All(p => p.Measure?.Rule != GaugeRule.Adjust),
    };

    internal override WorkSpec? ReadSpec(SheetCursor at) => at.Part("inspect", InspectSpec.Read);

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        MeasurePoint c => at.NotNow() ?? NotThere(at, c.Point) ?? IsSettled(at, c.Point, c.Again) ?? Measure(at, PointOf(at, c.Point), c),
        AnswerPoint c => at.NotNow() ?? NotThere(at, c.Point) ?? IsSettled(at, c.Point, c.Again) ?? Answer(at, PointOf(at, c.Point), c),
        AnswerTheRest => at.NotNow() ?? Rest(at),
        LetPointStay c => at.NotNow() ?? NotThere(at, c.Point) ?? Stay(at, PointOf(at, c.Point)),
        ConfirmStep => at.NotNow() ?? No("Each point here is measured or looked at.", "Say what was found, one after the other.",
            ground: Ground.Measured),
        Deviate { Kind: DeviationKind.StepLeftOut } d =>
            at.Leave(d, $"Left out: {at.Card.TitleOf(at.Step)}", at.Card.IsEssential(at.Step)),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        PointInspected e => Ends(card, step, e.Point, new PointReads(step.Id, e.Point, e.Reads, e.Outcome,
            e.Outcome is not (PointOutcome.TooLittle or PointOutcome.TooMuch or PointOutcome.Amiss)))
            .Concat(IsSet(card, step, e.Outcome)).ToList(),
        PointStays e when card.FoundAt(step.Id).First(f => f.Point == e.Point) is var found =>
            Ends(card, step, e.Point, new PointReads(step.Id, e.Point, found.Left, found.Outcome, true)),
        DeviationTaken { Kind: DeviationKind.StepLeftOut } left => [new StepLeftOut(step.Id, left.Reason)],
        _ => throw Foreign(happened),
    };

    private static IEnumerable<Effect> IsSet(JobCard card, SheetStep step, PointOutcome outcome) =>
        outcome is PointOutcome.TooLittle or PointOutcome.TooMuch && ((InspectSpec)step.Spec!).Slackens is { } held
            ? card.IsSlackenedAgain(held) : [];

    internal override CardCommand ByTheBook(JobCard card, SheetStep step)
    {
        var next = Inspection.Of(card, step).Next!;
        return next.Measure is { } ask
            ? new MeasurePoint(step.Id, next.Id, string.Join(" ", Enumerable.Repeat(Said(Usual(ask)), Math.Max(1, ask.Across.Count))))
            : new AnswerPoint(step.Id, next.Id, next.Answers[0].Says);
    }

    // What is found of something in good order: the middle of what passes; of what wears, a little over half of a new one.
    private static Gauged Usual(GaugeAsk ask) => new((ask.Low, ask.High, ask.New) switch
    {
        ({ } low, { } high, _) => (low.Base + high.Base) / 2,
        ({ } low, null, { } fresh) => low.Base + (fresh.Base - low.Base) * 0.6m,
        ({ } low, null, null) => low.Base * 2,
        (null, { } high, _) => high.Base,
        _ => ask.In.Of(1).Base,
    }, ask.In);

    // As a person types it: a count is whole.
    private static string Said(Gauged usual) => usual.Scale.Kind == usual.Scale.Symbol ? $"{Math.Ceiling(usual.Base)}"
        : usual.Exact[..usual.Exact.IndexOf(' ')];

    private static InspectPoint PointOf(StepAt at, string id) => ((InspectSpec)at.Step.Spec!).Points.First(p => p.Id == id);

    private static Refused? NotThere(StepAt at, string id)
    {
        var points = ((InspectSpec)at.Step.Spec!).Points;
        return points.Any(p => p.Id == id) ? null
            : No("There is no such point here.", $"It is one of: {string.Join(", ", points.Select(p => p.Name))}.", field: "point");
    }

    // A page that somebody else has answered meanwhile does not overwrite that answer.
    private static Refused? IsSettled(StepAt at, string id, bool again) =>
        !again && at.Card.FoundAt(at.Id).FirstOrDefault(f => f.Point == id) is { Settled: true } found
            ? No($"{PointOf(at, id).Name} was done already: {found.Left}.", "Choose it from the list to do it once more.",
                ground: Ground.Already) : null;

    private static IReadOnlyList<Effect> Ends(JobCard card, SheetStep step, string point, PointReads reads) =>
        reads.Settled && Inspection.Of(card, step).Left.All(p => p.Id == point) ? [reads, new StepEnds(step.Id)] : [reads];

    private static Decision Answer(StepAt at, InspectPoint point, AnswerPoint said)
    {
        if (point.Measure is not null)
            return No($"{point.Name} is measured.", "Type what the gauge said.", field: "value");
        if (point.Answers.FirstOrDefault(a => a.Says == said.Says) is not { } answer)
            return No("That is not one of the answers.", $"Say one of: {string.Join(", ", point.Answers.Select(a => a.Says))}.",
                field: "says");
        var outcome = answer.Leads switch
        {
            AnswerLeads.Good => PointOutcome.Good,
            AnswerLeads.Watch => PointOutcome.Watch,
            AnswerLeads.Plan => PointOutcome.Plan,
            AnswerLeads.Stop => PointOutcome.Stop,
            AnswerLeads.Mend => PointOutcome.Amiss,
            _ => throw new InvalidOperationException($"Nobody has said what {answer.Leads} leads to."),
        };
        return Noted(at, point, answer.Says, outcome,
            $"{point.Name}: {answer.Says}{(answer.Means.Length > 0 ? $", {answer.Means}" : "")}{Alone(at, point, answer)}");
    }

    // One that is otherwise than all the others tells of itself, and not of what they have in common.
    private static string Alone(StepAt at, InspectPoint point, PointAnswer answer)
    {
        var others = at.Card.FoundAt(at.Id).Where(f => f.Point != point.Id).Select(f => f.Left).ToList();
        return others.Count >= 2 && others.Count == ((InspectSpec)at.Step.Spec!).Points.Count - 1 && others.Distinct().Count() == 1
            && others[0] != answer.Says ? $"; the others: {others[0]}" : "";
    }

    private static Decision Rest(StepAt at)
    {
        var inspection = Inspection.Of(at.Card, at.Step);
        return inspection.Left.Count == 0 ? No("Nothing is left here.", "Go on with the next step.", ground: Ground.Already)
            : inspection.Spec.OneByOne ? No("Here each is said by itself.", $"{inspection.Next!.Name} is next.", ground: Ground.Looked)
            : inspection.Left.Any(p => p.Measure is not null)
                ? No("What is left here is measured.", "Type what the gauge said, one after the other.", ground: Ground.Measured)
            : Yes([.. inspection.Left.Select(p => new PointInspected(at.Id, p.Id, p.Answers[0].Says, PointOutcome.Good))]);
    }

    private static Decision Stay(StepAt at, InspectPoint point)
    {
        var found = at.Card.FoundAt(at.Id).FirstOrDefault(f => f.Point == point.Id);
        if (found is { Settled: false, Outcome: PointOutcome.Amiss })
            return Yes([new PointStays(at.Id, point.Id), new FindingNoted(at.Id, FindingGrade.Stop,
                $"{point.Name}: {found.Left}, and cannot be put right")]);
        return found is not { Settled: false, Outcome: PointOutcome.TooLittle or PointOutcome.TooMuch }
            ? No($"{point.Name} does not stand outside of what passes.", "Measure it.", field: "value")
            : Yes([new PointStays(at.Id, point.Id), new FindingNoted(at.Id,
                at.Card.IsEssential(at.Step) ? FindingGrade.Stop : FindingGrade.PlanIt,
                $"{point.Name}: {found.Left}, and cannot be set; {point.Measure!.Passes} passes")]);
    }

    private static Decision Measure(StepAt at, InspectPoint point, MeasurePoint said)
    {
        if (point.Measure is not { } ask)
            return No($"{point.Name} is not measured.", "Say how it is.", field: "says");
        return said.Goes.Length > 0 || said.Not.Length > 0 ? ByBlades(at, point, ask, said) : ByGauge(at, point, ask, said.Value);
    }

    // Between the blade that goes and the one that does not lies the gap: it passes where all of that does.
    private static Decision ByBlades(StepAt at, InspectPoint point, GaugeAsk ask, MeasurePoint said)
    {
        if (!ask.ByFeeler)
            return No($"{point.Name} is not felt with blades.", "Type what the gauge said.", field: "value");
        if (ask.In.Read(said.Goes, out var problem) is not { } goes)
            return No(problem, "Type the blade that goes.", field: "goes");
        if (ask.In.Read(said.Not, out problem) is not { } not)
            return No(problem, "Type the blade that does not go.", field: "not");
        if (not <= goes)
            return No($"A blade of {not} goes where one of {goes} does.", "Type the thickest that goes and the thinnest that does not.",
                field: "not");
        var (low, high, felt) = (ask.Low!.Value, ask.High!.Value, $"{goes.Number} goes, {not} does not");
        if (goes >= low && not <= high)
            return Noted(at, point, felt, PointOutcome.Good, "");
        if (not <= low)
            return Noted(at, point, felt, PointOutcome.TooLittle, "");
        // A blade at the upper limit that goes leaves the gap there at the least.
        return goes >= high && goes != low ? Noted(at, point, felt, PointOutcome.TooMuch, "")
            : No($"Between {goes} and {not} lies more than what passes, {ask.Passes}.",
                "Take the blades at both limits: the thin one goes, the thick one does not.", field: "not");
    }

    private static Decision ByGauge(StepAt at, InspectPoint point, GaugeAsk ask, string typed)
    {
        string[] texts = ask.Across.Count < 2 ? [typed]
            : typed.Split([' ', ';', '/'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (ask.Across.Count >= 2 && texts.Length != ask.Across.Count)
            return No($"{ask.Across.Count} readings belong here, not {texts.Length}.",
                $"Type {string.Join(", ", ask.Across)}, with a space between, in {ask.In.Symbol}.", field: "value");
        var reads = new List<Gauged>();
        foreach (var text in texts)
        {
            if (ask.In.Read(text, out var problem) is not { } read)
                return No(problem, $"Type it in {ask.In.Symbol}, or with its unit.", field: "value");
            if (ask.New is { } fresh && read.Base > fresh.Base * 1.25m)
                return No($"{read} cannot be: a new one has {fresh}.", "Measure it once more.", field: "value");
            reads.Add(read);
        }
        var (least, most) = (reads.Min(), reads.Max());
        var outcome = ask.Low is { } low && least < low ? PointOutcome.TooLittle
            : ask.High is { } high && most > high ? PointOutcome.TooMuch : PointOutcome.Good;
        if (outcome != PointOutcome.Good && texts.All(t => !t.Any(char.IsLetter)) && Meant(ask, reads) is { } meant)
            return No($"{reads[0]} does not pass, but {meant} would.", "Type it with its unit.", field: "value");
        var written = string.Join("; ", reads.Select(r => r.Exact));
        return ask.Rule switch
        {
            GaugeRule.Adjust => Noted(at, point, written, outcome, ""),
            GaugeRule.Note => Noted(at, point, written, PointOutcome.Good, ""),
            GaugeRule.Wear => Worn(at, point, ask, written, reads),
            _ => throw new InvalidOperationException($"Nobody has said what follows {ask.Rule}."),
        };
    }

    // What wears and is not said to be new at anything is at most so many times what it must have.
    private const int ManyTimes = 8;

    // The same bare number in another unit of the kind, where all of it would pass so.
    private static string? Meant(GaugeAsk ask, IReadOnlyList<Gauged> reads) => ask.In.Others
        .Where(s => reads.All(r => s.Of(r.Base / ask.In.Factor) is var other && (ask.Low is not { } low || other >= low)
            && (ask.High is not { } high || other <= high)
            && (ask.High is not null || other.Base <= (ask.New?.Base * 1.25m ?? ask.Low!.Value.Base * ManyTimes))))
        .Select(s => $"{s.Of(reads[0].Base / ask.In.Factor)}").FirstOrDefault();

    private static Decision Worn(StepAt at, InspectPoint point, GaugeAsk ask, string written, List<Gauged> reads)
    {
        var (least, limit) = (reads.Min(), ask.Low!.Value);
        var says = $"{point.Name}: {string.Join(", ", reads)}";
        if (least < limit)
            return Noted(at, point, written, PointOutcome.Stop, $"{says}; the limit is {limit}: replace it now");
        var (wear, next) = at.Card.WearOf(at.Step, point.Id, least, at.Today);
        if (wear is not null && next is { } far && wear.After(far) < limit)
            return Noted(at, point, written, PointOutcome.Plan,
                $"{says}; about {wear.After(far)} at the next service, limit {limit}: replace it now");
        var spread = ask.In.Of((reads.Max().Base - least.Base) / ask.In.Factor);
        return ask.Uneven is { } most && spread > most
            ? Noted(at, point, written, PointOutcome.Watch, $"{says}; worn {spread} more {At(ask, reads)}")
            : Noted(at, point, written, PointOutcome.Good, "");
    }

    private static string At(GaugeAsk ask, List<Gauged> reads) => $"at the {Words.Low(ask.Across[reads.IndexOf(reads.Min())])}";

    private static Decision Noted(StepAt at, InspectPoint point, string reads, PointOutcome outcome, string says)
    {
        var happened = new PointInspected(at.Id, point.Id, reads, outcome);
        FindingGrade? grade = outcome switch
        {
            PointOutcome.Good or PointOutcome.TooLittle or PointOutcome.TooMuch or PointOutcome.Amiss => null,
            PointOutcome.Watch => FindingGrade.KeepAnEye,
            PointOutcome.Plan => FindingGrade.PlanIt,
            PointOutcome.Stop => FindingGrade.Stop,
            _ => throw new InvalidOperationException($"Nobody has said what follows {outcome}."),
        };
        return grade is { } g ? Yes([happened, new FindingNoted(at.Id, g, says)]) : Yes(happened);
    }
}
