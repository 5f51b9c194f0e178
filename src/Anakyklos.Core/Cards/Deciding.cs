using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Cards;

public sealed partial class JobCard
{
    /// <summary>The longest reason or finding, in characters.</summary>
    public const int LongestText = 400;

    /// <summary>Decides on a command. Changes nothing.</summary>
    /// <param name="command">What is wanted.</param>
    /// <param name="by">Who wants it.</param>
    /// <param name="now">When, in the workshop's time zone: dates on the record follow it.</param>
    /// <param name="facts">What the server knows; null for nothing, and then nothing counts as known.</param>
    public Decision Decide(CardCommand command, Person by, DateTimeOffset now, CardFacts? facts = null)
    {
        if (Signature is { } s)
            return No($"This card was signed by {s.By.Name}.", "A signed card is not changed. Open a new one.");
        if (Voided is { } v)
            return No($"This card was made void by {v.By.Name}.", "Open a new one.");
        if (command is PartIsHere here && by.Role is Role.Stores)
            return CameIn(here);
        if (!by.WorksOnCards)
            return No("You can look at cards, not work on them.", "Ask a technician or the workshop lead.");
        var decision = ByCommand(command, by, now, facts ?? CardFacts.None);
        return decision is Accepted accepted && OrderedAfter(command, accepted.Events, by, now).ToList() is { Count: > 0 } order
            ? new Accepted([.. accepted.Events, .. order]) : decision;
    }

    private Decision ByCommand(CardCommand command, Person by, DateTimeOffset now, CardFacts facts)
    {
        return command switch
        {
            ConfirmStep c => AtStep(c.Step, now, step => Confirm(c, step)),
            ConfirmKit c => AtStep(c.Step, now, _ => KitJudgement.Of(this, c, facts), StepKind.Kit),
            TakeReading c => Step(c.Step)?.Kind is StepKind.Tighten or StepKind.Retighten ? AtStep(c.Step, now, step => Read(c, step)) : NoSuchStep(c.Step),
            Measure c => AtStep(c.Step, now, _ => ImplausibleAmount(c.Amount) ?? (Decision)Yes(new Measured(c.Step, c.Amount)), StepKind.Measure),
            TakeEarly c => Early(c, now),
            OrderAgain => AgainFromHere(now),
            Pour c => PourAt(c, now),
            TakeOut c => TakeOutAt(c),
            ReadGauge c => AtStep(c.Step, now, step => Gauge(c), StepKind.Gauge),
            CorrectReading c => Correct(c),
            SettleOverTorque c => Settle(c, by),
            CutWait c => Cut(c, now),
            PutAside c => Aside(c, now),
            TakeBack c => Back(c, by),
            Deviate c => AtStep(c.Step, now, step => Stray(c, step)),
            Countersign c => SecondName(c, by),
            NoteFinding c => Find(c),
            DecideStop c => OnStop(c, by),
            MendCarried c => Mend(c, by),
            DropJob c => Drop(c, by, now),
            VoidCard c => MakeVoid(c),
            ReportLeak c => Leak(c),
            FailReset c => Step(c.Step)?.Kind == StepKind.Reset && _steps[c.Step].Status != StepStatus.Done ? Yes(new ResetFailed(c.Step)) : NoSuchStep(c.Step),
            MoveLift c => Move(c),
            AwaitPart c => Await(c),
            PartIsHere c => CameIn(c),
            Sign => SignOff(now),
            _ => throw new ArgumentOutOfRangeException(nameof(command)),
        };
    }

    private Decision Await(AwaitPart c) =>
        (Wordless(c.Number, "number", "The number") ?? Wordless(c.Name, "name", "What it is")) is { } missing ? missing
        : Awaited.Any(a => PartNumber.Same(a.Number, c.Number) && a.Boat == c.Boat) ? No($"The card waits for {c.Name} already.", "There is nothing to do until it is here.")
        : Yes(new PartAwaited(c.Number, c.Name, c.Boat));

    private Decision CameIn(PartIsHere c) => Awaited.Any(a => PartNumber.Same(a.Number, c.Number)) ? Yes(new PartCame(c.Number))
        : No($"The card does not wait for {(c.Number.Length > 60 ? c.Number[..60] : c.Number)}.", "Look at its kit.");

    private static Accepted Yes(params CardEvent[] events) => new(events);

    private static Refused No(string what, string @do, string? step = null, string? field = null) => new([new(what, @do, step, field)]);

    private static Refused NoSuchStep(string id) => No($"There is no step “{(id.Length > 60 ? id[..60] : id)}” that this can be done to.", "Go back to the card.");

    /// <summary>What is wrong with words that must be there: missing, one sign only, or too long; null when they can be kept.</summary>
    internal static Refused? Wordless(string text, string field, string what) =>
        string.IsNullOrWhiteSpace(text) ? No($"{what} is missing.", "Say it in a few words.", field: field)
        : text.Trim().Length < 2 ? No($"“{text.Trim()}” says nothing.", "Say it in a few words.", field: field)
        : text.Length > LongestText ? No($"{what} is {text.Length} characters long.", $"Keep it to {LongestText}.", field: field)
        : null;

    private Decision AtStep(string id, DateTimeOffset now, Func<SheetStep, Decision> then, StepKind? only = null)
    {
        if (Step(id) is not { } step || (only is { } kind && step.Kind != kind))
            return NoSuchStep(id);
        var state = _steps[id];
        // A kit may be laid out again at any time: what it lacks is fetched and said.
        if (state.Status is StepStatus.Done or StepStatus.LeftOut && step.Kind != StepKind.Kit)
            return No($"{state.Through!.By.Name} did this at {OnTheClock(state.Through.At, now)}.", "Go on with the next step.", Next?.Id);
        if (state.Status is StepStatus.Done)
            return then(step);
        return InTheWay(step, now) is { Count: > 0 } reasons ? new Refused(reasons) : then(step);
    }

    private Decision Confirm(ConfirmStep c, SheetStep step)
    {
        switch (step.Kind)
        {
            case StepKind.Kit:
                return No("The kit is confirmed part by part.", "Say what lies there.");
            case StepKind.Tighten or StepKind.Retighten when Sheet.Fasteners[step.What].Tightening.Value is ToTorque:
                return No("This one needs a torque reading.", "Enter what the wrench said.", field: "torque");
            case StepKind.Pour or StepKind.Gauge or StepKind.Measure:
                return No("This one needs an amount or a level.", "Enter what you poured or read.");
        }
        if (c.Count is not { } count)
            return Yes(new StepDone(step.Id));
        var access = step.Kind is StepKind.Open or StepKind.Close && Sheet.Access.TryGetValue(step.What, out var a) && a.Count > 0 ? a : null;
        if (access is null)
            return No("Nothing is counted at this step.", "Leave the count away.", field: "count");
        var most = step.Kind == StepKind.Close ? _open[new(OpenKind.Access, access.Id)].Count : access.Count;
        if (count < 0 || count > most)
            return No($"{count} {access.CountOf} cannot be: there are {most}.", "Count again.", field: "count");
        if (step.Kind == StepKind.Open || count == access.Count)
            return Yes(new StepDone(step.Id, count));
        if (Wordless(c.Reason, "reason", $"{count} of {access.Count} {access.CountOf} went in. The reason") is { } missing)
            return missing;
        return Yes(new DeviationTaken(step.Id, DeviationKind.CountShort, "", $"{access.Name}: {count} of {access.Count} {access.CountOf}", c.Reason, true), new StepDone(step.Id, count));
    }

    private Decision Read(TakeReading c, SheetStep step)
    {
        if (Sheet.Fasteners[step.What].Tightening.Value is not ToTorque spec)
            return No("This one has no torque.", "Tighten it as the step says and confirm.", field: "torque");
        if (ImplausibleTorque(c.Reading) is { } refused)
            return refused;
        var verdict = spec.Judge(c.Reading);
        return verdict.PerhapsMeant is { } meant && !c.UnitIsMeant ? new Asked(AskUnit(c.Reading, meant)) : Yes(new ReadingTaken(step.Id, c.Reading, verdict.Outcome));
    }

    private static Refused? ImplausibleTorque(Typed<Torque> reading) =>
        reading.Value <= Quantity<Torque>.Zero ? No("A torque is above zero.", "Type what the wrench said.", field: "torque")
        : reading.Value > Quantity<Torque>.Of(2000, Torque.NewtonMetre) ? No($"{reading} is more than any wrench here gives.", "Type what the wrench said.", field: "torque")
        : null;

    private static UnitQuestion AskUnit(Typed<Torque> reading, Unit<Torque> meant)
    {
        var other = new Typed<Torque>(Quantity<Torque>.Of(reading.Value.In(reading.Unit), meant), meant);
        return new($"{reading} does not pass, but {other} would. Which unit was on the wrench?", reading, other);
    }

    private Decision Correct(CorrectReading c)
    {
        if (_history.FirstOrDefault(h => h.Seq == c.Of)?.Event is not ReadingTaken old)
            return No("There is no such reading.", "Choose one from the list.");
        if (Wordless(c.Reason, "reason", "The reason") is { } missing)
            return missing;
        if (ImplausibleTorque(c.Reading) is { } refused)
            return refused;
        var spec = (ToTorque)Sheet.Fasteners[Known(old.Step).What].Tightening.Value;
        return Yes(new ReadingTaken(old.Step, c.Reading, spec.Judge(c.Reading).Outcome, c.Of, c.Reason));
    }

    private Decision Settle(SettleOverTorque c, Person by)
    {
        if (!_overTorqued.Contains(c.Step))
            return No("Nothing was tightened too far here.", "Go on with the step.");
        if (Sheet.Fasteners[Known(c.Step).What].TooMuch == OverTorqueRule.LeadDecides && by.Role != Role.Lead)
            return No("The workshop lead decides about this one.", "Ask the lead to sign in and say what was done.");
        return Wordless(c.What, "what", "What was done") ?? (Decision)Yes(new OverTorqueSettled(c.Step, c.What));
    }

    private Decision PourAt(Pour c, DateTimeOffset now)
    {
        if (Step(c.Step) is not { Kind: StepKind.Pour or StepKind.Gauge } step)
            return NoSuchStep(c.Step);
        if (_steps[step.Id].Status is StepStatus.Done or StepStatus.LeftOut)
            return AtStep(c.Step, now, _ => NoSuchStep(c.Step));
        var state = Fluid(step.What);
        IReadOnlyList<Refusal> reasons = step.Kind == StepKind.Pour ? InTheWay(step, now)
            : [.. LiftInTheWay(step), .. EngineInTheWay(step), .. BeforeReading(step.What)];
        if (reasons.Count > 0)
            return new Refused(reasons);
        if (Sheet.Fluids[step.What].BetweenMarks is null || (step.Kind == StepKind.Pour && !FillsByMarks(step.What)))
            return PourMeasured(c, step);
        var fill = FillOf(step.What);
        if (step.Kind == StepKind.Gauge && (state.Level is not { } level || state.SinceReading != Quantity<Volume>.Zero || fill.After(level).Verdict != FillVerdict.Pour))
            return No("Nothing should be poured before the next reading.", "Read the dipstick first.");
        if (ImplausibleAmount(c.Amount) is { } refused)
            return refused;
        var warning = fill.Warn(state.Poured, c.Amount.Value, state.Level, state.SinceReading);
        var text = warning.PassesTop ? $"{c.Amount} would bring the oil {warning.Reaches} of the dipstick. Too much harms seals and the particulate filter."
            : warning.OverBook ? $"{c.Amount} makes {Litres(state.Poured + c.Amount.Value)} in all; the book says {Litres(fill.Book)}. Look for what does not agree."
            : "";
        if (text.Length > 0 && !c.WarningSeen)
            return new Asked(new PourQuestion($"{text} Was it really {c.Amount}?", c.Amount));
        return Yes(new Poured(step.Id, c.Amount, text));
    }

    private Decision PourMeasured(Pour c, SheetStep step)
    {
        if (ImplausibleAmount(c.Amount) is { } refused)
            return refused;
        var (fluid, target, tolerance) = (Sheet.Fluids[step.What], Wanted(step.What), Sheet.Fluids[step.What].Tolerance.Value);
        var sum = Fluid(step.What).Poured + c.Amount.Value;
        var text = sum > target + tolerance ? $"{c.Amount} makes {Litres(sum)} in all; {(fluid.FillBy == FillBy.MeasuredReturn ? "what came out was" : "the book says")} {Litres(target)}. Look for what does not agree."
            : fluid.FillBy == FillBy.Overflow && sum < target - tolerance ? $"It ran over at {Litres(sum)}, but the book says {Litres(target)}. Is it level, and is all the old oil out?"
            : "";
        if (text.Length > 0 && !c.WarningSeen)
            return new Asked(new PourQuestion($"{text} Was it really {c.Amount}?", c.Amount));
        return Yes(new Poured(step.Id, c.Amount, text));
    }

    private static Refused? ImplausibleAmount(Typed<Volume> amount) =>
        amount.Value <= Quantity<Volume>.Zero ? No("An amount is above zero.", "Type what went in.", field: "amount")
        : amount.Value > Quantity<Volume>.Of(50, Volume.Litre) ? No($"{amount} is more than any sump here holds.", "Type what went in, with its unit.", field: "amount")
        : null;

    private Decision TakeOutAt(TakeOut c)
    {
        if (Step(c.Step) is not { Kind: StepKind.Gauge } step || _steps[step.Id].Status != StepStatus.Waiting)
            return NoSuchStep(c.Step);
        var state = Fluid(step.What);
        if (state.Level is not { } level || state.SinceReading != Quantity<Volume>.Zero || FillOf(step.What).After(level).Verdict != FillVerdict.TakeOut)
            return No("The last reading does not ask for any to be taken out.", "Read the dipstick first.");
        if (ImplausibleAmount(c.Amount) is { } refused)
            return refused;
        return c.Amount.Value > state.Poured ? No($"Only {Litres(state.Poured)} went in.", "Type what came out.", field: "amount") : Yes(new TakenOut(step.Id, c.Amount));
    }

    private static Decision Gauge(ReadGauge c) => c.Level.IsOnStick
        ? Yes(new GaugeRead(c.Step, c.Level))
        : No("That is not on the dipstick.", "0 is the bottom mark and 1 the top mark; give a place from −1 to 2.", field: "level");

    private Decision Cut(CutWait c, DateTimeOffset now)
    {
        if (!_waits.TryGetValue(c.Wait, out var wait) || wait.Until <= now)
            return No("This wait is over.", "Go on with the step.", Next?.Id);
        return Wordless(c.Reason, "reason", "The reason") ?? (Decision)Yes(new WaitCut(c.Wait, c.Reason));
    }

    private Decision Aside(PutAside c, DateTimeOffset now)
    {
        if (Step(c.Step) is not { } step || !IsLeft(c.Step))
            return NoSuchStep(c.Step);
        if (Wordless(c.Reason, "reason", "The reason") is { } missing)
            return missing;
        return Yes([new StepPutAside(c.Step, c.Reason), .. Replanned(now, HeldUpBy(step), null, $"“{step.Title}” waits: {c.Reason}")]);
    }

    // With the lift, everything waits that needs it where it does not go.
    private IReadOnlyList<string> HeldUpBy(SheetStep step) => step.MovesLift
        ? [.. Remaining.Where(s => !s.MovesLift && s.Lift == (LiftUp ? LiftNeed.Down : LiftNeed.Up)).Select(s => s.Id)]
        : [step.Id];

    private Decision Find(NoteFinding c)
    {
        if (Step(c.Step) is null)
            return NoSuchStep(c.Step);
        return Wordless(c.Text, "text", "What you saw") ?? (Decision)Yes(new FindingNoted(c.Step, c.Grade, c.Text));
    }

    private Decision Leak(ReportLeak c)
    {
        if (Step(c.Step)?.Kind != StepKind.Look || !OpenedJoints.Contains(c.Fastener))
            return NoSuchStep(c.Step);
        return Yes(new LeakFound(c.Step, c.Fastener), new FindingNoted(c.Step, FindingGrade.PlanIt, $"{Sheet.Fasteners[c.Fastener].Name} leaked after it was closed"));
    }

    private Decision Move(MoveLift c)
    {
        if (c.Up == LiftUp)
            return No($"The vehicle is {(LiftUp ? "up" : "down")} already.", "Go on with the step.");
        if (EngineRuns)
            return No("The engine is running.", "Switch it off before the lift moves.");
        if (!c.Up && OpenPlugs("The pan cannot follow the vehicle down. Tighten it first.", IsUnderneath).ToList() is { Count: > 0 } plugs)
            return new Refused(plugs);
        if (c.Up && HeldDown().ToList() is { Count: > 0 } loose)
            return new Refused(loose);
        return c.LookedOver ? Yes(new LiftMoved(c.Up))
            : No(c.Up ? "The lifting points have not been looked at." : "The space underneath has not been looked at.", "Look, then say so.", field: "lookedOver");
    }

    private Decision SignOff(DateTimeOffset now)
    {
        var reasons = BeforeSigning().ToList();
        if (reasons.Count > 0)
            return new Refused(reasons);
        var day = DateOnly.FromDateTime(now.DateTime);
        var done = new UseMark(Opened.Odometer, day, Opened.Hours);
        return Yes(new Signed([.. ServiceItem.Of(Sheet, Opened.Use, Opened.OwnRules ?? []).Where(i => !i.Once && JobsDone.Contains(i.Job))
            .OrderBy(i => Opened.Jobs.ToList().IndexOf(i.Job)).Select(i => new JobDue(i.Job, i.Name, i.After(done)))]));
    }

    /// <summary>What stands between the card and its signature; empty when the ring is closed.</summary>
    public IEnumerable<Refusal> BeforeSigning()
    {
        foreach (var item in Open)
            yield return new($"{item.Name}: still open{(item.Detail.Length > 0 ? $", {item.Detail}" : "")}.", "Close it first.", Closing(item)?.Id);
        foreach (var step in Remaining)
            yield return new($"“{step.Title}” is {(_steps[step.Id].Status == StepStatus.Aside ? "left for later" : "not done")}.", "Do it first.", step.Id);
        foreach (var stop in Stops)
            yield return new($"“{stop.Event.Text}” was graded stop.", "The workshop lead decides about it at hand-over.");
        foreach (var deviation in Deviations.Where(d => WantingCountersignature.Contains(d.Seq)))
            yield return new($"{deviation.Event.What}: needs a second name.", "Another person countersigns it at hand-over.");
    }
}
