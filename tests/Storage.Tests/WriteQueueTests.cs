using Dapper;

namespace Anakyklos.Storage.Tests;

/// <summary>Whoever writes is answered, whatever becomes of the transaction.</summary>
public sealed class WriteQueueTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    [Theory]
    [InlineData(1)]
    [InlineData(3)]
    [InlineData(7)]
    public async Task When_the_database_ends_the_transaction_itself_everybody_in_it_is_told(int which)
    {
        var (database, _) = _workshop.Open();
        using var go = new ManualResetEventSlim();
        var first = Task.Run(() => database.Writes.Run(_ =>
        {
            go.Wait();
            return -1;
        }));
        while (first.Status == TaskStatus.WaitingToRun)
            await Task.Yield();
        await Task.Delay(50);
        // They stand in line behind the first; one of them loses the transaction, as a full disk makes it.
        var behind = Enumerable.Range(0, 8).Select(i => database.Writes.Run(scope =>
        {
            if (i == which)
            {
                scope.Connection.Execute("rollback transaction");
                throw new IOException("The disk is full.");
            }
            return scope.Connection.Execute("insert into setting (name, value) values (@name, 'x')", new { name = $"s{i}" });
        })).ToList();
        go.Set();
        var all = Task.WhenAll(behind.Append(first).Select(t => t.ContinueWith(_ => { })));
        Assert.Same(all, await Task.WhenAny(all, Task.Delay(TimeSpan.FromSeconds(20))));
        // What was told as written is there, what was told as failed is not.
        using var connection = database.Connect();
        var there = connection.Query<string>("select name from setting where name like 's%'").ToHashSet();
        Assert.Equal(behind.Select((t, i) => (t, i)).Where(p => p.t.IsCompletedSuccessfully).Select(p => $"s{p.i}").Order(), there.Order());
        Assert.True(behind[which].IsFaulted);
        // And the next is written as if nothing had been.
        Assert.Equal(1, await database.Writes.Run(s => s.Connection.Execute("insert into setting (name, value) values ('after', 'x')")));
        Assert.Empty(Verification.Run(database, out _, out _));
    }

    [Fact]
    public async Task A_disk_that_fills_up_loses_nothing_that_was_told_as_written_and_answers_everybody()
    {
        var (database, _) = _workshop.Open();
        await database.Writes.Run(scope => scope.Connection.Execute("create table ballast (n integer, b blob)"));
        await database.Writes.Run(s =>
            s.Connection.Execute($"pragma max_page_count = {s.Connection.ExecuteScalar<long>("pragma page_count") + 40}"));
        var all = Enumerable.Range(0, 288).Select(n => database.Writes.Run(scope =>
            scope.Connection.Execute("insert into ballast values (@n, zeroblob(3000))", new { n }))).ToList();
        var ended = Task.WhenAll(all.Select(t => t.ContinueWith(_ => { })));
        Assert.Same(ended, await Task.WhenAny(ended, Task.Delay(TimeSpan.FromSeconds(60))));
        using var connection = database.Connect();
        Assert.Equal(all.Select((t, n) => (t, n)).Where(p => p.t.IsCompletedSuccessfully).Select(p => p.n),
            connection.Query<int>("select n from ballast order by n"));
        Assert.Contains(all, t => t.IsFaulted);
        Assert.All(all.Where(t => t.IsFaulted), t => Assert.Equal(StoreTrouble.Full, StoreTroubles.Of(t.Exception!.InnerException!)));
    }
}
