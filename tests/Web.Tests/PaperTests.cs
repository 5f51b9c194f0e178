using System.Globalization;
using System.Net;
using System.Text.Json.Nodes;
using System.Xml.Linq;
using Anakyklos.Paper;
using UglyToad.PdfPig;
using UglyToad.PdfPig.DocumentLayoutAnalysis.TextExtractor;
using ZXing;

namespace Anakyklos.Web.Tests;

/// <summary>What leaves a card on paper, read back by other programs.</summary>
public sealed class PaperTests : InTheDemo
{
    private static readonly DateTimeOffset Now = new(2026, 3, 9, 9, 0, 0, TimeSpan.Zero);

    private static string Words(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return string.Join("\n", document.GetPages().Select(p => ContentOrderTextExtractor.GetText(p))).Replace('\u00a0', ' ');
    }

    [Fact]
    public async Task The_record_says_on_paper_what_its_page_says_and_numbers_its_pages()
    {
        var pdf = await Me.Bytes("/record/1003/record.pdf");
        var words = Words(pdf);
        var file = await Me.Json("/record/1003/record.json");
        foreach (var said in new[]
        {
            "HD-07", "Tarn Courier 2.0 D", "Engine oil and filter at 88 420 km", "Engine drain plug", "38 N·m", "38 N·m (35 to 41)",
            "Gannet Lowash 5W-30", "TC-0621-F", "What strayed", "revision", $"Signed by Iona R., {Day(file["signedAt"]!)}",
            $"{Day(DueOf(file)["by"]!)} or at 98 420 km",
        })
            Assert.Contains(said, words);
        using var document = PdfDocument.Open(pdf);
        Assert.Equal("Service record, Harbour Depot", document.Information.Title);
        for (var i = 1; i <= document.NumberOfPages; i++)
        {
            var page = ContentOrderTextExtractor.GetText(document.GetPage(i));
            Assert.Contains($"page {i} of {document.NumberOfPages}", page);
            Assert.Contains("HD-07", page);
            Assert.Contains("Card 1003", page);
        }
        // The hash on paper is that of the file.
        Assert.Contains((string)file["hash"]!, words.Replace("\n", ""));
        Assert.Equal(HttpStatusCode.NotFound, await Me.Get("/record/999/record.pdf"));
    }

    [Fact]
    public async Task Everybody_reads_it_in_units_of_their_own_with_what_was_read_beside_it()
    {
        await Me.Get("/you");
        await Me.Submit("main form", ("units", "us"));
        var words = Words(await Me.Bytes("/record/1003/record.pdf"));
        // 38 N·m are 28 lbf·ft; 88,420 km are 54,942 miles.
        Assert.Contains("28 lbf·ft (read as 38 N·m)", words);
        Assert.Contains("54 942 mi (88 420 km)", words);
        await Me.Get("/record/1003");
        Assert.Contains("28 lbf·ft (read as 38 N·m)", Me.Text);
    }

    [Fact]
    public async Task An_odometer_in_miles_stands_beside_the_kilometres_on_page_paper_and_file()
    {
        await Me.Get("/intake?plate=HD-04");
        await Me.Submit("main form", ("plate", "HD-04"), ("odometer", "75 806 mi"), ("job", "air-filter"), ("bay", "Bay 1"));
        var card = Me.Address.Segments[^1];
        // 75,806 miles are 121,997.9 km.
        await Me.Get($"/record/{card}");
        Assert.Contains("121 998 km (75 806 mi)", Me.Text);
        Assert.Contains("Card opened at 75 806 mi", Me.Text);
        Assert.Contains("121 998 km (75 806 mi)", Words(await Me.Bytes($"/record/{card}/record.pdf")));
        // Whoever reads in miles needs no kilometres then.
        await Me.Get("/you");
        await Me.Submit("main form", ("units", "us"));
        await Me.Get($"/record/{card}");
        Assert.Contains("at 75 806 mi ", Me.Text + " ");
        Assert.DoesNotContain("121 998 km", Me.Text);
    }

    [Fact]
    public void A_table_goes_on_over_pages_and_loses_no_row_and_no_letter()
    {
        using var paper = new PaperFlow("Ten \u2192 twenty", "ŁK-7", "Card 1", Now);
        paper.Heading("Many");
        var rows = Enumerable.Range(1, 120).Select(i => (IReadOnlyList<IReadOnlyList<PaperLine>>)
            [[new($"Row{i:000}")], [i == 60 ? string.Join(' ', Enumerable.Range(0, 900).Select(n => $"w{n}")) : "Zażółć \u2265 5"]]);
        paper.Table([new("Left", 1), new("Right", 3)], rows);
        paper.Text(new(new string('x', 400)));
        var pdf = paper.Save();
        using var document = PdfDocument.Open(pdf);
        Assert.True(document.NumberOfPages >= 4);
        var words = document.GetPages().Select(p => ContentOrderTextExtractor.GetText(p)).ToList();
        var all = string.Join("\n", words);
        for (var i = 1; i <= 120; i++)
            Assert.Single(words, w => w.Contains($"Row{i:000}", StringComparison.Ordinal));
        for (var n = 0; n < 900; n++)
            Assert.Contains($"w{n}", all);
        Assert.Contains("Zażółć \u2265 5", all);
        Assert.Equal(400, all.Count(c => c == 'x'));
        // The head of the table stands on each page that it goes on to, inside the page.
        Assert.All(words.SkipLast(1), w => Assert.Contains("Right", w));
        foreach (var page in document.GetPages())
            Assert.All(page.Letters, l => Assert.InRange(l.BoundingBox.Right, 0, page.Width - 30));
    }

    [Fact]
    public async Task The_label_is_as_wide_as_the_roll_and_its_code_leads_to_the_vehicle()
    {
        using var document = PdfDocument.Open(await Me.Bytes("/record/1003/label.pdf"));
        var page = document.GetPage(1);
        Assert.InRange(page.Width, 62 / 25.4 * 72 - 0.5, 62 / 25.4 * 72 + 0.5);
        var words = ContentOrderTextExtractor.GetText(page).Replace('\u00a0', ' ');
        Assert.Contains("98 420 km", words);
        Assert.Contains(Day(DueOf(await Me.Json("/record/1003/record.json"))["by"]!), words);
        await Me.Get("/record/1003/label.svg");
        var svg = XDocument.Parse(await Me.Content("/record/1003/label.svg"));
        Assert.Equal("62mm", svg.Root!.Attribute("width")!.Value);
        Assert.Equal("http://localhost/vehicle/HD-07", Scanned(svg));
    }

    [Fact]
    public void A_label_says_the_first_large_and_keeps_what_is_too_long_on_it()
    {
        LabelDue[] due = [.. Enumerable.Range(1, 9).Select(i =>
            new LabelDue($"Job number {i} of a long name", $"{i}0 000 km", $"{i} May 2027"))];
        var label = new WindscreenLabel("The workshop at the far end of the quay & Sons <Ltd>", "HD-07", "1 km", due,
            "http://x/vehicle/HD-07");
        var svg = XDocument.Parse(label.Svg());
        var texts = svg.Descendants().Where(e => e.Name.LocalName == "text").ToList();
        Assert.Contains(texts, t => t.Value == "10 000 km");
        Assert.Contains(texts, t => t.Value == "and 4 more on its page");
        Assert.DoesNotContain(texts, t => t.Value.StartsWith("Job number 6", StringComparison.Ordinal));
        foreach (var text in texts)
            Assert.True(Number(text, "x") + 0.62 * Number(text, "font-size") * text.Value.Length <= 62, text.Value);
        using var pdf = PdfDocument.Open(label.Pdf(Now));
        Assert.All(pdf.GetPage(1).Letters, l => Assert.InRange(l.BoundingBox.Right, 0, pdf.GetPage(1).Width));
    }

    // A workshop's own scanner, in black and white.
    private static string? Scanned(XDocument svg)
    {
        const int Each = 4;
        var path = svg.Descendants().Single(e => e.Name.LocalName == "path").Attribute("d")!.Value;
        var dark = path.Split('M', StringSplitOptions.RemoveEmptyEntries).Select(p => p.Split('h')[0].Split(' '))
            .Select(p => (X: int.Parse(p[0], CultureInfo.InvariantCulture), Y: int.Parse(p[1], CultureInfo.InvariantCulture))).ToList();
        var side = (dark.Max(d => Math.Max(d.X, d.Y)) + 5) * Each;
        var grey = Enumerable.Repeat((byte)255, side * side).ToArray();
        foreach (var (x, y) in dark)
            for (var i = 0; i < Each * Each; i++)
                grey[(y * Each + i / Each) * side + x * Each + i % Each] = 0;
        return new BarcodeReaderGeneric().Decode(new RGBLuminanceSource(grey, side, side, RGBLuminanceSource.BitmapFormat.Gray8))?.Text;
    }

    private static JsonNode DueOf(JsonNode file) => file["record"]!["due"]![0]!["next"]!;

    private static string Day(JsonNode day) =>
        DateTimeOffset.Parse(day.GetValue<string>(), CultureInfo.InvariantCulture).ToString("d MMM yyyy", CultureInfo.InvariantCulture);

    private static double Number(XElement element, string name) =>
        double.Parse(element.Attribute(name)!.Value, CultureInfo.InvariantCulture);
}
