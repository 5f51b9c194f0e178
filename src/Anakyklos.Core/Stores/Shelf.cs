using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Stores;

/// <summary>A part that the stores know.</summary>
/// <param name="Number">Number as printed.</param>
/// <param name="Name">Name.</param>
/// <param name="OnShelf">How many lie there; 0 or more.</param>
/// <param name="Reserved">How many of them wait for open cards.</param>
/// <param name="SupersededBy">The number that replaces it, or empty.</param>
/// <param name="Equivalents">Numbers of other makers for the same part.</param>
/// <param name="Minimum">How many are to lie there at least; with fewer it is ordered though no card wants it. 0 or more.</param>
/// <param name="Place">Where it lies, or empty.</param>
public sealed record StockPart(string Number, string Name, int OnShelf, int Reserved, string SupersededBy,
    IReadOnlyList<string> Equivalents, int Minimum = 0, string Place = "")
{
    /// <summary>How many can still be promised; never below 0.</summary>
    public int Free => Math.Max(0, OnShelf - Reserved);
}

/// <summary>A tool of the crib.</summary>
/// <param name="Size">As the sheets write it: "Hex 14", "T30 bit".</param>
/// <param name="Where">Drawer or board, or empty.</param>
public sealed record CribTool(string Size, string Where);

/// <summary>A torque wrench with its calibration.</summary>
/// <param name="Wrench">The wrench.</param>
/// <param name="CalibrationDue">The last day on which it may be used; null when it is not calibrated at all.</param>
public sealed record CribWrench(TorqueWrench Wrench, DateOnly? CalibrationDue)
{
    /// <summary>Whether its calibration holds on a day.</summary>
    /// <returns>False as well when no date is known.</returns>
    public bool IsCalibrated(DateOnly day) => CalibrationDue >= day;
}

/// <summary>A dispenser that draws oil out of a container and meters it.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Accuracy">Of its meter, in percent either way.</param>
/// <param name="CalibrationDue">The last day on which its meter may be used; null when it is not calibrated at all.</param>
public sealed record CribDispenser(string Name, decimal Accuracy, DateOnly? CalibrationDue)
{
    /// <summary>Whether its calibration holds on a day.</summary>
    /// <returns>False as well when no date is known.</returns>
    public bool IsCalibrated(DateOnly day) => CalibrationDue >= day;
}

/// <summary>A drain pan.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Holds">What it holds.</param>
public sealed record DrainPan(string Name, Quantity<Volume> Holds);

/// <summary>How a part was found on the shelf.</summary>
public enum FoundAs
{
    /// <summary>Under its own number.</summary>
    Itself,

    /// <summary>Under the number that supersedes it.</summary>
    Successor,

    /// <summary>Under an equivalent number.</summary>
    Equivalent,
}

/// <summary>Everything that a kit is checked against.</summary>
/// <param name="Parts">Parts.</param>
/// <param name="Containers">Containers of oil.</param>
/// <param name="Tools">Tools.</param>
/// <param name="Wrenches">Torque wrenches.</param>
/// <param name="Pans">Drain pans.</param>
/// <param name="Oils">Products and covers.</param>
public sealed record Shelf(IReadOnlyList<StockPart> Parts, IReadOnlyList<OilContainer> Containers, IReadOnlyList<CribTool> Tools,
    IReadOnlyList<CribWrench> Wrenches,
    IReadOnlyList<DrainPan> Pans, OilBook Oils)
{
    /// <summary>Parts, in the order they were given.</summary>
    public IReadOnlyList<StockPart> Parts
    {
        get;
        init => field = PartList.Of(value);
    } = PartList.Of(Parts);

    private PartList Known => (PartList)Parts;

    /// <summary>Nothing at all.</summary>
    public static Shelf Empty { get; } = new([], [], [], [], [], OilBook.Empty);

    /// <summary>The part of just this number, however it is written; null where there is none.</summary>
    /// <param name="number">The number.</param>
    public StockPart? Own(string number) => Known.Find(number);

    /// <summary>The part of a number: itself, what supersedes it (through any number of steps), or an equivalent; the first of these of
    /// which some are free, or else the first that is known.</summary>
    /// <param name="number">The number as written in a sheet or scanned.</param>
    /// <returns>The part and how it was found, or null when the stores know none of them.</returns>
    public (StockPart Part, FoundAs As)? Find(string number)
    {
        var ways = Ways(number).ToList();
        return ways.Count == 0 ? null : ways.FirstOrDefault(w => w.Part.Free > 0) is { Part: not null } free ? free : ways[0];
    }

    /// <summary>Whether a scanned number is good for a wanted one.</summary>
    /// <returns>True for the number itself, what replaced it, and its equivalents.</returns>
    public bool IsGoodFor(string scanned, string wanted) => PartNumber.Same(scanned, wanted)
        || Ways(wanted).Any(w => PartNumber.Same(w.Part.Number, scanned));

    /// <summary>The containers out of which may be poured on a day: those with something left that have not been open for too
    /// long.</summary>
    /// <param name="today">The day.</param>
    public IEnumerable<OilContainer> Pourable(DateOnly today) =>
        Containers.Where(c => c.Left > Quantity<Volume>.Zero && !IsOpenTooLong(c, today));

    /// <summary>Whether a container has been open for longer than what is in it bears.</summary>
    /// <param name="container">A container.</param>
    /// <param name="today">The day.</param>
    public bool IsOpenTooLong(OilContainer container, DateOnly today) =>
        container.Opened is { } opened && Oils.Find(container.Product)?.OpenDays is { } days && opened.AddDays(days) < today;

    private IEnumerable<(StockPart Part, FoundAs As)> Ways(string number)
    {
        var itself = Known.Find(number);
        if (itself is not null)
            yield return (itself, FoundAs.Itself);
        var seen = new HashSet<string> { PartNumber.Bare(number) };
        for (var next = itself?.SupersededBy ?? ""; next.Length > 0 && seen.Add(PartNumber.Bare(next));)
        {
            var part = Known.Find(next);
            if (part is not null)
                yield return (part, FoundAs.Successor);
            next = part?.SupersededBy ?? "";
        }
        foreach (var other in Known.EquivalentTo(number).Where(p => !seen.Contains(PartNumber.Bare(p.Number))))
            yield return (other, FoundAs.Equivalent);
    }

    /// <summary>The parts whose number or name has something in it, whatever stands between its letters.</summary>
    public IEnumerable<StockPart> Containing(string text) => Known.Containing(text);

    /// <summary>The shelf with another count of a part.</summary>
    /// <param name="part">A part of it as it is now.</param>
    public Shelf With(StockPart part) => this with { Parts = Known.With(part) };
}

/// <summary>Says when what is not on the shelf can be here.</summary>
public interface ISupplier
{
    /// <summary>When so many of a part can be here.</summary>
    /// <param name="number">Part number, or the name of an oil product.</param>
    /// <param name="ordered">The moment of ordering.</param>
    /// <param name="known">The workshop's shelf: a number that it does not know cannot be ordered.</param>
    /// <returns>The day on which it comes, or null when nobody knows.</returns>
    DateOnly? Arrives(string number, DateTimeOffset ordered, Shelf known);
}
