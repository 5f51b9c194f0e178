using System.Collections.Concurrent;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Practice;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>How somebody stands with a lesson.</summary>
/// <param name="Lesson">The lesson.</param>
/// <param name="Runs">Their runs of it that were looked back on.</param>
/// <param name="IsPassed">Whether one of them was done well.</param>
/// <param name="Going">Their run of it that goes on; null for none.</param>
public sealed record LessonProgress(ShelvedLesson Lesson, int Runs, bool IsPassed, CardNumber? Going);

/// <summary>
/// The practice bay: runs of lessons, each a card of its own beside a vehicle in software. What is kept of a run is what was chosen, typed
/// and told; it is made again from that. Its cards are nowhere among those of vehicles.
/// </summary>
public sealed class PracticeDesk(PracticeStore store, LessonShelf lessons, SheetStore sheets, PeopleStore people, WorkshopClock clock)
    : ICardRoom
{
    private const int KeptReady = 60;

    private readonly ConcurrentDictionary<CardNumber, PracticeRun> _known = new();

    /// <summary>Raised after something happened in a run, with its number and how many things have.</summary>
    public event Action<CardNumber, int>? Changed;

    /// <summary>Begins a lesson.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="by">Who.</param>
    /// <returns>Its number; or why it cannot be begun.</returns>
    public async Task<(CardNumber? Run, Refusal? Not)> Begin(Lesson lesson, Person by)
    {
        if (Refused(by) is { } not)
            return (null, not);
        if (lessons.Sheet(lesson.Sheet) is not { } sheet)
            return (null, new("The model of this lesson is not in the library.", "Bring its sheet in first."));
        return await Begin(lesson, sheet, by);
    }

    /// <summary>Walks a sheet that is being written, beside a vehicle made from it.</summary>
    /// <param name="sheet">The sheet as it was kept to be walked.</param>
    /// <param name="jobs">Jobs of it.</param>
    /// <param name="by">Who.</param>
    public async Task<(CardNumber? Run, Refusal? Not)> Walk(ModelSheet sheet, IReadOnlyList<JobId> jobs, Person by) =>
        Refused(by) is { } not ? (null, not) : await Begin(FreePractice.Of(sheet, jobs, 0, true, _ => 0), sheet, by);

    private async Task<(CardNumber? Run, Refusal? Not)> Begin(Lesson lesson, ModelSheet sheet, Person by)
    {
        var run = PracticeRun.Begin(lesson, sheet, clock.Now, by);
        var id = await store.Begin(lesson.Id, LessonFile.Write(lesson), run.Card.History[0]);
        Remember(id, run);
        return (id, null);
    }

    private static Refusal? Refused(Person by) => by.WorksOnCards ? null
        : new("Only technicians and the lead work in the practice bay.", "Ask the lead.");

    /// <summary>A run; null when there is none of this number.</summary>
    public PracticeRun? Run(CardNumber id)
    {
        if (_known.TryGetValue(id, out var known))
            return known;
        if (store.Entry(id) is not { } entry || store.Read(id) is not var (text, opened, lines)
            || sheets.Find(entry.Sheet, entry.Revision) is not { } sheet)
            return null;
        var by = people.Find(entry.Person)?.Person ?? new Person(entry.Person, entry.Person.Text, Role.Technician);
        var run = PracticeLog.Read(PracticeRun.Begin(lessons.Of(text), sheet, new Recorded(1, entry.BeganAt, by, Guid.Empty, opened)),
            lines.Select(l => (l.At, l.By, l.Kind, l.Body)));
        Remember(id, run);
        return run;
    }

    private void Remember(CardNumber id, PracticeRun run)
    {
        if (_known.Count > KeptReady)
            _known.Clear();
        _known[id] = run;
    }

    /// <summary>What is kept of a run; null when there is none of this number.</summary>
    public PracticeEntryOf? Of(CardNumber id) => store.Entry(id);

    /// <summary>All runs, the newest first.</summary>
    public IReadOnlyList<PracticeEntryOf> All => store.All();

    /// <summary>Whether somebody may see a run: whoever works in it, and the lead.</summary>
    public static bool MaySee(PracticeEntryOf run, Person who) => run.Person == who.Id || run.Second == who.Id || who.Role == Role.Lead;

    /// <summary>Whether somebody may take a place in a run that goes on and wants two.</summary>
    public bool MayJoin(PracticeEntryOf run, Person who) => who.WorksOnCards && run is { EndedAt: null, Second: null }
        && run.Person != who.Id && Run(run.Id)?.Lesson.People == 2;

    /// <summary>Somebody takes the second place in a run.</summary>
    /// <returns>Why not; null when they have it.</returns>
    public async Task<Refusal?> Join(CardNumber id, Person who)
    {
        if (store.Entry(id) is not { } entry || Run(id) is not { } run || !MayJoin(entry, who))
            return new("There is no place for a second person in it.", "Begin a lesson of your own.");
        return await Write(id, run, run, who.Id) ? null : new("Somebody else was quicker.", "Load the page again.");
    }

    // Who may act: those who have a place in it, while it goes on.
    private Refusal? MayAct(CardNumber id, Person by) => store.Entry(id) switch
    {
        null => new("There is no such run.", "Go back to the practice bay."),
        { EndedAt: not null } => new("This lesson was looked back on; nothing is added to it.", "Begin it anew."),
        var entry when entry.Person != by.Id && entry.Second != by.Id =>
            new("Somebody else practises here.", "Begin a lesson of your own."),
        _ => null,
    };

    /// <summary>Somebody does something, or looks at something, and the bay's clock goes on by what that takes.</summary>
    /// <returns>What is wrong; null when it is done.</returns>
    public Task<Refusal?> Do(CardNumber id, Person by, string choice, string typed) => Turn(id, by, run =>
    {
        var (next, problem) = run.Do(by, choice, typed, run.Now + run.Takes(by.Name, choice, typed));
        return (next, problem.Length > 0 ? new Refusal(problem, Field: "typed") : null);
    });

    /// <summary>Somebody lets time pass.</summary>
    /// <param name="id">The run.</param>
    /// <param name="by">Who.</param>
    /// <param name="time">How long; null until the wait that ends first is over.</param>
    /// <returns>What is wrong; null when it has passed.</returns>
    public Task<Refusal?> Wait(CardNumber id, Person by, TimeSpan? time) => Turn(id, by, run =>
    {
        var left = time ?? run.Card.Waits.Select(w => w.Until - run.Now).Where(w => w > TimeSpan.Zero).DefaultIfEmpty(TimeSpan.Zero).Min();
        var whole = TimeSpan.FromSeconds(Math.Ceiling(left.TotalSeconds));
        return whole <= TimeSpan.Zero || whole > PracticeRun.LongestWait
            ? (run, new Refusal("Nothing is waited for.", "Go on with the card.")) : (run.Wait(by, whole), null);
    });

    // What was thought of beside somebody else's hand is thought of again; so many hands are not in one bay.
    private const int MostTries = 40;

    // What was kept under another version of the program and means nothing to this one.
    private static Refusal NotAsItWas => new("What was done in this run cannot be done again as it was.", "Begin the lesson anew.");

    private async Task<Refusal?> Turn(CardNumber id, Person by, Func<PracticeRun, (PracticeRun Next, Refusal? Not)> does)
    {
        for (var tries = 0; tries < MostTries; tries++)
        {
            if (MayAct(id, by) is { } not)
                return not;
            var run = Run(id)!;
            var (next, wrong) = does(run);
            if (wrong is not null)
                return wrong;
            if (await Write(id, run, next, null))
                return null;
            _known.TryRemove(id, out _);
        }
        return NotAsItWas;
    }

    private async Task<bool> Write(CardNumber id, PracticeRun before, PracticeRun after, PersonId? second)
    {
        var lines = after.Log.Skip(before.Log.Count).Select(e => PracticeLog.Write(e) is var (kind, body)
            ? new PracticeLine(e.At, e.By, kind, body) : throw new InvalidOperationException()).ToList();
        if (!await store.Add(id, before.Log.Count, lines, second))
            return false;
        Remember(id, after);
        Changed?.Invoke(id, after.Log.Count);
        return true;
    }

    /// <summary>Somebody of a run says something to its card, in their own name or in that of the bay's lead.</summary>
    /// <returns>What stands against it; empty when the card took it.</returns>
    public async Task<IReadOnlyList<Refusal>> Say(CardNumber id, Person by, CardCommand command, Person name)
    {
        Decision? decision = null;
        var not = await Turn(id, by, run =>
        {
            (var next, decision) = run.Tell(command, Guid.CreateVersion7(), name, run.Now + PracticeRun.APress);
            return (next, null);
        });
        return not is not null ? [not] : decision switch
        {
            Accepted => [],
            Refused refused => refused.Reasons,
            Asked asked => [new(asked.Question.Text)],
            _ => throw new InvalidOperationException($"Nobody has said what {decision} means here."),
        };
    }

    /// <summary>Ends a run, and looks back on it.</summary>
    /// <returns>What is wrong; null when it has ended.</returns>
    public async Task<Refusal?> End(CardNumber id, Person by)
    {
        for (var tries = 0; tries < MostTries; tries++)
        {
            if (MayAct(id, by) is { } not)
                return not;
            // What somebody else did meanwhile is judged as well.
            var run = Run(id)!;
            if (await store.End(id, run.Log.Count, Debrief.Of(run).IsPassed, clock.Now) == 1)
            {
                Changed?.Invoke(id, run.Log.Count + 1);
                return null;
            }
            _known.TryRemove(id, out _);
        }
        return NotAsItWas;
    }

    /// <summary>How somebody stands with every lesson.</summary>
    public IReadOnlyList<LessonProgress> Progress(PersonId who)
    {
        var runs = All.Where(r => r.Person == who || r.Second == who).ToLookup(r => r.Lesson);
        return [.. lessons.All().Select(l => new LessonProgress(l, runs[l.Lesson.Id].Count(r => r.EndedAt is not null),
            runs[l.Lesson.Id].Any(r => r.Passed == true), runs[l.Lesson.Id].FirstOrDefault(r => r.EndedAt is null)?.Id))];
    }

    /// <inheritdoc/>
    public JobCard? Find(CardNumber id) => Run(id)?.Card;

    /// <inheritdoc/>
    public CardEntry? Entry(CardNumber id) => store.Entry(id) is { } entry && Run(id) is { } run
        ? new(id, PracticeRun.Plate, "", entry.BeganAt, run.Card.Signature?.At, null) : null;

    /// <inheritdoc/>
    public async Task<CardAnswer?> Handle(CardNumber id, Guid command, CardSaid said)
    {
        if (Run(id) is not { } now)
            return null;
        if (said.Kept is not null)
            return new(new Refused([new("In the practice bay nothing is kept without a line.", "Press it again there.")]), now.Card, false);
        CardAnswer? answer = null;
        var not = await Turn(id, said.By, run =>
        {
            if (run.Card.History.Any(h => h.Command == command))
            {
                answer = new(new Accepted([.. run.Card.History.Where(h => h.Command == command).Select(h => h.Event)]), run.Card, true);
                return (run, null);
            }
            var (next, decision) = run.Tell(said.Command, command, said.By, run.Now + PracticeRun.APress);
            answer = new(decision, next.Card, false);
            return (next, null);
        });
        return not is null ? answer : new(new Refused([not]), now.Card, false);
    }
}
