using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Tightening;

/// <summary>What tightening and checking a tightening have in common: a reading, its verdict, and what follows too much torque.</summary>
internal abstract class TorqueCoach : Coach
{
    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fasteners.ContainsKey(step.What) ? null : "a fastener";

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        ConfirmStep c => at.NotNow() ?? Press(at, c),
        TakeReading c => at.NotNow() ?? Read(at, c),
        CorrectReading c => Correct(at, c),
        SettleOverTorque c => Settle(at, c),
        Deviate { Kind: DeviationKind.NoReading } d when Spec(at.Sheet, at.Step) is not null =>
            at.Leave(d, $"{Of(at.Sheet, at.Step).Name}: tightened without a reading", true),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        StepDone or DeviationTaken { Kind: DeviationKind.NoReading } => [new StepEnds(step.Id), .. Tight(step)],
        ReadingTaken r => Verdict(card, step, r),
        OverTorqueSettled => [new StepGoesOn(step.Id)],
        _ => throw Foreign(happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => Spec(card.Sheet, step) is { } to
        ? new TakeReading(step.Id, new(to.Target, Torque.NewtonMetre)) : new ConfirmStep(step.Id);

    internal override (Typed<Torque> Reading, TorqueOutcome Outcome)? TorqueOf(CardEvent happened) =>
        happened is ReadingTaken r ? (r.Reading, r.Outcome) : null;

    internal override CardCommand? Takes(JobCard card, SheetStep step, MeasuredValue measured, DeviceId device) =>
        measured is MeasuredTorque { Torque: var torque } && Spec(card.Sheet, step) is not null
            ? new TakeReading(step.Id, torque, Device: device) : null;

    internal override DeviceId? ReadBy(CardEvent happened) => (happened as ReadingTaken)?.Device;

    internal override bool CanBePutRight(CardEvent happened) => happened is ReadingTaken;

    /// <summary>What it does that the fastener is tight.</summary>
    protected abstract IEnumerable<Effect> Tight(SheetStep step);

    /// <summary>What it does that a fastener which counted as tight does not.</summary>
    protected abstract IEnumerable<Effect> Loose(JobCard card, SheetStep step, string why);

    protected static Fastener Of(ModelSheet sheet, SheetStep step) => sheet.Fasteners[step.What];

    protected static ToTorque? Spec(ModelSheet sheet, SheetStep step) => Of(sheet, step).Tightening.Value as ToTorque;

    protected static IEnumerable<Refusal> StandsStill(JobCard card, SheetStep step)
    {
        if (!card.IsOverTorqued(step.Id))
            yield break;
        var f = Of(card.Sheet, step);
        yield return new($"The {Words.Low(f.Name)} {f.Was} tightened too far.", f.TooMuch switch
        {
            OverTorqueRule.SlackenAndRepeat => "Slacken it fully, then say so and tighten again.",
            OverTorqueRule.NewPart => "Fit a new part, then say so and tighten that.",
            OverTorqueRule.LeadDecides => "Leave it. The workshop lead looks at the thread and says what was done.",
            _ => throw new InvalidOperationException($"Nobody has said what follows {f.TooMuch}."),
        });
    }

    private static Decision Press(StepAt at, ConfirmStep said) =>
        Spec(at.Sheet, at.Step) is not null ? No("This one needs a torque reading.", "Enter what the wrench said.", field: "torque")
        : said.Count is not null ? No("Nothing is counted at this step.", "Leave the count away.", field: "count")
        : Yes(new StepDone(at.Id));

    private static Decision Read(StepAt at, TakeReading said)
    {
        if (Spec(at.Sheet, at.Step) is not { } spec)
            return No("This one has no torque.", "Tighten it as the step says and confirm.", field: "torque");
        if (Implausible(said.Reading) is { } refused)
            return refused;
        var verdict = spec.Judge(said.Reading);
        return verdict.PerhapsMeant is { } meant && !said.UnitIsMeant && said.Device is null ? new Asked(AskUnit(said.Reading, meant))
            : Yes(new ReadingTaken(at.Id, said.Reading, verdict.Outcome, Device: said.Device));
    }

    private static Refused? Implausible(Typed<Torque> reading) =>
        reading.Value <= Quantity<Torque>.Zero ? No("A torque is above zero.", "Type what the wrench said.", field: "torque")
        : reading.Value > Quantity<Torque>.Of(2000, Torque.NewtonMetre)
            ? No($"{reading} is more than any wrench here gives.", "Type what the wrench said.", field: "torque")
        : null;

    private static UnitQuestion AskUnit(Typed<Torque> reading, Unit<Torque> meant)
    {
        var other = new Typed<Torque>(Quantity<Torque>.Of(reading.Value.In(reading.Unit), meant), meant);
        return new($"{reading} does not pass, but {other} would. Which unit was on the wrench?", reading, other);
    }

    private static Decision Correct(StepAt at, CorrectReading said)
    {
        if (Spec(at.Sheet, at.Step) is not { } spec)
            return NotHere(at);
        // One that did not pass and would now closes the fastener: it is asked what a first reading is asked.
        var outcome = spec.Judge(said.Reading).Outcome;
        // What alone does not stand in its way is the too much that it puts right.
        var ways = at.Card.IsLeft(at.Id) && outcome == TorqueOutcome.Passes
            ? at.Card.InTheWay(at.Step, at.Now).Except(StandsStill(at.Card, at.Step)).ToList() : [];
        // A joint that turns out loose is not left under pressure until somebody comes to the next step.
        if (outcome != TorqueOutcome.Passes && at.Card.EngineRuns)
            ways = [.. at.Card.EngineInTheWay(at.Step)];
        var late = ways.Count > 0 ? new Refused(ways) : null;
        return Wordless(said.Reason, "reason", "The reason") ?? Implausible(said.Reading) ?? late
            ?? (Decision)Yes(new ReadingTaken(at.Id, said.Reading, outcome, said.Of, said.Reason));
    }

    private static Decision Settle(StepAt at, SettleOverTorque said)
    {
        if (!at.Card.IsOverTorqued(at.Id))
            return No("Nothing was tightened too far here.", "Go on with the step.");
        if (at.Card.BeforeSettling(at.Step) is { Count: > 0 } reasons)
            return new Refused(reasons);
        if (Of(at.Sheet, at.Step).TooMuch == OverTorqueRule.LeadDecides && at.By.Role != Role.Lead)
            return No("The workshop lead decides about this one.", "Ask the lead to sign in and say what was done.");
        return Wordless(said.What, "what", "What was done") ?? (Decision)Yes(new OverTorqueSettled(at.Id, said.What));
    }

    private IReadOnlyList<Effect> Verdict(JobCard card, SheetStep step, ReadingTaken reading)
    {
        var isDone = card.State(step.Id).Status == StepStatus.Done;
        if (reading.Outcome == TorqueOutcome.Passes)
            return isDone ? [new StepGoesOn(step.Id)] : [new StepGoesOn(step.Id), new StepEnds(step.Id), .. Tight(step)];
        IEnumerable<Effect> stops = reading.Outcome == TorqueOutcome.TooMuch ? [new StepStops(step.Id)] : [];
        return [.. stops, .. isDone ? Loose(card, step, "the reading was put right and does not pass") : []];
    }
}
