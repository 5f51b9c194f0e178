using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Workshop;
using Anakyklos.Storage;

namespace Anakyklos.Desk.Files;

/// <summary>What a file would change, before it is brought in.</summary>
/// <param name="Lines">What is new or becomes another, one thing a line, in the order of the file.</param>
/// <param name="New">How many are new.</param>
/// <param name="Changed">How many become another.</param>
/// <param name="Same">How many are there already, just so.</param>
public sealed record Preview(IReadOnlyList<string> Lines, int New, int Changed, int Same)
{
    /// <summary>What a stock file would change.</summary>
    /// <param name="file">The file.</param>
    /// <param name="shelf">The stores as they are.</param>
    public static Preview Of(StockFile file, Shelf shelf) => Of(
    [
        .. file.Parts.Select(p => Part(p, shelf.Own(p.Number), file.Left)),
        .. file.Containers.Select(c => Can(c, c.Id == 0 ? null : shelf.Containers.FirstOrDefault(k => k.Id == c.Id), file.Left)),
        .. file.Tools.Select(t => (t.Size, shelf.Tools.FirstOrDefault(k => PartNumber.Same(k.Size, t.Size)) is { } there
            ? Steps(("place", there.Where, t.Where)) : null)),
        .. file.Pans.Select(p => (p.Name, shelf.Pans.FirstOrDefault(k => k.Name == p.Name) is { } there
            ? Steps(("holds", $"{there.Holds}", $"{p.Holds}")) : null)),
    ]);

    /// <summary>What a fleet file would change.</summary>
    /// <param name="vehicles">Its vehicles that are not here yet.</param>
    /// <param name="readings">Its readings that are not here yet, by plate.</param>
    /// <param name="rows">How many rows it has.</param>
    public static Preview Of(IReadOnlyList<Vehicle> vehicles, IReadOnlyList<(string Plate, OdometerReading Reading)> readings, int rows) =>
        new([.. vehicles.Select(v => $"{v.Plate}: new, {v.SheetId}, {v.Year}, {v.Task}".TrimEnd(',', ' ')),
            .. readings.GroupBy(r => r.Plate).Select(g => $"{g.Key}: {g.Count()} readings, up to "
                + $"{g.Max(r => r.Reading.Reading.In(Distance.Kilometre)):#,0} km".Replace(",", "\u202F"))],
            vehicles.Count + readings.Count, 0, rows - readings.Count);

    private static (string, IReadOnlyList<string>?) Part(StockPart p, StockPart? there, IReadOnlySet<string> left) =>
        ($"{p.Number} {p.Name}", there is null ? null : Steps(("number", there.Number, p.Number), ("name", there.Name, p.Name),
            ("on shelf", $"{there.OnShelf}", $"{p.OnShelf}"), ("superseded by", there.SupersededBy, p.SupersededBy),
            ("equivalents", string.Join("; ", there.Equivalents), string.Join("; ", p.Equivalents)),
            ("minimum", $"{there.Minimum}", left.Contains("minimum") ? $"{there.Minimum}" : $"{p.Minimum}"),
            ("place", there.Place, left.Contains("place") ? there.Place : p.Place)));

    private static (string, IReadOnlyList<string>?) Can(OilContainer c, OilContainer? there, IReadOnlySet<string> left) =>
        (c.Id == 0 ? c.Product : $"no. {c.Id} {c.Product}", there is null ? null : Steps(("product", there.Product, c.Product),
            ("size", $"{there.Size}", $"{c.Size}"), ("left", $"{there.Left}", $"{c.Left}"),
            ("opened", $"{there.Opened:yyyy-MM-dd}", $"{c.Opened:yyyy-MM-dd}"), ("batch", there.Batch, c.Batch),
            ("place", there.Place, left.Contains("place") ? there.Place : c.Place)));

    private static IReadOnlyList<string> Steps(params (string What, string Was, string Now)[] all) =>
        [.. all.Where(s => s.Was != s.Now).Select(s => $"{s.What} {Word(s.Was)} → {Word(s.Now)}")];

    private static string Word(string text) => text.Length > 0 ? text : "none";

    // Null for what is new, no step for what is the same.
    private static Preview Of(IReadOnlyList<(string Name, IReadOnlyList<string>? Steps)> rows) => new(
        [.. rows.Where(r => r.Steps is null or { Count: > 0 }).Select(r => r.Steps is null ? $"{r.Name}: new"
            : $"{r.Name}: {string.Join(", ", r.Steps)}")],
        rows.Count(r => r.Steps is null), rows.Count(r => r.Steps is { Count: > 0 }), rows.Count(r => r.Steps is { Count: 0 }));
}
