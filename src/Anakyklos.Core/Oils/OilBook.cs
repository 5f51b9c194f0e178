using System.Text;
using System.Text.Json;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Oils;

/// <summary>The products that a workshop may buy, and which approval covers which.</summary>
/// <param name="Products">Products by name.</param>
/// <param name="Book">Covers.</param>
public sealed record OilBook(IReadOnlyList<OilProduct> Products, CoverBook Book)
{
    /// <summary>The format's name, the first member of the file.</summary>
    public const string Format = "anakyklos/oil-book/1";

    /// <summary>A book with nothing in it.</summary>
    public static OilBook Empty { get; } = new([], CoverBook.Empty);

    /// <summary>
    /// A product by its name, however it is typed: case, spaces, dashes and points do not matter. Null when it is not in the book.
    /// </summary>
    /// <returns>The product, or null when the book does not have it; dashes, spaces and capitals do not count.</returns>
    public OilProduct? Find(string name) => Products.FirstOrDefault(p => PartNumber.Same(p.Name, name));

    /// <summary>Approvals that are wanted and that no product serves, by its own codes or by what these cover.</summary>
    /// <param name="wanted">Codes, each with the fuel of the engine that wants it.</param>
    /// <returns>Each code once, in the order given.</returns>
    public IReadOnlyList<string> Unserved(IEnumerable<(string Code, Fuel Fuel)> wanted) => [.. wanted.Distinct()
        .Where(w => !Products.Any(p => p.Codes.Any(has => Book.Way(has, w.Code, w.Fuel) is not null))).Select(w => w.Code).Distinct()];

    /// <summary>Reads an oil book file; gives every error with its line, or the book.</summary>
    /// <param name="json">The file's text.</param>
    /// <returns>The book, or null with every error and its line.</returns>
    public static (OilBook? Book, IReadOnlyList<Refusal> Errors) Read(string json)
    {
        var errors = new List<Refusal>();
        var root = LocatedJson.Parse(Encoding.UTF8.GetBytes(json.TrimStart('\uFEFF')), errors);
        if (root is null)
            return (null, errors);
        if (root.Kind != JsonTokenType.StartObject)
            return (null, [Refusal.At(1, "", "An oil book is one JSON object in braces.")]);
        var c = new SheetCursor(root, errors, new Dictionary<string, Source>());
        if (c.Text("format") is { Length: > 0 } format && format != Format)
            c.Complain("format", $"This reads {Format}, not “{format}”.");
        var products = c.List("products", p => new OilProduct(p.Text("name"), p.Texts("grades", true), p.Texts("codes"),
            p.Texts("additives"), p.Flag("lowAsh"), p.Has("openDays") ? p.Whole("openDays", 1, 3650) : null), required: true);
        var covers = c.List("covers", v => new Cover(v.Text("code"), v.Text("covers"),
            [.. v.Texts("fuels").Select(f => Fuel(v, f)).OfType<Fuel>()]));
        c.RefuseUnknown();
        foreach (var twice in products.GroupBy(p => PartNumber.Bare(p.Name)).Where(g => g.Count() > 1))
            c.Complain("products", $"“{twice.First().Name}” is there {twice.Count()} times.");
        return errors.Count > 0 ? (null, errors) : (new(products, new(covers)), []);
    }

    private static Fuel? Fuel(SheetCursor c, string word)
    {
        if (Enum.TryParse<Fuel>(word, true, out var fuel))
            return fuel;
        c.Complain("fuels", $"“{word}” is not a fuel. Use petrol or diesel.");
        return null;
    }
}
