using System.Globalization;
using System.Text.RegularExpressions;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Sheets;

/// <summary>A list of inspections that somebody made from the maker's book, kept with a model beside its sheet: a job of one
/// step.</summary>
/// <param name="Id">Id of its job, its step and its interval; begins with <see cref="Mark"/>.</param>
/// <param name="Name">Its name with a capital.</param>
/// <param name="Book">The book that it was taken from.</param>
/// <param name="Page">Page or place in it.</param>
/// <param name="Every">How often it is due.</param>
/// <param name="Place">Where the person stands.</param>
/// <param name="Points">What is inspected, in its order; at least one.</param>
/// <param name="Changed">Counts up with every change, from 1.</param>
public sealed record OwnList(string Id, string Name, string Book, string Page, ServiceInterval Every, Place Place,
    IReadOnlyList<InspectPoint> Points, int Changed = 1)
{
    /// <summary>The beginning of its id: no sheet may use it.</summary>
    public const string Mark = "own-";

    /// <summary>The most points of one list.</summary>
    public const int Most = 60;

    private Citation From => new(new("own", Book, false), Page, 0);

    internal SheetStep Step => new()
    {
        Id = Id,
        Kind = "inspect",
        Title = Name,
        Phase = "Look over",
        Place = Place,
        Lift = Place.UsualLift(),
        Takes = TimeSpan.FromMinutes(Math.Max(1, (Points.Count + 1) / 2)),
        From = From,
        Spec = new InspectSpec(Points),
    };

    internal Job Job => new(Id, Name, [], [Id], [], Id, []);

    internal IntervalRule Interval => new(Id, Every, Every, 1, From);
}

/// <summary>Points of an own list as they are typed, a line each: a name, and behind a colon what passes, such as "0.7 to 0.8 mm", "at
/// least 2 mm", "at most 3 clicks", or a unit alone for what is only noted. Without a colon it is looked at.</summary>
public static partial class OwnPoints
{
    private static readonly PointAnswer[] Looked =
    [
        new("as it should be", "", AnswerLeads.Good), new("not as new", "", AnswerLeads.Watch),
        new("worn", "", AnswerLeads.Plan), new("not safe", "", AnswerLeads.Stop),
    ];

    /// <summary>Reads the lines; empty ones are passed over.</summary>
    /// <param name="text">What was typed.</param>
    /// <param name="wrong">What is wrong, by line from 1; empty when all of it was read.</param>
    /// <returns>The points that were read.</returns>
    public static IReadOnlyList<InspectPoint> Read(string text, out IReadOnlyList<Refusal> wrong)
    {
        var (points, problems, number) = (new List<InspectPoint>(), new List<Refusal>(), 0);
        foreach (var line in text.ReplaceLineEndings("\n").Split('\n').Select(l => l.Trim()))
        {
            number++;
            if (line.Length == 0)
                continue;
            var colon = line.LastIndexOf(':');
            var (name, passes) = colon < 0 ? (line, "") : (line[..colon].TrimEnd(), line[(colon + 1)..].Trim());
            var ask = passes.Length == 0 ? null : Ask(passes);
            if (name.Length is < 2 or > 80)
                Complain("A name has 2 to 80 characters.", "Say what is inspected before the colon.");
            else if (passes.Length > 0 && ask is null)
                Complain($"“{passes}” does not say what passes.",
                    $"Say such as “0.7 to 0.8 mm”, “at least 2 mm”, “at most 3 clicks”, or a unit: {string.Join(", ", Scale.Symbols)}.");
            else if (ask is { Low: { } low, High: { } high } && low > high)
                Complain($"{low} is more than {high}.", "Say the lower one first.");
            else if (points.Any(p => p.Name.Equals(name, StringComparison.OrdinalIgnoreCase)))
                Complain($"“{name}” stands here twice.", "Name each by itself.");
            else
                points.Add(new($"point-{points.Count + 1}", $"{char.ToUpperInvariant(name[0])}{name[1..]}", ask, ask is null ? Looked : [],
                    null, null, null));
        }
        if (points.Count == 0 && problems.Count == 0)
            problems.Add(new("There is nothing to inspect.", "Type what is inspected, a line each.", Field: "points"));
        if (points.Count > OwnList.Most)
            problems.Add(new($"{points.Count} points are too many for one list.", $"Keep it to {OwnList.Most}, and make another list.",
                Field: "points"));
        wrong = problems;
        return points;

        void Complain(string what, string help) => problems.Add(new($"Line {number}: {what}", help, Field: "points"));
    }

    /// <summary>The lines of some points, as <see cref="Read"/> reads them.</summary>
    public static string Write(IEnumerable<InspectPoint> points) =>
        string.Join("\n", points.Select(p => p.Measure is { } ask ? $"{p.Name}: {Passes(ask)}" : p.Name));

    private static string Passes(GaugeAsk ask) => (ask.Low, ask.High) switch
    {
        ({ } low, { } high) => $"{low.Number} to {high.Number} {ask.In.Symbol}",
        ({ } low, null) => $"at least {low}",
        (null, { } high) => $"at most {high}",
        _ => ask.In.Symbol,
    };

    private static GaugeAsk? Ask(string passes)
    {
        if (Scale.Find(passes) is { } noted)
            return new(noted, null, null, null, [], null, GaugeRule.Note, false, null);
        if (Written().Match(passes) is not { Success: true } m || Scale.Find(m.Groups["unit"].Value) is not { } scale)
            return null;
        Gauged? Of(string group) => m.Groups[group].Success
            && decimal.TryParse(m.Groups[group].Value.Replace(',', '.'), NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture,
                out var number) ? scale.Of(number) : null;
        var (low, high) = (Of("low") ?? Of("least"), Of("high") ?? Of("most"));
        // What only must not be less wears; what must not be more, or must lie between, is set.
        return new(scale, low, high, null, [], null, high is null ? GaugeRule.Wear : GaugeRule.Adjust, false, null);
    }

    private const string Number = @"[0-9]{1,5}(?:[.,][0-9]{1,4})?";

    [GeneratedRegex($"^(?:(?<low>{Number}) ?(?:to|-|–) ?(?<high>{Number})|at least (?<least>{Number})|at most (?<most>{Number}))"
        + " ?(?<unit>[A-Za-z]+)$")]
    private static partial Regex Written();
}
