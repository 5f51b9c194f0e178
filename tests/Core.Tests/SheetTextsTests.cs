using System.Text.Json.Nodes;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Sheets;
using CsCheck;

namespace Anakyklos.Core.Tests;

/// <summary>What the texts of a sheet are in other languages: read, said at the desk, and told when it changes.</summary>
public class SheetTextsTests
{
    private static readonly string Courier = File.ReadAllText(Directory.GetFiles(AppContext.BaseDirectory, "tarn-courier-20d.json",
        SearchOption.AllDirectories)[0]);

    private static SheetText Of(string text) => SheetText.Read(text, out _)!;

    private static readonly SheetText Wordless = Of(Courier).Without("words");

    private static SheetText Say(SheetText sheet, params (string Text, string Said)[] words)
    {
        var (said, wrong) = SheetTexts.With(sheet, "fr", words.ToDictionary(w => w.Text, w => w.Said));
        Assert.Empty(wrong);
        return said;
    }

    [Fact]
    public void Texts_that_people_read_are_there_once_and_what_is_the_same_in_every_language_is_not()
    {
        string[] texts = [.. SheetTexts.Of(Of(Courier)).Select(s => s.Text)];
        Assert.Subset(texts.ToHashSet(), new HashSet<string>
        {
            "Engine oil", "Engine drain plug", "short wheelbase", "Workshop manual 4.2", "crankshaft", "turns of the key",
            "no water drain at the bottom", "Warm, level ground, five minutes after stopping", "clips",
        });
        Assert.Equal(texts.Length, texts.Distinct().Count());
        Assert.DoesNotContain(texts, t => t is "Tarn" or "Courier 2.0 D" or "p. 12" or "wm" or "6.4 L" or "engine-oil" or "Tarn T-41L");
        Assert.All(SheetTexts.Of(Of(Courier)), s => Assert.Equal(s.Text, Of(Courier).Said(s.Path)));
    }

    [Fact]
    public void Every_sheet_that_comes_with_the_application_is_said_for_none_of_its_texts_in_vain()
    {
        var files = Directory.GetFiles(AppContext.BaseDirectory, "*-*.json", SearchOption.AllDirectories).Select(File.ReadAllText)
            .Select(Of).Where(s => s.Said("format") == ModelSheet.Format).ToList();
        Assert.InRange(files.Count, 7, 20);
        Assert.All(files, sheet =>
        {
            Assert.Empty(SheetTexts.Said(sheet, "de").Keys.Except(SheetTexts.Of(sheet).Select(s => s.Text)));
            Assert.NotEmpty(SheetTexts.Said(sheet, "de"));
        });
    }

    [Fact]
    public void What_is_said_is_read_and_an_empty_word_takes_it_away_with_all_that_held_it()
    {
        var said = Say(Of(Courier), ("Engine oil", " huile moteur "), ("clips", "agrafes"));
        var sheet = SheetReader.Read(said.ToString()).Sheet!;
        Assert.Equal("huile moteur", sheet.Words["fr"]["Engine oil"]);
        Assert.Equal(2, sheet.Words["fr"].Count);
        Assert.Equal(SheetTexts.Said(Of(Courier), "de"), sheet.Words["de"]);
        Assert.Same(said, Say(said, ("Engine oil", "huile moteur")));
        Assert.Equal(Courier, Say(said, ("Engine oil", ""), ("clips", " ")).ToString());
        Assert.Equal("", Say(Say(Wordless, ("Engine oil", "huile")), ("Engine oil", "")).Raw("words") ?? "");
    }

    [Fact]
    public void A_text_that_is_changed_loses_its_word_when_the_next_one_is_said()
    {
        var said = Say(Of(Courier), ("Engine oil", "huile moteur"), ("clips", "agrafes"));
        var changed = said.With("fluids.engine-oil.name", JsonValue.Create("Oil of the engine"));
        Assert.NotNull(SheetReader.Read(changed.ToString()).Sheet);
        var next = SheetTexts.Said(Say(changed, ("Oil of the engine", "huile")), "fr");
        Assert.Equal(["Oil of the engine", "clips"], next.Keys.Order(StringComparer.Ordinal));
    }

    [Theory]
    [InlineData("Engine oil", "de-AT", "“de-AT” is not a language.")]
    [InlineData("Engine oil", "", "“” is not a language.")]
    [InlineData("No such text", "fr", "There is no such text in this sheet.")]
    public void What_cannot_be_said_is_refused_and_nothing_is_changed(string text, string language, string why)
    {
        var sheet = Of(Courier);
        var (same, wrong) = SheetTexts.With(sheet, language, new Dictionary<string, string> { [text] = "mot" });
        Assert.Same(sheet, same);
        Assert.Equal(why, Assert.Single(wrong).What);
    }

    [Fact]
    public void A_word_may_be_as_long_as_any_text_and_no_longer()
    {
        Assert.Empty(SheetTexts.With(Of(Courier), "fr", new Dictionary<string, string> { ["clips"] = new('a', 300) }).Wrong);
        var wrong = Assert.Single(SheetTexts.With(Of(Courier), "fr", new Dictionary<string, string> { ["clips"] = new('a', 301) }).Wrong);
        Assert.Equal(("clips", "This is 301 characters long; 300 is the most."), (wrong.Field, wrong.What));
    }

    [Fact]
    public void Whatever_is_said_in_whatever_order_is_said_and_touches_nothing_else()
    {
        var sheet = Wordless;
        string[] texts = [.. SheetTexts.Of(sheet).Select(s => s.Text)];
        Gen.Select(Gen.Int[0, texts.Length - 1], Gen.String[Gen.Char["aé \"\\{0}<"], 0, 9]).Array[1, 12].Sample(said =>
        {
            var (written, expected) = (sheet, new Dictionary<string, string>());
            foreach (var (at, word) in said)
            {
                (written, _) = SheetTexts.With(written, "de", new Dictionary<string, string> { [texts[at]] = word });
                expected[texts[at]] = word.Trim();
            }
            var read = SheetReader.Read(written.ToString()).Sheet!;
            Assert.Equal(expected.Where(w => w.Value.Length > 0).OrderBy(w => w.Key, StringComparer.Ordinal),
                (read.Words.GetValueOrDefault("de") ?? new Dictionary<string, string>()).OrderBy(w => w.Key, StringComparer.Ordinal));
            Assert.Equal(sheet.ToString(), written.Without("words").ToString());
        }, iter: 40);
    }

    [Theory]
    [InlineData("""{"deutsch": []}""", "words.deutsch", "“deutsch” is not a language.")]
    [InlineData("""{"de": {}}""", "words.de", "This should be a list in square brackets.")]
    [InlineData("""{"de": [{"text": "clips", "said": ""}]}""", "words.de[0].said", "This is empty.")]
    [InlineData("""{"de": [{"text": "clips"}]}""", "words.de[0].said", "This is missing.")]
    [InlineData("""{"de": [{"text": "clips", "said": "a"}, {"text": "clips", "said": "b"}]}""", "words.de[1].text", "stands here twice")]
    [InlineData("""{"de": [{"text": "clips", "said": "a", "by": "c"}]}""", "words.de[0].by", "is not known here")]
    public void What_is_wrong_in_a_file_is_told_with_its_place(string words, string path, string why)
    {
        var wrong = Assert.Single(SheetReader.Read(Wordless.With("words", JsonNode.Parse(words)!).ToString()).Errors);
        Assert.Equal(path, wrong.Field);
        Assert.Contains(why, wrong.What, StringComparison.Ordinal);
        Assert.True(wrong.Line > 100);
    }

    [Fact]
    public void Another_word_is_told_of_a_revision_and_is_no_other_work()
    {
        var kept = SheetReader.Read(Courier).Sheet!;
        var de = new Dictionary<string, string>(kept.Words["de"]) { ["clips"] = "Spangen", ["Engine oil"] = "Öl" };
        de.Remove("crankshaft");
        var newer = kept with
        {
            Words = new Dictionary<string, IReadOnlyDictionary<string, string>>
            {
                ["de"] = de, ["fr"] = new Dictionary<string, string> { ["clips"] = "agrafes" },
            },
        };
        Assert.Empty(SheetDifference.Between(kept, newer));
        Assert.Equal(["Words in “de”: 2 new or otherwise, 1 gone", "Words in “fr”: 1 new or otherwise, 0 gone"],
            SheetDifference.Words(kept, newer));
        Assert.Empty(SheetDifference.Words(kept, kept));
    }

    [Theory]
    [InlineData("")]
    [InlineData("[1")]
    [InlineData("[]")]
    [InlineData("""{"words": 3}""")]
    public void A_file_that_cannot_be_read_brings_no_words(string file) => Assert.Empty(OtherTongues.In(file));
}
