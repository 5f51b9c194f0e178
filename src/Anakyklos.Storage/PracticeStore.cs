using Anakyklos.Core.Cards;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>A run of the practice bay.</summary>
/// <param name="Id">Its number, which is that of its card.</param>
/// <param name="Lesson">Its lesson's id.</param>
/// <param name="Sheet">Its model.</param>
/// <param name="Revision">The revision of that.</param>
/// <param name="Person">Whose it is.</param>
/// <param name="Second">Who works on it as well; null for nobody.</param>
/// <param name="BeganAt">When it was begun.</param>
/// <param name="EndedAt">When it was looked back on; null while it goes on.</param>
/// <param name="Passed">Whether the lesson was done well; null while it goes on.</param>
public sealed record PracticeEntryOf(CardNumber Id, LessonId Lesson, SheetId Sheet, int Revision, PersonId Person, PersonId? Second,
    DateTimeOffset BeganAt, DateTimeOffset? EndedAt, bool? Passed);

/// <summary>Something that happened in a run, as it is kept.</summary>
/// <param name="At">When, by the bay's own clock.</param>
/// <param name="By">Whose.</param>
/// <param name="Kind">What kind of thing it is.</param>
/// <param name="Body">What is kept of it, as JSON.</param>
public sealed record PracticeLine(DateTimeOffset At, Person By, string Kind, string Body);

/// <summary>A lesson that the workshop wrote.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Text">Its file.</param>
/// <param name="Person">Who wrote it.</param>
/// <param name="At">When.</param>
public sealed record OwnLesson(LessonId Id, string Text, PersonId Person, DateTimeOffset At);

/// <summary>Runs of the practice bay and lessons of the workshop's own. Nothing of them is in the tables of cards.</summary>
public sealed class PracticeStore(WorkshopDatabase database)
{
    /// <summary>The numbers of runs begin here, far beyond those of cards.</summary>
    public const long FirstNumber = 900_000_001;

    private const string Columns = "id, lesson_id, sheet_id, sheet_revision, person_id, second_id, began_at, ended_at, passed";

    /// <summary>Whether a number is one of a run, and not of a card.</summary>
    public static bool IsRun(CardNumber id) => id.Value >= FirstNumber;

    /// <summary>Begins a run.</summary>
    /// <param name="lesson">Its lesson's id.</param>
    /// <param name="text">The lesson as it is worked, as a file.</param>
    /// <param name="opened">How its card was opened, and by whom.</param>
    /// <returns>Its number.</returns>
    public Task<CardNumber> Begin(LessonId lesson, string text, Recorded opened) => database.Writes.Run(scope =>
    {
        CardNumber id = Math.Max(FirstNumber, (scope.Connection.ExecuteScalar<long?>("select max(id) from practice_run") ?? 0) + 1);
        var of = (CardOpened)opened.Event;
        scope.Connection.Execute("""
            insert into practice_run (id, lesson_id, lesson, sheet_id, sheet_revision, person_id, began_at, opened)
            values (@id, @lesson, @text, @SheetId, @SheetRevision, @person, @at, @body)
            """, new { id, lesson, text, of.SheetId, of.SheetRevision, person = opened.By.Id, at = CardStore.Iso(opened.At),
                body = CardJson.Write(of) });
        return id;
    });

    /// <summary>A run; null when there is none of this number.</summary>
    public PracticeEntryOf? Entry(CardNumber id) => List("where id = @id", new { id }).FirstOrDefault();

    /// <summary>All runs, the newest first.</summary>
    public IReadOnlyList<PracticeEntryOf> All() => List("order by id desc", new { });

    private List<PracticeEntryOf> List(string where, object with)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(long Id, string Lesson, string Sheet, int Revision, string Person, string? Second, string Began,
            string? Ended, bool? Passed)>($"select {Columns} from practice_run {where}", with).Select(r => new PracticeEntryOf(new(r.Id),
                r.Lesson, r.Sheet, r.Revision, PersonId.Of(r.Person), r.Second is { } second ? PersonId.Of(second) : (PersonId?)null,
                CardStore.Time(r.Began), r.Ended is { } ended ? CardStore.Time(ended) : null, r.Passed))];
    }

    /// <summary>A run's lesson, how its card was opened, and all that happened; null when there is none of this number.</summary>
    public (string Lesson, CardOpened Opened, IReadOnlyList<PracticeLine> Lines)? Read(CardNumber id)
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<(string Lesson, string Opened)?>("select lesson, opened from practice_run where id = @id",
            new { id }) is var (lesson, opened) ? (lesson, (CardOpened)CardJson.Read(opened), Lines(connection, id)) : null;
    }

    private static List<PracticeLine> Lines(SqliteConnection connection, CardNumber id) =>
        [.. connection.Query<(string At, string Person, string Name, string Role, string Kind, string Body)>("""
            select at, person_id, person_name, person_role, kind, body from practice_entry where run_id = @id order by seq
            """, new { id }).Select(r => new PracticeLine(CardStore.Time(r.At), new(r.Person, r.Name, Enum.Parse<Role>(r.Role, true)),
                r.Kind, r.Body))];

    /// <summary>Keeps what happened in a run that goes on.</summary>
    /// <param name="id">The run.</param>
    /// <param name="after">So many lines it has.</param>
    /// <param name="lines">What comes after them.</param>
    /// <param name="second">Who works on it as well from now on; null for no change.</param>
    /// <returns>False, and nothing is written, where it has others by now or has ended.</returns>
    public Task<bool> Add(CardNumber id, int after, IReadOnlyList<PracticeLine> lines, PersonId? second) => database.Writes.Run(scope =>
    {
        if (scope.Connection.ExecuteScalar<int>("select count(*) from practice_entry where run_id = @id", new { id }) != after
            || scope.Connection.ExecuteScalar<int>("select count(*) from practice_run where id = @id and ended_at is null",
                new { id }) == 0)
            return false;
        foreach (var (line, n) in lines.Select((l, i) => (l, after + i + 1)))
            scope.Connection.Execute("""
                insert into practice_entry (run_id, seq, at, person_id, person_name, person_role, kind, body)
                values (@id, @n, @at, @Id, @Name, @role, @Kind, @Body)
                """, new { id, n, at = CardStore.Iso(line.At), line.By.Id, line.By.Name, role = line.By.Role.ToString().ToLowerInvariant(),
                    line.Kind, line.Body });
        if (second is { } other)
            scope.Connection.Execute("update practice_run set second_id = @other where id = @id and second_id is null", new { id, other });
        return true;
    });

    /// <summary>Ends a run; what it came to stays.</summary>
    /// <param name="id">The run.</param>
    /// <param name="after">So many lines it had when it was judged.</param>
    /// <param name="passed">Whether the lesson was done well.</param>
    /// <param name="at">When.</param>
    /// <returns>1, or 0 where it has ended before or more has happened in it since.</returns>
    public Task<int> End(CardNumber id, int after, bool passed, DateTimeOffset at) => database.Writes.Run(scope =>
        scope.Connection.Execute("""
        update practice_run set ended_at = @at, passed = @passed
        where id = @id and ended_at is null and (select count(*) from practice_entry where run_id = @id) = @after
        """, new { id, after, passed = passed ? 1 : 0, at = CardStore.Iso(at) }));

    /// <summary>Who has done a lesson well, alone or as the second of two.</summary>
    internal static IReadOnlySet<PersonId> WhoPassed(SqliteConnection connection, LessonId lesson) => connection.Query<string>("""
        select person_id from practice_run where lesson_id = @lesson and passed = 1
        union select second_id from practice_run where lesson_id = @lesson and passed = 1 and second_id is not null
        """, new { lesson }).Select(PersonId.Of).ToHashSet();

    /// <summary>The workshop's own lessons, oldest first.</summary>
    public IReadOnlyList<OwnLesson> OwnLessons()
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Id, string Text, string Person, string At)>(
            "select id, lesson, person_id, at from own_lesson order by at, id")
            .Select(r => new OwnLesson(r.Id, r.Text, PersonId.Of(r.Person), CardStore.Time(r.At)))];
    }

    /// <summary>Is another whenever a lesson of the workshop's own is kept or given up.</summary>
    public string OwnLessonStamp()
    {
        using var connection = database.Connect();
        var (lessons, letters, last) = connection.QuerySingle<(long, long, string)>(
            "select count(*), coalesce(sum(length(lesson)), 0), coalesce(max(at), '') from own_lesson");
        return $"{lessons}/{letters}/{last}";
    }

    /// <summary>Keeps a lesson of the workshop's own; one of the same id is replaced.</summary>
    public Task<int> Keep(OwnLesson lesson) => database.Writes.Run(scope => scope.Connection.Execute("""
        insert into own_lesson (id, lesson, person_id, at) values (@Id, @Text, @Person, @at)
        on conflict (id) do update set lesson = excluded.lesson, person_id = excluded.person_id, at = excluded.at
        """, new { lesson.Id, lesson.Text, lesson.Person, at = CardStore.Iso(lesson.At) }));

    /// <summary>Gives up a lesson of the workshop's own; what was worked of it stays.</summary>
    /// <returns>1, or 0 where there is none of this id.</returns>
    public Task<int> GiveUp(LessonId id) => database.Writes.Run(scope =>
        scope.Connection.Execute("delete from own_lesson where id = @id", new { id }));
}
