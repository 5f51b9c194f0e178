using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Fitting;

/// <summary>A part is fitted, ready for what holds it; a filter that hangs open side up may be filled first.</summary>
internal sealed class FitCoach : PressedCoach
{
    // A cup of this much more than the book says would run over its edge.
    private const decimal RunsOverFrom = 1.25m;

    public override string Kind => "fit";

    public override StepTraits Traits(SheetStep step) => new() { Fits = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Parts.ContainsKey(step.What) ? null : "a part";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var holder = card.Sheet.Fasteners.Values.FirstOrDefault(f => f.Fitted.Contains(step.What));
        if (holder is not null && !card.IsOut(holder))
            yield return new($"The {Words.Low(holder.Name)} {holder.Has} not been opened.", "Open it first.",
                card.First(s => s.Traits.Opens && s.What == holder.Id), Ground: Ground.Opened);
        if (holder is null && card.Sheet.Parts.TryGetValue(step.What, out var part))
            foreach (var r in card.NeedsOpen(part.Needs))
                yield return r;
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        FillPart fill => at.NotNow() ?? Implausible(fill.Amount) ?? Fills(at, fill),
        FitPart fit => at.NotNow() ?? Fits(at, fit),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        PartFilled filled => [new PartHolds(card.Sheet.Pours(step)!.Id, step.What, filled.Amount.Value)],
        PartFitted => [new StepEnds(step.Id), new PartGoesIn(step.What)],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        card.Opened.Schools is { Filter: FilterSchool.Filled } && card.MayFillFirst(step)
            ? new FillPart(step.Id, new(card.Sheet.Parts[step.What].Prefill!.Value, Volume.Litre))
            : card.Sheet.Parts[step.What].Asks is { } asks ? new FitPart(step.Id, asks.Right.First().Says) : base.ByTheBook(card, step);

    // How it lies is seen before it is covered, or nobody will know.
    protected override Decision Pressed(StepAt at, ConfirmStep said) =>
        at.Sheet.Parts[at.Step.What].Asks is { } asks ? No(asks.Asks, Either(asks), field: "says") : base.Pressed(at, said);

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new PartGoesIn(step.What)];

    private static string Either(FitQuestion asks) =>
        $"Look, and say one of: {string.Join(", ", asks.Answers.Select(a => $"“{a.Says}”"))}.";

    private static Decision Fits(StepAt at, FitPart said)
    {
        var part = at.Sheet.Parts[at.Step.What];
        if (part.Asks is not { } asks)
            return No($"Nothing is asked as the {Words.Low(part.Name)} is fitted.", "Say that it is in its place.");
        if (asks.Answers.FirstOrDefault(a => a.Says == said.Says) is not { } answer)
            return No("That is not one of the answers.", Either(asks), field: "says");
        return answer.Leads == AnswerLeads.Good ? Yes(new PartFitted(at.Id, answer.Says))
            : No($"{part.Name}: {answer.Says}.", $"{answer.Means}{(answer.Means.EndsWith('.') ? "" : ".")}", field: "says");
    }

    private static Decision Fills(StepAt at, FillPart said)
    {
        var part = at.Sheet.Parts[at.Step.What];
        if (at.Sheet.Pours(at.Step) is not { } fluid)
            return No($"The {Words.Low(part.Name)} is fitted dry.", "Say that it is in its place.");
        if (at.Card.Fluid(fluid.Id).InPart is var holds && holds > Quantity<Volume>.Zero)
            return No($"{JobCard.Litres(holds)} is in it already.", "Fit it.", ground: Ground.Already);
        if (!at.Card.MayFillFirst(at.Step))
            return No($"The old {Words.Low(fluid.Name)} has not been drained.", "Drain it first, or fit it dry.",
                at.Card.First(s => s.Traits.LetsOut && at.Sheet.Fasteners[s.What].Drains == fluid.Id), ground: Ground.Opened);
        var prefill = part.Prefill!.Value;
        if (said.Amount.Value > prefill * RunsOverFrom)
            return No($"The {Words.Low(part.Name)} takes {JobCard.Litres(prefill)}; {said.Amount} would run over.",
                "Type what stands in it.", field: "amount");
        if (at.Card.CannotPourFrom(fluid.Id, said.From, null, at.Facts.Shelf, at.Today) is { } refused)
            return refused;
        return Yes(new PartFilled(at.Id, said.Amount,
            at.Card.Emptied(fluid.Id, said.Amount.Value, at.Facts.Shelf, at.Today, said.From)));
    }
}
