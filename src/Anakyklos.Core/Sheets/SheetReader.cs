using System.Text;
using System.Text.Json;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Sheets;

/// <summary>The outcome of reading a sheet file: a sheet, or every error in it.</summary>
/// <param name="Sheet">The sheet, null when there is any error.</param>
/// <param name="Errors">Errors in the order of their lines.</param>
public sealed record SheetReading(ModelSheet? Sheet, IReadOnlyList<SheetError> Errors);

/// <summary>Reads model sheets. The JSON Schema in <c>docs/model-sheet.schema.json</c> describes the same format.</summary>
public static class SheetReader
{
    /// <summary>Reads a sheet and checks it in itself; gives every error at once.</summary>
    /// <param name="json">The file's text.</param>
    public static SheetReading Read(string json) => Read(Encoding.UTF8.GetBytes(json));

    /// <summary>Reads a sheet and checks it in itself; gives every error at once.</summary>
    /// <param name="utf8">The file's bytes, with or without a byte order mark.</param>
    public static SheetReading Read(byte[] utf8)
    {
        var errors = new List<SheetError>();
        if (utf8.AsSpan().StartsWith("\uFEFF"u8))
            utf8 = utf8[3..];
        var root = LocatedJson.Parse(utf8, errors);
        if (root is null)
            return new(null, errors);
        if (root.Kind != JsonTokenType.StartObject)
            return new(null, [new(1, "", "A sheet is one JSON object in braces.")]);

        var top = new SheetCursor(root, errors, new Dictionary<string, Source>());
        var format = top.Text("format");
        if (format.Length > 0 && format != ModelSheet.Format)
        {
            top.Complain("format", $"This reads {ModelSheet.Format}, not “{format}”.");
            return new(null, errors);
        }
        var sources = top.Table("sources", (id, c) => new Source(id, c.Text("title"), c.Flag("byMaker")));
        var sheet = Body(new(root, errors, sources), sources);
        errors.AddRange(SheetCheck.Run(sheet).Select(found => new SheetError(LineOf(root, found.Path), found.Path, found.Text)));
        return errors.Count == 0 ? new(sheet, []) : new(null, [.. errors.Distinct().OrderBy(e => e.Line)]);
    }

    private static int LineOf(LocatedJson node, string path)
    {
        var below = node.Members.Select(m => m.Value).Concat(node.Items)
            .FirstOrDefault(n => path == n.Path || path.StartsWith(n.Path + ".", StringComparison.Ordinal) || path.StartsWith(n.Path + "[", StringComparison.Ordinal));
        return below is null ? node.Line : LineOf(below, path);
    }

    private static ModelSheet Body(SheetCursor c, IReadOnlyDictionary<string, Source> sources)
    {
        c.Text("format");
        c.Table("sources", (_, s) => s.Text("title") + s.Flag("byMaker"));
        var sheet = new ModelSheet
        {
            Id = c.Text("id"),
            Revision = c.Whole("revision", 1, 9999, 1),
            Make = c.Text("make"),
            Name = c.Text("name"),
            Variants = c.List("variants", v => new Variant(v.Text("id"), v.Text("name"))),
            Sources = sources,
            Access = c.Table("access", ReadAccess),
            Fluids = c.Table("fluids", ReadFluid),
            Fasteners = c.Table("fasteners", ReadFastener),
            Parts = c.Table("parts", ReadPart),
            Intervals = c.Table("intervals", (id, i) => new IntervalRule(id, ReadInterval(i, "normal"), ReadInterval(i, "harsh"), i.Cited())),
            Maps = c.Table("maps", ReadMap, required: false),
            Resets = c.Table("resets", ReadReset, required: false),
            Steps = c.Table("steps", ReadStep),
            Jobs = c.Table("jobs", (id, j) => new Job(id, j.Text("name"), j.Texts("worksOn", true), j.Texts("steps", true), j.Texts("parts"), j.Text("interval"))),
        };
        c.RefuseUnknown();
        return sheet;
    }

    private static Access ReadAccess(string id, SheetCursor c) => new()
    {
        Id = id,
        Name = c.Text("name"),
        Place = c.Word<Place>("place"),
        Tool = c.Text("tool"),
        Count = c.Whole("count", 0, 99, required: false),
        CountOf = c.Text("countOf", c.Has("count")),
        Needs = c.Texts("needs"),
        AfterLeakCheck = c.Flag("afterLeakCheck"),
        ClosedToRun = c.Flag("closedToRun"),
        Intake = c.Flag("intake"),
        HoldsVehicle = c.Flag("holdsVehicle"),
        From = c.Cited(),
    };

    private static FluidSystem ReadFluid(string id, SheetCursor c) => new()
    {
        Id = id,
        Name = c.Text("name"),
        Amount = c.Sourced("amount", v => v.Amount<Volume>("is")),
        Tolerance = c.Sourced("tolerance", v => v.Amount<Volume>("is")),
        SafeToStart = c.Sourced("safeToStart", v => v.Amount<Volume>("is")),
        BetweenMarks = c.Sourced("betweenMarks", v => v.Amount<Volume>("is")),
        Reading = c.Sourced("reading", v => v.Text("is")),
        SettleAfterPour = c.Duration("settleAfterPour") ?? TimeSpan.Zero,
        Target = c.Word<TargetSchool>("target"),
        Grades = c.Sourced("grades", v => v.Texts("is", true)),
        Approvals = c.Sourced("approvals", v => v.Texts("is")),
    };

    private static Fastener ReadFastener(string id, SheetCursor c) => new()
    {
        Id = id,
        Name = c.Text("name"),
        Thread = c.Text("thread", false),
        Material = c.Text("material"),
        Drive = c.Text("drive"),
        Tightening = c.Sourced("torque", ReadTightening),
        Seal = c.Has("seal") ? c.Text("seal") : null,
        Holds = c.Texts("holds"),
        TooMuch = c.Word<OverTorqueRule>("tooMuch"),
        Drains = c.Has("drains") ? c.Text("drains") : null,
        Needs = c.Texts("needs"),
    };

    private static TighteningSpec ReadTightening(SheetCursor c)
    {
        if (c.Has("byHand"))
            return new ByHand(c.Text("byHand"));
        if (c.Has("turnAfterContact"))
            return new TurnAfterContact(c.Whole("turnAfterContact", 1, 720) / 360m);
        var target = c.Amount<Torque>("is");
        var (low, high) = (c.Amount<Torque>("low"), c.Amount<Torque>("high"));
        if (!(low <= target && target <= high))
            c.Complain("is", $"{target} does not lie between low ({low}) and high ({high}).");
        return new ToTorque(target, low, high);
    }

    private static Part ReadPart(string id, SheetCursor c) => new()
    {
        Id = id,
        Name = c.Text("name"),
        Number = c.Sourced("number", v => v.Text("is")),
        ReusableTimes = c.Has("reusableTimes") ? c.Whole("reusableTimes", 0, 9) : null,
        WrongButFits = c.Words("wrongButFits"),
    };

    private static ServiceInterval ReadInterval(SheetCursor c, string name) =>
        c.Part(name, i => new ServiceInterval(i.Amount<Distance>("distance"), i.Whole("months", 1, 240, 12))) ?? new(default, 12);

    private static VehicleMap ReadMap(string id, SheetCursor c) => new(id, c.Text("title"),
        c.List("blocks", b => new MapBlock(b.Text("name"), b.Whole("x", 0, 100), b.Whole("y", 0, 120), b.Whole("width", 1, 100), b.Whole("height", 1, 120))),
        c.List("points", p => new MapPoint(p.Text("for", false), p.Whole("x", 0, 100), p.Whole("y", 0, 120), p.Text("label"), p.Text("notFor", false))));

    private static ResetRitual ReadReset(string id, SheetCursor c) => new(id, c.Text("name"),
        c.List("moves", m => new ResetMove(m.Text("do"), m.Duration("hold", false), m.Text("expect", false)), true), c.Text("again"), c.Cited());

    private static SheetStep ReadStep(string id, SheetCursor c) => new()
    {
        Id = id,
        Kind = c.Word<StepKind>("kind"),
        What = c.Text("what", false),
        Title = c.Text("title"),
        Phase = c.Text("phase"),
        Place = c.Word<Place>("place"),
        Lift = c.Word("lift", LiftNeed.Any, required: false),
        Takes = c.Duration("takes") ?? TimeSpan.Zero,
        Wait = c.Part("wait", w => new StepWait(w.Text("for"), w.Duration("lasts") ?? TimeSpan.Zero), required: false),
        Awaits = c.Texts("awaits"),
        Said = c.Text("said", false),
        Value = c.Text("value", false),
        Notes = c.List("notes", n => new StepNote(n.Text("label"), n.Text("text"))),
        Warning = c.Text("warning", false),
        Cautions = c.Texts("cautions"),
        Map = c.Text("map", false),
        From = c.Has("from") ? c.Cited() : null,
    };
}
