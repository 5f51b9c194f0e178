using System.Text;
using System.Text.Json;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Sheets;

/// <summary>The outcome of reading a sheet file: a sheet, or every error in it.</summary>
/// <param name="Sheet">The sheet, null when there is any error.</param>
/// <param name="Errors">Errors in the order of their lines.</param>
public sealed record SheetReading(ModelSheet? Sheet, IReadOnlyList<Refusal> Errors)
{
    /// <summary>The line of a path such as <c>jobs.oil.steps</c>, or of the nearest thing above it.</summary>
    public Func<string, int> LineOf { get; init; } = _ => 1;
}

/// <summary>Reads model sheets. The JSON Schema in <c>docs/model-sheet.schema.json</c> describes the same format.</summary>
public static class SheetReader
{
    /// <summary>Reads a sheet and checks it in itself; gives every error at once.</summary>
    /// <param name="json">The file's text.</param>
    /// <returns>The sheet, or every error with its line.</returns>
    public static SheetReading Read(string json) => Read(Encoding.UTF8.GetBytes(json));

    /// <summary>Reads a sheet and checks it in itself; gives every error at once.</summary>
    /// <param name="utf8">The file's bytes, with or without a byte order mark.</param>
    /// <returns>The sheet, or every error with its line.</returns>
    public static SheetReading Read(byte[] utf8)
    {
        var errors = new List<Refusal>();
        if (utf8.AsSpan().StartsWith("\uFEFF"u8))
            utf8 = utf8[3..];
        var root = LocatedJson.Parse(utf8, errors);
        if (root is null)
            return new(null, errors);
        if (root.Kind != JsonTokenType.StartObject)
            return new(null, [Refusal.At(1, "", "A sheet is one JSON object in braces.")]);

        var top = new SheetCursor(root, errors, new Dictionary<string, Source>());
        var format = top.Text("format");
        if (format.Length > 0 && format != ModelSheet.Format)
        {
            top.Complain("format", $"This reads {ModelSheet.Format}, not “{format}”.");
            return new(null, errors);
        }
        var sources = top.Table("sources", (id, c) => new Source(id, c.Text("title"), c.Flag("byMaker")));
        var sheet = Body(new(root, errors, sources), sources);
        errors.AddRange(SheetCheck.Run(sheet).Select(found => Refusal.At(LineOf(root, found.Path), found.Path, found.Text)));
        return errors.Count == 0 ? new(sheet, []) { LineOf = path => LineOf(root, path) }
            : new(null, [.. errors.Distinct().OrderBy(e => e.Line)]);
    }

    private static int LineOf(LocatedJson node, string path)
    {
        var below = node.Members.Select(m => m.Value).Concat(node.Items)
            .FirstOrDefault(n => path == n.Path || path.StartsWith(n.Path + ".", StringComparison.Ordinal)
                || path.StartsWith(n.Path + "[", StringComparison.Ordinal));
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
            Stands = c.Word("stands", Stand.Lift, required: false),
            CoolsIn = c.Duration("coolsIn", false) ?? TimeSpan.FromMinutes(45),
            Starter = c.Part("starter", s => new StarterLimits(s.Duration("longest") ?? OneMinute, s.Duration("rest") ?? OneMinute,
                s.Whole("tries", 1, 9, 3), s.Duration("cools") ?? OneMinute, s.Cited()), required: false),
            Variants = c.List("variants", v => new Variant(v.Text("id"), v.Text("name"))),
            Sources = sources,
            Access = c.Table<AccessId, Access>("access", ReadAccess, required: false),
            Fluids = c.Table<FluidId, FluidSystem>("fluids", ReadFluid),
            Fasteners = c.Table<FastenerId, Fastener>("fasteners", FastenerReader.Read),
            Parts = c.Table<PartId, Part>("parts", ReadPart),
            Intervals = c.Table<IntervalId, IntervalRule>("intervals", (id, i) =>
                new IntervalRule(id, ReadInterval(i, "normal"), ReadInterval(i, "harsh"), i.Whole("everyTime", 1, 9, 1, required: false),
                i.Cited(), i.Has("upper") ? ReadInterval(i, "upper") : null, i.Flag("once"),
                i.Id<JobId>("of"))),
            Fuel = c.Word("fuel", Fuel.Petrol, required: false),
            Dash = c.Part("dash", d => new DashScheme(d.Text("counts", false),
                d.List("messages", m => new DashMessage(m.Text("code"), m.Text("says"), m.Ids<JobId>("jobs", true), m.Cited()))),
                required: false) ?? DashScheme.None,
            Maps = c.Table("maps", ReadMap, required: false),
            Resets = c.Table<ResetId, ResetRitual>("resets", ResetRitual.Read, required: false),
            Steps = c.Table<StepId, SheetStep>("steps", ReadStep, required: false),
            Words = OtherTongues.Read(c),
            Jobs = c.Table<JobId, Job>("jobs", (id, j) => new Job(id, j.Text("name"), j.Ids<ThingId>("worksOn"), j.Ids<StepId>("steps"),
                j.Ids<PartId>("parts"), j.Text("interval"), j.Ids<ResetId>("resets"), j.Id<JobId>("follows"))),
        };
        c.RefuseUnknown();
        return sheet;
    }

    private static Access ReadAccess(AccessId id, SheetCursor c) => new()
    {
        Id = id,
        Name = c.Text("name"),
        Place = c.Word<Place>("place"),
        Tool = c.Text("tool"),
        Count = c.Whole("count", 0, 99, required: false),
        CountOf = c.Text("countOf", c.Has("count")),
        Needs = c.Ids<AccessId>("needs"),
        AfterLeakCheck = c.Flag("afterLeakCheck"),
        ClosedToRun = c.Flag("closedToRun"),
        Intake = c.Flag("intake"),
        CutsCurrent = c.Flag("cutsCurrent"),
        HoldsVehicle = c.Flag("holdsVehicle"),
        Takes = c.Duration("takes", false) ?? OneMinute,
        TakesBack = c.Duration("takesBack", false) ?? c.Duration("takes", false) ?? OneMinute,
        Off = c.Text("off", false),
        On = c.Text("on", false),
        Notes = ReadNotes(c),
        Cautions = c.Texts("cautions"),
        From = c.Cited(),
    };

    private static FluidSystem ReadFluid(FluidId id, SheetCursor c)
    {
        var fillBy = c.Word("fillBy", FillBy.Dipstick, required: false);
        // A level that is read between marks needs to know what lies between them; the other ways may have marks as well.
        var marked = fillBy is FillBy.Dipstick or FillBy.SightGlass or FillBy.Rod or FillBy.Part || c.Has("betweenMarks");
        return new()
        {
            Id = id,
            Name = c.Text("name"),
            FillBy = fillBy,
            Pumped = c.Flag("pumped"),
            DrainHot = c.Flag("drainHot"),
            Through = c.Ids<AccessId>("through"),
            Amount = c.Sourced("amount", v => v.Amount<Volume>("is")),
            Tolerance = c.Sourced("tolerance", v => v.Amount<Volume>("is")),
            LitreWeighs = c.Has("litreWeighs") ? c.Sourced("litreWeighs", v => v.Amount<Mass>("is")) : null,
            MayUse = c.Has("mayUse") ? c.Sourced("mayUse", v => v.Amount<Volume>("is")) : null,
            AfterStrip = c.Has("afterStrip") ? c.Sourced("afterStrip", v => v.Amount<Volume>("is")) : null,
            Rinse = c.Has("rinse") ? c.Sourced("rinse", v => v.Amount<Volume>("is")) : null,
            SafeToStart = c.Has("safeToStart") ? c.Sourced("safeToStart", v => v.Amount<Volume>("is")) : null,
            BetweenMarks = marked ? c.Sourced("betweenMarks", v => v.Amount<Volume>("is")) : null,
            AtTopMark = marked && c.Has("atTopMark") ? c.Sourced("atTopMark", v => v.Amount<Volume>("is")) : null,
            Rod = fillBy == FillBy.Rod && c.Has("rod")
                ? c.Sourced("rod", v => new RodMarks(v.Amount<Length>("low"), v.Amount<Length>("high"))) : null,
            Part = fillBy == FillBy.Part ? c.Text("part") : "",
            Reading = marked ? c.Sourced("reading", v => v.Text("is")) : null,
            SettleAfterPour = marked ? c.Duration("settleAfterPour") ?? TimeSpan.Zero : TimeSpan.Zero,
            Target = marked ? c.Word<TargetSchool>("target") : default,
            Grades = c.Sourced("grades", v => v.Texts("is", true)),
            Approvals = c.Sourced("approvals", v => v.Texts("is")),
            Climate = c.List("climate", g => new GradeRange(g.Text("grade"), g.Degrees("from"), g.Degrees("to"))),
            Additives = c.Texts("additives"),
            LowAsh = c.Flag("lowAsh"),
        };
    }

    private static readonly TimeSpan OneMinute = TimeSpan.FromMinutes(1);

    private static IReadOnlyList<StepNote> ReadNotes(SheetCursor c) => c.List("notes", n => new StepNote(n.Text("label"), n.Text("text")));

    private static Part ReadPart(PartId id, SheetCursor c) => new()
    {
        Id = id,
        Name = c.Text("name"),
        Number = c.Sourced("number", v => v.Text("is")),
        ReusableTimes = c.Has("reusableTimes") ? c.Whole("reusableTimes", 0, 9) : null,
        Compare = c.Flag("compare"),
        WrongButFits = c.Words("wrongButFits"),
        Prefill = c.Has("prefill") ? c.Sourced("prefill", v => v.Amount<Volume>("is")) : null,
        Needs = c.Ids<AccessId>("needs"),
        Place = c.Word("place", Place.Top, required: false),
        Takes = c.Duration("takes", false) ?? OneMinute,
        Fitting = c.Text("fitting", false),
        Notes = ReadNotes(c),
        After = c.Ids<StepId>("after"),
        Asks = c.Part("asks", FitQuestion.Read, required: false),
        Secures = c.Id<FastenerId>("secures"),
        Said = c.Text("said", false),
    };

    private static ServiceInterval ReadInterval(SheetCursor c, string name) => c.Part(name, i =>
    {
        if (!i.Has("distance") && !i.Has("months") && !i.Has("hours"))
            i.Complain("distance", "An interval needs a distance, months or hours.");
        return new ServiceInterval(i.Has("distance") ? i.Amount<Distance>("distance") : null,
            i.Has("months") ? i.Whole("months", 1, 240, 12) : null,
            i.Has("hours") ? i.Whole("hours", 1, 20000, 100) : null);
    }) ?? new(null, 12);

    private static VehicleMap ReadMap(string id, SheetCursor c) =>
        new(id, c.Text("title"), c.Word("outline", MapOutline.Car, required: false), c.Word("front", UsualFront(c), required: false),
        c.List("blocks", b => new MapBlock(b.Text("name"), b.Whole("x", 0, 100), b.Whole("y", 0, 120), b.Whole("width", 1, 100),
            b.Whole("height", 1, 120))),
        c.List("points", p => new MapPoint(p.Text("for", false), p.Whole("x", 0, 100), p.Whole("y", 0, 120), p.Text("label"),
            p.Text("notFor", false), p.Word("faces", Facing.None, required: false))),
        c.List("belts", b => new BeltRoute(b.Text("for"),
            b.List("pulleys", p => new BeltPulley(p.Text("name"), p.Whole("x", 0, 100), p.Whole("y", 0, 120), p.Whole("radius", 1, 40, 1),
            p.Flag("back")), required: true))));

    private static Facing UsualFront(SheetCursor c) => c.Word("outline", MapOutline.Car, required: false) switch
    {
        MapOutline.CarSide => Facing.Left,
        MapOutline.MotorcycleSide => Facing.Right,
        MapOutline.None => Facing.None,
        _ => Facing.Up,
    };

    private static LiftNeed UsualLift(SheetCursor c) => c.Word<Place>("place").UsualLift();

    private static SheetStep ReadStep(StepId id, SheetCursor c) => new()
    {
        Id = id,
        Kind = c.Kind("kind"),
        What = c.Text("what", false),
        Title = c.Text("title"),
        Phase = c.Text("phase"),
        Place = c.Word<Place>("place"),
        Lift = c.Word("lift", UsualLift(c), required: false),
        Takes = c.Duration("takes") ?? TimeSpan.Zero,
        Wait = c.Part("wait", w => new StepWait(w.Text("for"), w.Duration("lasts") ?? TimeSpan.Zero), required: false),
        Awaits = c.Ids<StepId>("awaits"),
        After = c.Ids<StepId>("after"),
        Needs = c.Ids<ThingId>("needs"),
        People = c.Whole("people", 1, 2, 1, required: false),
        Cold = c.Flag("cold"),
        Moves = c.Flag("moves"),
        WheelsTurn = c.Flag("wheelsTurn"),
        Essential = c.Flag("essential"),
        Said = c.Text("said", false),
        Value = c.Text("value", false),
        Notes = ReadNotes(c),
        Warning = c.Text("warning", false),
        Cautions = c.Texts("cautions"),
        Map = c.Text("map", false),
        From = c.Has("from") ? c.Cited() : null,
        Spec = StepKinds.Of(c.Text("kind", false)).ReadSpec(c),
    };
}
