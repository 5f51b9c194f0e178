using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Cards;

public sealed partial class JobCard
{
    /// <summary>Decides on a command. Changes nothing.</summary>
    /// <param name="command">What is wanted.</param>
    /// <param name="by">Who wants it.</param>
    /// <param name="now">When, in the workshop's time zone: dates on the record follow it.</param>
    /// <param name="facts">What the server knows; null for nothing, and then nothing counts as known.</param>
    /// <returns>The events with their effects written down, the reasons against it, or a question.</returns>
    public Decision Decide(CardCommand command, Person by, DateTimeOffset now, CardFacts? facts = null)
    {
        if (command is Amend amend)
            return by.WorksOnCards ? AmendedBy(amend) : LooksOnly();
        if (Signature is { } s)
            return No($"This card was signed by {s.By.Name}.", "A signed card is not changed. Amend its record, or open a new card.",
                ground: Ground.Ended);
        if (Voided is { } v)
            return No($"This card was made void by {v.By.Name}.", "Open a new one.", ground: Ground.Ended);
        if (command is PartIsHere here && by.Role is Role.Stores)
            return CameIn(here);
        if (!by.WorksOnCards)
            return LooksOnly();
        var decision = ByCommand(command, by, now, facts ?? CardFacts.None);
        if (decision is not Accepted accepted)
            return decision;
        if (accepted.Events.Count == 0)
            throw new InvalidOperationException($"{command.GetType().Name} was accepted and changes nothing.");
        var (events, after) = Frozen(accepted.Events, by, now);
        IReadOnlyList<CardEvent> order = [.. OrderedAfter(command, events, after, by, now)];
        if (order.Count == 0)
            return new Accepted(events) { Then = after };
        var (more, then) = after.Frozen(order, by, now);
        return new Accepted([.. events, .. more]) { Then = then };
    }

    private static Refused LooksOnly() =>
        No("You can look at cards, not work on them.", "Ask a technician or the workshop lead.",
            ground: Ground.Role) with { IsForRole = true };

    /// <summary>The card after a decision of its own.</summary>
    /// <param name="decided">What this card decided, as it stands.</param>
    /// <param name="command">The client's id of the command.</param>
    /// <param name="by">Who said it.</param>
    /// <param name="at">When it was decided, or pressed where it was kept.</param>
    /// <param name="came">When it came, where it was kept at a screen without a line; null where it came at once.</param>
    /// <returns>The next card, and what was recorded for it.</returns>
    public (JobCard Card, IReadOnlyList<Recorded> Recorded) Taking(Accepted decided, Guid command, Person by, DateTimeOffset at,
        DateTimeOffset? came = null)
    {
        var seq = _history.Count;
        IReadOnlyList<Recorded> more = [.. decided.Events.Select(e => new Recorded(++seq, at, by, command,
            came is null ? e : e with { Came = came }))];
        var card = With(more);
        // What comes next was looked for already, and is the same whatever the command's id.
        if (decided.Then?._next is { } next)
            card._next = card.Step(next.Id);
        return (card, more);
    }

    // Each event is judged once, here, by the card as it stands before it; what it did is written down with it.
    private (IReadOnlyList<CardEvent> Events, JobCard After) Frozen(IReadOnlyList<CardEvent> events, Person by, DateTimeOffset now)
    {
        var (card, frozen) = (this, new List<CardEvent>());
        foreach (var e in events)
        {
            var did = card.EffectsOf(e);
            IReadOnlyList<Effect> effects = [.. did, .. card.LooksVoidedBy(e, did)];
            frozen.Add(effects.Count > 0 || e is IStepEvent ? e with { Frozen = new(FrozenEffects.Now, effects) } : e);
            card = card.Soon([frozen[^1]], by, now);
        }
        return (frozen, card);
    }

    /// <summary>The card as it would stand after events that are not recorded yet.</summary>
    private JobCard Soon(IEnumerable<CardEvent> events, Person by, DateTimeOffset now)
    {
        var seq = _history.Count;
        return With([.. events.Select(e => new Recorded(++seq, now, by, Guid.Empty, e))]);
    }

    private Decision ByCommand(CardCommand command, Person by, DateTimeOffset now, CardFacts facts) => command switch
    {
        StepCommand c when Unpractised(c, by, facts) is { } unpractised => unpractised,
        StepCommand c when Unruled(c) is { } unruled => unruled,
        StepCommand c => Step(c.Step) is { } step ? Coach.Of(step).Decide(new(this, step, by, now, facts), c) : NoSuchStep(c.Step),
        CorrectionCommand c => CanBePutRight.FirstOrDefault(h => h.Seq == c.Of) is { Event: IStepEvent old }
            ? Coach.Of(Known(old.Step)).Decide(new(this, Known(old.Step), by, now, facts), c)
            : No("There is no such reading, or a newer one holds.", "Choose one from the list."),
        TakeEarly c => Early(c, now),
        OrderAgain => AgainFromHere(now),
        CutWait c => Cut(c, now),
        FeelCold => Felt(now),
        EmptyPan c => Empty(c),
        TakeSample c => Sampled(c),
        PutAside c => Aside(c, now),
        TakeBack c => Back(c, by),
        RuleValue c => Rule(c),
        TakeRuling c => TakeRuling(c, facts),
        Countersign c => SecondName(c, by),
        StandBeside c => Beside(c, by, facts),
        NoteFinding c => Find(c, facts),
        DecideStop c => OnStop(c, by),
        MendCarried c => Mend(c, by),
        DropJob c => Drop(c, by, now),
        VoidCard c => MakeVoid(c),
        MoveLift c => Move(c),
        AwaitPart c => Await(c),
        PartIsHere c => CameIn(c),
        LeaveWord c => Leave(c),
        Sign => SignOff(now),
        _ => No("Nobody here knows how that is done.",
            "Load the page again; if it says so again, the program at the other end is of another version.", ground: Ground.Unknown),
    };

    private Decision Await(AwaitPart c) =>
        (Wordless(c.Number, "number", "The number") ?? Wordless(c.Name, "name", "What it is")) is { } missing ? missing
        : Awaited.Any(a => PartNumber.Same(a.Number, c.Number) && a.Boat == c.Boat)
            ? No($"The card waits for {c.Name} already.", "There is nothing to do until it is here.", ground: Ground.Already)
        : Yes(new PartAwaited(c.Number, c.Name, c.Boat, true));

    private Decision CameIn(PartIsHere c) => Awaited.Any(a => PartNumber.Same(a.Number, c.Number)) ? Yes(new PartCame(c.Number))
        : No($"The card does not wait for {(c.Number.Length > 60 ? c.Number[..60] : c.Number)}.", "Look at its kit.");

    /// <summary>That a step is done or left out already, and by whom; null while it is left.</summary>
    internal Refused? IsOver(SheetStep step, DateTimeOffset now) =>
        State(step.Id) is { Status: StepStatus.Done or StepStatus.LeftOut } state
        ? No($"{state.Through!.By.Name} did this at {OnTheClock(state.Through.At, now)}.", "Go on with the next step.", Next?.Id,
            ground: Ground.Already) : null;

    private Decision Cut(CutWait c, DateTimeOffset now)
    {
        if (_state.Waits.FirstOrDefault(w => w.Id == c.Wait) is not { } wait || wait.Until <= now)
            return No("This wait is over.", "Go on with the step.", Next?.Id, ground: Ground.Already);
        return Wordless(c.Reason, "reason", "The reason") ?? (Decision)Yes(new WaitCut(c.Wait, c.Reason));
    }

    private Decision Felt(DateTimeOffset now) => _state.HotAt is not null && HotUntil > now
        ? No("The engine was run on this card and is still hot.", "Do something else until it has cooled.", Next?.Id, ground: Ground.Heat)
        : HotUntil is not { } until || until <= now ? No("It has cooled already.", "Go on with the step.", Next?.Id, ground: Ground.Already)
        : Yes(new FeltCold());

    private Decision Aside(PutAside c, DateTimeOffset now)
    {
        if (Step(c.Step) is not { } step || !IsLeft(c.Step))
            return NoSuchStep(c.Step);
        if (Wordless(c.Reason, "reason", "The reason") is { } missing)
            return missing;
        return Yes([new StepPutAside(c.Step, c.Reason), .. Replanned(now, HeldUpBy(step), null, $"“{TitleOf(step)}” waits: {c.Reason}")]);
    }

    // With the lift, everything waits that needs it where it does not go.
    private IReadOnlyList<StepId> HeldUpBy(SheetStep step) => step.MovesLift
        ? [.. Remaining.Where(s => !s.MovesLift && s.Lift == (LiftUp ? LiftNeed.Down : LiftNeed.Up)).Select(s => s.Id)]
        : [step.Id];

    private Decision Find(NoteFinding c, CardFacts facts)
    {
        if (Step(c.Step) is null)
            return NoSuchStep(c.Step);
        if (c.Photo.Length > 0 && facts.Photos?.Contains(c.Photo) != true)
            return No("That picture was not brought in for this card.", "Bring it in again.", field: "photo");
        return Wordless(c.Text, "text", "What you saw")
            ?? (Decision)Yes(new FindingNoted(c.Step, c.Grade, c.Text, c.Photo.Length > 0 ? c.Photo : null));
    }

    private Decision Move(MoveLift c)
    {
        if (c.Up == LiftUp)
            return No($"The vehicle is {(LiftUp ? "up" : "down")} already.", "Go on with the step.", ground: Ground.Already);
        if (_state.Away is not null)
            return IsOnRoad ? No("The vehicle is on the road.", "Say that it is back first.", ground: Ground.UnderWay)
                : No("The engine runs to get warm.", "Say that it is warm and off first.", ground: Ground.UnderWay);
        if (EngineRuns)
            return No("The engine is running.", "Switch it off before the lift moves.", ground: Ground.Engine);
        if (!c.Up && OpenPlugs("The pan cannot follow the vehicle down. Tighten it first.", f => f.IsUnderneath).ToList()
            is { Count: > 0 } plugs)
            return new Refused(plugs);
        if (c.Up && HeldDown().ToList() is { Count: > 0 } loose)
            return new Refused(loose);
        return c.LookedOver ? Yes(new LiftMoved(c.Up))
            : No(c.Up ? "The lifting points have not been looked at." : "The space underneath has not been looked at.",
                "Look, then say so.",
                field: "lookedOver", ground: Ground.Looked);
    }

    private Decision SignOff(DateTimeOffset now)
    {
        var reasons = BeforeSigning().ToList();
        if (reasons.Count > 0)
            return new Refused(reasons);
        return Yes(new Signed(DueAfter(DateOnly.FromDateTime(now.DateTime))));
    }

    /// <summary>When each job that was done falls due next.</summary>
    /// <param name="day">The day on which the card is signed, or was: of a signed card what was written down then holds.</param>
    /// <returns>In the order of the card.</returns>
    public IReadOnlyList<JobDue> DueAfter(DateOnly day)
    {
        if (Signature?.Event is Signed signed)
            return signed.Due;
        var done = new UseMark(Opened.Odometer, day, Opened.Hours);
        // What follows a job is due after it, and has no date of its own once it was done.
        return [.. ServiceItem.Of(Sheet, Opened.Use, Opened.OwnRules ?? [])
            .Where(i => !i.Once && (i.Follows is { } before ? JobsDone.Contains(before) : JobsDone.Contains(i.Job)))
            .OrderBy(i => Opened.Jobs.ToList().IndexOf(i.Follows ?? i.Job)).Select(i => new JobDue(i.Job, i.Name,
                i.After(done with { Shortened = JobsShortened.Contains(i.Job) })))];
    }

    /// <summary>What stands between the card and its signature; empty when the ring is closed.</summary>
    /// <returns>Every reason against signing now; none when it can be signed.</returns>
    public IEnumerable<Refusal> BeforeSigning()
    {
        foreach (var item in Open)
            yield return new($"{item.Name}: still open{(item.Detail.Length > 0 ? $", {item.Detail}" : "")}.", "Close it first.",
                Closing(item)?.Id, Ground: Ground.Ring);
        foreach (var step in Remaining)
            yield return new($"“{TitleOf(step)}” is {(State(step.Id).Status == StepStatus.Aside ? "left for later" : "not done")}.",
                "Do it first.", step.Id, Ground: Ground.Ring);
        foreach (var stop in Stops)
            yield return new($"“{stop.Event.Text}” was graded stop.", "The workshop lead decides about it at hand-over.",
                Ground: Ground.Stop);
        foreach (var deviation in Deviations.Where(d => WantingCountersignature.Contains(d.Seq)))
            yield return new($"{deviation.Event.What}: needs a second name.", "Another person countersigns it at hand-over.",
                Ground: Ground.SecondName);
    }
}
