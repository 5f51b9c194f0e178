using System.Globalization;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk.Files;

/// <summary>Parts, containers and tools as comma-separated files, in and out.</summary>
public static class StockFiles
{
    /// <summary>The kinds of file.</summary>
    public static IReadOnlyList<string> Kinds { get; } = ["parts", "containers", "tools"];

    private static readonly string[] PartColumns = ["number", "name", "on shelf", "superseded by", "equivalents", "minimum", "place"];
    private static readonly string[] ContainerColumns = ["product", "size", "left", "opened", "batch", "number", "place"];
    // Files of before do not have them: then they stay as they are.
    private static readonly string[] Later = ["minimum", "place"];
    private static readonly string[] ToolColumns = ["kind", "name", "place", "holds"];

    /// <summary>Reads a file of one kind: all of it, or its errors.</summary>
    /// <param name="kind">One of <see cref="Kinds"/>.</param>
    /// <param name="text">Its text.</param>
    /// <param name="today">For "3 days ago".</param>
    /// <param name="products">Products of the oil book; a container of another is an error.</param>
    /// <param name="coming">Is told how far it is; null where nobody waits for it.</param>
    public static (StockFile? File, IReadOnlyList<Refusal> Errors) Read(string kind, string text, DateOnly today,
        IReadOnlyCollection<string> products, ComingFile? coming = null)
    {
        switch (kind)
        {
            case "parts":
                var seen = new Dictionary<string, int>();
                var left = new HashSet<string>();
                var parts = CsvTable.Read(text, PartColumns[..3], l =>
                {
                    var number = l.Text("number");
                    if (number.Length > 0 && !seen.TryAdd(PartNumber.Bare(number), l.Row))
                        l.Wrong("number", $"{number} is in row {seen[PartNumber.Bare(number)]} already.");
                    left.UnionWith(Later.Where(c => !l.Has(c)));
                    return new StockPart(number, l.Text("name"), l.Read("on shelf", Count) ?? 0, 0, l.Text("superseded by", false),
                        l.Text("equivalents", false).Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries),
                        l.Read("minimum", Count, false) ?? 0, l.Text("place", false));
                }, coming);
                return parts.Errors.Count > 0 ? (null, parts.Errors) : (new(parts.Rows, [], [], []) { Left = left }, []);
            case "containers":
                var kept = new HashSet<string>();
                var containers = CsvTable.Read(text, ContainerColumns[..3], l =>
                {
                    var product = l.Text("product");
                    if (product.Length > 0 && !products.Contains(product, StringComparer.OrdinalIgnoreCase))
                        l.Wrong("product",
                            $"“{product}” is not in the oil book. Bring the oil book in first, or write the name as it is there.");
                    var (size, inside) = (l.Read("size", Amount), l.Read("left", Amount));
                    if (inside?.Value > size?.Value)
                        l.Wrong("left", $"{inside} is more than the container holds, {size}.");
                    kept.UnionWith(Later.Where(c => !l.Has(c)));
                    return new OilContainer(l.Read("number", Count, false) ?? 0, product, size?.Value ?? default, inside?.Value ?? default,
                        size?.Unit ?? Volume.Litre, l.Read("opened", t => Day(t, today), false), l.Text("batch", false),
                        l.Text("place", false));
                }, coming);
                return containers.Errors.Count > 0 ? (null, containers.Errors) : (new([], containers.Rows, [], []) { Left = kept }, []);
            default:
                var tools = CsvTable.Read(text, ToolColumns[..2], l =>
                {
                    var word = l.Text("kind");
                    if (word.Length > 0 && word is not ("tool" or "pan"))
                        l.Wrong("kind", $"“{word}” is not a kind. Use tool or pan.");
                    return (IsPan: word == "pan", Name: l.Text("name"), Place: l.Text("place", false),
                        Holds: l.Read("holds", Amount, word == "pan")?.Value ?? default);
                }, coming);
                return tools.Errors.Count > 0 ? (null, tools.Errors)
                    : (new([], [], [.. tools.Rows.Where(t => !t.IsPan).Select(t => new CribTool(t.Name, t.Place))],
                        [.. tools.Rows.Where(t => t.IsPan).Select(t => new DrainPan(t.Name, t.Holds))]), []);
        }
    }

    /// <summary>Writes what is on the shelf as a file of one kind.</summary>
    public static string Write(string kind, Shelf shelf) => kind switch
    {
        "parts" => CsvTable.Write(PartColumns, shelf.Parts.Select(p =>
            new[]
            {
                p.Number, p.Name, $"{p.OnShelf}", p.SupersededBy, string.Join(';', p.Equivalents), p.Minimum > 0 ? $"{p.Minimum}" : "",
                p.Place,
            })),
        "containers" => CsvTable.Write(ContainerColumns,
            shelf.Containers.Select(c => new[] { c.Product, Exact(c.Size, c.Scale), Exact(c.Left, c.Scale),
            c.Opened?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "", c.Batch, $"{c.Id}", c.Place })),
        _ => CsvTable.Write(ToolColumns, shelf.Tools.Select(t => new[] { "tool", t.Size, t.Where, "" })
            .Concat(shelf.Pans.Select(p => new[] { "pan", p.Name, "", Exact(p.Holds, Volume.Litre) }))),
    };

    /// <summary>What went in and out of the stores, the newest first.</summary>
    /// <param name="book">The lines of the stores' book.</param>
    /// <param name="name">The name of a person.</param>
    /// <param name="local">Tells a time as the workshop's clock shows it.</param>
    public static string Moves(IEnumerable<StockLine> book, Func<PersonId, string> name, Func<DateTimeOffset, DateTimeOffset> local) =>
        CsvTable.Write(["time", "kind", "what", "amount", "unit", "card", "person", "reason"], book.Select(m => new[]
        {
            local(m.At).ToString("yyyy-MM-ddTHH:mm:sszzz", CultureInfo.InvariantCulture), m.Kind, m.Name, m.Amount,
            m.IsOil ? "L" : "pieces", m.Card is { } card ? $"{card}" : "", name(m.Person), m.Reason,
        }));

    /// <summary>A count of 0 or more.</summary>
    public static (int? Value, string Problem) Count(string text) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var n) && n <= 100_000 ? (n, "")
            : (null, $"“{text}” is not a count. Write a whole number from 0.");

    /// <summary>An amount with its unit, 0 or more.</summary>
    public static (Typed<Volume>? Value, string Problem) Amount(string text) => Quantity<Volume>.Read(text, out var problem) is { } typed
        ? typed.Value < Quantity<Volume>.Zero ? (null, $"{text} is negative.") : (typed, "") : (null, problem);

    /// <summary>A day, as 2026-03-09 or "3 days ago".</summary>
    public static (DateOnly? Value, string Problem) Day(string text, DateOnly today) =>
        DateOnly.TryParseExact(text, ["yyyy-MM-dd", "d.M.yyyy", "d MMM yyyy"], CultureInfo.InvariantCulture, DateTimeStyles.None,
            out var day) ? (day, "")
        : text.EndsWith(" days ago", StringComparison.OrdinalIgnoreCase)
            && int.TryParse(text[..^9], NumberStyles.None, CultureInfo.InvariantCulture, out var ago) && ago < 36_500
            ? (today.AddDays(-ago), "")
        : (null, $"“{text}” is not a day. Write it as 2026-03-09.");

    private static string Exact(Quantity<Volume> v, Unit<Volume> unit) =>
        $"{v.In(unit).ToString("0.############################", CultureInfo.InvariantCulture)} {unit.Symbol}";
}
