using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;

namespace Anakyklos.Core.Kit;

/// <summary>What a scanned number means for a kit.</summary>
public enum ScanVerdict
{
    /// <summary>It belongs to a part that is not ticked yet.</summary>
    Good,

    /// <summary>It belongs to a part of which all pieces are ticked.</summary>
    Enough,

    /// <summary>It also fits where a part of the kit goes, and is wrong.</summary>
    WrongButFits,

    /// <summary>Nothing of the kit has this number.</summary>
    Foreign,
}

/// <summary>A number that was scanned or typed at the kit.</summary>
/// <param name="Verdict">What it means.</param>
/// <param name="Part">The part that it is or is mistaken for; null when it is foreign.</param>
/// <param name="Number">The number that the sheet wants there; empty when it is foreign.</param>
/// <param name="Why">Why it is wrong, for what also fits.</param>
public sealed record ScannedPart(ScanVerdict Verdict, Part? Part, string Number, string Why)
{
    /// <summary>Holds a number against a kit.</summary>
    /// <param name="kit">The kit.</param>
    /// <param name="shelf">The stores, for successors and equivalents.</param>
    /// <param name="ticked">Ids of the parts that are ticked.</param>
    /// <param name="scan">The number, however typed.</param>
    /// <returns>The part it belongs to and whether it may go in; foreign when it belongs to none.</returns>
    public static ScannedPart Of(KitList kit, Shelf shelf, IReadOnlySet<PartId> ticked, string scan)
    {
        if (kit.Parts.FirstOrDefault(l => shelf.IsGoodFor(scan, l.Number)) is { } line)
            return line.Uses.FirstOrDefault(p => !ticked.Contains(p.Id)) is { } next ? new(ScanVerdict.Good, next, line.Number, "")
                : new(ScanVerdict.Enough, line.Uses[0], line.Number, "");
        foreach (var part in kit.Parts.SelectMany(l => l.Uses))
            foreach (var (number, why) in part.WrongButFits)
                if (PartNumber.Same(number, scan))
                    return new(ScanVerdict.WrongButFits, part, part.Number.Value, why);
        return new(ScanVerdict.Foreign, null, "", "");
    }
}
