using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Torques;

/// <summary>What tightening and checking a tightening have in common: a reading, its verdict, and what follows too much torque.</summary>
internal abstract class TorqueCoach : Coach
{
    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fasteners.ContainsKey(step.What) ? null : "a fastener";

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        ConfirmStep c => at.NotNow() ?? Press(at, c),
        DrawInOrder c => at.NotNow() ?? Draw(at, c),
        TakeReading c => at.NotNow() ?? Read(at, c),
        TakeWrench c => at.NotNow() ?? TakeUp(at, c),
        CorrectReading c => Correct(at, c),
        SettleOverTorque c => Settle(at, c),
        Deviate { Kind: DeviationKind.NoReading } d when HasTorque(at.Sheet, at.Step) =>
            at.Leave(d, $"{Of(at.Sheet, at.Step).Name}: tightened without a reading", true),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        StepDone or DeviationTaken { Kind: DeviationKind.NoReading } => [.. AllDrawn(card, step), new StepEnds(step.Id), .. Tight(step)],
        ReadingTaken r => Verdict(card, step, r),
        FastenersDrawn d => Drawn(card, step, d.Pass, d.Places),
        WrenchTaken w => [new WrenchIsTaken(step.Id, w.Wrench, w.With)],
        OverTorqueSettled => [new StepGoesOn(step.Id)],
        _ => throw Foreign(happened),
    };

    // A pass without a torque is said at once where the sheet allows it; a torque is read, fastener by fastener.
    internal override CardCommand ByTheBook(JobCard card, SheetStep step)
    {
        var fastening = Fastening.Of(card, step);
        if (fastening.Next is not { } next)
            return new ConfirmStep(step.Id);
        var together = fastening.Plan.Group.Together && fastening.Plan.Slots.Count > 1;
        return next.Spec is ToTorque to && !together && fastening.With is null
            ? new TakeReading(step.Id, new Typed<Torque>(to.Target, Torque.NewtonMetre))
            : new DrawInOrder(step.Id, next.Pass, (together ? fastening.InThisPass[^1] : next).Place.Number);
    }

    internal override (Typed<Torque> Reading, TorqueOutcome Outcome)? TorqueOf(CardEvent happened) =>
        happened is ReadingTaken r ? (r.Reading, r.Outcome) : null;

    internal override CardCommand? Takes(JobCard card, SheetStep step, MeasuredValue measured, DeviceId device) =>
        measured is MeasuredTorque { Torque: var torque } && Fastening.Of(card, step).Next?.Spec is ToTorque
            ? new TakeReading(step.Id, torque, Device: device) : null;

    internal override DeviceId? ReadBy(CardEvent happened) => (happened as ReadingTaken)?.Device;

    // What clicked on several at once was not read of any of them.
    internal override bool CanBePutRight(CardEvent happened) => happened is ReadingTaken { Of.Count: 1 };

    internal override int NotedOf(CardEvent happened) => ((ReadingTaken)happened).Of[0];

    /// <summary>What it does that the fastener is tight.</summary>
    protected abstract IEnumerable<Effect> Tight(SheetStep step);

    /// <summary>What it does that a fastener which counted as tight does not.</summary>
    protected abstract IEnumerable<Effect> Loose(JobCard card, SheetStep step, string why);

    /// <summary>Whether the fastener counts as tight though its step is not done.</summary>
    protected virtual bool CountsAsTight(JobCard card, SheetStep step) => false;

    protected static Fastener Of(ModelSheet sheet, SheetStep step) => sheet.Fasteners[step.What];

    protected static bool HasTorque(ModelSheet sheet, SheetStep step) => Of(sheet, step).LastTorque is not null;

    // What is too much for an earlier pass and not for the last one has done no harm: it is slackened.
    private static OverTorqueRule RuleAt(JobCard card, SheetStep step)
    {
        var read = card.HappenedAt(step.Kind).Where(h => h.Step.Id == step.Id).Select(h => h.Event).OfType<ReadingTaken>().LastOrDefault();
        var fastener = Of(card.Sheet, step);
        return read is not null && fastener.LastTorque is { } last && read.Reached.Value <= last.High ? OverTorqueRule.SlackenAndRepeat
            : fastener.TooMuch;
    }

    protected static IEnumerable<Refusal> StandsStill(JobCard card, SheetStep step)
    {
        if (!card.IsOverTorqued(step.Id))
            yield break;
        var f = Of(card.Sheet, step);
        yield return new($"The {Words.Low(f.Name)} {f.Was} tightened too far.", RuleAt(card, step) switch
        {
            OverTorqueRule.SlackenAndRepeat => "Slacken it fully, then say so and tighten again.",
            OverTorqueRule.NewPart => "Fit a new part, then say so and tighten that.",
            OverTorqueRule.LeadDecides => "Leave it. The workshop lead looks at the thread and says what was done.",
            _ => throw new InvalidOperationException($"Nobody has said what follows {f.TooMuch}."),
        }, Ground: Ground.Shut);
    }

    // The only fastener, where it has no torque.
    private static Decision Press(StepAt at, ConfirmStep said)
    {
        var fastening = Fastening.Of(at.Card, at.Step);
        return fastening.Next is { Spec: ToTorque }
            ? No("This one needs a torque reading.", "Say what the wrench said, or that it clicked at its setting.", field: "torque")
            : fastening.Plan.Slots.Count > 1
            ? No($"The {Words.Low(fastening.Fastener.Name)} are done in an order and in passes.",
                "Say up to which one, and in which pass.")
            : said.Count is not null ? No("Nothing is counted at this step.", "Leave the count away.", field: "count")
            : Yes(new StepDone(at.Id));
    }

    private static Decision Draw(StepAt at, DrawInOrder said)
    {
        var fastening = Fastening.Of(at.Card, at.Step);
        if (fastening.Next is not { } next)
            return No("All of them are tight.", "Go on with the next step.");
        if (fastening.Plan.Find(said.Pass, said.Place) is not { } last)
            return No($"There is no number {said.Place} in a pass {said.Pass} here.", $"{Named(fastening, next)} is next.", field: "place");
        if (fastening.IsDone(last))
            return No($"{Named(fastening, last)} is done.", $"{Named(fastening, next)} is next.", field: "place");
        if (!last.IsWith(next))
            return No($"{Named(fastening, next)} is next, and not done.", "One pass after the other, and one wheel after the other.",
                field: "place");
        IReadOnlyList<TighteningSlot> these = [.. fastening.InThisPass.TakeWhile(s => s.Index <= last.Index)];
        if (these.Count > 1 && !fastening.Plan.Group.Together)
            return No("Here each is said by itself.", $"{Named(fastening, next)} is next.", field: "place");
        IReadOnlyList<int> places = [.. these.Select(s => s.Place.Number)];
        if (next.Spec is not ToTorque to)
            return said.Setting is not null || said.Wrench.Length > 0
                ? No("No wrench is set for this pass.", "Say only which ones were done.", field: "setting")
                : Yes(new FastenersDrawn(at.Id, next.Pass, places));
        if (fastening.Wrench(InCalibration(at), to) is not { } hand)
            return No($"No wrench here that is in calibration can be set for {to.Target}.",
                "Type what the wrench said that you have, with its unit.", field: "torque");
        if (said.Wrench.Length > 0 && said.Wrench != hand.Wrench.Name)
            return No($"The card says {hand.Wrench.Name} here, not {Shown(said.Wrench)}.", "Load the page again, or take up the other one.",
                field: "wrench");
        var setting = new Typed<Torque>(hand.Setting, hand.Wrench.Scale);
        return said.Setting is { } set && set.Value != setting.Value
            ? No($"{hand.Wrench.Name} is set to {setting} here, not to {set}.", "Load the page again, and look at its scale.",
                field: "setting")
            : Yes(new ReadingTaken(at.Id, setting, TorqueOutcome.Passes, Pass: next.Pass, Places: places, Wrench: hand.Wrench.Name,
                With: hand.With, AtFastener: Reached(setting, hand)));
    }

    private static Decision Read(StepAt at, TakeReading said)
    {
        var fastening = Fastening.Of(at.Card, at.Step);
        if (fastening.Next is not { Spec: ToTorque spec } next)
            return fastening.Plan.Torques.Any() ? No("This pass has no torque.", "Do it as the step says, and say so.", field: "torque")
                : No("This one has no torque.", "Tighten it as the step says and confirm.", field: "torque");
        var hand = HandOf(at, fastening, spec, said.Device);
        if (said.Reading.On(hand?.Scale) is not { } reading)
            return No($"Nobody knows in which unit {said.Reading.Number:0.##} is.", "Type it with its unit.", field: "torque");
        if (Implausible(reading) is { } refused)
            return refused;
        if (fastening.With is { } with && hand?.Gain(with) is null)
            return No($"What comes through a {with} cannot be worked out: the lever of the wrench is not known.",
                "Have the lead write it down with the wrench, or take a wrench of which it is known.", field: "torque");
        var reached = fastening.With is null ? reading : new(reading.Value * hand!.Gain(fastening.With)!.Value, reading.Unit);
        var verdict = spec.Judge(reached);
        return verdict.PerhapsMeant is { } meant && !said.UnitIsMeant && said.Device is null ? new Asked(AskUnit(reading, meant))
            : Yes(new ReadingTaken(at.Id, reading, verdict.Outcome, Device: said.Device, Pass: next.Pass, Places: [next.Place.Number],
                With: fastening.With, AtFastener: fastening.With is null ? null : reached));
    }

    // A device is the wrench that it is; a person holds the one that was taken up, or that the card says.
    private static TorqueWrench? HandOf(StepAt at, Fastening fastening, ToTorque spec, DeviceId? device) =>
        (device?.Text ?? fastening.TakenUp?.Name) is { Length: > 0 } name
            ? at.Facts.Shelf.Wrenches.FirstOrDefault(w => w.Wrench.Name == name)?.Wrench
            : fastening.Wrench(InCalibration(at), spec)?.Wrench;

    private static Typed<Torque>? Reached(Typed<Torque> reading, SetWrench hand) =>
        hand.With is null ? null : new(hand.Reaches(reading.Value), reading.Unit);

    private static Decision TakeUp(StepAt at, TakeWrench said)
    {
        if (!HasTorque(at.Sheet, at.Step))
            return No("This one is not done with a torque wrench.", "Tighten it as the step says.", field: "wrench");
        var wrench = at.Facts.Shelf.Wrenches.FirstOrDefault(w => w.Wrench.Name == said.Wrench);
        if (said.Wrench.Length > 0 && wrench is null)
            return No($"The tool crib has no {Shown(said.Wrench)}.", "Choose one that it has.", field: "wrench");
        if (wrench is not null && !wrench.IsCalibrated(at.Today))
            return No($"The calibration of {wrench.Wrench.Name} is past.", "Choose one that is in calibration.", field: "wrench");
        if (said.Length is { } long_ && (long_.Value <= Quantity<Length>.Zero || long_.Value > LongestCrowFoot))
            return No($"{long_} is no crow-foot.", "Type how far it is from the wrench's square to the fastener.", field: "length");
        if (said.Degrees is < 0 or > 180)
            return No($"{said.Degrees}° cannot be.", "0 is straight on, 90 across, 180 back along the handle.", field: "degrees");
        var with = said.Length is { } length ? new CrowFoot(length.Value, said.Degrees ?? 0) : null;
        if (with is not null && wrench is { Wrench.Lever: null })
            return No($"The lever of {wrench.Wrench.Name} is not known, so nobody can say what comes through a crow-foot.",
                "Have the lead write it down with the wrench, or take another.", field: "length");
        if (with is not null && wrench?.Wrench.Gain(with) <= 0.2m)
            return No("So far back along the handle next to nothing comes through.", "Turn it, or take it off.", field: "degrees");
        var fastening = Fastening.Of(at.Card, at.Step) with { TakenUp = new(said.Wrench, with) };
        var who = said.Wrench.Length > 0 ? said.Wrench : "No wrench here in calibration";
        return fastening.Next?.Spec is ToTorque spec && (said.Wrench.Length > 0 || with is not null)
            && fastening.Wrench(InCalibration(at), spec) is null
            ? No($"{who} {(said.Wrench.Length > 0 ? "cannot" : "can")} be set for {spec.Target}{(with is null ? "" : $" with a {with}")}.",
                $"It must end between {spec.Low} and {spec.High}, whatever the wrench is off by.", field: "wrench")
            : Yes(new WrenchTaken(at.Id, said.Wrench, with));
    }

    private static IEnumerable<TorqueWrench> InCalibration(StepAt at) =>
        at.Facts.Shelf.Wrenches.Where(w => w.IsCalibrated(at.Today)).Select(w => w.Wrench);

    private static readonly Quantity<Length> LongestCrowFoot = Quantity<Length>.Of(500, Length.Millimetre);

    private static string Named(Fastening fastening, TighteningSlot slot) =>
        Words.Capital(fastening.Plan.Group.Named(slot.Place.Number)) + (slot.Passes > 1 ? $" of pass {slot.Pass}" : "");

    private static string Shown(string wrench) => wrench.Length > 40 ? wrench[..40] : wrench;

    private static Refused? Implausible(Typed<Torque> reading) =>
        reading.Value <= Quantity<Torque>.Zero ? No("A torque is above zero.", "Type what the wrench said.", field: "torque")
        : reading.Value > TorqueWrench.Strongest
            ? No($"{reading} is more than any wrench here gives.", "Type what the wrench said.", field: "torque")
        : null;

    private static UnitQuestion AskUnit(Typed<Torque> reading, Unit<Torque> meant)
    {
        var other = new Typed<Torque>(Quantity<Torque>.Of(reading.Value.In(reading.Unit), meant), meant);
        return new($"{reading} does not pass, but {other} would. Which unit was on the wrench?", reading, other);
    }

    private static Decision Correct(StepAt at, CorrectReading said)
    {
        if (at.Card.History[said.Of - 1].Event is not ReadingTaken old)
            return NotHere(at);
        var fastening = Fastening.Of(at.Card, at.Step);
        if (fastening.Plan.Find(Math.Max(old.Pass, 1), old.Of[0]) is not { Spec: ToTorque spec } slot
            || said.Reading.On(old.Reading.Unit) is not { } reading)
            return NotHere(at);
        var isDone = at.Card.State(at.Id).Status == StepStatus.Done;
        if (!isDone && !fastening.IsDone(slot) && fastening.Next != slot)
            return No($"{Named(fastening, slot)} has been begun again since.", "Read it once more when its turn comes.");
        var reached = old.AtFastener is { } at_ ? new(reading.Value * (at_.Value / old.Reading.Value), reading.Unit) : reading;
        // One that did not pass and would now closes the fastener: it is asked what a first reading is asked.
        var outcome = spec.Judge(reached).Outcome;
        // What alone does not stand in its way is the too much that it puts right.
        var ways = at.Card.IsLeft(at.Id) && outcome == TorqueOutcome.Passes
            ? at.Card.InTheWay(at.Step, at.Now).Except(StandsStill(at.Card, at.Step)).ToList() : [];
        // A joint that turns out loose is not left under pressure until somebody comes to the next step.
        if (outcome != TorqueOutcome.Passes && at.Card.EngineRuns)
            ways = [.. at.Card.EngineInTheWay(at.Step)];
        var late = ways.Count > 0 ? new Refused(ways) : null;
        return Wordless(said.Reason, "reason", "The reason") ?? Implausible(reading) ?? late
            ?? (Decision)Yes(old with
            {
                Frozen = null, Reading = reading, Outcome = outcome, Corrects = said.Of, Reason = said.Reason, Device = null, Wrench = null,
                AtFastener = old.AtFastener is null ? null : reached,
            });
    }

    private static Decision Settle(StepAt at, SettleOverTorque said)
    {
        if (!at.Card.IsOverTorqued(at.Id))
            return No("Nothing was tightened too far here.", "Go on with the step.");
        if (at.Card.BeforeSettling(at.Step) is { Count: > 0 } reasons)
            return new Refused(reasons);
        if (RuleAt(at.Card, at.Step) == OverTorqueRule.LeadDecides && at.By.Role != Role.Lead)
            return No("The workshop lead decides about this one.", "Ask the lead to sign in and say what was done.");
        return Wordless(said.What, "what", "What was done") ?? (Decision)Yes(new OverTorqueSettled(at.Id, said.What));
    }

    private IReadOnlyList<Effect> Verdict(JobCard card, SheetStep step, ReadingTaken reading)
    {
        var isDone = card.State(step.Id).Status == StepStatus.Done;
        var (pass, places) = (Math.Max(reading.Pass, 1), Places(card, step, reading));
        if (reading.Outcome == TorqueOutcome.Passes)
            return isDone ? [new StepGoesOn(step.Id)] : [new StepGoesOn(step.Id), .. Drawn(card, step, pass, places)];
        IEnumerable<Effect> stops = reading.Outcome == TorqueOutcome.TooMuch ? [new StepStops(step.Id)] : [];
        // A turn that was made after it began from nowhere, and is made again.
        var drawn = card.DrawnAt(step.Id).OrderBy(d => (d.Pass, d.Place)).ToList();
        var undone = drawn.Where(d => d.Pass >= pass && places.Contains(d.Place)).ToList();
        var others = drawn.Except(undone).GroupBy(d => d.Pass)
            .Select(g => new PlacesAreDrawn(step.Id, g.Key, [.. g.Select(d => d.Place)]));
        return
        [
            .. stops, .. isDone || CountsAsTight(card, step)
                ? [.. Loose(card, step, "the reading was put right and does not pass"), .. others]
                : undone.Select(d => (Effect)new PlaceIsLoose(step.Id, d.Pass, d.Place)),
        ];
    }

    private static IEnumerable<Effect> AllDrawn(JobCard card, SheetStep step) => Fastening.Of(card, step).Plan.Slots
        .GroupBy(s => s.Pass).Select(g => new PlacesAreDrawn(step.Id, g.Key, [.. g.Select(s => s.Place.Number)]));

    private IReadOnlyList<Effect> Drawn(JobCard card, SheetStep step, int pass, IReadOnlyList<int> places)
    {
        var drawn = new PlacesAreDrawn(step.Id, pass, places);
        return Fastening.Of(card, step).EndsWith(pass, places) ? [drawn, new StepEnds(step.Id), .. Tight(step)] : [drawn];
    }

    // On old cards one reading spoke for all.
    private static IReadOnlyList<int> Places(JobCard card, SheetStep step, ReadingTaken reading) => reading.Pass > 0 ? reading.Of
        : [.. Fastening.Of(card, step).Plan.Slots.Select(s => s.Place.Number).Distinct()];
}
