using System.Collections.Concurrent;
using Anakyklos.Core.Stores;
using Anakyklos.Storage.Sealing;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>
/// All writing stands in one line. Whoever finds the desk free writes all that waits, in one transaction, each piece in a savepoint of its
/// own, and
/// everybody is answered once that transaction is on the disk: many writers share one sync, none of them retries, and a lone writer changes
/// no thread.
/// </summary>
public sealed class WriteQueue : IDisposable
{
    private const int MostTogether = 64;

    /// <summary>Raised when somebody who was told of a write failed at it; the write itself stands.</summary>
    public event Action<Exception>? ListenerFailed;

    /// <summary>Raised at the desk, before anything more is written, when somebody else has written to the file since: what is remembered
    /// of it may be old.</summary>
    public event Action? StrangerWrote;

    private readonly ConcurrentQueue<Job> _line = new();
    private readonly SqliteConnection _connection;
    private readonly PreparedStatements _prepared;
    private readonly PartBook _parts;
    private readonly Journal _journal;
    private readonly TimeProvider _time;
    private long _version;
    private long _strangerAt;
    private int _taken;
    private volatile bool _closed;

    internal WriteQueue(SqliteConnection connection, PartBook parts, SealKey key, TimeProvider time)
    {
        (_connection, _parts, _time) = (connection, parts, time);
        _prepared = new(connection);
        _journal = new(_prepared, key, time);
        _version = Version();
    }

    /// <summary>When it was noticed last that somebody else had written to the file while it is open here; null where nobody did. It is
    /// noticed when something is written.</summary>
    public DateTimeOffset? StrangerAt => Interlocked.Read(ref _strangerAt) is > 0 and var ticks ? new(ticks, TimeSpan.Zero) : null;

    // SQLite's own count: it stays for what is written through this connection, and is another after what came through any other.
    private long Version() => _prepared.First("pragma data_version", r => r.GetInt64(0));

    private void LookForStranger()
    {
        var version = Version();
        if (version == _version)
            return;
        _version = version;
        Interlocked.Exchange(ref _strangerAt, _time.GetUtcNow().UtcTicks);
        StrangerWrote?.Invoke();
    }

    /// <summary>Says who writes, for the journal: asked when a piece of writing is brought; empty where nobody is known.</summary>
    public Func<string> Writer { get; set; } = () => "";

    /// <summary>Seals what is in the journal after an entry and was written by this program before it had a queue.</summary>
    internal void SealAfter(long entry)
    {
        _journal.Begin(entry);
        _journal.Seal("");
    }

    /// <summary>Writes; the task ends when it is on the disk, or with the exception of the work, of which then nothing is kept.</summary>
    /// <typeparam name="T">What the work answers.</typeparam>
    /// <param name="work">Runs alone, on whichever thread is at the desk.</param>
    /// <returns>What the work returned, once it is on the disk.</returns>
    /// <exception cref="ObjectDisposedException">The database was closed.</exception>
    public Task<T> Run<T>(Func<WriteScope, T> work)
    {
        ObjectDisposedException.ThrowIf(_closed, this);
        var answer = new TaskCompletionSource<T>(TaskCreationOptions.RunContinuationsAsynchronously);
        T kept = default!;
        _line.Enqueue(new(scope => kept = work(scope), () => answer.SetResult(kept), answer.SetException, Writer()));
        if (TakeDesk())
            Serve();
        return answer.Task;
    }

    private bool TakeDesk() => Interlocked.CompareExchange(ref _taken, 1, 0) == 0;

    // Serves one batch, then leaves the desk; what came meanwhile is served on a thread of the pool, so that nobody serves others for long.
    private void Serve()
    {
        if (_line.TryDequeue(out var first))
            Together(first);
        if (!_line.IsEmpty)
        {
            ThreadPool.UnsafeQueueUserWorkItem(static desk => desk.Serve(), this, preferLocal: false);
            return;
        }
        // A full fence: leaving must be seen before the line is looked at once more, or somebody who joined it meanwhile would wait for
        // ever.
        Interlocked.Exchange(ref _taken, 0);
        if (!_line.IsEmpty && TakeDesk())
            Serve();
    }

    private void Together(Job first)
    {
        // Whoever left the line is in here, so that nobody waits for an answer that does not come.
        var batch = new List<(Job Job, Exception? Failed)> { (first, null) };
        var scope = new WriteScope(_connection, _prepared, _parts);
        try
        {
            _prepared.Run("begin immediate");
            LookForStranger();
            _journal.Begin();
            // The first piece needs no savepoint: when it fails, the transaction holds nothing else yet.
            var moved = new Dictionary<long, (int Seq, string Hash)>();
            Write(first, scope, moved);
            while (batch.Count < MostTogether && _line.TryDequeue(out var next))
            {
                batch.Add((next, null));
                batch[^1] = (next, Attempt(next, scope, moved));
            }
            // However often a card moved in it, its newest event is told once.
            _journal.SealCards(batch.All(b => b.Job.Writer == first.Writer) ? first.Writer : "", moved);
            _prepared.Run("commit");
        }
        catch (Exception e)
        {
            Undo();
            scope.RolledBack();
            batch = [.. batch.Select(b => (b.Job, (Exception?)e))];
        }
        // It is on the disk: whoever listens may fail, and still everybody is answered that it is saved.
        scope.Committed(ListenerFailed);
        foreach (var (job, failed) in batch)
            if (failed is null)
                job.Done();
            else
                job.Failed(failed);
    }

    private void Write(Job job, WriteScope scope, Dictionary<long, (int Seq, string Hash)> moved)
    {
        job.Run(scope);
        _journal.Seal(job.Writer);
        foreach (var (card, head) in scope.TakeMoved())
            moved[card] = head;
    }

    // Where SQLite has given the whole transaction up, as on a full disk, going back fails, too, and so does everything in it.
    private Exception? Attempt(Job job, WriteScope scope, Dictionary<long, (int Seq, string Hash)> moved)
    {
        var (mark, place) = (scope.Mark(), _journal.Mark());
        _prepared.Run("savepoint job");
        try
        {
            Write(job, scope, moved);
            _prepared.Run("release job");
            return null;
        }
        catch (Exception e)
        {
            _prepared.Run("rollback to job");
            _prepared.Run("release job");
            scope.BackTo(mark);
            _journal.BackTo(place);
            return e;
        }
    }

    private void Undo()
    {
        try
        {
            _prepared.Run("rollback");
        }
        catch (SqliteException)
        {
            // There was no transaction left to undo: SQLite had given it up itself.
        }
    }

    /// <summary>Finishes what stands in line, then closes.</summary>
    public void Dispose()
    {
        if (_closed)
            return;
        _closed = true;
        SpinWait.SpinUntil(TakeDesk);
        while (_line.TryDequeue(out var last))
            Together(last);
        _prepared.Dispose();
        _connection.Dispose();
    }

    private sealed record Job(Action<WriteScope> Run, Action Done, Action<Exception> Failed, string Writer);
}

/// <summary>What a piece of writing works with.</summary>
public sealed class WriteScope
{
    private readonly List<Action> _onCommit = [];

    private readonly PreparedStatements _prepared;

    private Dictionary<long, (int Seq, string Hash)> _moved = [];

    private readonly PartBook _parts;

    internal WriteScope(SqliteConnection connection, PreparedStatements prepared, PartBook parts) =>
        (Connection, _prepared, _parts) = (connection, prepared, parts);

    /// <summary>The parts of the stores as this piece of writing has them.</summary>
    /// <param name="card">A card whose own reservations count as free, or null.</param>
    internal PartList Parts(CardNumber? card) => _parts.Read(Connection, card, true);

    /// <summary>The connection, inside the transaction.</summary>
    public SqliteConnection Connection { get; }

    /// <summary>Runs a statement that is prepared once and used by every write of its kind.</summary>
    /// <param name="sql">The statement.</param>
    /// <param name="values">Its parameters by name, with their sign.</param>
    /// <returns>How many rows were changed.</returns>
    public int Run(string sql, params ReadOnlySpan<(string Name, object? Value)> values) => _prepared.Run(sql, values);

    /// <summary>The first row of a prepared query, or the default when there is none.</summary>
    /// <typeparam name="T">What a row becomes.</typeparam>
    /// <param name="sql">The query.</param>
    /// <param name="row">Makes it from the row.</param>
    /// <param name="values">Parameters by name, with their sign.</param>
    /// <returns>What was made of the first row, or the default when there is none.</returns>
    public T? First<T>(string sql, Func<SqliteDataReader, T> row, params ReadOnlySpan<(string Name, object? Value)> values) =>
        _prepared.First(sql, row, values);

    /// <summary>Runs once the transaction is on the disk, not at all if it is not.</summary>
    /// <param name="then">What it throws is told to <see cref="WriteQueue.ListenerFailed"/> and changes nothing.</param>
    public void OnCommit(Action then) => _onCommit.Add(then);

    /// <summary>Tells the journal the newest event of a card.</summary>
    internal void Moved(CardNumber card, int seq, string hash) => _moved[card.Value] = (seq, hash);

    internal Dictionary<long, (int Seq, string Hash)> TakeMoved()
    {
        var moved = _moved;
        _moved = [];
        return moved;
    }

    internal int Mark() => _onCommit.Count;

    internal void BackTo(int mark)
    {
        _onCommit.RemoveRange(mark, _onCommit.Count - mark);
        _moved = [];
    }

    internal void Committed(Action<Exception>? failed)
    {
        foreach (var then in _onCommit)
        {
            try
            {
                then();
            }
            catch (Exception e)
            {
                failed?.Invoke(e);
            }
        }
    }

    internal void RolledBack() => _onCommit.Clear();
}
