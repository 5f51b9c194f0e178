using PdfSharp;
using PdfSharp.Drawing;
using PdfSharp.Pdf;

namespace Anakyklos.Paper;

/// <summary>A line of text.</summary>
/// <param name="Text">What it says.</param>
/// <param name="Face">How its letters look.</param>
/// <param name="IsSoft">It says less than the rest, and is grey.</param>
/// <param name="IsOwn">Somebody wrote it: it stands as it was written, whatever language the rest is in.</param>
public sealed record PaperLine(string Text, PaperFace Face = PaperFace.Plain, bool IsSoft = false, bool IsOwn = false)
{
    /// <summary>A plain line that somebody wrote.</summary>
    /// <param name="text">What they wrote.</param>
    public static PaperLine Own(string text) => new(text, IsOwn: true);

    /// <summary>A plain line.</summary>
    /// <param name="text">What it says.</param>
    public static implicit operator PaperLine(string text) => new(text);
}

/// <summary>A column of a table.</summary>
/// <param name="Title">What stands over it.</param>
/// <param name="Share">How much of the width it takes, beside the shares of the others.</param>
public sealed record PaperColumn(string Title, double Share);

/// <summary>Pages of A4 on which one thing follows the other; what does not fit goes to the next page, which says whose it is.</summary>
public sealed class PaperFlow : IDisposable
{
    private const double Margin = 42, Foot = 34, Head = 30, Size = 9, Leading = 12, Pad = 3;
    private static readonly XSolidBrush Ink = new(XColor.FromArgb(0x1c, 0x25, 0x2b)), Soft = new(XColor.FromArgb(0x5a, 0x62, 0x66));
    private static readonly XPen Line = new(XColor.FromArgb(0xb9, 0xb5, 0xa8), 0.5), Strong = new(XColor.FromArgb(0x1c, 0x25, 0x2b), 1);

    private readonly PdfDocument _document = new();
    private readonly Func<string, string> _say;
    private readonly string _left;
    private readonly string _right;
    private XGraphics _page = null!;
    private double _y;

    /// <summary>Begins the first page.</summary>
    /// <param name="title">What the document is, for whoever lists files.</param>
    /// <param name="left">What stands at the head of every page on the left, such as a plate.</param>
    /// <param name="right">What stands there on the right, such as a card's number.</param>
    /// <param name="at">When it was made.</param>
    /// <param name="say">Says a text in the language of whoever reads it; null for as it stands.</param>
    public PaperFlow(string title, string left, string right, DateTimeOffset at, Func<string, string>? say = null)
    {
        PaperFonts.Ship();
        _say = say ?? (text => text);
        (_left, _right) = (left, _say(right));
        _document.Info.Title = _say(title);
        _document.Info.Creator = "Anakyklos";
        _document.Info.CreationDate = at.DateTime;
        NewPage();
    }

    private double Width => _page.PageSize.Width - 2 * Margin;

    private double Bottom => _page.PageSize.Height - Margin - Foot;

    /// <summary>A heading; it never stands alone at the end of a page.</summary>
    /// <param name="text">What it says.</param>
    public void Heading(string text)
    {
        Room(58);
        _y += 10;
        Draw(new(_say(text), PaperFace.Bold), Margin, _y, 12);
        _y += 18;
    }

    /// <summary>A paragraph.</summary>
    /// <param name="line">What it says.</param>
    /// <param name="size">The size of its letters, in points.</param>
    public void Text(PaperLine line, double size = Size)
    {
        foreach (var part in Wrapped(line, Width, size))
        {
            Room(size * Leading / Size);
            Draw(part, Margin, _y, size);
            _y += size * Leading / Size;
        }
        _y += 2;
    }

    /// <summary>A table; its head stands again on each page, and a row is torn only where it is longer than a page.</summary>
    /// <param name="columns">The columns.</param>
    /// <param name="rows">Row by row, for each column its lines.</param>
    public void Table(IReadOnlyList<PaperColumn> columns, IEnumerable<IReadOnlyList<IReadOnlyList<PaperLine>>> rows)
    {
        var all = columns.Sum(c => c.Share);
        var widths = columns.Select(c => Width * c.Share / all).ToList();
        var untitled = columns.All(c => c.Title.Length == 0);
        var headed = untitled;
        foreach (var row in rows)
        {
            var cells = row.Select((cell, i) => cell.SelectMany(l => Wrapped(l, widths[i] - 2 * Pad, Size)).ToList()).ToList();
            while (cells.Any(c => c.Count > 0))
            {
                var most = (int)((Bottom - _y - 2 * Pad - (headed ? 0 : Leading + 2 * Pad)) / Leading);
                var lines = cells.Max(c => c.Count);
                if (lines > most && _y > Margin + Head + Leading * 3)
                {
                    NewPage();
                    headed = untitled;
                    continue;
                }
                if (!headed)
                    Titles(columns, widths);
                headed = true;
                var here = Math.Min(lines, Math.Max(1, most));
                Cells(cells, widths, here);
                cells = [.. cells.Select(c => c.Skip(here).ToList())];
            }
        }
        _y += 4;
    }

    /// <summary>A drawing of one's own beside lines of text.</summary>
    /// <param name="side">How wide and high it is, in points.</param>
    /// <param name="draw">Draws it into a square that goes from 0 to 240 each way.</param>
    /// <param name="lines">What stands beside it, each with its size.</param>
    public void Beside(double side, Action<PaperBrush> draw, IEnumerable<(PaperLine Line, double Size)> lines)
    {
        Room(side);
        var state = _page.Save();
        _page.TranslateTransform(Margin, _y);
        _page.ScaleTransform(side / 240);
        draw(new(_page));
        _page.Restore(state);
        var (top, y) = (_y, _y + 4);
        foreach (var (line, size) in lines)
            foreach (var part in Wrapped(line, Width - side - 18, size))
            {
                Draw(part, Margin + side + 18, y, size);
                y += size * Leading / Size;
            }
        _y = Math.Max(top + side, y) + 6;
    }

    /// <summary>A picture, no wider than half the page.</summary>
    /// <param name="content">A JPEG or PNG.</param>
    public void Picture(byte[] content)
    {
        using var stream = new MemoryStream(content);
        using var image = XImage.FromStream(stream);
        var width = Math.Min(Width / 2, image.PointWidth);
        var height = width * image.PixelHeight / image.PixelWidth;
        if (height > 260)
            (width, height) = (width * 260 / height, 260);
        Room(height + 6);
        _page.DrawImage(image, Margin, _y, width, height);
        _y += height + 6;
    }

    /// <summary>The document as a file; nothing can be added after that.</summary>
    /// <returns>A PDF, each page numbered and with whose it is.</returns>
    public byte[] Save()
    {
        _page.Dispose();
        for (var i = 0; i < _document.PageCount; i++)
        {
            using var page = XGraphics.FromPdfPage(_document.Pages[i], XGraphicsPdfPageOptions.Append);
            _page = page;
            var below = page.PageSize.Height - Margin - 10;
            Draw(new(_left, PaperFace.Bold), Margin, Margin - 12, Size);
            Draw(_right, page.PageSize.Width - Margin - Measure(_right, Size), Margin - 12, Size);
            page.DrawLine(Line, Margin, Margin + 4, page.PageSize.Width - Margin, Margin + 4);
            page.DrawLine(Line, Margin, below - 6, page.PageSize.Width - Margin, below - 6);
            PaperLine number = new(_say($"page {i + 1} of {_document.PageCount}"), IsSoft: true);
            Draw(number, page.PageSize.Width - Margin - Measure(number, Size), below, Size);
            Draw(new(_document.Info.Title, IsSoft: true), Margin, below, Size);
        }
        using var file = new MemoryStream();
        _document.Save(file);
        return file.ToArray();
    }

    /// <inheritdoc/>
    public void Dispose()
    {
        _page.Dispose();
        _document.Dispose();
    }

    private void Titles(IReadOnlyList<PaperColumn> columns, List<double> widths)
    {
        var x = Margin;
        for (var i = 0; i < columns.Count; x += widths[i++])
            Draw(new(columns[i].Title.Length > 0 ? _say(columns[i].Title) : "", IsSoft: true), x + Pad, _y + Pad, Size);
        _y += Leading + 2 * Pad;
        _page.DrawLine(Strong, Margin, _y, Margin + Width, _y);
    }

    private void Cells(List<List<PaperLine>> cells, List<double> widths, int lines)
    {
        var x = Margin;
        for (var i = 0; i < cells.Count; x += widths[i++])
            for (var l = 0; l < Math.Min(lines, cells[i].Count); l++)
                Draw(cells[i][l], x + Pad, _y + Pad + l * Leading, Size);
        _y += lines * Leading + 2 * Pad;
        _page.DrawLine(Line, Margin, _y, Margin + Width, _y);
    }

    private void Room(double height)
    {
        if (_y + height > Bottom)
            NewPage();
    }

    private void NewPage()
    {
        _page?.Dispose();
        var page = _document.AddPage();
        page.Size = PageSize.A4;
        _page = XGraphics.FromPdfPage(page);
        _y = Margin + Head - 14;
    }

    // Where a line is too long it goes on below; a word that is longer than a line is torn.
    private IEnumerable<PaperLine> Wrapped(PaperLine line, double width, double size)
    {
        var text = (line.IsOwn ? line.Text : _say(line.Text)).Replace('\u202f', '\u00a0').Replace('\n', ' ');
        var now = "";
        foreach (var word in text.Split(' '))
        {
            var more = now.Length == 0 ? word : $"{now} {word}";
            if (Measure(line with { Text = more }, size) <= width)
            {
                now = more;
                continue;
            }
            if (now.Length > 0)
                yield return line with { Text = now };
            now = word;
            while (now.Length > 1 && Measure(line with { Text = now }, size) > width)
            {
                var fits = 1;
                while (fits < now.Length && Measure(line with { Text = now[..(fits + 1)] }, size) <= width)
                    fits++;
                yield return line with { Text = now[..fits] };
                now = now[fits..];
            }
        }
        if (now.Length > 0)
            yield return line with { Text = now };
    }

    private double Measure(PaperLine line, double size) =>
        PaperFonts.Set(line.Text, line.Face, size).Sum(p => _page.MeasureString(p.Piece, p.Font).Width);

    private void Draw(PaperLine line, double x, double y, double size)
    {
        foreach (var (piece, font) in PaperFonts.Set(line.Text, line.Face, size))
        {
            _page.DrawString(piece, font, line.IsSoft ? Soft : Ink, x, y + size);
            x += _page.MeasureString(piece, font).Width;
        }
    }
}

/// <summary>Draws into a square of 240 by 240.</summary>
public sealed class PaperBrush
{
    private readonly XGraphics _page;

    internal PaperBrush(XGraphics page) => _page = page;

    /// <summary>Part of a circle round the middle.</summary>
    /// <param name="radius">Its radius.</param>
    /// <param name="from">Where it begins, in degrees clockwise from the top.</param>
    /// <param name="to">Where it ends.</param>
    /// <param name="thick">How thick it is.</param>
    /// <param name="dark">Dark, or pale.</param>
    public void Arc(double radius, double from, double to, double thick, bool dark) =>
        _page.DrawArc(new(dark ? XColor.FromArgb(0x2f, 0x6b, 0x4f) : XColor.FromArgb(0xd9, 0xd5, 0xc8), thick),
            120 - radius, 120 - radius, 2 * radius, 2 * radius, from - 90, to - from);

    /// <summary>A line through points.</summary>
    /// <param name="thick">How thick it is.</param>
    /// <param name="points">The points.</param>
    public void Lines(double thick, params (double X, double Y)[] points) =>
        _page.DrawLines(new(XColor.FromArgb(0x2f, 0x6b, 0x4f), thick), [.. points.Select(p => new XPoint(p.X, p.Y))]);

    /// <summary>An open circle.</summary>
    /// <param name="x">Its middle.</param>
    /// <param name="y">Its middle.</param>
    /// <param name="radius">Its radius.</param>
    public void Open(double x, double y, double radius) =>
        _page.DrawEllipse(new(XColor.FromArgb(0xa1, 0x45, 0x2b), 4), XBrushes.White, x - radius, y - radius, 2 * radius, 2 * radius);
}
