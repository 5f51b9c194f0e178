using System.Text;
using System.Text.Json;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>Something that must be noticed in a lesson.</summary>
/// <param name="What">The thing at which it shows.</param>
/// <param name="Says">What is to be seen or felt there, as it is told afterwards.</param>
/// <param name="ToCard">Whether it must stand on the card: as a finding, a question answered otherwise, or a job given up.</param>
public sealed record ToNotice(ThingId What, string Says, bool ToCard);

/// <summary>A point of an inspection that is not as it usually is.</summary>
/// <param name="Step">The step of the sheet.</param>
/// <param name="Point">Its point.</param>
/// <param name="Reads">What is measured there, with its unit, as it would be typed; or the answer in the sheet's words.</param>
public sealed record WornPoint(StepId Step, string Point, string Reads)
{
    /// <summary>By which it is noticed.</summary>
    public ThingId What => $"{Step}/{Point}";
}

/// <summary>A lesson of the practice bay: a vehicle with something wrong, and what a good hand makes of it.</summary>
/// <param name="Id">Its lasting id.</param>
/// <param name="Name">Its name.</param>
/// <param name="Road">Its place on the road from the first lesson to the last, from 1.</param>
/// <param name="Stage">The stage of the work that it is about.</param>
/// <param name="Story">What is told before it begins.</param>
/// <param name="Sheet">The model.</param>
/// <param name="Jobs">The jobs of the card.</param>
/// <param name="Hot">Whether the vehicle was driven in just now.</param>
/// <param name="People">How many work in the bay: 1 or 2.</param>
/// <param name="Faults">What is wrong.</param>
/// <param name="Notice">What must be noticed.</param>
/// <param name="Never">What must not happen, whoever sees it.</param>
/// <param name="Right">What is right, told afterwards.</param>
/// <param name="Wrenches">The wrenches of the bay; empty for one in newton metres.</param>
/// <param name="Pan">What each pan holds; null for those that are never full.</param>
/// <param name="Worn">What is measured otherwise than usual.</param>
public sealed record Lesson(LessonId Id, string Name, int Road, string Stage, string Story, SheetId Sheet, IReadOnlyList<JobId> Jobs,
    bool Hot, int People, IReadOnlyList<Fault> Faults, IReadOnlyList<ToNotice> Notice, IReadOnlyList<HarmKind> Never, string Right,
    IReadOnlyList<PracticeWrench> Wrenches, Quantity<Volume>? Pan, IReadOnlyList<WornPoint> Worn)
{
    /// <summary>The format's name, the first member of the file.</summary>
    public const string Format = "anakyklos/lesson/1";

    private const int LongestRoad = 999;

    /// <summary>What its texts are in other languages: by the language's code, and then by the text as the lesson has it.</summary>
    public IReadOnlyDictionary<string, IReadOnlyDictionary<string, string>> Words { get; init; } = OtherTongues.None;

    /// <summary>The wrenches that lie ready.</summary>
    public IReadOnlyList<PracticeWrench> Ready => Wrenches.Count > 0 ? Wrenches : [new("TW-1", Torque.NewtonMetre)];

    /// <summary>Reads a lesson; gives every error with its line, or the lesson.</summary>
    /// <param name="json">The file's text.</param>
    /// <param name="sheets">The models that it may be about, by id.</param>
    /// <returns>The lesson, or null with every error.</returns>
    public static (Lesson? Lesson, IReadOnlyList<Refusal> Errors) Read(string json, IReadOnlyDictionary<SheetId, ModelSheet> sheets)
    {
        var errors = new List<Refusal>();
        var root = LocatedJson.Parse(Encoding.UTF8.GetBytes(json.TrimStart('\uFEFF')), errors);
        if (root is null)
            return (null, errors);
        if (root.Kind != JsonTokenType.StartObject)
            return (null, [Refusal.At(1, "", "A lesson is one JSON object in braces.")]);
        var c = new SheetCursor(root, errors, new Dictionary<string, Source>());
        if (c.Text("format") is { Length: > 0 } format && format != Format)
            c.Complain("format", $"This reads {Format}, not “{format}”.");
        var sheet = c.Id<SheetId>("sheet") is { } id ? sheets.GetValueOrDefault(id) : null;
        if (sheet is null && errors.Count == 0)
            c.Complain("sheet", "There is no model of this id here.");
        var jobs = c.Ids<JobId>("jobs", true);
        foreach (var job in jobs.Where(j => sheet?.Jobs.ContainsKey(j) == false))
            c.Complain("jobs", $"The model has no job “{job}”.");
        var lesson = new Lesson(c.Id<LessonId>("id") ?? default, c.Text("name"), c.Whole("road", 1, LongestRoad), c.Text("stage"),
            c.Text("story"), sheet?.Id ?? default, jobs, c.Flag("hot"), c.Has("people") ? c.Whole("people", 1, 2) : 1,
            c.List("faults", f => LessonFault.Read(f, sheet)).OfType<Fault>().ToList(),
            c.List("notice", n => Noticed(n, sheet)), c.Words<HarmKind>("never", false), c.Text("right"),
            c.List("wrenches", Wrench).OfType<PracticeWrench>().ToList(), c.Has("pan") ? c.Amount<Volume>("pan") : null,
            c.List("worn", w => WornOf(w, sheet))) { Words = OtherTongues.Read(c) };
        c.RefuseUnknown();
        return errors.Count > 0 ? (null, errors) : (lesson, []);
    }

    private static ToNotice Noticed(SheetCursor c, ModelSheet? sheet)
    {
        var what = c.Id<ThingId>("what") ?? default;
        var step = what.Text.IndexOf('/') is > 0 and var slash ? what.Text[..slash] : "";
        if (sheet is not null && !sheet.Names(what) && !sheet.Resets.ContainsKey(what) && !sheet.Steps.ContainsKey(step))
            c.Complain("what", $"The model has no “{what}”.");
        return new(what, c.Text("says"), c.Flag("toCard"));
    }

    private static WornPoint WornOf(SheetCursor c, ModelSheet? sheet)
    {
        var worn = new WornPoint(c.Id<StepId>("step") ?? default, c.Text("point"), c.Text("reads"));
        if (sheet is not null
            && (sheet.Steps.GetValueOrDefault(worn.Step)?.Spec as InspectSpec)?.Points.Any(p => p.Id == worn.Point) != true)
            c.Complain("point", $"The model has no point “{worn.Point}” at a step “{worn.Step}”.");
        return worn;
    }

    private static PracticeWrench? Wrench(SheetCursor c)
    {
        var (name, scale) = (c.Text("name"), c.Text("scale"));
        if (Torque.Units.FirstOrDefault(u => u.IsSpelt(scale)) is { } unit)
            return new(name, unit);
        c.Complain("scale", $"“{scale}” is no unit of torque.");
        return null;
    }
}
