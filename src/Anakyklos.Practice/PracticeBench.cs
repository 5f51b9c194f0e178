using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Practice;

/// <summary>What lies ready in the practice bay: every part of the model, a can of each of its fluids, pans and wrenches.</summary>
public static class PracticeBench
{
    private const int OfEach = 20;

    private static readonly Quantity<Volume> Can = Quantity<Volume>.Of(20, Volume.Litre);
    private static readonly Quantity<Volume> UsualPan = Quantity<Volume>.Of(20, Volume.Litre);

    /// <summary>Stores and crib of the practice bay, which never run out.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="sheet">Its model.</param>
    public static Shelf Shelf(Lesson lesson, ModelSheet sheet) => UsualPress.Facts(sheet).Shelf with
    {
        Parts = [.. sheet.Parts.Values.DistinctBy(p => PartNumber.Bare(p.Number.Value))
            .Select(p => new StockPart(p.Number.Value, p.Name, OfEach, 0, "", []))],
        Containers = [.. sheet.Fluids.Values.DistinctBy(f => PartNumber.Bare(f.Name))
            .Select((f, i) => new OilContainer(i + 1, f.Name, Can, Can, Volume.Litre, null, ""))],
        // No others: the card chooses among those that lie here.
        Wrenches = [.. Wrenches(lesson).Select(w => new CribWrench(w, DateOnly.MaxValue))],
        Pans = [.. Flows.PanNames.Select(name => new DrainPan(name, lesson.Pan ?? UsualPan))],
    };

    /// <summary>What the card is told of them.</summary>
    /// <param name="lesson">The lesson.</param>
    /// <param name="sheet">Its model.</param>
    public static CardFacts Facts(Lesson lesson, ModelSheet sheet) => UsualPress.Facts(sheet) with { Shelf = Shelf(lesson, sheet) };

    /// <summary>The torque wrenches of the practice bay, each for whatever is tightened.</summary>
    /// <param name="lesson">The lesson.</param>
    public static IReadOnlyList<TorqueWrench> Wrenches(Lesson lesson) => [.. lesson.Ready.Select(w => new TorqueWrench(w.Name,
        Quantity<Torque>.Of(1, Torque.NewtonMetre), Quantity<Torque>.Of(400, Torque.NewtonMetre), Quantity<Torque>.Of(0.1m, w.Scale),
        w.Scale, 4, Quantity<Length>.Of(400, Length.Millimetre)))];
}
