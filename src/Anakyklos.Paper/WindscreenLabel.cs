using System.Globalization;
using System.Security;
using System.Text;
using PdfSharp.Drawing;
using PdfSharp.Pdf;
using QRCoder;

namespace Anakyklos.Paper;

/// <summary>What falls due next, as the label says it.</summary>
/// <param name="What">What.</param>
/// <param name="At">At which distance; empty for none.</param>
/// <param name="By">By which day; empty for none.</param>
public sealed record LabelDue(string What, string At, string By);

/// <summary>The label for the windscreen, as it leaves a roll of 62 mm: what is due first, large, and where the vehicle's page
/// is.</summary>
/// <param name="Workshop">Who put it there.</param>
/// <param name="Plate">Of which vehicle.</param>
/// <param name="Done">When, and at how much, it was serviced.</param>
/// <param name="Due">What falls due, the first first.</param>
/// <param name="Address">The address of the vehicle's page.</param>
public sealed record WindscreenLabel(string Workshop, string Plate, string Done, IReadOnlyList<LabelDue> Due, string Address)
{
    /// <summary>Says a text in the language of whoever reads it.</summary>
    public Func<string, string> Say { get; init; } = text => text;

    /// <summary>How wide the roll is, in millimetres.</summary>
    public const double Width = 62;

    // What is due beside the first, so many lines at most; whatever is more stands on the vehicle's page.
    private const int Most = 5;
    private const double Edge = 3, Code = 22;

    private const double PointsInMillimetre = 72 / 25.4;

    private sealed record Words(string Text, double X, double Y, double Size, bool Bold);

    private IEnumerable<Words> Lines
    {
        get
        {
            yield return new(Plate, Edge, 8, 6, true);
            yield return new(Workshop, Edge, 12, 2.7, false);
            yield return new(Say(Done), Edge, 16, 2.7, false);
            var y = Edge + Code + 3.0;
            if (Due.Count > 0)
            {
                foreach (var (line, i) in Wrapped(Say($"Due next: {Due[0].What}")).Select((l, i) => (l, i)))
                    yield return new(line, Edge, y += i == 0 ? 0 : 3.6, 2.9, false);
                foreach (var big in new[] { Due[0].At, Due[0].By }.Where(t => t.Length > 0))
                    yield return new(Say(big), Edge, y += 6.4, 5.6, true);
            }
            y += 0.6;
            foreach (var due in Due.Skip(1).Take(Due.Count - 1 > Most ? Most - 1 : Most))
                yield return new(Say($"{due.What}: {string.Join(" or ", new[] { due.At, due.By }.Where(t => t.Length > 0))}"), Edge,
                    y += 4, 2.6, false);
            if (Due.Count - 1 > Most)
                yield return new(Say($"and {Due.Count - Most} more on its page"), Edge, y += 4, 2.6, false);
        }
    }

    /// <summary>How long it is, in millimetres.</summary>
    public double Length => Math.Max(Lines.Max(l => l.Y), Edge + Code) + Edge;

    /// <summary>As SVG, in millimetres; its letters are text.</summary>
    public string Svg()
    {
        var svg = new StringBuilder(string.Create(CultureInfo.InvariantCulture, $"""
            <svg xmlns="http://www.w3.org/2000/svg" width="{Width}mm" height="{Length:0.##}mm" viewBox="0 0 {Width} {Length:0.##}">
            <title>{SecurityElement.Escape(Say($"Label of {Plate}"))}</title>
            <rect width="{Width}" height="{Length:0.##}" fill="#fff"/>

            """));
        foreach (var line in Lines)
            svg.Append(CultureInfo.InvariantCulture, $"""<text x="{line.X:0.##}" y="{line.Y:0.##}" font-size="{Fitting(line):0.##}" """)
                .Append(CultureInfo.InvariantCulture, $"""font-family="B612, sans-serif" font-weight="{(line.Bold ? 700 : 400)}">""")
                .Append(SecurityElement.Escape(line.Text)).Append("</text>\n");
        var (dark, side) = Modules();
        svg.Append(CultureInfo.InvariantCulture, $"""<path transform="translate({Width - Edge - Code} {Edge}) """)
            .Append(CultureInfo.InvariantCulture, $"""scale({Code / side:0.####})" """)
            .Append("shape-rendering=\"crispEdges\" d=\"");
        foreach (var (x, y) in dark)
            svg.Append(CultureInfo.InvariantCulture, $"M{x} {y}h1v1h-1z");
        return svg.Append("\"/>\n</svg>\n").ToString();
    }

    /// <summary>As PDF, a page as wide as the roll.</summary>
    /// <param name="at">When it was made.</param>
    public byte[] Pdf(DateTimeOffset at)
    {
        PaperFonts.Ship();
        using var document = new PdfDocument();
        document.Info.Title = Say($"Label of {Plate}");
        document.Info.Creator = "Anakyklos";
        document.Info.CreationDate = at.DateTime;
        var page = document.AddPage();
        (page.Width, page.Height) = (XUnit.FromMillimeter(Width), XUnit.FromMillimeter(Length));
        using (var g = XGraphics.FromPdfPage(page))
        {
            foreach (var line in Lines)
            {
                var x = line.X * PointsInMillimetre;
                foreach (var (piece, font) in PaperFonts.Set(line.Text.Replace('\u202f', '\u00a0'), line.Bold ? PaperFace.Bold
                    : PaperFace.Plain, Fitting(line) * PointsInMillimetre))
                {
                    g.DrawString(piece, font, XBrushes.Black, x, line.Y * PointsInMillimetre);
                    x += g.MeasureString(piece, font).Width;
                }
            }
            var (dark, side) = Modules();
            var each = Code / side * PointsInMillimetre;
            foreach (var (x, y) in dark)
                g.DrawRectangle(XBrushes.Black, (Width - Edge - Code) * PointsInMillimetre + x * each, Edge * PointsInMillimetre + y * each,
                    each + 0.05, each + 0.05);
        }
        using var file = new MemoryStream();
        document.Save(file);
        return file.ToArray();
    }

    // So many letters fit in a line of that size; a third line would leave no room for what counts.
    private static IEnumerable<string> Wrapped(string text)
    {
        const int Letters = 31, Most = 2;
        var (lines, now) = (0, "");
        foreach (var word in text.Split(' '))
            if (now.Length == 0 || now.Length + 1 + word.Length <= Letters || lines == Most - 1)
                now += (now.Length == 0 ? "" : " ") + word;
            else
            {
                yield return now;
                (lines, now) = (lines + 1, word);
            }
        yield return now;
    }

    // Letters of this font are about 0.62 as wide as high; beside the code there is less room than below it.
    private static double Fitting(Words line)
    {
        var room = line.Y < Edge + Code + 2.6 ? Width - 2 * Edge - Code - 1 : Width - 2 * Edge;
        return Math.Min(line.Size, room / (0.62 * line.Text.Length));
    }

    private (IReadOnlyList<(int X, int Y)> Dark, int Side) Modules()
    {
        using var code = QRCodeGenerator.GenerateQrCode(Address, QRCodeGenerator.ECCLevel.M);
        var rows = code.ModuleMatrix;
        var dark = new List<(int, int)>();
        for (var y = 0; y < rows.Count; y++)
            for (var x = 0; x < rows[y].Count; x++)
                if (rows[y][x])
                    dark.Add((x, y));
        return (dark, rows.Count);
    }
}
