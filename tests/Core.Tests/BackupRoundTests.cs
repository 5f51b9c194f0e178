using Anakyklos.Core.Workshop;

namespace Anakyklos.Core.Tests;

/// <summary>When the workshop's file is copied, and which copies go.</summary>
public class BackupRoundTests
{
    private static DateTimeOffset At(string local) =>
        DateTimeOffset.Parse(local + "+01:00", System.Globalization.CultureInfo.InvariantCulture);

    [Theory]
    [InlineData("2026-03-10T02:30", "2026-03-09T02:30", true)]
    [InlineData("2026-03-10T02:29", "2026-03-09T02:30", false)]
    [InlineData("2026-03-10T02:31", "2026-03-10T02:30", false)]
    [InlineData("2026-03-10T01:00", "2026-03-09T02:29", true)] // it was off at that hour, and catches up
    [InlineData("2026-03-10T12:00", "2026-03-11T02:30", true)]
    [InlineData("2026-03-10T23:00", "2026-03-10T02:29", true)]
    public void A_copy_is_due_once_after_each_night(string now, string last, bool due) =>
        Assert.Equal(due, BackupRounds.IsDue(At(now), At(last)));

    [Fact]
    public void Without_any_one_is_due() => Assert.True(BackupRounds.IsDue(At("2026-03-10T12:00"), null));

    [Fact]
    public void A_name_tells_when_it_was_made_and_other_files_are_left_alone()
    {
        var at = At("2026-03-10T02:30");
        Assert.Equal("anakyklos-2026-03-10-0230.db", BackupRounds.NameOf(at));
        Assert.Equal(at, BackupRounds.MadeAt("anakyklos-2026-03-10-0230.db", at.Offset));
        foreach (var other in new[] { "anakyklos.db", "anakyklos-2026-13-10-0230.db", "anakyklos-2026-03-10-0230.db.faulty", "letter.txt" })
            Assert.Null(BackupRounds.MadeAt(other, at.Offset));
        string[] names = ["letter.txt", .. Enumerable.Range(1, 9).Select(d => BackupRounds.NameOf(at.AddDays(d)))];
        Assert.Equal(names[1..7].Reverse(), BackupRounds.LetGo(names, 3));
        Assert.Empty(BackupRounds.LetGo(names, 9));
        Assert.Equal(8, BackupRounds.LetGo(names, 0).Count);
    }
}
