using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage.Sealing;
using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

/// <summary>What other programs are told of, and the tokens with which they come in.</summary>
public sealed class ChangeStoreTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    [Fact]
    public async Task Of_every_table_it_is_said_whether_it_is_told()
    {
        var (database, _, _) = await _workshop.WithCard();
        var tables = _workshop.Names("type = 'table' and name not like 'sqlite%' and name not like 'found%'")
            .Select(n => n.Split(' ')[1]).Append("found_entry").Order(StringComparer.Ordinal);
        Assert.Equal(tables, ChangeStore.Told.Concat(ChangeStore.Untold).Order(StringComparer.Ordinal));
        Assert.NotNull(database);
    }

    [Fact]
    public async Task It_is_read_on_from_any_place_and_the_parts_are_the_whole()
    {
        var (database, cards, card) = await _workshop.WithCard();
        await cards.Handle(card, Guid.NewGuid(), new PutAside("label", "later"), Iona, Monday.AddMinutes(1));
        var store = new ChangeStore(database);
        var (whole, until) = store.Since(0, ChangeStore.Most);
        Assert.Contains(whole, c => c.What == "vehicle" && c.Now!["plate"]!.GetValue<string>() == "HD-07");
        Assert.Equal("event", whole[^1].What);
        Assert.DoesNotContain(whole, c => c.Now?.ContainsKey("content") == true);
        var read = new List<WorkshopChange>();
        for (var since = 0L; ;)
        {
            var (some, next) = store.Since(since, 3);
            Assert.True(some.Count <= 3);
            read.AddRange(some);
            if (next == since)
                break;
            since = next;
        }
        Assert.Equal(whole.Select(c => c.Id), read.Select(c => c.Id));
        Assert.Equal((0, until), (store.Since(until, 10).Changes.Count, store.Since(until, 10).Until));
    }

    [Fact]
    public async Task A_token_is_known_by_what_is_sent_until_it_is_ended_also_by_another_start_and_a_backup()
    {
        var (database, _) = _workshop.Open();
        await People(database).Add(new("iona", "Iona R.", Role.Technician, "x", "metric", "device"));
        var tokens = new TokenStore(database);
        var made = new AccessToken("a1", "Office", "iona", Scope.Read | Scope.Cards, Monday, "iona", null);
        await tokens.Make(made, "the secret");
        Assert.Equal(made, tokens.Of("the secret"));
        Assert.Null(tokens.Of("The secret"));
        Assert.Null(tokens.Of("a1"));
        Assert.Equal(made, new TokenStore(_workshop.Open().Database).Of("the secret"));
        var backup = _workshop.Beside("copy.db");
        database.Backup(backup);
        Assert.Equal(1, await tokens.End("a1", Monday.AddDays(1)));
        Assert.Equal(0, await tokens.End("a1", Monday.AddDays(2)));
        Assert.Null(tokens.Of("the secret"));
        Assert.Equal(Monday.AddDays(1), tokens.All().Single().EndedAt);

        // In the copy it was good still: put back, it is not.
        var elsewhere = _workshop.Beside("restored.db");
        BackupFile.Restore(backup, elsewhere, SealFolder.Beside(Path.GetDirectoryName(_workshop.File)!), TimeProvider.System);
        Assert.Null(new TokenStore(_workshop.Open(elsewhere).Database).Of("the secret"));
    }
}
