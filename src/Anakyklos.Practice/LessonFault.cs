using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>A fault as a lesson's file names it.</summary>
internal static class LessonFault
{
    private static readonly Dictionary<string, Func<SheetCursor, ModelSheet, Fault>> Known = new()
    {
        ["seized"] = (c, sheet) => new Seized(Of(c, sheet.Fasteners)),
        ["stripped"] = (c, sheet) => new Stripped(Of(c, sheet.Fasteners)),
        ["old-ring-stays"] = (c, sheet) => new OldRingStays(Of(c, sheet.Fasteners)),
        ["slivers"] = (c, sheet) => new Slivers(Of(c, sheet.Fasteners)),
        ["wrong-in-box"] = (c, sheet) => new WrongInBox(Of(c, sheet.Parts)),
        ["beside-its-groove"] = (c, sheet) => new BesideItsGroove(Of(c, sheet.Parts)),
        ["milky"] = (c, sheet) => new Milky(Of(c, sheet.Fluids)),
        ["thinned"] = (c, sheet) => new Thinned(Of(c, sheet.Fluids)),
        ["wrong-in-can"] = (c, sheet) => new WrongInCan(Of(c, sheet.Fluids)),
        ["missing"] = (c, sheet) => new Missing(Of(c, sheet.Fluids), c.Amount<Volume>("by")),
        ["misread-stick"] = (c, sheet) => new MisreadStick(Of(c, sheet.Fluids), c.Whole("percent", -90, 90) / 100m),
        ["reset-fails-once"] = (c, sheet) => new ResetFailsOnce(Of(c, sheet.Resets)),
        ["weak-battery"] = (_, _) => new WeakBattery(),
        ["trapped-wire"] = (_, _) => new TrappedWire(),
        ["door-ajar"] = (_, _) => new DoorAjar(),
    };

    /// <summary>Reads one; null where it is none, which is among the errors then.</summary>
    internal static Fault? Read(SheetCursor c, ModelSheet? sheet)
    {
        var kind = c.Text("kind");
        if (kind.Length == 0 || sheet is null)
            return null;
        if (Known.TryGetValue(kind, out var read))
            return read(c, sheet);
        c.Complain("kind", $"“{kind}” is not known here. Use {string.Join(", ", Known.Keys)}.");
        return null;
    }

    /// <summary>A fault as it is written in a file: its kind, the thing, and what else it says.</summary>
    /// <exception cref="ArgumentException">No lesson can say it.</exception>
    internal static IReadOnlyList<(string Name, object Value)> Write(Fault fault) => fault switch
    {
        Seized f => Said("seized", f.What),
        Stripped f => Said("stripped", f.What),
        OldRingStays f => Said("old-ring-stays", f.What),
        Slivers f => Said("slivers", f.What),
        WrongInBox f => Said("wrong-in-box", f.What),
        BesideItsGroove f => Said("beside-its-groove", f.What),
        Milky f => Said("milky", f.What),
        Thinned f => Said("thinned", f.What),
        WrongInCan f => Said("wrong-in-can", f.What),
        Missing f => [.. Said("missing", f.What), ("by", $"{f.By}")],
        MisreadStick f => [.. Said("misread-stick", f.What), ("percent", (int)(f.By * 100))],
        ResetFailsOnce f => Said("reset-fails-once", f.What),
        WeakBattery => [("kind", "weak-battery")],
        TrappedWire => [("kind", "trapped-wire")],
        DoorAjar => [("kind", "door-ajar")],
        _ => throw new ArgumentException($"A lesson cannot say {fault.GetType().Name}.", nameof(fault)),
    };

    private static IReadOnlyList<(string Name, object Value)> Said<TId>(string kind, TId what) where TId : struct =>
        [("kind", kind), ("what", $"{what}")];

    private static TId Of<TId, T>(SheetCursor c, IReadOnlyDictionary<TId, T> things) where TId : struct, IId<TId>
    {
        var id = TId.Of(c.Text("what"));
        if (!things.ContainsKey(id))
            c.Complain("what", $"The model has no “{id}” that this can happen to.");
        return id;
    }
}
