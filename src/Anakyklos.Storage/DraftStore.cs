using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>A sheet that is being written.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Sheet">The model's id.</param>
/// <param name="Content">Its text.</param>
/// <param name="Edition">How often it was changed; 1 at first.</param>
/// <param name="Base">The revision that it was made from; null for a new model.</param>
/// <param name="StartedBy">Who began it.</param>
/// <param name="StartedAt">When.</param>
/// <param name="ChangedBy">Who changed it last.</param>
/// <param name="ChangedAt">When.</param>
/// <param name="Ended">Empty while it is written; then <c>in use</c> or <c>thrown away</c>.</param>
public sealed record Draft(long Id, SheetId Sheet, string Content, int Edition, int? Base, PersonId StartedBy, DateTimeOffset StartedAt,
    PersonId ChangedBy, DateTimeOffset ChangedAt, string Ended);

/// <summary>What somebody typed from the source, blind.</summary>
/// <param name="Path">The value.</param>
/// <param name="Person">Who.</param>
/// <param name="At">When.</param>
/// <param name="Typed">What was typed, as JSON: a text for the path of each field.</param>
/// <param name="Outcome"><c>same</c>; <c>other</c>, which asks for a ruling; <c>ruled</c>; or <c>changed</c>, where the value was written
/// anew since.</param>
public sealed record DraftLook(string Path, PersonId Person, DateTimeOffset At, string Typed, string Outcome);

/// <summary>What became of a revision.</summary>
/// <param name="Revision">The revision.</param>
/// <param name="Turn"><c>in use</c> or <c>withdrawn</c>.</param>
/// <param name="Person">By whom.</param>
/// <param name="Reason">Why; empty where nothing was said.</param>
/// <param name="At">When.</param>
public sealed record SheetTurn(int Revision, string Turn, PersonId Person, string Reason, DateTimeOffset At);

/// <summary>Sheets that are being written, who wrote which value, and what was typed when they were checked.</summary>
public sealed class DraftStore(WorkshopDatabase database)
{
    /// <summary>So many may be written at once.</summary>
    public const int Most = 40;

    /// <summary>Begins a draft.</summary>
    /// <param name="sheet">The model's id.</param>
    /// <param name="content">Its text.</param>
    /// <param name="basedOn">The revision that it is made from; null for a new model.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <returns>Its number; null where as many are written as may be.</returns>
    public Task<long?> Begin(SheetId sheet, string content, int? basedOn, PersonId by, DateTimeOffset at) => database.Writes.Run(scope =>
        scope.Connection.ExecuteScalar<int>("select count(*) from draft where ended = ''") >= Most ? (long?)null
        : scope.Connection.ExecuteScalar<long>("""
            insert into draft (sheet_id, content, edition, base, started_by, started_at, changed_by, changed_at)
            values (@sheet, @content, 1, @basedOn, @by, @at, @by, @at) returning id
            """, new { sheet, content, basedOn, by, at = CardStore.Iso(at) }));

    /// <summary>A draft; null when there is none of this number.</summary>
    public Draft? Find(long id)
    {
        using var connection = database.Connect();
        return Rows(connection, "where id = @id", new { id }).FirstOrDefault();
    }

    /// <summary>The drafts that are being written, the one that was changed last first.</summary>
    public IReadOnlyList<Draft> Open()
    {
        using var connection = database.Connect();
        return [.. Rows(connection, "where ended = '' order by changed_at desc, id desc", new { })];
    }

    /// <summary>The drafts of a model that came into use, in the order in which they did.</summary>
    public IReadOnlyList<Draft> InUse(SheetId sheet)
    {
        using var connection = database.Connect();
        return [.. Rows(connection, "where ended = 'in use' and sheet_id = @sheet order by changed_at, id", new { sheet })];
    }

    private static IEnumerable<Draft> Rows(SqliteConnection connection, string where, object with) =>
        connection.Query<(long Id, string Sheet, string Content, int Edition, int? Base, string StartedBy, string StartedAt, string By,
            string At, string Ended)>($"""
            select id, sheet_id, content, edition, base, started_by, started_at, changed_by, changed_at, ended from draft {where}
            """, with).Select(d => new Draft(d.Id, d.Sheet, d.Content, d.Edition, d.Base, d.StartedBy, CardStore.Time(d.StartedAt), d.By,
            CardStore.Time(d.At), d.Ended));

    /// <summary>Writes a draft's next edition.</summary>
    /// <param name="draft">The draft as it was read.</param>
    /// <param name="content">Its text from now on.</param>
    /// <param name="written">The values that were written in it, by their paths: they are this person's, and whoever read them before has
    /// read something else.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it was kept; false where somebody was quicker, or it has ended.</returns>
    public Task<bool> Write(Draft draft, string content, IReadOnlyList<string> written, PersonId by, DateTimeOffset at) =>
        database.Writes.Run(scope =>
        {
            if (!Next(scope.Connection, draft, content, by, at))
                return false;
            foreach (var path in written)
            {
                scope.Connection.Execute("""
                    insert into draft_value (draft_id, path, person_id, at) values (@Id, @path, @by, @at)
                    on conflict (draft_id, path) do update set person_id = @by, at = @at
                    """, new { draft.Id, path, by, at = CardStore.Iso(at) });
                scope.Connection.Execute("""
                    update draft_look set outcome = 'changed' where draft_id = @Id and path = @path and outcome in ('other', 'same')
                    """, new { draft.Id, path });
            }
            return true;
        });

    private static bool Next(SqliteConnection connection, Draft draft, string content, PersonId by, DateTimeOffset at) =>
        connection.Execute("""
            update draft set content = @content, edition = edition + 1, changed_by = @by, changed_at = @at
            where id = @Id and edition = @Edition and ended = ''
            """, new { draft.Id, draft.Edition, content, by, at = CardStore.Iso(at) }) == 1;

    /// <summary>Keeps what somebody typed from the source, with what becomes of the draft by it. What they typed of it before gives way
    /// to this.</summary>
    /// <param name="draft">The draft as it was read.</param>
    /// <param name="content">Its text from now on.</param>
    /// <param name="look">What was typed.</param>
    /// <returns>Whether it was kept; false where somebody was quicker, or it has ended.</returns>
    public Task<bool> Look(Draft draft, string content, DraftLook look) => database.Writes.Run(scope =>
    {
        var at = CardStore.Iso(look.At);
        if (content != draft.Content ? !Next(scope.Connection, draft, content, look.Person, look.At)
            : scope.Connection.ExecuteScalar<int>("select count(*) from draft where id = @Id and edition = @Edition and ended = ''",
                new { draft.Id, draft.Edition }) != 1)
            return false;
        scope.Connection.Execute("""
            update draft_look set outcome = 'changed' where draft_id = @Id and path = @Path and person_id = @Person and outcome = 'other'
            """, new { draft.Id, look.Path, look.Person });
        scope.Connection.Execute("""
            insert into draft_look (draft_id, path, person_id, at, typed, outcome) values (@Id, @Path, @Person, @at, @Typed, @Outcome)
            """, new { draft.Id, look.Path, look.Person, at, look.Typed, look.Outcome });
        return true;
    });

    /// <summary>Keeps a ruling on values that two people read otherwise.</summary>
    /// <param name="draft">The draft as it was read.</param>
    /// <param name="content">Its text from now on.</param>
    /// <param name="path">The value that was ruled on.</param>
    /// <param name="by">Who ruled.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it was kept; false where somebody was quicker, or it has ended.</returns>
    public Task<bool> Rule(Draft draft, string content, string path, PersonId by, DateTimeOffset at) => database.Writes.Run(scope =>
        Next(scope.Connection, draft, content, by, at) && scope.Connection.Execute("""
            update draft_look set outcome = 'ruled' where draft_id = @Id and path = @path and outcome = 'other'
            """, new { draft.Id, path }) > 0);

    /// <summary>What was typed at a draft, the oldest first.</summary>
    public IReadOnlyList<DraftLook> Looks(long draft)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(string Path, string Person, string At, string Typed, string Outcome)>(
            "select path, person_id, at, typed, outcome from draft_look where draft_id = @draft order by id", new { draft })
            .Select(l => new DraftLook(l.Path, l.Person, CardStore.Time(l.At), l.Typed, l.Outcome))];
    }

    /// <summary>Who wrote which value of a draft; what is not in it is whose who began it.</summary>
    public IReadOnlyDictionary<string, PersonId> Writers(long draft)
    {
        using var connection = database.Connect();
        return connection.Query<(string Path, string Person)>("select path, person_id from draft_value where draft_id = @draft",
            new { draft }).ToDictionary(v => v.Path, v => (PersonId)v.Person);
    }

    /// <summary>Throws a draft away. Its text stays in the file.</summary>
    /// <returns>Whether it was being written.</returns>
    public Task<bool> ThrowAway(long id, PersonId by, DateTimeOffset at) => database.Writes.Run(scope => scope.Connection.Execute("""
        update draft set ended = 'thrown away', changed_by = @by, changed_at = @at where id = @id and ended = ''
        """, new { id, by, at = CardStore.Iso(at) }) == 1);

    /// <summary>Puts a draft in use as the next revision of its model.</summary>
    /// <param name="draft">The draft as it was looked at.</param>
    /// <param name="newest">The revision in use that it was compared with; null for a model that is not here.</param>
    /// <param name="sheet">The sheet, whose revision is the next.</param>
    /// <param name="json">Its text.</param>
    /// <param name="reason">What is new, in words.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <returns>Whether it was; false where draft or model are not as they were looked at.</returns>
    public Task<bool> PutInUse(Draft draft, int? newest, ModelSheet sheet, string json, string reason, PersonId by, DateTimeOffset at) =>
        database.Writes.Run(scope =>
        {
            var last = scope.Connection.QuerySingleOrDefault<int?>(
                "select max(revision) from sheet where id = @Id and state = 'in use'", new { sheet.Id });
            if (last != newest || scope.Connection.Execute("""
                update draft set ended = 'in use', changed_by = @by, changed_at = @at where id = @Id and edition = @Edition and ended = ''
                """, new { draft.Id, draft.Edition, by, at = CardStore.Iso(at) }) != 1)
                return false;
            scope.Connection.Execute("""
                insert into sheet (id, revision, content, brought_in_at, state) values (@Id, @Revision, @json, @at, 'in use')
                """, new { sheet.Id, sheet.Revision, json, at = CardStore.Iso(at) });
            Turn(scope.Connection, sheet.Id, new(sheet.Revision, "in use", by, reason, at));
            return true;
        });

    /// <summary>Withdraws the newest revision of a model: the one before it is the newest then. Cards that were opened with it keep
    /// it.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="turn">The revision, by whom, and why.</param>
    /// <returns>Whether it was; false where it is not the newest in use, or the only one.</returns>
    public Task<bool> Withdraw(SheetId sheet, SheetTurn turn) => database.Writes.Run(scope =>
    {
        var inUse = scope.Connection.Query<int>("select revision from sheet where id = @sheet and state = 'in use' order by revision desc",
            new { sheet }).ToList();
        if (inUse.Count < 2 || inUse[0] != turn.Revision)
            return false;
        scope.Connection.Execute("update sheet set state = 'withdrawn' where id = @sheet and revision = @Revision",
            new { sheet, turn.Revision });
        Turn(scope.Connection, sheet, turn);
        return true;
    });

    private static void Turn(SqliteConnection connection, SheetId sheet, SheetTurn turn) => connection.Execute("""
        insert into sheet_turn (sheet_id, revision, turn, person_id, reason, at) values (@sheet, @Revision, @Turn, @Person, @Reason, @at)
        """, new { sheet, turn.Revision, turn.Turn, turn.Person, turn.Reason, at = CardStore.Iso(turn.At) });

    /// <summary>What became of the revisions of a model, the newest first.</summary>
    public IReadOnlyList<SheetTurn> Turns(SheetId sheet)
    {
        using var connection = database.Connect();
        return [.. connection.Query<(int Revision, string Turn, string Person, string Reason, string At)>(
            "select revision, turn, person_id, reason, at from sheet_turn where sheet_id = @sheet order by id desc", new { sheet })
            .Select(t => new SheetTurn(t.Revision, t.Turn, t.Person, t.Reason, CardStore.Time(t.At)))];
    }
}
