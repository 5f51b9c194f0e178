using Anakyklos.Core.Workshop;
using Anakyklos.Core.Weeks;
using Anakyklos.Desk;

namespace Anakyklos.Web.Drawing;

/// <summary>Days of the bays as shapes: a band for each day with a lane for each bay, who is there to work below it, and how full it is at
/// its end. 1000 wide.</summary>
public sealed class WeekDrawing
{
    private const double Left = 148, Right = 918, Top = 26, Gap = 4, People = 20, Between = 16;
    private const double InAWeek = 36, InADay = 92, Letter = 12, SmallLetter = 9.2, WordLetter = 7.8;

    /// <summary>What stands in a bay.</summary>
    /// <param name="Kind">card, stands, fixed or planned.</param>
    /// <param name="Plate">The vehicle; empty where it is too narrow.</param>
    /// <param name="Href">Where it leads.</param>
    /// <param name="Says">It in words.</param>
    /// <param name="Words">What stands below the plate, where there is room for it.</param>
    public sealed record Block(string Kind, string X, string Y, string Width, string WordX, string WordY, string Plate, bool Small,
        string Href, string Says, IReadOnlyList<(string X, string Width)> Second, IReadOnlyList<(string Y, string Text)> Words);

    /// <summary>A lane with its name.</summary>
    public sealed record Row(string Name, string Y, string Middle);

    /// <summary>A day.</summary>
    /// <param name="There">Who is there to work, as a line.</param>
    /// <param name="Needed">Who is needed, as a shape.</param>
    /// <param name="BoatY">Where a boat stands; empty where none brings anything.</param>
    /// <param name="NowX">Where now is; empty on other days.</param>
    public sealed record Day(DateOnly Date, string Y, string Bottom, string PeopleY, IReadOnlyList<Row> Rows, IReadOnlyList<Block> Blocks,
        string There, string Needed, int Load, string LoadWidth, string LoadY, string BoatY, string NowX);

    private WeekDrawing() { }

    /// <summary>The days.</summary>
    public IReadOnlyList<Day> Days { get; private init; } = [];

    /// <summary>The hours.</summary>
    public IReadOnlyList<(string Time, string X)> Hours { get; private init; } = [];

    public string Height { get; private init; } = "";

    /// <summary>How high a lane is.</summary>
    public string Lane { get; private init; } = "";

    /// <summary>Draws some days of the plan.</summary>
    /// <param name="week">The plan.</param>
    /// <param name="from">The first day, from 0.</param>
    /// <param name="count">How many; those on which nothing is open are left out.</param>
    /// <param name="opening">When the workshop is open.</param>
    /// <param name="now">Now.</param>
    /// <param name="says">A visit, or a card, in words; and what stands below its plate on a day alone.</param>
    public static WeekDrawing Of(WorkshopWeek week, int from, int count, WeeklyTimes opening, DateTimeOffset now,
        Func<object, (string Says, IReadOnlyList<string> Below)> says)
    {
        var high = count == 1 ? InADay : InAWeek;
        var shown = Enumerable.Range(from, count)
            .Where(d => d < week.Days.Count && opening.On(week.Days[d].Date) != Quarters.None).ToList();
        var open = shown.Select(d => opening.On(week.Days[d].Date)).Aggregate(Quarters.None, (all, q) => all.And(q)).Stretches().ToList();
        var (first, last) = open.Count == 0 ? (32, 68) : (open[0].From / 4 * 4, (open[^1].To + 3) / 4 * 4);
        double X(double quarter) => Left + (Right - Left) * (quarter - first) / (last - first);
        var (y, days) = (Top, new List<Day>());
        var boats = week.Visits.Select(v => v.Boat).Concat(week.Cards.Select(c => c.GoesOn)).ToHashSet();
        foreach (var d in shown)
        {
            var outside = week.Cards.Where(c => c.Entry.Bay == Bays.Outside && c.Spans.Any(s => s.Day == d)).ToList();
            string[] lanes = [.. week.Plan.Problem.Bays.Select(b => b.Name), .. outside.Count > 0 ? [Bays.Outside] : Array.Empty<string>()];
            double LaneY(int lane) => y + lane * (high + Gap);
            var blocks = new List<Block>();
            foreach (var v in week.Visits.Where(v => v.Slot?.Day == d))
                blocks.Add(Of(v.IsFixed ? "fixed" : "planned", X, LaneY(v.Slot!.Value.Bay), high, v.Slot.Value.Begins,
                    v.Slot.Value.Begins + v.Work.Length, v.Plate, $"/week/{Uri.EscapeDataString(v.Plate)}", says(v),
                    v.Work.Second.Later(v.Slot.Value.Begins)));
            foreach (var c in week.Cards)
                foreach (var (day, when, worked) in c.Spans.Where(s => s.Day == d))
                    foreach (var (a, b) in when.Stretches())
                        blocks.Add(Of(worked ? "card" : "stands", X, LaneY(Array.IndexOf(lanes, c.Entry.Bay)), high, a, b, c.Entry.Plate,
                            $"/card/{c.Entry.Id}", says(c), Quarters.None));
            var peopleY = y + lanes.Length * (high + Gap) + 4;
            var there = opening.On(week.Days[d].Date);
            var most = Math.Max(1, Enumerable.Range(0, Quarters.InDay).Where(there.Has).Max(q => week.Days[d].People[q]));
            double Height(int people) => peopleY + People - People * Math.Min(people, most) / most;
            var load = week.Plan.Load(d);
            var room = Math.Max(1, week.Plan.Problem.Bays.Count * there.Count);
            var today = DateOnly.FromDateTime(now.DateTime) == week.Days[d].Date;
            // What is over of today was room as well.
            var gone = today ? week.Plan.Problem.Bays.Count * there.Without(week.Days[d].Open).Count : 0;
            var full = Math.Min(100, (int)Math.Round(100.0 * load / Math.Max(1, room - gone)));
            days.Add(new(week.Days[d].Date, Svg.N(y), Svg.N(peopleY + People), Svg.N(peopleY + 15),
                [.. lanes.Select((name, i) => new Row(name, Svg.N(LaneY(i)), Svg.N(LaneY(i) + high / 2 + 5)))], blocks,
                Steps(X, q => Height(week.Days[d].People[q]), there), Shape(X, q => Height(NeededAt(week, d, q)), peopleY + People, there),
                full, Svg.N(64.0 * full / 100), Svg.N(y + 18), boats.Contains(week.Days[d].Date) ? Svg.N(y + 52) : "",
                today && now.TimeOfDay.TotalMinutes / Quarters.Minutes is var at && at >= first && at <= last ? Svg.N(X(at)) : ""));
            y = peopleY + People + Between;
        }
        return new()
        {
            Days = days,
            Hours = [.. Enumerable.Range(0, (last - first) / 4 + 1).Select(i => ($"{(first / 4 + i) % 24}:00", Svg.N(X(first + i * 4))))],
            Height = Svg.N(Math.Max(60, y - Between + 6)),
            Lane = Svg.N(high),
        };
    }

    private static Block Of(string kind, Func<double, double> x, double y, double high, int from, int to, string plate, string href,
        (string Says, IReadOnlyList<string> Below) words, Quarters second)
    {
        var width = x(to) - x(from);
        var small = width < plate.Length * Letter + 12;
        var row = high > InAWeek ? y + 30 : y + high / 2 + 6;
        var letters = (int)((width - 14) / WordLetter);
        return new(kind, Svg.N(x(from) + 1), Svg.N(y), Svg.N(width - 2), Svg.N(x(from) + (small ? 4 : 8)), Svg.N(row),
            width >= plate.Length * SmallLetter + 8 ? plate : "", small, href, words.Says,
            [.. second.Stretches().Select(s => (Svg.N(x(s.From)), Svg.N(x(s.To) - x(s.From))))],
            high <= InAWeek ? []
                : [.. words.Below.Where(w => w.Length <= letters).Take(2).Select((w, i) => (Svg.N(row + 22 + 20 * i), w))]);
    }

    private static int NeededAt(WorkshopWeek week, int day, int quarter) =>
        week.Visits.Where(v => v.Slot is { } s && s.Day == day && quarter >= s.Begins && quarter < s.Begins + v.Work.Length)
            .Sum(v => v.Work.Second.Has(quarter - v.Slot!.Value.Begins) ? 2 : 1)
        + week.Cards.Count(c => c.Spans.Any(s => s.Day == day && s.Worked && s.When.Has(quarter)));

    private static string Steps(Func<double, double> x, Func<int, double> y, Quarters open) => string.Join(' ', open.Stretches().Select(s =>
        "M" + string.Join("L", Enumerable.Range(s.From, s.To - s.From).SelectMany(q => new[] { $"{Svg.N(x(q))} {Svg.N(y(q))}",
            $"{Svg.N(x(q + 1))} {Svg.N(y(q))}" }))));

    private static string Shape(Func<double, double> x, Func<int, double> y, double bottom, Quarters open) => string.Join(' ',
        open.Stretches().Select(s => $"M{Svg.N(x(s.From))} {Svg.N(bottom)}L" + string.Join("L", Enumerable.Range(s.From, s.To - s.From)
            .SelectMany(q => new[] { $"{Svg.N(x(q))} {Svg.N(y(q))}", $"{Svg.N(x(q + 1))} {Svg.N(y(q))}" }))
            + $"L{Svg.N(x(s.To))} {Svg.N(bottom)}Z"));
}
