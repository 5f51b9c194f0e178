using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Draining;

/// <summary>A fluid is let out through its drain plug.</summary>
internal sealed class DrainCoach : PressedCoach
{
    public override string Kind => "drain";

    public override StepTraits Traits(SheetStep step) => new() { Opens = true, LetsOut = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) =>
        sheet.Fasteners.GetValueOrDefault(step.What)?.Drains is not null ? null : "a fastener that drains a fluid";

    // What was poured through drips for so long.
    private static readonly TimeSpan RinseDrips = TimeSpan.FromMinutes(2);

    // Twice what the sheet says is no little any more.
    private const decimal NotALittle = 2;

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        Dip dip => Dipped(at, dip),
        Rinse or Measure or Weigh when at.Card.State(at.Id).Status != StepStatus.Done => at.NotNow() ?? NotHere(at),
        Rinse rinse => Through(at, rinse),
        Measure or Weigh => at.Card.MayMeasure(at.Step, at.Now) is { } notNow ? new Refused([notNow])
            : Measuring.Of(at, at.Sheet.Fluids[at.Sheet.Fasteners[at.Step.What].Drains!.Value], said),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        Dipped dipped => [new LevelFound(card.Sheet.Fasteners[step.What].Drains!.Value, dipped.Level)],
        Measured measured => [new FluidMeasured(card.Sheet.Fasteners[step.What].Drains!.Value, measured.Amount.Value)],
        Rinsed rinsed => Ran(card, step, card.Sheet.Fasteners[step.What].Drains!.Value, rinsed.Amount.Value),
        _ => base.Effects(card, step, happened),
    };

    private static IReadOnlyList<Effect> Ran(JobCard card, SheetStep step, FluidId fluid, Quantity<Volume> amount) =>
    [
        new FluidRunsThrough(fluid, amount), new WaitBegins(step.Id, $"{card.Sheet.Fluids[fluid].Name} drips", RinseDrips),
        .. card.PanWith(fluid) is { } pan ? [new FillsPan(fluid, pan, amount)] : Array.Empty<Effect>(),
    ];

    private static Decision Through(StepAt at, Rinse said)
    {
        if (at.Card.MayRinse(at.Step, at.Now) is { } notNow)
            return new Refused([notNow]);
        if (Implausible(said.Amount) is { } impossible)
            return impossible;
        var fluid = at.Sheet.Fluids[at.Sheet.Fasteners[at.Step.What].Drains!.Value];
        if (said.Amount.Value > fluid.Rinse!.Value * NotALittle)
            return No($"{said.Amount} is more than a little: the sheet has {JobCard.Litres(fluid.Rinse.Value)}.",
                "Type what was poured through.", field: "amount");
        if (at.Card.CannotPourFrom(fluid.Id, said.From, null, at.Facts.Shelf, at.Today) is { } refused)
            return refused;
        var from = at.Card.Emptied(fluid.Id, said.Amount.Value, at.Facts.Shelf, at.Today, said.From);
        return Yes(new Rinsed(at.Id, said.Amount, from));
    }

    // Long before its turn comes: on the ground, with nothing running, while the old fluid is still in.
    private static Decision Dipped(StepAt at, Dip said)
    {
        var fluid = at.Sheet.Fluids[at.Sheet.Fasteners[at.Step.What].Drains!.Value];
        if (!JobCard.IsReadFromOutside(fluid))
            return No($"The {Words.Low(fluid.Name)} has no gauge that is read before it is let out.", "Let it out.", field: "level");
        if (at.Card.IsOver(at.Step, at.Now) is { } over)
            return over;
        if (at.Card.Fluid(fluid.Id).Found is { } known)
            return No($"It was dipped already: {known}.", "Take that back if it was wrong.");
        IReadOnlyList<Refusal> reasons = [.. at.Card.LiftUp ? [new Refusal("The vehicle is up: it is read on level ground.",
            "Lower it first, or let it out without a reading.", Ground: Ground.Lift)] : Array.Empty<Refusal>(),
                .. at.Card.EngineInTheWay(at.Step)];
        if (reasons.Count > 0)
            return new Refused(reasons);
        if (!said.Level.IsOnStick)
            return No($"That is not on the {Words.Low(fluid.Gauge)}.",
                "0 is the bottom mark and 1 the top mark; give a place from −1 to 2.", field: "level");
        var asks = at.Card.AsksOfFound(fluid, said.Level, DateOnly.FromDateTime(at.Now.DateTime));
        return asks.Length > 0 && !said.Meant ? new Asked(new DipQuestion(asks, said.Level))
            : Yes(new Dipped(at.Id, said.Level, asks.Length > 0 ? asks : null));
    }

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        var plug = card.Sheet.Fasteners[step.What];
        foreach (var r in card.BeforeUndoing(plug))
            yield return r;
        if (card.Kit is not { } laid)
            yield break;
        var fluid = card.Sheet.Fluids[plug.Drains!.Value];
        var kit = card.Steps.FirstOrDefault(s => s.Traits.LaysOut)?.Id;
        foreach (var r in card.BeforeRunningBelow(step))
            yield return r;
        if ((laid.Oils.GetValueOrDefault(fluid.Id)?.Amount ?? Quantity<Volume>.Zero) is var oil && oil < fluid.Amount.Value)
            yield return new($"Only {JobCard.Litres(oil)} of {Words.Low(fluid.Name)} is in hand, and "
                + $"{JobCard.Litres(fluid.Amount.Value)} must go back in.",
                "Fetch the rest and say so at the kit.", kit);
        foreach (var fill in card.Sheet.Fasteners.Values.Where(f => f.Fills == fluid.Id && !card.IsOut(f)))
            yield return new($"The {Words.Low(fill.Name)} has not been loosened yet.",
                $"Loosen it first, or the {Words.Low(fluid.Name)} cannot be filled again.",
                card.First(s => s.Traits is { Opens: true, LetsOut: false } && s.What == fill.Id), Ground: Ground.Order);
    }

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => card.Opening(step, done.Count);
}
