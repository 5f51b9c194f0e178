using System.Diagnostics;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Looks;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Storage.Sealing;
using Anakyklos.Web.Hosting;
using Dapper;
using Microsoft.Extensions.DependencyInjection;

namespace Anakyklos.Web.Tests;

/// <summary>Copies that are made every night, and how one is put back.</summary>
public sealed class BackupTests() : InTheDemo("una")
{
    private static readonly Person Iona = new("iona", "Iona R.", Role.Technician);

    private WorkshopDatabase Database => Host.Services.GetRequiredService<WorkshopDatabase>();

    private BackupDesk Desk => Host.Services.GetRequiredService<BackupDesk>();

    private string Home => Path.GetDirectoryName(Path.GetDirectoryName(Host.File)!)!;

    [Fact]
    public async Task A_copy_is_made_every_night_and_the_oldest_go()
    {
        var made = await Desk.Round();
        Assert.Equal("anakyklos-2026-03-09-0900.db", made!.Name);
        Assert.Null(await Desk.Round());
        for (var night = 0; night < 20; night++)
        {
            Host.Clock.Advance(TimeSpan.FromDays(1));
            Assert.NotNull(await Desk.Round());
        }
        Assert.Equal(14, Desk.All.Count);
        Assert.Equal("anakyklos-2026-03-29-0900.db", Desk.All[0].Name);
        Assert.False(Desk.IsLate);
        Host.Clock.Advance(TimeSpan.FromHours(37));
        Assert.True(Desk.IsLate);
        Assert.Equal(14, Directory.GetFiles(Path.Combine(Home, "data.backups")).Length);
        Assert.True(OperatingSystem.IsWindows() || File.GetUnixFileMode(Path.Combine(Desk.Place.Folder, Desk.All[0].Name))
            == (UnixFileMode.UserRead | UnixFileMode.UserWrite));
    }

    [Fact]
    public async Task The_lead_sees_the_last_copy_and_makes_one_and_is_told_what_is_wrong()
    {
        await Me.Get("/workshop");
        await Me.Submit("form[action*='Copy']");
        Assert.Contains("anakyklos-2026-03-09-0900.db is made and looked through", Me.Text);
        Assert.Contains("Monday 9 March, 09:00 is the last of 1", Me.Text);
        // The file was changed by somebody else: the copy does not count, and those before are kept.
        await Database.Writes.Run(scope => scope.Connection.Execute("drop trigger journal_person_changed"));
        await Database.Writes.Run(scope => scope.Connection.Execute("update person set role = 'lead' where id = 'tavish'"));
        Host.Clock.Advance(TimeSpan.FromMinutes(2));
        await Me.Get("/workshop");
        await Me.Submit("form[action*='Copy']");
        Assert.Contains("does not fit what was written", Me.Text);
        Assert.Single(Desk.All);
        await Me.Get("/trail");
        Assert.Contains("faults, the first:", Me.Text);
        // Nor is there a place for one.
        Directory.Delete(Desk.Place.Folder, true);
        File.WriteAllText(Desk.Place.Folder, "in the way");
        Host.Clock.Advance(TimeSpan.FromMinutes(2));
        Assert.Null(await Desk.Round(true));
        Assert.Contains("No copy could be made", Desk.Trouble);
        File.Delete(Desk.Place.Folder);
    }

    [Fact]
    public async Task A_nights_copy_is_put_back_with_all_that_was_in_it_and_nobody_is_signed_in()
    {
        var cards = Host.Services.GetRequiredService<CardStore>();
        await Desk.Round();
        var backup = Path.Combine(Desk.Place.Folder, Desk.All[0].Name);
        var was = cards.Find(1058)!.History.Count;
        await cards.Handle(1058, Guid.NewGuid(), new NoteFinding("filter-cap-off", FindingGrade.Sound, "after the copy"), Iona,
            Host.Clock.GetUtcNow());
        Database.Anchor(AnchorKind.Day, Host.Clock.GetUtcNow());
        var cookies = await Host.SignedIn("iona");
        await Host.Stop();

        var seals = new SealFolder(Path.Combine(Home, "data.seal"));
        // An older file that is put there by hand is seen, and one that the program puts back is not: it writes down that it did.
        File.Copy(Host.File, Path.Combine(Home, "kept.db"));
        File.Copy(backup, Host.File, true);
        Assert.Contains("the end was cut off, or an older file was put here by hand",
            string.Join('\n', Verification.Run(Host.File, seals).Faults));
        File.Copy(Path.Combine(Home, "kept.db"), Host.File, true);

        var kept = BackupFile.Restore(backup, Host.File, seals, Host.Clock)!;
        Assert.Empty(Verification.Run(Host.File, seals).Faults);
        Assert.Empty(Verification.Run(kept, seals, true).Faults);
        await using var again = await WorkshopHost.From(await File.ReadAllBytesAsync(Host.File), Path.Combine(Home, "data", "keys"));
        Assert.Equal(was, again.Services.GetRequiredService<CardStore>().Find(1058)!.History.Count);
        var same = again.NewBrowser(cookies);
        await same.Get("/");
        Assert.Equal("/signin", same.Address.AbsolutePath);
        var una = await again.SignedIn("una");
        await una.Get("/trail");
        Assert.Contains("restored From anakyklos-2026-03-09-0900.db", una.Text);
    }

    [Fact]
    public async Task What_cannot_stand_in_is_not_put_back_and_nothing_is_touched()
    {
        await Host.Stop();
        var (seals, before) = (new SealFolder(Path.Combine(Home, "data.seal")), File.ReadAllBytes(Host.File));
        var letter = Path.Combine(Home, "letter.db");
        File.WriteAllText(letter, new string('x', 9000));
        Refused("SQLite cannot read it", letter);
        Refused("is not there", Path.Combine(Home, "nothing.db"));
        var other = Path.Combine(Home, "other.db");
        using (var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={other};Pooling=false"))
            connection.Execute("create table shopping (what text)");
        Refused("not a workshop's", other);
        File.Copy(Host.File, other, true);
        using (var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={other};Pooling=false"))
            connection.Execute("insert into SchemaVersions (ScriptName, Applied) values ('9999_hologram.sql', '2031-01-01')");
        Refused("newer program", other);
        Assert.Contains("newer program", Assert.Throws<WorkshopFileException>(() => new WorkshopDatabase(other, seals)).Message);
        Assert.Equal(before, File.ReadAllBytes(Host.File));

        void Refused(string words, string file) => Assert.Contains(words,
            Assert.Throws<WorkshopFileException>(() => BackupFile.Restore(file, Host.File, seals, Host.Clock)).Message);
    }

    [Fact]
    public async Task From_a_shell_a_copy_is_made_put_back_and_checked_and_a_changed_file_is_explained()
    {
        await Host.Stop();
        var copy = Path.Combine(Home, "copy.db");
        Assert.Equal(0, Shell(out _, "backup", copy));
        Assert.Equal(1, Shell(out var said, "backup", copy));
        Assert.Contains("exists already", said);
        Assert.Equal(0, Shell(out said, "verify"));
        Assert.Contains("all is as it was written", said);
        Assert.Contains("to be written down or sent elsewhere", said);
        using (var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={copy};Pooling=false"))
            connection.Execute("drop trigger journal_vehicle_changed; update vehicle set task = 'Gone fishing' where plate = 'HD-07'");
        Assert.Equal(1, Shell(out said, "verify", copy));
        Assert.Contains("vehicle [\"HD-07\"]: task is \"Gone fishing\", should be \"Ferry mail\"", said);
        Assert.Equal(0, Shell(out _, "rebuild", copy + ".anew"));
        Assert.Equal(0, Shell(out said, "restore", copy + ".anew"));
        Assert.Contains("What was there is kept as", said);
        Assert.Equal(1, Shell(out said, "verify", copy + ".none"));
        Assert.Contains("is not there", said);
        Assert.False(Directory.EnumerateFiles(Home, "*.half", SearchOption.AllDirectories).Any());
    }

    private int Shell(out string said, params string[] args)
    {
        using var process = Process.Start(new ProcessStartInfo("dotnet", [Path.Combine(AppContext.BaseDirectory, "Anakyklos.Web.dll"),
            .. args, "--data", Path.GetDirectoryName(Host.File)!]) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        said = process.StandardOutput.ReadToEnd() + process.StandardError.ReadToEnd();
        process.WaitForExit();
        return process.ExitCode;
    }
}
