using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Cards;

/// <summary>
/// Knows one kind of work: what a step of it does to the vehicle, what stands in its way, what may be said at it, and what an event of it
/// did. It has no state of its own and never reaches into another; what concerns two is said through open items and effects.
/// </summary>
internal abstract class Coach : IStepKind
{
    public abstract string Kind { get; }

    public abstract StepTraits Traits(SheetStep step);

    // A kind that does not say what it is done to is done to nothing, and a sheet that names something is wrong.
    public virtual string? Wants(ModelSheet sheet, SheetStep step) => step.What.IsEmpty ? null : "nothing";

    WorkSpec? IStepKind.ReadSpec(SheetCursor at) => ReadSpec(at);

    /// <summary>Reads what the sheet says of a step for this work alone; null when it asks for nothing more.</summary>
    internal virtual WorkSpec? ReadSpec(SheetCursor at) => null;

    /// <summary>What stands in the way of this work itself; lift, engine, waits, heat and order are asked elsewhere for all
    /// kinds.</summary>
    /// <param name="card">The card as it stands.</param>
    /// <param name="step">The step.</param>
    internal abstract IEnumerable<Refusal> Gate(JobCard card, SheetStep step);

    /// <summary>Answers what somebody says at a step; whatever is not of this work is refused.</summary>
    /// <param name="at">The step, and what the server knows.</param>
    /// <param name="said">A command for this step, or one that puts an event of it right.</param>
    internal abstract Decision Decide(StepAt at, CardCommand said);

    /// <summary>What an event of this work did. The card stands as before it.</summary>
    /// <param name="card">The card as it stood.</param>
    /// <param name="step">The step.</param>
    /// <param name="happened">An event of this step.</param>
    /// <exception cref="InvalidOperationException">No such event belongs to this work.</exception>
    internal abstract IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened);

    /// <summary>What it means for a step that a device measured something; null where nothing is taken from a device.</summary>
    /// <param name="card">The card as it stands.</param>
    /// <param name="step">A step that is not done.</param>
    /// <param name="measured">What was measured.</param>
    /// <param name="device">By which device.</param>
    internal virtual CardCommand? Takes(JobCard card, SheetStep step, MeasuredValue measured, DeviceId device) => null;

    /// <summary>What it means for a step that a scan tool shows something; null where no tool is waited for.</summary>
    /// <param name="card">The card as it stands.</param>
    /// <param name="step">A step that is not done.</param>
    /// <param name="shows">What the tool shows.</param>
    /// <param name="tool">Which tool.</param>
    internal virtual CardCommand? Hears(JobCard card, SheetStep step, string shows, DeviceId tool) => null;

    /// <summary>The device that an event of this work was read by; null when a person read it.</summary>
    /// <param name="happened">An event of this work.</param>
    internal virtual DeviceId? ReadBy(CardEvent happened) => null;

    /// <summary>The torque that an event of this work read; null when it read none.</summary>
    /// <param name="happened">An event of this work.</param>
    internal virtual (Typed<Torque> Reading, TorqueOutcome Outcome)? TorqueOf(CardEvent happened) => null;

    /// <summary>Whether what an event of this work noted can be put right later, while nothing newer was noted of the same.</summary>
    /// <param name="happened">An event of this work.</param>
    internal virtual bool CanBePutRight(CardEvent happened) => false;

    /// <summary>What an event that can be put right was noted of: a newer one of the same takes its place.</summary>
    /// <param name="happened">An event of this work that can be put right.</param>
    internal virtual int NotedOf(CardEvent happened) => 0;

    /// <summary>What it does that a joint which this work closed was seen to leak: it is open again, and proved again.</summary>
    /// <param name="card">The card as it stands.</param>
    /// <param name="step">The step that closed it.</param>
    internal virtual IEnumerable<Effect> Leaks(JobCard card, SheetStep step) => card.CountsAsOpen(step, "leaks", leaks: true);

    /// <summary>What the usual right hand says at a step whose turn it is.</summary>
    /// <param name="card">The card as it stands.</param>
    /// <param name="step">A step that is not done.</param>
    internal abstract CardCommand ByTheBook(JobCard card, SheetStep step);

    /// <summary>The coach of a step.</summary>
    internal static Coach Of(SheetStep step) => (Coach)StepKinds.Of(step.Kind);

    /// <summary>It does not belong to this work.</summary>
    protected static Decision NotHere(StepAt at) => Decision.NoSuchStep(at.Id);

    /// <summary>A step of this work is never left out for good.</summary>
    protected static Decision NeverLeftOut(StepAt at, Deviate said) => at.NotNow()
        ?? Decision.Wordless(said.Reason, "reason", "The reason")
        ?? Decision.No("This cannot be left out.", "It opens, closes or proves something that others rely on. Leave it for later instead.",
            ground: Ground.NeverLeftOut);

    /// <summary>An event that does not belong to this work: the file was changed from outside.</summary>
    protected InvalidOperationException Foreign(CardEvent e) => new($"A step of kind {Kind} knows no {e.GetType().Name}.");
}

/// <summary>A step of a card at the moment when somebody says something about it.</summary>
/// <param name="Card">The card as it stands.</param>
/// <param name="Step">The step.</param>
/// <param name="By">Who.</param>
/// <param name="Now">When, in the workshop's time zone.</param>
/// <param name="Facts">What the server knows.</param>
internal sealed record StepAt(JobCard Card, SheetStep Step, Person By, DateTimeOffset Now, CardFacts Facts)
{
    internal ModelSheet Sheet => Card.Sheet;

    internal StepId Id => Step.Id;

    internal DateOnly Today => DateOnly.FromDateTime(Now.DateTime);

    /// <summary>The same where its own wait is over: for what is told at once, though something is held or runs.</summary>
    internal StepAt Unwaited => Card.Waits.FirstOrDefault(w => w.Id == Id)?.Until is { } until && until > Now
        ? this with { Now = until } : this;

    /// <summary>The same where all that it waits for is over, too.</summary>
    internal StepAt Unwaiting() => this with
    {
        Now = Card.Waits.Where(w => w.Id == Id || Step.Awaits.Contains(w.Id)).Select(w => w.Until).Append(Now).Max(),
    };

    /// <summary>Why the step cannot be done now: done already, or something in its way; null when it can.</summary>
    internal Refused? NotNow() => Card.IsOver(Step, Now)
        ?? (Card.InTheWay(Step, Now) is { Count: > 0 } reasons ? new Refused(reasons) : null);

    /// <summary>Leaves the step out for good, with a reason.</summary>
    /// <param name="said">What was said.</param>
    /// <param name="what">In words, for the record.</param>
    /// <param name="second">Whether another person must put a name to it.</param>
    internal Decision Leave(Deviate said, string what, bool second) => NotNow() ?? Decision.Wordless(said.Reason, "reason", "The reason")
        ?? (Decision)Decision.Yes(new DeviationTaken(Id, said.Kind, "", what, said.Reason, second));
}

/// <summary>A kind of work that is done by pressing that it is done: nothing is measured, and nothing but that press is known to
/// it.</summary>
internal abstract class PressedCoach : Coach
{
    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        ConfirmStep { LookedAbove: true } when !AsksToLookAbove(at.Card) => Decision.No("Nothing is looked over at this step.",
            "Say that it is done, and nothing else.", field: "lookedAbove"),
        ConfirmStep c => at.NotNow() ?? Pressed(at, c),
        Deviate { Kind: DeviationKind.StepLeftOut } d when at.Step.Traits.MayBeLeftOut => Left(at, d),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        StepDone done => [new StepEnds(step.Id), .. Does(card, step, done)],
        DeviationTaken { Kind: DeviationKind.StepLeftOut } left => Leaves(card, step, left.Reason),
        _ => throw Foreign(happened),
    };

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => new ConfirmStep(step.Id);

    /// <summary>Whether this work wants the engine bay looked over first.</summary>
    /// <param name="card">The card as it stands.</param>
    protected virtual bool AsksToLookAbove(JobCard card) => false;

    /// <summary>What a press does beside ending the step.</summary>
    protected abstract IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done);

    /// <summary>Answers the press.</summary>
    protected virtual Decision Pressed(StepAt at, ConfirmStep said) => said.Count is null ? Decision.Yes(new StepDone(at.Id))
        : Decision.No("Nothing is counted at this step.", "Leave the count away.", field: "count");

    /// <summary>Answers that the step is left out.</summary>
    protected virtual Decision Left(StepAt at, Deviate said) =>
        at.Leave(said, $"Left out: {at.Card.TitleOf(at.Step)}", at.Card.IsEssential(at.Step));

    /// <summary>What leaving it out does.</summary>
    protected virtual IReadOnlyList<Effect> Leaves(JobCard card, SheetStep step, string reason) =>
        [new StepLeftOut(step.Id, reason)];
}

/// <summary>A kind that nobody here knows, as on a card of a newer program: it allows nothing, and says so.</summary>
internal sealed class UnknownCoach : Coach
{
    public override string Kind => "";

    public override StepTraits Traits(SheetStep step) => default;

    public override string? Wants(ModelSheet sheet, SheetStep step) => "a kind that is known here";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) =>
        [new($"Nobody has said how “{card.TitleOf(step)}” is done.",
            "Ask the one who keeps the sheets to put it right; leave it for later meanwhile.", Ground: Ground.Unknown)];

    internal override Decision Decide(StepAt at, CardCommand said) => at.NotNow() ?? NotHere(at);

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => throw Foreign(happened);

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) => new ConfirmStep(step.Id);
}
