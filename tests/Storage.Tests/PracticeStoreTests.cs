using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Dapper;
using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

/// <summary>Runs of the practice bay in the file: apart from cards, in their order, and not after they have ended.</summary>
public sealed class PracticeStoreTests : IDisposable
{
    private static readonly Person Iona = new("iona", "Iona R.", Role.Technician);
    private static readonly Person Una = new("una", "Una B.", Role.Lead);
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private async Task<(WorkshopDatabase Database, PracticeStore Store, CardNumber Run)> Begun()
    {
        var (database, _) = _workshop.Open();
        await new SheetStore(database).BringIn(Sheet, SheetText, Monday);
        foreach (var (id, name) in new[] { ("iona", "Iona R."), ("una", "Una B.") })
            await TemporaryWorkshop.People(database).Add(new(id, name, Role.Technician, "x", "metric", "device"));
        var store = new PracticeStore(database);
        JobId[] jobs = [Sheet.Jobs.Keys.First()];
        var run = await store.Begin("first-oil-change", "the file", new(1, Monday, Iona, Guid.Empty, new CardOpened("PRACTICE", Sheet.Id,
            Sheet.Revision, jobs, CardPlanner.Plan(Sheet, jobs, 1).Steps, Quantity<Distance>.Of(100_000, Distance.Kilometre),
                Use.Normal, null,
            new Dictionary<PartId, int>())));
        return (database, store, run);
    }

    private static PracticeLine Line(int minute, string body, Person? by = null) => new(Monday.AddMinutes(minute), by ?? Iona, "did", body);

    [Fact]
    public async Task A_run_is_there_again_as_it_was_kept_and_its_number_is_no_card()
    {
        var (database, store, run) = await Begun();
        Assert.True(await store.Add(run, 0, [Line(1, "a"), Line(2, "b", Una)], null));
        Assert.True(await store.Add(run, 2, [Line(3, "c")], "una"));
        var again = new PracticeStore(_workshop.Open().Database);
        var entry = again.Entry(run)!;
        Assert.Equal((run, (LessonId)"first-oil-change", (PersonId)"iona", (PersonId?)"una", (DateTimeOffset?)null, (bool?)null),
            (entry.Id, entry.Lesson, entry.Person, entry.Second, entry.EndedAt, entry.Passed));
        var (text, opened, lines) = again.Read(run)!.Value;
        Assert.Equal(("the file", Sheet.Id), (text, opened.SheetId));
        Assert.Equal([("a", "iona"), ("b", "una"), ("c", "iona")], lines.Select(l => (l.Body, l.By.Id.Text)));
        Assert.True(PracticeStore.IsRun(run));
        Assert.Null(new CardStore(database, new(database)).Find(run));
        Assert.Empty(new CardStore(database, new(database)).Unsigned());
        Assert.Null(again.Read(new(run.Value + 1)));
        Assert.Empty(Verification.Run(database, out _, out _));
    }

    [Fact]
    public async Task Who_thought_that_less_had_happened_or_comes_after_the_end_writes_nothing()
    {
        var (_, store, run) = await Begun();
        Assert.True(await store.Add(run, 0, [Line(1, "a")], null));
        Assert.False(await store.Add(run, 0, [Line(1, "x")], null));
        Assert.False(await store.Add(run, 2, [Line(1, "x")], null));
        var together = await Task.WhenAll(Enumerable.Range(0, 6).Select(i => store.Add(run, 1, [Line(2, $"{i}")], null)));
        Assert.Single(together, true);
        // It was judged before the last thing happened.
        Assert.Equal(0, await store.End(run, 1, true, Monday.AddHours(1)));
        Assert.Null(store.Entry(run)!.EndedAt);
        Assert.Equal(1, await store.End(run, 2, true, Monday.AddHours(1)));
        Assert.Equal(0, await store.End(run, 2, false, Monday.AddHours(2)));
        Assert.False(await store.Add(run, 2, [Line(3, "x")], null));
        Assert.Equal((true, 2), (store.Entry(run)!.Passed, store.Read(run)!.Value.Lines.Count));
    }

    [Fact]
    public async Task What_somebody_changes_of_a_run_in_the_file_is_told()
    {
        var (database, store, run) = await Begun();
        await store.Add(run, 0, [Line(1, "a")], null);
        await store.End(run, 1, false, Monday.AddHours(1));
        foreach (var change in new[] { "update practice_run set passed = 1", "update practice_entry set body = 'b'",
            "delete from practice_entry", "update practice_run set person_id = 'una'" })
        {
            using var other = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={database.Path};Pooling=False");
            other.Open();
            var copy = $"{database.Path}.copy";
            using (var to = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={copy};Pooling=False"))
            {
                other.BackupDatabase(to);
                foreach (var trigger in to.Query<string>("select name from sqlite_master where type = 'trigger'").ToList())
                    to.Execute($"drop trigger \"{trigger}\"");
                to.Execute(change);
            }
            Assert.Contains(Verification.Run(copy, database.Seals, true).Faults, f => f.Contains("practice", StringComparison.Ordinal));
            File.Delete(copy);
        }
    }

    [Fact]
    public async Task A_lesson_of_ones_own_is_kept_replaced_and_given_up()
    {
        var (_, store, _) = await Begun();
        await store.Keep(new("own-hose", "one", "iona", Monday));
        await store.Keep(new("own-hose", "two", "una", Monday.AddHours(1)));
        Assert.Equal([new OwnLesson("own-hose", "two", "una", Monday.AddHours(1))], store.OwnLessons());
        Assert.Equal((1, 0), (await store.GiveUp("own-hose"), await store.GiveUp("own-hose")));
        Assert.Empty(store.OwnLessons());
    }

    [Fact]
    public async Task A_lesson_that_is_kept_replaced_or_given_up_changes_the_stamp_of_them()
    {
        var (_, store, _) = await Begun();
        var stamps = new List<string> { store.OwnLessonStamp() };
        await store.Keep(new("own-brakes", "a", "iona", Monday));
        stamps.Add(store.OwnLessonStamp());
        await store.Keep(new("own-brakes", "b", "iona", Monday.AddMinutes(1)));
        stamps.Add(store.OwnLessonStamp());
        await store.Keep(new("own-wheels", "b", "iona", Monday.AddMinutes(1)));
        stamps.Add(store.OwnLessonStamp());
        Assert.Equal(4, stamps.Distinct().Count());
        await store.GiveUp("own-wheels");
        Assert.Equal(stamps[2], store.OwnLessonStamp());
    }
}
