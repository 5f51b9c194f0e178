using System.Collections.Immutable;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Devices;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>Something that happened in the practice bay.</summary>
/// <param name="At">When, by the bay's own clock.</param>
/// <param name="By">Whose.</param>
public abstract record PracticeEntry(DateTimeOffset At, Person By);

/// <summary>The card was told something, and took it.</summary>
/// <param name="Said">The event.</param>
public sealed record CardTold(Recorded Said) : PracticeEntry(Said.At, Said.By);

/// <summary>Hands or eyes did something.</summary>
/// <param name="At">When.</param>
/// <param name="By">Whose.</param>
/// <param name="Choice">What was chosen.</param>
/// <param name="Typed">What was typed beside it.</param>
/// <param name="Words">What was done, in words.</param>
/// <param name="Sees">What was seen or felt by it; null where nothing was.</param>
/// <param name="Harms">What came of it, or of the time before it.</param>
public sealed record HandDid(DateTimeOffset At, Person By, string Choice, string Typed, string Words, Sight? Sees,
    IReadOnlyList<Harm> Harms) : PracticeEntry(At, By);

/// <summary>The card refused what it was told.</summary>
/// <param name="At">When.</param>
/// <param name="By">Whose.</param>
/// <param name="Step">The step that was next; null for none.</param>
/// <param name="Reasons">Why.</param>
/// <param name="Saved">What would have come of it, had the hands done it there and then.</param>
public sealed record GateStopped(DateTimeOffset At, Person By, StepId? Step, IReadOnlyList<Refusal> Reasons, IReadOnlyList<Harm> Saved)
    : PracticeEntry(At, By);

/// <summary>
/// A lesson that is being worked: a real card with its real gates, a vehicle that answers to hands, and all that happened. A value; each
/// thing that happens makes the next one, and the same things at the same times make the same run again. The card knows only what it is
/// told, and the vehicle only what is done to it.
/// </summary>
public sealed record PracticeRun
{
    /// <summary>The plate of a vehicle that stands in no yard.</summary>
    public const string Plate = "PRACTICE";

    private PracticeRun(Lesson lesson, JobCard card, Vehicle vehicle) => (Lesson, Card, Vehicle) = (lesson, card, vehicle);

    /// <summary>The lesson.</summary>
    public Lesson Lesson { get; }

    /// <summary>The card as it was told.</summary>
    public JobCard Card { get; private init; }

    /// <summary>The vehicle as it is.</summary>
    public Vehicle Vehicle { get; private init; }

    /// <summary>What happened, oldest first.</summary>
    public ImmutableList<PracticeEntry> Log { get; private init; } = [];

    /// <summary>The things at which somebody has seen or felt that something is wrong, and when first.</summary>
    public ImmutableDictionary<ThingId, DateTimeOffset> Known { get; private init; } = ImmutableDictionary<ThingId, DateTimeOffset>.Empty;

    /// <summary>The wrench in each one's hand.</summary>
    public ImmutableDictionary<string, PracticeWrench> Wrench { get; private init; } = ImmutableDictionary<string, PracticeWrench>.Empty;

    /// <summary>Everything that should not have happened, with when.</summary>
    public IReadOnlyList<(DateTimeOffset At, Harm Harm)> Harms =>
        [.. Log.OfType<HandDid>().SelectMany(d => d.Harms.Where(IsHarm).Select(h => (d.At, h)))];

    /// <summary>Begins a lesson.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="sheet">Its model.</param>
    /// <param name="now">When.</param>
    /// <param name="by">Who opens the card.</param>
    public static PracticeRun Begin(Lesson lesson, ModelSheet sheet, DateTimeOffset now, Person by) => Begin(lesson, sheet,
        new Recorded(1, now, by, Guid.Empty, new CardOpened(Plate, sheet.Id, sheet.Revision, lesson.Jobs,
            CardPlanner.Plan(sheet, lesson.Jobs, lesson.People).Steps, Quantity<Distance>.Of(100_000, Distance.Kilometre), Use.Normal, null,
            new Dictionary<PartId, int>())));

    /// <summary>Begins a lesson with a card that was opened before.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="sheet">Its model.</param>
    /// <param name="opened">The card's opening event.</param>
    public static PracticeRun Begin(Lesson lesson, ModelSheet sheet, Recorded opened) => new(lesson, JobCard.Replay(sheet, [opened]),
        lesson.Faults.Aggregate(Vehicle.AsItComes(sheet, opened.At, lesson.Hot), (v, fault) => v.With(fault)));

    /// <summary>The run before anything was done in it.</summary>
    public PracticeRun Start => Begin(Lesson, Card.Sheet, Card.History[0]);

    /// <summary>The bay's own clock: it goes on by what is done and by what is waited, and stands while somebody reads.</summary>
    public DateTimeOffset Now => Log.IsEmpty ? Card.History[0].At : Log[^1].At;

    /// <summary>Whoever did or told anything in it, the one who opened it first.</summary>
    public IReadOnlyList<Person> People => [.. Log.Select(e => e.By).Prepend(Card.History[0].By).DistinctBy(p => p.Id)];

    /// <summary>What somebody can do where they stand.</summary>
    /// <param name="who">Their name.</param>
    public IReadOnlyList<InReach> Reach(string who) => Practice.Reach.Of(At(who));

    private AtHand At(string who) => new(Vehicle, who, Wrench.GetValueOrDefault(who), Lesson.Ready, Known.Keys.ToHashSet(), Lesson.Pan,
        Lesson.Worn);

    /// <summary>Somebody does something, or looks at something.</summary>
    /// <param name="by">Who.</param>
    /// <param name="choice">The id of a choice that they have.</param>
    /// <param name="typed">What they typed beside it.</param>
    /// <param name="at">When; not before what happened last.</param>
    /// <returns>The next run; or what is wrong with the choice or with what was typed, and then the same run.</returns>
    public (PracticeRun Run, string Problem) Do(Person by, string choice, string typed, DateTimeOffset at)
    {
        if (Reach(by.Name).SelectMany(t => t.Choices).FirstOrDefault(c => c.Id == choice) is not { } chosen)
            return (this, "That cannot be done from where you stand.");
        var (deed, problem) = chosen.Does(typed);
        if (deed is null)
            return (this, problem);
        var (vehicle, harms) = Vehicle.Until(at < Vehicle.Now ? Vehicle.Now : at);
        List<Harm> all = [.. harms];
        foreach (var hand in deed.Hands.OfType<Hand>())
        {
            var answer = vehicle.Answer(hand with { By = by.Name }, vehicle.Now);
            vehicle = answer.Vehicle;
            all.AddRange(answer.Harms);
        }
        var sees = deed.Sees?.Invoke(vehicle);
        return (this with
        {
            Vehicle = vehicle,
            Wrench = deed.Takes is { } wrench ? Wrench.SetItem(by.Name, wrench) : Wrench,
            Known = sees is { Wrong.IsEmpty: false } && !Known.ContainsKey(sees.Wrong) ? Known.Add(sees.Wrong, vehicle.Now) : Known,
            Log = Log.Add(new HandDid(vehicle.Now, by, choice, typed, deed.Words, sees, all)),
        }, "");
    }

    /// <summary>How long somebody's hands or eyes take for a choice: of what the card plans, what it plans for it; a moment for
    /// everything else.</summary>
    /// <param name="who">Their name.</param>
    /// <param name="choice">The id of a choice that they have.</param>
    /// <param name="typed">What they typed beside it.</param>
    public TimeSpan Takes(string who, string choice, string typed)
    {
        if (Reach(who).SelectMany(t => t.Choices).FirstOrDefault(c => c.Id == choice) is not { } chosen)
            return TimeSpan.Zero;
        return chosen.Kind switch
        {
            ChoiceKind.Look or ChoiceKind.Take => ALook,
            ChoiceKind.Go => AWalk,
            _ => chosen.Does(typed).Deed is { Hands: [.., var last] } ? Planned(choice, last) : TimeSpan.Zero,
        };
    }

    private static readonly TimeSpan ALook = TimeSpan.FromSeconds(10);
    private static readonly TimeSpan AWalk = TimeSpan.FromSeconds(15);
    private static readonly TimeSpan AHand = TimeSpan.FromSeconds(30);

    /// <summary>How long it takes to tell the card something.</summary>
    public static readonly TimeSpan APress = TimeSpan.FromSeconds(4);

    // What the plan gives for a step is shared by the hands that it takes.
    private TimeSpan Planned(string choice, Happening hand)
    {
        var thing = choice.Contains(':') ? choice[(choice.IndexOf(':') + 1)..].Split('/')[0] : "";
        foreach (var step in Card.Steps.Where(s => thing.Length == 0 || s.What.Text == thing))
        {
            var hands = HandsOf.Event(Card, new(Card.History.Count + 1, Now, Card.History[0].By, Guid.Empty, new StepDone(step.Id)),
                Vehicle).Where(h => h is not Goes).ToList();
            if (hands.Exists(h => h.GetType() == hand.GetType()))
                return step.Takes / hands.Count;
        }
        return AHand;
    }

    /// <summary>The choice of those who only wait, as it stands in the log.</summary>
    public const string Waiting = "wait";

    /// <summary>The longest that is waited at once.</summary>
    public static readonly TimeSpan LongestWait = TimeSpan.FromHours(12);

    /// <summary>Somebody lets time pass.</summary>
    /// <param name="by">Who.</param>
    /// <param name="time">How long; more than nothing, at most <see cref="LongestWait"/>, in whole seconds.</param>
    /// <exception cref="ArgumentOutOfRangeException">It is nothing, or too long.</exception>
    public PracticeRun Wait(Person by, TimeSpan time)
    {
        ArgumentOutOfRangeException.ThrowIfLessThanOrEqual(time, TimeSpan.Zero);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(time, LongestWait);
        var until = Now + time;
        var (vehicle, harms) = Vehicle.Until(until < Vehicle.Now ? Vehicle.Now : until);
        return this with
        {
            Vehicle = vehicle,
            Log = Log.Add(new HandDid(until, by, Waiting, FormattableString.Invariant($"{time.TotalSeconds:0}"),
                $"waits {(time < TimeSpan.FromMinutes(1) ? $"{time.TotalSeconds:0} s" : $"{time.TotalMinutes:0} min")}", null, harms)),
        };
    }

    /// <summary>Somebody tells the card something. The card answers by its own rules; the vehicle is not asked, and nothing is done to
    /// it.</summary>
    /// <param name="command">What is said.</param>
    /// <param name="id">The client's id of it.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When; not before what happened last.</param>
    public (PracticeRun Run, Decision Decision) Tell(CardCommand command, Guid id, Person by, DateTimeOffset at)
    {
        var decision = Card.Decide(command, by, at, PracticeBench.Facts(Lesson, Card.Sheet));
        switch (decision)
        {
            case Accepted accepted:
                var (card, said) = Card.Taking(accepted, id, by, at);
                return (this with { Card = card, Log = Log.AddRange(said.Select(s => new CardTold(s))) }, decision);
            // What was only typed wrongly is no gate.
            case Refused refused when refused.Reasons.All(r => r.Field is not null):
                return (this, decision);
            case Refused refused:
                return (this with { Log = Log.Add(new GateStopped(at, by, Card.Next?.Id, refused.Reasons, Saved(command, by, at))) },
                    decision);
            default:
                return (this, decision);
        }
    }

    /// <summary>The card after it heard something.</summary>
    public JobCard Hears(CardTold told) => Card.With([told.Said]);

    /// <summary>The run with what was stopped at a gate already.</summary>
    internal PracticeRun Hearing(GateStopped stopped) => this with { Log = Log.Add(stopped) };

    /// <summary>The run with what the card had been told already.</summary>
    internal PracticeRun Hearing(CardTold told) => this with { Card = Card.With([told.Said]), Log = Log.Add(told) };

    // What the hands would have come to that do what was refused: only where it is as plain as a press that something is done.
    private IReadOnlyList<Harm> Saved(CardCommand command, Person by, DateTimeOffset at)
    {
        if (command is not ConfirmStep confirm || Card.Step(confirm.Step) is not { } step)
            return [];
        var harms = new List<Harm>();
        var vehicle = Vehicle.Until(at < Vehicle.Now ? Vehicle.Now : at).Vehicle;
        foreach (var move in HandsOf.Event(Card, new(Card.History.Count + 1, at, by, Guid.Empty, new StepDone(step.Id)), vehicle))
        {
            var answer = vehicle.Answer(move, vehicle.Now);
            vehicle = answer.Vehicle;
            harms.AddRange(answer.Harms.Where(IsHarm));
        }
        return harms;
    }

    /// <summary>Whether something is a harm, and not only a hand that could do nothing.</summary>
    internal static bool IsHarm(Harm harm) => harm.Kind != HarmKind.OutOfReach;
}
