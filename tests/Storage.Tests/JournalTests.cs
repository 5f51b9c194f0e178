using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Storage.Sealing;
using Dapper;
using static Anakyklos.Storage.Tests.TemporaryWorkshop;

namespace Anakyklos.Storage.Tests;

/// <summary>The journal of every change: who and when, its keys, what was written down outside, and what happens without them.</summary>
public sealed class JournalTests : IDisposable
{
    private readonly TemporaryWorkshop _workshop = new();

    public void Dispose() => _workshop.Dispose();

    private string Data => Path.GetDirectoryName(_workshop.File)!;

    [Fact]
    public async Task Every_change_names_who_made_it_and_what_was_undone_is_not_in_it()
    {
        var (database, cards, id) = await _workshop.WithCard();
        database.Writes.Writer = () => "iona";
        await new VehicleStore(database).Add(new("HD-08", Sheet.Id, "Spare", 2019, Use.Normal));
        await cards.Handle(id, Guid.NewGuid(), new ConfirmStep("warm-up"), Iona, Monday);
        await Assert.ThrowsAsync<InvalidOperationException>(() => database.Writes.Run<int>(scope =>
        {
            scope.Connection.Execute("update vehicle set task = 'undone'");
            throw new InvalidOperationException();
        }));
        using var connection = database.Connect();
        var told = connection.Query<(string Who, string Item, string Key, string Row)>(
            "select person_id, item, key, row from journal order by id desc limit 20").ToList();
        Assert.Equal(("iona", "event", $"[{id}]"), (told[0].Who, told[0].Item, told[0].Key));
        Assert.StartsWith("{\"seq\":2,\"hash\":\"", told[0].Row);
        Assert.Contains(told, t => t is { Who: "iona", Item: "vehicle", Key: "[\"HD-08\"]" });
        Assert.DoesNotContain(told, t => t.Row?.Contains("undone") == true);
        Assert.Empty(Verification.Run(database, out _, out _));
    }

    [Fact]
    public async Task Keys_and_files_are_their_owners_only()
    {
        var (database, _, _) = await _workshop.WithCard();
        Assert.Equal(Data + ".seal", database.Seals.Folder);
        if (OperatingSystem.IsWindows())
            return;
        const UnixFileMode own = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        foreach (var file in new[] { database.Seals.KeyFile, _workshop.File, _workshop.File + "-wal", _workshop.File + "-shm" })
            Assert.Equal(own, File.GetUnixFileMode(file));
        Assert.Equal(own | UnixFileMode.UserExecute, File.GetUnixFileMode(database.Seals.Folder));
        // What was open to others is taken from them.
        File.SetUnixFileMode(Data, own | UnixFileMode.UserExecute | UnixFileMode.OtherRead | UnixFileMode.GroupRead);
        File.SetUnixFileMode(_workshop.File, own | UnixFileMode.OtherRead);
        OwnerOnly.Take(Data);
        Assert.Equal((own | UnixFileMode.UserExecute, own), (File.GetUnixFileMode(Data), File.GetUnixFileMode(_workshop.File)));
    }

    [Fact]
    public async Task A_key_that_was_lost_is_told_and_found_again_it_fits()
    {
        var (database, _, _) = await _workshop.WithCard();
        database.Dispose();
        var keys = File.ReadAllText(database.Seals.KeyFile);
        File.Delete(database.Seals.KeyFile);
        var (again, cards) = _workshop.Open();
        await cards.Handle(1001, Guid.NewGuid(), new ConfirmStep("warm-up"), Iona, Monday);
        Assert.Contains("do not carry a seal of any key here", Assert.Single(Verification.Run(again, out _, out _)));
        File.WriteAllText(again.Seals.KeyFile, keys + File.ReadAllText(again.Seals.KeyFile));
        Assert.Empty(Verification.Run(again, out _, out _));
        again.Dispose();
        File.WriteAllText(again.Seals.KeyFile, "no key");
        Assert.Contains("cannot be read", Assert.Throws<WorkshopFileException>(() => _workshop.Open()).Message);
        File.WriteAllText(again.Seals.KeyFile, keys);
    }

    [Fact]
    public async Task What_was_written_down_outside_shows_that_the_end_was_cut_off()
    {
        var (database, cards, id) = await _workshop.WithCard();
        var early = _workshop.Beside("early.db");
        database.Backup(early);
        await cards.Handle(id, Guid.NewGuid(), new ConfirmStep("warm-up"), Iona, Monday);
        var place = database.Anchor(AnchorKind.Day, Monday);
        Assert.Equal(place, database.Anchor(AnchorKind.Day, Monday.AddHours(1)) with { At = Monday });
        Assert.Single(database.Seals.Anchors());
        Assert.Matches("^[0-9a-f]{4}(-[0-9a-f]{4}){3}$", place.Seal);
        Assert.Equal((place.Entry, place.Seal), Verification.Run(_workshop.File, database.Seals) is var now
            ? (now.Place!.Entry, now.Place.Seal) : default);
        // As a backup it may end before; in the workshop's place it may not.
        Assert.Empty(Verification.Run(early, database.Seals, true).Faults);
        Assert.Contains("the end was cut off", Assert.Single(Verification.Run(early, database.Seals).Faults));
        File.AppendAllText(Path.Combine(database.Seals.Folder, "anchors"),
            $"2026-03-10T00:00:00Z day {place.Entry} 0000-0000-0000-0000\nnonsense\n");
        Assert.Contains("is not the one that was written down on 2026-03-10", Assert.Single(Verification.Run(database, out _, out _)));
    }

    [Fact]
    public async Task A_guard_that_was_taken_away_is_laid_again_told_and_what_happened_meanwhile_is_found()
    {
        var (database, _, _) = await _workshop.WithCard();
        database.Dispose();
        _workshop.Execute("drop trigger journal_vehicle_changed; update vehicle set task = 'Bread' where plate = 'HD-07'");
        var (again, _) = _workshop.Open();
        Assert.Contains(new TrailStore(again).Read(null, 10), t => t.Now!.Contains("had been taken away and was laid again"));
        Assert.Contains($"vehicle [\"HD-07\"]: task is \"Bread\", should be \"Ferry mail\" (the journal of {DateTime.UtcNow:yyyy-MM-dd}).",
            Verification.Run(again, out _, out _));
        // With the guards in place another program leaves entries of its own, which are never sealed.
        _workshop.Execute("update vehicle set task = 'Milk' where plate = 'HD-07'");
        await new VehicleStore(again).Add(new("HD-08", Sheet.Id, "Spare", 2019, Use.Normal));
        Assert.Contains(Verification.Run(again, out _, out _), f => f.Contains("was not written by this program"));
    }

    [Fact]
    public void A_file_that_cannot_be_written_beside_is_checked_all_the_same_and_nothing_is_written()
    {
        var (database, _) = _workshop.Open();
        database.Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        var before = (File.ReadAllBytes(_workshop.File), Directory.GetFiles(Data).Length);
        Assert.Empty(Verification.Run(_workshop.File, database.Seals).Faults);
        Assert.Equal(before.Item1, File.ReadAllBytes(_workshop.File));
        Assert.Equal(before.Length, Directory.GetFiles(Data).Length);
        Assert.Contains("cannot read", Assert.Single(Verification.Run(_workshop.Beside("none.db"), null).Faults));
        Assert.False(File.Exists(_workshop.Beside("none.db")));
    }
}
