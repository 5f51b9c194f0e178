using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Drawing;

/// <summary>Which fluid of which model asks for which approval or class: three columns and the lines between.</summary>
public sealed class ApprovalGraph
{
    private const int RowHeight = 34;

    /// <summary>A word at a height.</summary>
    public sealed record Node(string Text, string Detail, int Y);

    /// <summary>A line between two heights.</summary>
    public sealed record Line(int From, int To, bool Grade);

    private ApprovalGraph() { }

    public IReadOnlyList<Node> Wanting { get; private init; } = [];
    public IReadOnlyList<Node> Codes { get; private init; } = [];
    public IReadOnlyList<Line> Lines { get; private init; } = [];
    public int Height { get; private init; }

    /// <summary>The graph over some sheets. Codes stand in the middle of those that ask for them.</summary>
    public static ApprovalGraph Of(IReadOnlyList<ModelSheet> sheets)
    {
        var fluids = sheets.SelectMany(s => s.Fluids.Values.Select(f => (Sheet: s, Fluid: f))).Where(x => x.Fluid.Approvals.Value.Count > 0)
            .OrderBy(x => x.Fluid.Approvals.Value[0], StringComparer.Ordinal).ThenBy(x => x.Sheet.FullName, StringComparer.Ordinal).ToList();
        var codes = fluids.SelectMany(x => x.Fluid.Approvals.Value).Distinct().ToList();
        var wanting = fluids.Select((x, i) => new Node($"{x.Sheet.Make} {x.Fluid.Name.ToLowerInvariant()}", string.Join(", ", x.Fluid.Grades.Value), 20 + i * RowHeight)).ToList();
        var at = new Dictionary<string, int>();
        foreach (var code in codes)
        {
            var rows = fluids.Select((x, i) => (x, i)).Where(p => p.x.Fluid.Approvals.Value.Contains(code)).Select(p => wanting[p.i].Y).ToList();
            at[code] = Math.Max((int)rows.Average(), at.Count == 0 ? 20 : at.Values.Max() + RowHeight);
        }
        return new()
        {
            Wanting = wanting,
            Codes = [.. codes.Select(c => new Node(c, "", at[c]))],
            Lines = [.. fluids.SelectMany((x, i) => x.Fluid.Approvals.Value.Select(c => new Line(wanting[i].Y, at[c], false)))],
            Height = 20 + Math.Max(fluids.Count, codes.Count) * RowHeight,
        };
    }
}
