using System.Globalization;
using System.Text;

namespace Anakyklos.Core.Weeks;

/// <summary>Times that come back every week: when a workshop is open, a person is there, a vehicle is needed. Written such as
/// <c>Mo-Fr 07:30-09:00, 14:45-16:00; Sa 09:00-12:00</c>; an hour may stand without minutes.</summary>
public sealed class WeeklyTimes : IEquatable<WeeklyTimes>
{
    private const int Longest = 200;
    private static readonly string[] Names = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"];

    private readonly Quarters[] _days;

    private WeeklyTimes(Quarters[] days) => _days = days;

    /// <summary>At no time.</summary>
    public static WeeklyTimes Never { get; } = new(new Quarters[7]);

    /// <summary>From Monday to Friday between eight and half past four.</summary>
    public static WeeklyTimes Usual { get; } = Read("Mo-Fr 08:00-16:30", out _)!;

    /// <summary>The times of a day.</summary>
    /// <param name="day">The day.</param>
    public Quarters On(DateOnly day) => _days[Index(day.DayOfWeek)];

    /// <summary>Reads times as they are written.</summary>
    /// <param name="text">As typed; nothing is never.</param>
    /// <param name="problem">What is wrong with it, or empty.</param>
    /// <returns>The times; null where they cannot be read. Begun quarter hours count; a later part adds to an earlier one.</returns>
    public static WeeklyTimes? Read(string? text, out string problem)
    {
        problem = "";
        var days = new Quarters[7];
        var typed = (text ?? "").Trim();
        if (typed.Length > Longest)
        {
            problem = "That is too long. Write such as Mo-Fr 08:00-16:30.";
            return null;
        }
        foreach (var part in typed.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (part.Split(' ', 2) is not [var names, var times] || Days(names) is not { } of)
            {
                problem = $"“{part}” does not begin with days. Write such as Mo-Fr 08:00-16:30.";
                return null;
            }
            foreach (var span in times.Split(',', StringSplitOptions.TrimEntries))
            {
                if (Between(span) is not { } between)
                {
                    problem = $"“{span}” is no time from and to. Write such as 07:30-09:00.";
                    return null;
                }
                foreach (var day in of)
                    days[day] = days[day].And(between);
            }
        }
        return new(days);
    }

    /// <summary>As they are written; days that are alike stand together. Empty for never.</summary>
    public override string ToString()
    {
        var text = new StringBuilder();
        for (var day = 0; day < 7; day++)
        {
            if (_days[day] == Quarters.None)
                continue;
            var from = day;
            while (day < 6 && _days[day + 1] == _days[from])
                day++;
            text.Append(text.Length > 0 ? "; " : "").Append(Names[from]).Append(day > from ? $"-{Names[day]}" : "").Append(' ')
                .AppendJoin(", ", _days[from].Stretches().Select(s => $"{Said(s.From)}-{Said(s.To)}"));
        }
        return text.ToString();
    }

    /// <inheritdoc />
    public bool Equals(WeeklyTimes? other) => other is not null && _days.SequenceEqual(other._days);

    /// <inheritdoc />
    public override bool Equals(object? obj) => Equals(obj as WeeklyTimes);

    /// <inheritdoc />
    public override int GetHashCode() => ToString().GetHashCode(StringComparison.Ordinal);

    private static string Said(int quarter) => quarter == Quarters.InDay ? "24:00" : $"{Quarters.Time(quarter):HH:mm}";

    private static int[]? Days(string names)
    {
        var all = new List<int>();
        foreach (var name in names.Split(','))
        {
            var ends = name.Split('-');
            var (first, last) = (Named(ends[0]), Named(ends[^1]));
            if (ends.Length > 2 || first < 0 || last < first)
                return null;
            all.AddRange(Enumerable.Range(first, last - first + 1));
        }
        return [.. all];
    }

    private static int Named(string name) => Array.FindIndex(Names, n => n.Equals(name, StringComparison.OrdinalIgnoreCase));

    private static Quarters? Between(string span)
    {
        if (span.Split('-') is not [var from, var to] || Minute(from) is not { } begins || Minute(to) is not { } ends || ends <= begins)
            return null;
        return Quarters.Between(begins / Quarters.Minutes, (ends + Quarters.Minutes - 1) / Quarters.Minutes);
    }

    private static int? Minute(string time)
    {
        var parts = time.Trim().Split(':');
        var past = 0;
        if (parts.Length > 2 || !Number(parts[0], 24, out var hours)
            || (parts.Length == 2 && (parts[1].Length != 2 || !Number(parts[1], 59, out past))))
            return null;
        var minutes = hours * 60 + past;
        return minutes <= 24 * 60 ? minutes : null;
    }

    private static bool Number(string text, int most, out int number) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out number) && number <= most;

    private static int Index(DayOfWeek day) => ((int)day + 6) % 7;
}
