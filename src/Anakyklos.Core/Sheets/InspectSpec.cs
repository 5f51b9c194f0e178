using System.Text.Json.Serialization;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Sheets;

/// <summary>What follows when a reading does not pass.</summary>
public enum GaugeRule
{
    /// <summary>It is set and measured again, until it passes.</summary>
    Adjust,

    /// <summary>It is worn: it becomes a finding.</summary>
    Wear,

    /// <summary>It is noted, and tells what is done next.</summary>
    Note,
}

/// <summary>What follows from an answer.</summary>
public enum AnswerLeads
{
    /// <summary>Nothing: it is as it should be.</summary>
    Good,

    /// <summary>An eye is kept on it.</summary>
    Watch,

    /// <summary>It is planned.</summary>
    Plan,

    /// <summary>The lead decides before the vehicle goes.</summary>
    Stop,

    /// <summary>It is put right there and then, and looked at again.</summary>
    Mend,
}

/// <summary>How something lies, for the picture beside an answer.</summary>
public enum Lie
{
    /// <summary>An arrow on it points to the left.</summary>
    ArrowLeft,

    /// <summary>An arrow on it points to the right.</summary>
    ArrowRight,

    /// <summary>An arrow on it points up.</summary>
    ArrowUp,

    /// <summary>An arrow on it points down.</summary>
    ArrowDown,

    /// <summary>Its seal or rim lies above.</summary>
    SealUp,

    /// <summary>Its seal or rim lies below.</summary>
    SealDown,

    /// <summary>Its drain lies below.</summary>
    DrainBelow,

    /// <summary>Its drain lies above.</summary>
    DrainAbove,

    /// <summary>The old ring came off with the old part; the face is bare.</summary>
    RingOff,

    /// <summary>The old ring stayed on the face.</summary>
    RingLeft,

    /// <summary>Two lines run straight, each to its own port.</summary>
    LinesStraight,

    /// <summary>Two lines cross.</summary>
    LinesCrossed,

    /// <summary>Old and new are of one size.</summary>
    AsOld,

    /// <summary>The new one differs from the old one.</summary>
    NotAsOld,
}

/// <summary>One way in which a point may be found.</summary>
/// <param name="Says">It in a few words, such as "dry and brown".</param>
/// <param name="Means">What it tells, such as "runs lean"; empty for nothing.</param>
/// <param name="Leads">What follows.</param>
/// <param name="Shown">How it lies then, drawn; null for no picture.</param>
public sealed record PointAnswer(string Says, string Means, AnswerLeads Leads, Lie? Shown = null)
{
    internal static PointAnswer Read(SheetCursor c)
    {
        var answer = new PointAnswer(c.Text("says"), c.Text("means", false), c.Word("leads", AnswerLeads.Good, false),
            c.Has("shown") ? c.Word<Lie>("shown") : null);
        if (answer is { Leads: AnswerLeads.Mend, Means: "" })
            c.Complain("means", "Say what is done about it: it is put right there and then.");
        return answer;
    }
}

/// <summary>How a point is measured, and what passes. At least one of the limits is there, or it is only noted.</summary>
/// <param name="In">The scale of the gauge in the hand.</param>
/// <param name="Low">The least that passes; null for none.</param>
/// <param name="High">The most that passes; null for none.</param>
/// <param name="New">What a new one has; null where nobody says.</param>
/// <param name="Across">Where it is read, one after the other; empty for one reading.</param>
/// <param name="Uneven">How far those may differ; null where nobody says.</param>
/// <param name="Rule">What follows when it does not pass.</param>
/// <param name="ByFeeler">Whether it is felt with blades: one goes, the next does not.</param>
/// <param name="PerTurn">By how much a full turn of the adjuster changes it; null where there is none.</param>
public sealed record GaugeAsk(Scale In, Gauged? Low, Gauged? High, Gauged? New, IReadOnlyList<string> Across, Gauged? Uneven,
    GaugeRule Rule, bool ByFeeler, Gauged? PerTurn)
{
    /// <summary>What passes in words, such as "0.7 to 0.8 mm", "at least 2 mm", or "is noted".</summary>
    [JsonIgnore]
    public string Passes => (Low, High) switch
    {
        ({ } low, { } high) when low == high => $"{low}",
        ({ } low, { } high) => $"{low.Number} to {high}",
        ({ } low, null) => $"at least {low}",
        (null, { } high) => $"at most {high}",
        _ => "is noted",
    };
}

/// <summary>A point that is inspected: it is measured, or one of several answers is chosen.</summary>
/// <param name="Id">Its id in the step.</param>
/// <param name="Name">Its name with a capital.</param>
/// <param name="Measure">How it is measured; null where an answer is chosen.</param>
/// <param name="Answers">What may be chosen, the usual one first; empty where it is measured.</param>
/// <param name="Wheel">The wheel that it is at; null for none.</param>
/// <param name="Cylinder">The cylinder that it belongs to, from 1; null for none.</param>
/// <param name="On">Where it lies on the map of the step, in its hundredths; null where it is not drawn.</param>
public sealed record InspectPoint(string Id, string Name, GaugeAsk? Measure, IReadOnlyList<PointAnswer> Answers, Wheel? Wheel,
    int? Cylinder, PointPlace? On);

/// <summary>A place on a map.</summary>
/// <param name="X">From the left, 0 to 100.</param>
/// <param name="Y">From above, 0 to 120.</param>
public sealed record PointPlace(int X, int Y);

/// <summary>What a sheet says of a list of inspections.</summary>
/// <param name="Points">One after the other; at least one.</param>
/// <param name="OneByOne">Whether each is said by itself, and never all that are left at once.</param>
public sealed record InspectSpec(IReadOnlyList<InspectPoint> Points, bool OneByOne = false) : WorkSpec
{
    /// <summary>The fastener that is slackened to set what does not pass, and tightened again before it is measured anew; null where
    /// nothing holds it.</summary>
    public FastenerId? Slackens { get; init; }

    internal static InspectSpec Read(SheetCursor c)
    {
        var common = c.Part("measure", Ask, false);
        var answers = c.List("answers", PointAnswer.Read);
        var points = c.List("points", p => Point(p, common, answers), true);
        foreach (var twice in points.GroupBy(p => p.Id).Where(g => g.Count() > 1))
            c.Complain("points", $"“{twice.Key}” stands here twice.");
        var spec = new InspectSpec(points, c.Flag("oneByOne")) { Slackens = c.Id<FastenerId>("slackens") };
        if (spec.Slackens is not null && points.All(p => p.Measure?.Rule != GaugeRule.Adjust))
            c.Complain("slackens", "Nothing here is set: no point is measured with the rule adjust.");
        return spec;
    }

    private static InspectPoint Point(SheetCursor c, GaugeAsk? common, IReadOnlyList<PointAnswer> answers)
    {
        var own = c.Part("measure", Ask, false);
        var (ownAnswers, id) = (c.List("answers", PointAnswer.Read), c.Text("id"));
        var measure = own ?? (ownAnswers.Count > 0 ? null : common);
        var point = new InspectPoint(id, c.Text("name"), measure, measure is null ? ownAnswers.Count > 0 ? ownAnswers : answers : [],
            c.Has("wheel") ? c.Word<Wheel>("wheel") : null, c.Has("cylinder") ? c.Whole("cylinder", 1, 16, 1) : null,
            c.Has("x") ? new(c.Whole("x", 0, 100), c.Whole("y", 0, 120)) : null);
        if (point.Measure is null && point.Answers.Count == 0)
            c.Complain("id", "Say how it is measured, or what may be answered.");
        if (point.Answers.Count > 0 && point.Answers[0].Leads != AnswerLeads.Good)
            c.Complain("answers", "The first answer is the usual one, and nothing follows from it.");
        return point;
    }

    private static GaugeAsk Ask(SheetCursor c)
    {
        var unit = c.Text("in");
        if (Scale.Find(unit) is not { } scale)
        {
            c.Complain("in", $"“{unit}” is not read on a gauge here. Use {string.Join(", ", Scale.Symbols)}.");
            scale = Scale.Find("mm")!;
        }
        var ask = new GaugeAsk(scale, Of("low"), Of("high"), Of("new"), c.Texts("across"), Of("uneven"), c.Word<GaugeRule>("rule"),
            c.Flag("byFeeler"), Of("perTurn"));
        if (ask is { Low: null, High: null, Rule: not GaugeRule.Note })
            c.Complain("in", "Say what passes: low, high, or both.");
        if (ask is { Low: { } low, High: { } high } && low > high)
            c.Complain("low", $"{low} is more than {high}.");
        if (ask.ByFeeler && ask is not { Low: not null, High: not null, Rule: GaugeRule.Adjust, Across.Count: 0 })
            c.Complain("byFeeler", "What is felt with blades has a low and a high, and is set until it passes.");
        if (ask is { Rule: GaugeRule.Wear, Low: null })
            c.Complain("low", "What wears has a least that passes.");
        return ask;

        Gauged? Of(string name)
        {
            var text = c.Text(name, false);
            if (text.Length == 0)
                return null;
            var read = scale.Read(text, out var problem);
            if (read is null)
                c.Complain(name, problem);
            return read;
        }
    }
}
