using System.Collections.Concurrent;
using System.Runtime.ExceptionServices;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>
/// All writing stands in one line. Whatever waits is written in one transaction, each piece in a savepoint of its own, and everybody is answered
/// once that transaction is on the disk: many writers share one sync and none of them retries.
/// </summary>
public sealed class WriteQueue : IDisposable
{
    private const int MostTogether = 64;

    private readonly BlockingCollection<Job> _line = new(new ConcurrentQueue<Job>());
    private readonly SqliteConnection _connection;
    private readonly Thread _thread;

    internal WriteQueue(SqliteConnection connection)
    {
        _connection = connection;
        _thread = new(Work) { IsBackground = true, Name = "workshop writes" };
        _thread.Start();
    }

    /// <summary>Writes; the task ends when it is on the disk, or with the exception of the work, of which then nothing is kept.</summary>
    /// <typeparam name="T">What the work answers.</typeparam>
    /// <param name="work">Runs on the writing thread.</param>
    /// <exception cref="ObjectDisposedException">The database was closed.</exception>
    public Task<T> Run<T>(Func<WriteScope, T> work)
    {
        var answer = new TaskCompletionSource<T>(TaskCreationOptions.RunContinuationsAsynchronously);
        T kept = default!;
        try
        {
            _line.Add(new(scope => kept = work(scope), () => answer.SetResult(kept), answer.SetException));
        }
        catch (InvalidOperationException)
        {
            throw new ObjectDisposedException(nameof(WriteQueue));
        }
        return answer.Task;
    }

    private void Work()
    {
        foreach (var first in _line.GetConsumingEnumerable())
        {
            var batch = new List<(Job Job, Exception? Failed)>();
            var scope = new WriteScope(_connection);
            try
            {
                _connection.Execute("begin immediate");
                var next = first;
                do
                    batch.Add((next, Attempt(next, scope)));
                while (batch.Count < MostTogether && _line.TryTake(out next!));
                _connection.Execute("commit");
                scope.Committed();
            }
            catch (Exception e)
            {
                Undo();
                scope.RolledBack();
                if (batch.Count == 0)
                    batch.Add((first, null));
                batch = [.. batch.Select(b => (b.Job, (Exception?)e))];
            }
            foreach (var (job, failed) in batch)
                if (failed is null)
                    job.Done();
                else
                    job.Failed(failed);
        }
    }

    private Exception? Attempt(Job job, WriteScope scope)
    {
        var mark = scope.Mark();
        _connection.Execute("savepoint job");
        try
        {
            job.Run(scope);
            _connection.Execute("release job");
            return null;
        }
        catch (Exception e)
        {
            _connection.Execute("rollback to job; release job");
            scope.BackTo(mark);
            return e is AggregateException { InnerException: { } inner } ? ExceptionDispatchInfo.SetCurrentStackTrace(inner) : e;
        }
    }

    private void Undo()
    {
        try
        {
            _connection.Execute("rollback");
        }
        catch (SqliteException)
        {
            // There was no transaction left to undo: SQLite had given it up itself.
        }
    }

    /// <summary>Finishes what stands in line, then closes.</summary>
    public void Dispose()
    {
        if (_line.IsAddingCompleted)
            return;
        _line.CompleteAdding();
        _thread.Join();
        _connection.Dispose();
    }

    private sealed record Job(Action<WriteScope> Run, Action Done, Action<Exception> Failed);
}

/// <summary>What a piece of writing works with.</summary>
public sealed class WriteScope
{
    private readonly List<Action> _onCommit = [];

    internal WriteScope(SqliteConnection connection) => Connection = connection;

    /// <summary>The connection, inside the transaction.</summary>
    public SqliteConnection Connection { get; }

    /// <summary>Runs once the transaction is on the disk, not at all if it is not.</summary>
    /// <param name="then">Must not throw.</param>
    public void OnCommit(Action then) => _onCommit.Add(then);

    internal int Mark() => _onCommit.Count;

    internal void BackTo(int mark) => _onCommit.RemoveRange(mark, _onCommit.Count - mark);

    internal void Committed() => _onCommit.ForEach(a => a());

    internal void RolledBack() => _onCommit.Clear();
}
