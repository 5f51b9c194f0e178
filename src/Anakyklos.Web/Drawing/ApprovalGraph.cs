using Anakyklos.Core.Oils;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Web.Drawing;

/// <summary>Which fluid of which model asks for which approval or class, and which product serves it, itself or through a code that covers
/// it: three columns and the lines between.</summary>
public sealed class ApprovalGraph
{
    private const int RowHeight = 34;

    /// <summary>A word at a height.</summary>
    public sealed record Node(string Text, string Detail, int Y);

    /// <summary>A line between two heights.</summary>
    public sealed record Line(int From, int To);

    /// <summary>A line from a code to a product that serves it; the way of codes when it covers it only, and whether it does not in the
    /// book as it is now.</summary>
    public sealed record Serves(int From, int To, string Way, bool IsNew);

    private ApprovalGraph() { }

    public IReadOnlyList<Node> Wanting { get; private init; } = [];
    public IReadOnlyList<Node> Codes { get; private init; } = [];
    public IReadOnlyList<Line> Lines { get; private init; } = [];
    public IReadOnlyList<Node> Products { get; private init; } = [];
    public IReadOnlyList<Serves> Served { get; private init; } = [];
    public int Height { get; private init; }

    /// <summary>The graph over some sheets. Codes stand in the middle of those that ask for them.</summary>
    /// <param name="sheets">The sheets.</param>
    /// <param name="oils">The book that is drawn.</param>
    /// <param name="now">The book as it is, where another is drawn to be looked at: what serves only in the other is new.</param>
    public static ApprovalGraph Of(IReadOnlyList<ModelSheet> sheets, OilBook oils, OilBook? now = null)
    {
        var fluids = sheets.SelectMany(s => s.Fluids.Values.Select(f => (Sheet: s, Fluid: f))).Where(x => x.Fluid.Approvals.Value.Count > 0)
            .OrderBy(x => x.Fluid.Approvals.Value[0], StringComparer.Ordinal).ThenBy(x => x.Sheet.FullName, StringComparer.Ordinal)
                .ToList();
        var codes = fluids.SelectMany(x => x.Fluid.Approvals.Value).Distinct().ToList();
        var wanting = fluids.Select((x, i) => new Node($"{x.Sheet.Make} {Words.Low(x.Fluid.Name)}",
            string.Join(", ", x.Fluid.Grades.Value), 20 + i * RowHeight)).ToList();
        var at = new Dictionary<PartId, int>();
        foreach (var code in codes)
        {
            var rows = fluids.Select((x, i) => (x, i)).Where(p => p.x.Fluid.Approvals.Value.Contains(code)).Select(p => wanting[p.i].Y)
                .ToList();
            at[code] = Math.Max((int)rows.Average(), at.Count == 0 ? 20 : at.Values.Max() + RowHeight);
        }
        var fuels = fluids.SelectMany(x => x.Fluid.Approvals.Value.Select(c => (Code: c, x.Sheet.Fuel))).DistinctBy(x => x.Code)
            .ToDictionary(x => x.Code, x => x.Fuel);
        var ways = oils.Products.SelectMany(p => codes.Select(c =>
            (Product: p, Code: c, Way: p.Codes.Select(h => oils.Book.Way(h, c, fuels[c])).Where(w => w is not null).MinBy(w => w!.Count))))
            .Where(x => x.Way is not null).ToList();
        var last = 20 - RowHeight;
        var products = ways.GroupBy(x => x.Product).OrderBy(g => g.Average(x => at[x.Code]))
            .Select(g => (g.Key, Y: last = Math.Max(last + RowHeight, (int)g.Average(x => at[x.Code])))).ToDictionary(p => p.Key, p => p.Y);
        return new()
        {
            Products = [.. products.Select(p => new Node(p.Key.Name, string.Join(", ", p.Key.Grades), p.Value))],
            Served = [.. ways.Select(x => new Serves(at[x.Code], products[x.Product],
                x.Way!.Count > 1 ? string.Join(" covers ", x.Way) : "",
                now is not null && now.Find(x.Product.Name)?.Codes.Any(h => now.Book.Way(h, x.Code, fuels[x.Code]) is not null) != true))],
            Wanting = wanting,
            Codes = [.. codes.Select(c => new Node(c, "", at[c]))],
            Lines = [.. fluids.SelectMany((x, i) => x.Fluid.Approvals.Value.Select(c => new Line(wanting[i].Y, at[c])))],
            Height = 20 + Math.Max(Math.Max(fluids.Count, codes.Count) * RowHeight, last),
        };
    }
}
