using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Languages;
using Anakyklos.Web.Papers;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using UglyToad.PdfPig;
using UglyToad.PdfPig.DocumentLayoutAnalysis.TextExtractor;

namespace Anakyklos.Web.Tests;

/// <summary>Papers in the language of whoever asks for them; what somebody wrote stays as it was written.</summary>
public sealed class PaperLanguageTests() : InTheDemo("una")
{
    // What people of the demo wrote or are called, as a part of a sentence.
    private static readonly string[] _own =
    [
        "Harbour Depot", "A little glitter in the paste on the magnet", "A little play in the rear joint",
        "Left headlamp glass dull", "Rear brake pipe rusty",
        "has served us well", "The car is replaced next spring", "Free play of the clutch", "Hand brake", "Rear pads",
        "The boat brought the filter of another model",
    ];

    [Fact]
    public void Every_record_and_label_of_the_demo_is_said_whole_in_German()
    {
        var (cards, settings) = (Host.Services.GetRequiredService<CardStore>(), Host.Services.GetRequiredService<SettingStore>());
        var german = Host.Services.GetRequiredService<WorkshopWords>().Book(CultureInfo.GetCultureInfo("de"))!;
        var reader = new Viewer(new HttpContextAccessor(), Host.Services.GetRequiredService<PeopleStore>(), settings);
        var (clock, unknown, papers) = (Host.Services.GetRequiredService<WorkshopClock>(), new SortedSet<string>(), 0);
        string Say(string text)
        {
            var said = german.Say(text);
            if (!said.IsKnown && !_own.Any(text.Contains))
                unknown.Add(text);
            return said.Text;
        }
        for (var id = 1001; id < 1100; id++)
            if (cards.Find(id) is { } card)
            {
                papers++;
                Assert.NotEmpty(RecordPaper.Of(card, new("Harbour Depot", id, "0a", "0b", clock.Local, _ => null), reader, clock.Now, Say));
                var label = LabelPaper.Of(card, "Harbour Depot", clock.Now, reader.DistanceUnit, "https://example.org", Say);
                Assert.Contains("<svg", label.Svg(), StringComparison.Ordinal);
            }
        Assert.True(papers > 40);
        Assert.True(unknown.Count == 0, string.Join("\n", unknown));
    }

    [Fact]
    public async Task Who_reads_German_gets_German_paper_and_the_file_is_the_same_for_everybody()
    {
        var before = await Me.Bytes("/record/1003/record.json");
        Assert.Contains("What strayed", Words(await Me.Bytes("/record/1003/record.pdf")), StringComparison.Ordinal);
        await Me.Get("/you");
        await Me.Submit("form.stack", ("language", "de"));
        var words = Words(await Me.Bytes("/record/1003/record.pdf"));
        foreach (var said in (string[])["Angezogen", "Eingefüllt", "Iona R.", "HD-07", "38 N·m", "Seite 1 von"])
            Assert.Contains(said, words, StringComparison.Ordinal);
        Assert.DoesNotContain("What strayed", words, StringComparison.Ordinal);
        var label = await Me.Content("/record/1003/label.svg");
        Assert.Contains("Als Nächstes", label, StringComparison.Ordinal);
        Assert.Equal(before, await Me.Bytes("/record/1003/record.json"));
    }

    [Fact]
    public void What_somebody_wrote_stands_as_it_was_written_even_where_the_program_says_the_same()
    {
        using var paper = new Anakyklos.Paper.PaperFlow("Title", "left", "right", DateTimeOffset.UnixEpoch, t => t.ToUpperInvariant());
        paper.Table([new("What", 1)], [[[Anakyklos.Paper.PaperLine.Own("Nothing.")]], [["Nothing."]]]);
        var words = Words(paper.Save());
        Assert.Contains("Nothing.", words, StringComparison.Ordinal);
        Assert.Contains("NOTHING.", words, StringComparison.Ordinal);
        Assert.Contains("PAGE 1 OF 1", words, StringComparison.Ordinal);
    }

    private static string Words(byte[] pdf)
    {
        using var document = PdfDocument.Open(pdf);
        return string.Join("\n", document.GetPages().Select(p => ContentOrderTextExtractor.GetText(p))).Replace('\u00a0', ' ');
    }
}
