using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Resetting;

/// <summary>
/// An indicator is put out by the moves of its ritual, one step a move. What is held is held by the clock; what is typed in is worked out;
/// what the display shows then is compared with what is due. It fails only so often before somebody looks why.
/// </summary>
internal sealed class ResetCoach : PressedCoach
{
    // Longer than any display has room for.
    private const int LongestMessage = 60;

    public override string Kind => "reset";

    public override StepTraits Traits(SheetStep step) => new() { PutsOut = true, MayBeLeftOut = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Resets.ContainsKey(step.What) ? null : "a reset";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => Resetting.MovesOf(card, step)
        .TakeWhile(s => s.Id != step.Id).Where(s => card.State(s.Id).Status != StepStatus.Done).Take(1)
        .Select(s => new Refusal("The moves of the reset come in order.", $"Do “{s.Title}” first.", s.Id, Ground: Ground.Order))
        .Concat(card.WithoutCurrent());

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        HoldReset => at.Unwaited.NotNow() ?? TooOften(at) ?? Hold(at),
        FailReset c => at.Unwaited.NotNow() ?? Fail(at, c.Shows.Trim(), null),
        HearTool c => at.Unwaited.NotNow() ?? TooOften(at) ?? Hear(at.Unwaited, c),
        ShowReset c => Held(at) ?? at.NotNow() ?? TooOften(at) ?? Shown(at, c.Distance, c.Months),
        LookIntoReset c => at.NotNow() ?? LookedInto(at, c),
        ConfirmStep => Held(at) ?? TooOften(at) ?? base.Decide(at, said),
        Deviate => base.Decide(at.Unwaited, said),
        _ => base.Decide(at, said),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        ResetHeld held => [new WaitBegins(step.Id, step.Spec is ResetMove { Wait: not null } ? "Hands off" : "Hold on", held.For)],
        ResetFailed failed => [.. Resetting.MovesOf(card, step).Skip(Math.Max(0, failed.Again - 1)).SelectMany(m => Again(card, m))],
        ResetShown or ResetAnswered => [new WaitEnds(step.Id), new StepEnds(step.Id), .. step.EndsReset ? new[] { Out(step) } : []],
        ResetLookedInto => [],
        _ => base.Effects(card, step, happened),
    };

    internal override CardCommand? Hears(JobCard card, SheetStep step, string shows, DeviceId tool) =>
        IsAtTool(Resetting.Of(card, step).Move) ? new HearTool(step.Id, shows, tool) : null;

    internal override DeviceId? ReadBy(CardEvent happened) => happened switch
    {
        ResetAnswered e => e.Device,
        ResetShown e => e.Device,
        ResetFailed e => e.Device,
        _ => null,
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => Resetting.Of(card, step) switch
    {
        { WantsLook: true } => new LookIntoReset(step.Id, "Doors shut, charger on"),
        { Move.Timed: not null, HeldUntil: null } => new HoldReset(step.Id),
        { Tells: NextService.Distance, Expected: null } r => new ShowReset(step.Id,
            r.Ritual.Types?.Step ?? new(Quantity<Distance>.Of(1000, Distance.Kilometre), Distance.Kilometre), null),
        { Tells: NextService.Months, Expected: null } => new ShowReset(step.Id, null, 6),
        _ => new ConfirmStep(step.Id),
    };

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) =>
        [.. card.Waits.Any(w => w.Id == step.Id) ? new[] { new WaitEnds(step.Id) } : [], .. step.EndsReset ? new[] { Out(step) } : []];

    protected override Decision Pressed(StepAt at, ConfirmStep said)
    {
        if (said.Count is not null || Resetting.Of(at.Card, at.Step) is not { Tells: not NextService.None } reset)
            return base.Pressed(at, said);
        return reset.Expected is { } next ? Shown(at, next.Distance, next.Months)
            : No("Nobody knows what it should show here.", "Say what it shows.");
    }

    protected override Decision Left(StepAt at, Deviate said) =>
        at.Leave(said, $"{at.Sheet.Resets[at.Step.What].Name} left lit", true);

    protected override IReadOnlyList<Effect> Leaves(JobCard card, SheetStep step, string reason) =>
        [.. Resetting.MovesOf(card, step).Select(m => new StepLeftOut(m.Id, reason)),
            .. card.Waits.Any(w => w.Id == step.Id) ? new[] { new WaitEnds(step.Id) } : [], Out(step)];

    private static Closes Out(SheetStep step) => new(new(OpenKind.Indicator, step.What));

    private static IEnumerable<Effect> Again(JobCard card, SheetStep move) =>
        card.Waits.Any(w => w.Id == move.Id) ? [new StepBeginsAgain(move.Id), new WaitEnds(move.Id)] : [new StepBeginsAgain(move.Id)];

    // Pressing early says so; a wait that was cut held nothing.
    private static Refused? Held(StepAt at)
    {
        if (at.Card.IsOver(at.Step, at.Now) is { } over)
            return over;
        var reset = Resetting.Of(at.Card, at.Step);
        if (reset.Move.Timed is not { } timed || at.Unwaited.NotNow() is not null)
            return null;
        if (reset.Move.Wait is not null)
            return reset.HeldUntil is not { } answers
                ? No("It was not waited for so long as the sheet wants.", $"Say when the wait begins, and wait {Seconds(timed)}.",
                    ground: Ground.Held)
                : answers > at.Now ? No($"Waited {Seconds(timed - (answers - at.Now))} of {Seconds(timed)}.",
                    "Wait until the ring is full. Where it says something else, say what.", ground: Ground.Held) : null;
        return reset.HeldUntil is not { } until
            ? No("It was not held for so long as the sheet wants.", $"Say when it is held, and hold it for {Seconds(timed)}.",
                ground: Ground.Held)
            : until > at.Now ? No($"Held for {Seconds(timed - (until - at.Now))} of {Seconds(timed)}.",
                "Hold on until the ring is full. Where it was let go, say that it did not answer.", ground: Ground.Held) : null;
    }

    private static string Seconds(TimeSpan t) => $"{(int)Math.Floor(t.TotalSeconds)} s";

    private static Refused? TooOften(StepAt at) => Resetting.Of(at.Card, at.Step) is { WantsLook: true } reset
        ? No($"It failed {reset.Failed} times.", "Look why and say what was found; or leave it lit, with a reason.",
            ground: Ground.Looked) : null;

    private static Decision Hold(StepAt at) => Resetting.Of(at.Card, at.Step).Move.Timed is { } timed ? Yes(new ResetHeld(at.Id, timed))
        : No("Nothing is held or waited for here.", "Say what the display shows.", ground: Ground.Held);

    // A tool takes its own time: it answers when it has the answer.
    private static Decision Hear(StepAt at, HearTool said)
    {
        var reset = Resetting.Of(at.Card, at.Step);
        if (!IsAtTool(reset.Move))
            return No("No scan tool is waited for here.", "Say what the display shows.");
        if (reset.Tells == NextService.Distance && Quantity<Distance>.Read(said.Shows, out _) is { } far)
            return Shown(at, far, null, said.Device);
        return reset.Tells == NextService.None && Same(reset.Move.Expect, said.Shows)
            ? Yes(new ResetAnswered(at.Id, reset.Move.Expect, said.Device)) : Fail(at, said.Shows.Trim(), said.Device);
    }

    private static bool IsAtTool(ResetMove move) => move.Uses is DashControl.Tool or DashControl.Plug or DashControl.Choice;

    private static bool Same(string one, string other) => string.Equals(one, other.Trim(), StringComparison.OrdinalIgnoreCase);

    private static Decision Fail(StepAt at, string shows, DeviceId? device)
    {
        if (shows.Length > LongestMessage)
            return No($"That is {shows.Length} characters long.", "Type the message itself, as the display has it.", field: "shows");
        var reset = Resetting.Of(at.Card, at.Step);
        var known = reset.Move.Else.FirstOrDefault(m => Same(m.Shows, shows));
        var again = Math.Min(known is { Again: > 0 } ? known.Again : reset.Ritual.AgainAt, Math.Max(1, reset.Number));
        return Yes(new ResetFailed(at.Id, shows.Length > 0 ? known?.Shows ?? shows : null, again, device));
    }

    private static Decision LookedInto(StepAt at, LookIntoReset said) => !Resetting.Of(at.Card, at.Step).WantsLook
        ? No("It may be tried again as it is.", "Go on with the moves.")
        : Wordless(said.Found, "found", "What was found") ?? (Decision)Yes(new ResetLookedInto(at.Id, said.Found.Trim()));

    private static Decision Shown(StepAt at, Typed<Distance>? distance, int? months, DeviceId? device = null)
    {
        var reset = Resetting.Of(at.Card, at.Step);
        if (reset.Tells == NextService.None)
            return No("Nothing of the next service is typed or shown here.", "Say whether the display answered.");
        if (reset.Tells == NextService.Distance
            && (distance is not { } far || months is not null || far.Value <= Quantity<Distance>.Zero || far.Value > Longest))
            return No("That is no distance to a service.", "Type what it shows, with its unit.", field: "distance");
        if (reset.Tells == NextService.Months && (months is not (>= 1 and <= 120) || distance is not null))
            return No("Those are no months to a service.", "Type how many it shows.", field: "months");
        var shown = new ResetShown(at.Id, distance, months, device);
        return IsLastWord(at, reset) && Later(at, distance, months) is { Length: > 0 } later
            ? Yes(shown, new FindingNoted(at.Id, FindingGrade.KeepAnEye, later)) : Yes(shown);
    }

    private static readonly Quantity<Distance> Longest = Quantity<Distance>.Of(100_000, Distance.Kilometre);

    // What was typed in is compared where it is shown, if it is.
    private static bool IsLastWord(StepAt at, Resetting reset) => Resetting.MovesOf(at.Card, at.Step).SkipWhile(m => m.Id != at.Id).Skip(1)
        .All(m => (m.Spec as ResetMove)?.Shows != reset.Tells);

    // A display that counts further than the rules allow is not put right by anybody here; the label says what holds.
    private static string Later(StepAt at, Typed<Distance>? distance, int? months)
    {
        var due = DueAfterReset.Of(at.Card, at.Step.What);
        return distance is { } far && far.Value > due.Distance
            ? $"The display counts {far} to the next service; it is due after {due.Distance.Value.Print(far.Unit)} by "
                + $"{Of(due.DistanceOf)}. The label counts"
            : months > due.Months ? $"The display counts {months} months to the next service; it is due after {due.Months} by "
                + $"{Of(due.MonthsOf)}. The label counts" : "";
    }

    private static string Of(RuleOf rule) => rule switch
    {
        RuleOf.Owner => "the owner's rule",
        RuleOf.Depot => "the depot's rule",
        RuleOf.UpperBound => "the maker's upper bound",
        RuleOf.Wear => "what was seen this time",
        _ => "the maker's interval",
    };
}
