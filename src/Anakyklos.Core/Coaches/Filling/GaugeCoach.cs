using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Filling;

/// <summary>The level is read and brought to the target.</summary>
internal sealed class GaugeCoach : Coach
{
    public override string Kind => "gauge";

    public override StepTraits Traits(SheetStep step) => new() { Levels = true, IsMeasured = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) =>
        sheet.Fluids.GetValueOrDefault(step.What)?.BetweenMarks is not null ? null : "a fluid with a gauge (betweenMarks)";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        foreach (var r in BeforeReading(card, step))
            yield return r;
        if (card.Sheet.Fluids[step.What].Pumped && (!card.HasRun || card.IsClosedSinceRun(f => PourCoach.IsJointOf(f, step.What))))
            yield return new("The filter is still empty.", "Run the engine first, so that it fills.",
                card.First(s => s.Traits.Engine == EngineUse.Starts), Ground: Ground.Filled);
    }

    private static IEnumerable<Refusal> BeforeReading(JobCard card, SheetStep step)
    {
        var id = step.What;
        if (card.Fluid(id).Pours == 0)
            yield return new("No oil has been poured yet.", "Pour first.", card.First(s => s.Traits.Fills && s.What == id),
                Ground: Ground.Filled);
        foreach (var r in card.OpenPlugs("The level means nothing while it is open. Tighten it first.", f => PourCoach.IsJointOf(f, id)))
            yield return r;
        foreach (var r in card.NeedsOpen(card.Sheet.Fluids[id].Through.SelectMany(a => card.Sheet.Access[a].Needs).Distinct()))
            yield return r;
        foreach (var r in PourCoach.ShutFillPlugs(card, id, "It is read and filled through it. Open it first."))
            yield return r;
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        ReadGauge c => at.NotNow() ?? OnMarks(at, c),
        ReadRod c => at.NotNow() ?? OnRod(at, c),
        ReadBeforeRun c => Early(at, c),
        Pour c => TopUp(at, c),
        TakeOut c => Out(at, c),
        ConfirmStep => at.NotNow() ?? No("This one needs an amount or a level.", "Enter what you poured or read.", ground: Ground.Measured),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened)
    {
        var id = step.What;
        switch (happened)
        {
            case Poured p:
                return [new FluidGoesIn(id, p.Amount.Value), RunsDown(card, step)];
            case TakenOut t:
                return [new FluidGoesIn(id, Quantity<Volume>.Zero - t.Amount.Value), RunsDown(card, step),
                    .. card.IsFilledAgain(id, card.Fluid(id).Poured - t.Amount.Value)];
            case StoodBeforeRun stood:
                return [new LevelBeforeRun(id, stood.Level)];
            case GaugeRead g:
                var good = card.FillOf(id).After(g.Level).Verdict == FillVerdict.Good;
                IEnumerable<Effect> ends = good ? [new StepEnds(step.Id), new Closes(new(OpenKind.Fluid, id))] : [];
                return [new LevelIs(id, g.Level, good, g.Depth), new WaitEnds(step.Id), .. ends];
            default:
                throw Foreign(happened);
        }
    }

    internal override CardCommand? Takes(JobCard card, SheetStep step, MeasuredValue measured, DeviceId device) =>
        Pouring.By(device, step, measured);

    internal override DeviceId? ReadBy(CardEvent happened) => Pouring.Metered(happened);

    internal override CardCommand ByTheBook(JobCard card, SheetStep step)
    {
        var fill = card.FillOf(step.What);
        return Read(card, step.What) is { } level && fill.After(level) is { Verdict: not FillVerdict.Good } advice
            ? advice.Verdict == FillVerdict.Pour ? new Pour(step.Id, new(advice.Amount, Volume.Litre))
                : new TakeOut(step.Id, new(advice.Amount, Volume.Litre))
            : card.Sheet.Fluids[step.What].Rod?.Value is { } rod ? new ReadRod(step.Id, new(rod.DepthOf(fill.Target), Length.Millimetre))
            : new ReadGauge(step.Id, fill.Target);
    }

    private static Decision OnMarks(StepAt at, ReadGauge said)
    {
        var fluid = at.Sheet.Fluids[at.Step.What];
        return fluid.Rod is not null ? No($"The {Words.Low(fluid.Name)} is read on a rod.", "Say how far below the filler it stands.",
                field: "level")
            : said.Level.IsOnStick ? Held(at, said.Level, null, said.WarningSeen)
            : OffTheStick(fluid);
    }

    private static Decision OffTheStick(FluidSystem fluid) => No($"That is not on the {Words.Low(fluid.Gauge)}.",
        "0 is the bottom mark and 1 the top mark; give a place from −1 to 2.", field: "level");

    private static Decision OnRod(StepAt at, ReadRod said)
    {
        var fluid = at.Sheet.Fluids[at.Step.What];
        if (fluid.Rod?.Value is not { } rod)
            return No($"The {Words.Low(fluid.Name)} is not read on a rod.", $"Say where it stands on the {Words.Low(fluid.Gauge)}.",
                field: "depth");
        var unit = said.Depth.Unit;
        return said.Depth.Value < Quantity<Length>.Zero || !rod.At(said.Depth.Value).IsOnStick
            ? No($"{said.Depth} below the filler is nowhere near the marks.",
                $"They are at {rod.Low.Print(unit)} and {rod.High.Print(unit)}. Look again, and at the unit.", field: "depth")
            : Held(at, rod.At(said.Depth.Value), said.Depth, said.WarningSeen);
    }

    // Long before its turn comes: on the ground, with nothing running, once oil is in. With the filter empty it stands higher than it will.
    private static Decision Early(StepAt at, ReadBeforeRun said)
    {
        if (at.Card.IsOver(at.Step, at.Now) is { } over)
            return over;
        var fluid = at.Sheet.Fluids[at.Step.What];
        if (at.Card.HasRun)
            return No("The engine has run since.", "Read it where it is brought to the mark.", ground: Ground.Measured);
        if (!fluid.Pumped || !JobCard.IsReadFromOutside(fluid))
            return No($"The {Words.Low(fluid.Name)} is read at its own step.", "Read it there.", at.Id, ground: Ground.Measured);
        if (at.Card.Fluid(fluid.Id).BeforeRun is { } known)
            return No($"It was read already: {known}.", "Take that back if it was wrong.", ground: Ground.Already);
        IReadOnlyList<Refusal> reasons = [.. at.Card.LiftUp ? [new Refusal("The vehicle is up: it is read on level ground.",
            "Lower it first, or go on without a reading.", Ground: Ground.Lift)] : Array.Empty<Refusal>(), .. BeforeReading(at.Card,
                at.Step),
            .. at.Card.EngineInTheWay(at.Step)];
        if (reasons.Count > 0)
            return new Refused(reasons);
        if (!said.Level.IsOnStick)
            return OffTheStick(fluid);
        var poured = at.Card.Fluid(fluid.Id).Poured;
        var (fill, doubt) = (at.Card.FillOf(fluid.Id), "");
        if (fill.MissingBeforeRun(said.Level, poured) != Quantity<Volume>.Zero)
            doubt = $"{JobCard.Litres(poured)} went in, and it stands {said.Level}: that would be {JobCard.Litres(fill.InAt(said.Level))}. "
                + "Has it run down yet, does it run out somewhere, does it stand level, or was a pour not noted? Find out before it runs.";
        return doubt.Length > 0 && !said.Meant ? new Asked(new BeforeRunQuestion(doubt, said.Level))
            : Yes(new StoodBeforeRun(at.Id, said.Level, doubt.Length > 0 ? doubt : null));
    }

    // A reading is held against what went in since it was drained; what was topped up without a drain tells nothing, nor what goes back
    // into something that never runs quite empty.
    private static Decision Held(StepAt at, Level level, Typed<Length>? depth, bool meant)
    {
        var fluid = at.Sheet.Fluids[at.Step.What];
        var (state, fill) = (at.Card.Fluid(fluid.Id), at.Card.FillOf(fluid.Id));
        var missing = state.Out && fluid.FillBy != FillBy.MeasuredReturn ? fill.MissingFor(level, state.Poured) : Quantity<Volume>.Zero;
        if (missing == Quantity<Volume>.Zero)
            return Yes(new GaugeRead(at.Id, level, depth));
        var place = $"{level}";
        var reads = $"{(depth is { } deep ? $"{deep} below the filler" : $"{char.ToUpperInvariant(place[0])}{place[1..]}")} would be "
            + $"{JobCard.Litres(fill.InAt(level))}, but {JobCard.Litres(state.Poured)} went in.";
        var perhaps = missing > Quantity<Volume>.Zero
            ? $"Was the {Words.Low(fluid.Gauge)} misread, does it stand level, has it run down, is all the old oil out, or was a pour not "
                + "noted?"
            : "Has it run down yet, was more noted than went in, does it stand level, or does it run out somewhere?";
        return meant ? Yes(new GaugeRead(at.Id, level, depth, reads)) : new Asked(new LevelQuestion($"{reads} {perhaps}", level, depth));
    }

    // The level as it stands: read, and nothing poured or taken out since.
    private static Level? Read(JobCard card, FluidId fluid) =>
        card.Fluid(fluid) is { Level: { } level } state && state.SinceReading == Quantity<Volume>.Zero ? level : null;

    private static WaitBegins RunsDown(JobCard card, SheetStep step) =>
        new(step.Id, "Oil runs down", card.Sheet.Fluids[step.What].SettleAfterPour);

    private Decision TopUp(StepAt at, Pour said)
    {
        var id = at.Step.What;
        if (at.Card.IsOver(at.Step, at.Now) is { } over)
            return over;
        // While oil runs down, more may go in: the wait is for the next reading.
        IReadOnlyList<Refusal> reasons = [.. at.Card.LiftInTheWay(at.Step), .. at.Card.EngineInTheWay(at.Step), .. Gate(at.Card, at.Step)];
        if (reasons.Count > 0)
            return new Refused(reasons);
        if (Read(at.Card, id) is not { } level || at.Card.FillOf(id).After(level).Verdict != FillVerdict.Pour)
            return No("Nothing should be poured before the next reading.", $"Read the {Words.Low(at.Sheet.Fluids[id].Gauge)} first.",
                ground: Ground.Measured);
        return Implausible(said.Amount) ?? Pouring.Warned(at, id, said, Pouring.ByMarks(at.Card, id, said.Amount));
    }

    private static Decision Out(StepAt at, TakeOut said)
    {
        var id = at.Step.What;
        // Also at a step that was left for later: what stands too high is taken out whenever somebody is at it again.
        if (at.Card.IsOver(at.Step, at.Now) is { } over)
            return over;
        if (Read(at.Card, id) is not { } level || at.Card.FillOf(id).After(level).Verdict != FillVerdict.TakeOut)
            return No("The last reading does not ask for any to be taken out.", $"Read the {Words.Low(at.Sheet.Fluids[id].Gauge)} first.",
                ground: Ground.Measured);
        if (Implausible(said.Amount) is { } refused)
            return refused;
        var poured = at.Card.Fluid(id).Poured;
        return said.Amount.Value > poured ? No($"Only {JobCard.Litres(poured)} went in.", "Type what came out.", field: "amount")
            : Yes(new TakenOut(at.Id, said.Amount));
    }
}
