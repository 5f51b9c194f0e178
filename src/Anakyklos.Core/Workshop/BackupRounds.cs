using System.Globalization;

namespace Anakyklos.Core.Workshop;

/// <summary>When the workshop's file is copied, under which names, and which copies are let go.</summary>
public static class BackupRounds
{
    /// <summary>The hour of the night at which a copy is made, when nobody works.</summary>
    public static readonly TimeOnly At = new(2, 30);

    private const string Before = "anakyklos-", After = ".db";

    /// <summary>Whether a copy is due: none was made since the hour passed last. A program that was off at that hour catches up when it
    /// is started. One of a later time than now, made while the clock went wrong, counts for none.</summary>
    /// <param name="now">The time in the workshop.</param>
    /// <param name="last">When the last copy was made; null for never.</param>
    public static bool IsDue(DateTimeOffset now, DateTimeOffset? last)
    {
        var today = new DateTimeOffset(now.Date + At.ToTimeSpan(), now.Offset);
        return last is not { } made || made > now || made < (now >= today ? today : today.AddDays(-1));
    }

    /// <summary>The name of a copy.</summary>
    /// <param name="at">When it is made.</param>
    public static string NameOf(DateTimeOffset at) =>
        Before + at.ToString("yyyy-MM-dd-HHmm", CultureInfo.InvariantCulture) + After;

    /// <summary>When a copy was made, by its name; null where it is none of ours, and then it is left alone.</summary>
    /// <param name="name">The file's name.</param>
    /// <param name="offset">The workshop's offset.</param>
    public static DateTimeOffset? MadeAt(string name, TimeSpan offset) => name.StartsWith(Before, StringComparison.Ordinal)
        && name.EndsWith(After, StringComparison.Ordinal) && DateTime.TryParseExact(name[Before.Length..^After.Length], "yyyy-MM-dd-HHmm",
            CultureInfo.InvariantCulture, DateTimeStyles.None, out var at) ? new(at, offset) : null;

    /// <summary>The copies that are let go: all but the newest, as many as are kept.</summary>
    /// <param name="names">Names of files; those that are none of ours are never among them.</param>
    /// <param name="kept">How many are kept, at least 1.</param>
    public static IReadOnlyList<string> LetGo(IEnumerable<string> names, int kept) =>
        [.. names.Where(n => MadeAt(n, TimeSpan.Zero) is not null).OrderByDescending(n => n, StringComparer.Ordinal)
            .Skip(Math.Max(1, kept))];
}
