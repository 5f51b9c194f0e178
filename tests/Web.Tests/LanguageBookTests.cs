using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Anakyklos.Web.Languages;
using Xunit;

namespace Anakyklos.Web.Tests;

/// <summary>How a text is found in the book of a language, and what the book must not have.</summary>
public sealed partial class LanguageBookTests
{
    private static readonly PhraseBook German = Offered.Book(CultureInfo.GetCultureInfo("de"))!;

    private static readonly PhraseBook _small = new(new Dictionary<string, string>
    {
        ["Engine oil"] = "Motoröl", ["Engine oil and filter"] = "Motoröl und Filter", ["Drain plug, rear"] = "Ablassschraube, hinten",
        ["{0} of {1} done"] = "von {1} sind {0} getan", ["Close it first."] = "Erst schließen.", ["{0}: still open."] = "Noch offen: {0}.",
        ["{0} days"] = "{0} Tage", [", every second time"] = ", jedes zweite Mal", ["Tue"] = "Di", ["Mar"] = "März",
        ["over by {0}"] = "um {0} überfällig", ["in it"] = "darin", ["New seal on the plug"] = "Neue Dichtung auf die Schraube",
        ["Old one out, new one in"] = "Altes heraus, neues hinein", ["Tighten the {0}{1}"] = "{0} anziehen{1}",
        [": by hand"] = ": von Hand",
        ["The {0} {1} too tight."] = "Zu fest: {0}.", ["Saw: {0}"] = "Gesehen: {0}", ["{0} on the {1}"] = "{0} am {1}",
        ["“{0}” waits: {1}"] = "„{0}“ wartet: {1}",
    }, Manner.German);

    [Theory]
    [InlineData("Engine oil", "Motoröl")]
    [InlineData("  Engine\n  oil ", "  Motoröl ")]
    [InlineData("engine oil", "Motoröl")]
    [InlineData("Engine oil:", "Motoröl:")]
    [InlineData("3 of 5 done", "von 5 sind 3 getan")]
    [InlineData("Engine oil: still open. Close it first.", "Noch offen: Motoröl. Erst schließen.")]
    [InlineData("Engine oil, Drain plug, rear", "Motoröl, Ablassschraube, hinten")]
    [InlineData("every second time", "jedes zweite Mal")]
    [InlineData("Old seal on the plug", "Alte Dichtung auf die Schraube")]
    [InlineData("Old one out, old one in", "Altes heraus, altes hinein")]
    [InlineData("Tighten the engine oil", "Motoröl anziehen")]
    [InlineData("Tighten the engine oil: by hand", "Motoröl: von Hand anziehen")]
    [InlineData("The drain plug, rear was too tight.", "Zu fest: Ablassschraube, hinten.")]
    [InlineData("Engine oil (Tavish)", "Motoröl (Tavish)")]
    [InlineData("Engine oil (in it), Engine oil and filter (in it)", "Motoröl (darin), Motoröl und Filter (darin)")]
    [InlineData("Iona R., 2 Mar 01:04", "Iona R., 2. März 01:04")]
    [InlineData("“Engine oil”", "„Motoröl“")]
    [InlineData("Engine oil AB-12-C", "Motoröl AB-12-C")]
    [InlineData("Engine oil 3.40 L", "Motoröl 3,40 L")]
    [InlineData("Engine oil 4.2, over by 3.5 L", "Motoröl 4.2, um 3,5 L überfällig")]
    [InlineData("Engine oil and filter: over by 20 days", "Motoröl und Filter: um 20 Tage überfällig")]
    [InlineData("Tue 10 Mar", "Di, 10. März")]
    [InlineData("10 Mar 2026", "10. März 2026")]
    [InlineData("Engine oil and …", "Motoröl und …")]
    [InlineData("In it", "Darin")]
    public void It_is_said(string text, string said)
    {
        Assert.Equal(said, _small.Say(text).Text);
        Assert.True(_small.Say(text).IsKnown);
    }

    [Theory]
    [InlineData("160 days left; last done 10 May 2025 at 26\u202f100 km", "noch 160 Tage; zuletzt getan 10. Mai 2025 bei 26 100 km")]
    [InlineData("6\u202f380 km or 122 days left; last done 2 Oct 2026 at 37\u202f300 km, by the owner's rule",
        "noch 6 380 km oder 122 Tage; zuletzt getan 2. Okt. 2026 bei 37 300 km, nach der Regel des Halters")]
    [InlineData("4 to come in two weeks, and one waits 1 day longer than it should.",
        "4 kommen in zwei Wochen, und einer wartet 1 Tag länger, als er sollte.")]
    [InlineData("10 open, 33 to do", "10 offen, 33 zu tun")]
    [InlineData("Workshop manual 4.2, p. 63, checked by two", "Workshop manual 4.2, S. 63, von zweien geprüft")]
    public void The_programs_own_book_says_it(string text, string said) =>
        Assert.Equal(said, Offered.Book(CultureInfo.GetCultureInfo("de"))!.Say(text).Text);

    [Fact]
    public void An_amount_in_a_field_is_written_as_the_language_does_and_any_other_text_of_it_stays()
    {
        var page = SpokenPages.Say("<input data-amount value=\"1.00 L\"><input data-amount value=\"Engine oil\"><input value=\"1.00 L\">",
            _small);
        Assert.Contains("value=\"1,00 L\"><input data-amount=\"\" value=\"Engine oil\"><input value=\"1.00 L\"", page);
    }

    [Theory]
    [InlineData("3.40 L", "3,40 L")]
    [InlineData("1.2.3", "1.2.3")]
    [InlineData("Fen 1.2", "Fen 1.2")]
    [InlineData("0.5-0.7", "0.5-0.7")]
    [InlineData("Tarn Courier 2.0 D", "Tarn Courier 2.0 D")]
    [InlineData("6.40 L, Fen 1.2, 12.5 bar", "6,40 L, Fen 1.2, 12,5 bar")]
    [InlineData("TW-2 28.5 N·m (27.5)", "TW-2 28,5 N·m (27,5)")]
    public void A_point_becomes_a_comma_in_a_number_and_in_nothing_else(string text, string said) =>
        Assert.Equal(said, _small.Say(text).Text);

    // What somebody typed inside a sentence of the application stays as it was typed.
    [Theory]
    [InlineData("“Engine oil” waits: it is on the boat", "„Motoröl“ wartet: it is on the boat")]
    [InlineData("Engine oil (none left on the shelf)", "Motoröl (none left on the shelf)")]
    [InlineData("Saw: a nail on the tyre", "Gesehen: a nail on the tyre")]
    public void Words_of_a_person_in_a_sentence_stay(string text, string said)
    {
        Assert.Equal(said, _small.Say(text).Text);
        Assert.False(_small.Say(text).IsKnown);
    }

    [Theory]
    [InlineData("the hatch squeaks when it rains")]
    [InlineData("Ask Tavish, he knows about the engine")]
    public void Words_that_it_does_not_have_stay_and_are_not_known(string text)
    {
        Assert.Equal(text, _small.Say(text).Text);
        Assert.False(_small.Say(text).IsKnown);
    }

    [Fact]
    public void What_somebody_wrote_stays_and_so_does_what_a_form_sends()
    {
        var page = SpokenPages.Say("""
            <p translate="no">Engine oil</p><p>Engine oil</p><textarea>Engine oil</textarea>
            <input value="Engine oil" placeholder="Engine oil">
            <select><option>Engine oil</option></select><script>Engine oil</script>
            """, _small);
        Assert.Contains("<p translate=\"no\">Engine oil</p><p>Motoröl</p><textarea>Engine oil</textarea>", page, StringComparison.Ordinal);
        Assert.Contains("<input value=\"Engine oil\" placeholder=\"Motoröl\">", page, StringComparison.Ordinal);
        Assert.Contains("<option value=\"Engine oil\">Motoröl</option>", page, StringComparison.Ordinal);
        Assert.Contains("<script>Engine oil</script>", page, StringComparison.Ordinal);
    }

    [Fact]
    public void A_translation_with_a_hole_that_its_sentence_has_not_is_refused() =>
        Assert.Throws<FormatException>(() => new PhraseBook([new("{0} is open.", "{1} ist offen.")], Manner.German));

    [Fact]
    public void Names_that_a_workshop_brings_are_known_besides_and_take_nothing_from_the_program()
    {
        var book = _small.With([new("Engine oil", "Schmiere"), new(" Sump\n guard ", " Unterfahrschutz "), new("Sump guard", "Blech"),
            new("{0} of it", "{1} davon"), new("bare", " ")]);
        Assert.Equal("Motoröl", book.Say("engine oil").Text);
        Assert.Equal("Unterfahrschutz, Ablassschraube, hinten", book.Say("Sump guard, Drain plug, rear").Text);
        Assert.Equal("3 of it", book.Say("3 of it").Text);
        Assert.False(book.Say("bare").IsKnown);
        Assert.False(_small.Say("the sump guard").IsKnown);
    }

    [Fact]
    public void Another_language_joins_quotes_and_counts_in_its_own_manner()
    {
        var book = new PhraseBook(new Dictionary<string, string>
        {
            ["Oil"] = "Huile", ["Filter"] = "Filtre", ["Tue"] = "mar.", ["Mar"] = "mars",
        }, new(" et ", " ou ", " avec ", "« ", " »", ",", " ", " "));
        Assert.Equal("Huile et Filtre", book.Say("Oil and Filter").Text);
        Assert.Equal("Huile ou Filtre", book.Say("Oil or Filter").Text);
        Assert.Equal("Huile avec Filtre", book.Say("Oil with Filter").Text);
        Assert.Equal("« Huile »", book.Say("“Oil”").Text);
        Assert.Equal("mar. 10 mars", book.Say("Tue 10 Mar").Text);
        Assert.Equal("3,40 L", book.Say("3.40 L").Text);
    }

    [Fact]
    public void A_long_text_of_nobodys_is_looked_at_in_no_time_at_all()
    {
        var text = string.Join(", ", Enumerable.Repeat("so it is and it is with it or of it", 300));
        Assert.Equal(text, German.Say(text).Text);
    }

    [Fact]
    public void Nothing_stands_in_it_that_the_application_no_longer_says()
    {
        var said = Sources();
        string[] gone = [.. German.Sentences.Where(sentence => Holes().Split(sentence).Select(p => Ends().Replace(p, ""))
            .Any(piece => piece.Contains(' ') && piece.Length > 12 && !said.Contains(piece, StringComparison.OrdinalIgnoreCase)))];
        Assert.True(gone.Length == 0, string.Join('\n', gone));
    }

    // No walk gets to every page in every state; what a page is drawn with stands in its source.
    [Fact]
    public void Whatever_stands_in_the_source_of_a_page_is_in_it()
    {
        string[] names = ["PDF", "JSON", "PINs", "US", "20 L", "Enter", "Esc", "/openapi/v1.json", "Authorization: Bearer …"];
        var texts = Pages()
            .SelectMany(f => Drawn().Matches(f.Text).Select(m => Spaces().Replace(m.Groups["text"].Value, " ").Trim())
                .Where(t => t.Any(char.IsLetter) && !names.Contains(t) && t.Length > 1 && !Code().IsMatch(t))
                .Select(t => $"{f.Name}: {t}"));
        var whole = German.Sentences.ToHashSet(StringComparer.OrdinalIgnoreCase);
        string[] unsaid = [.. texts.Where(t => t[(t.IndexOf(':', StringComparison.Ordinal) + 2)..] is var text && !whole.Contains(text)
            && (!German.Say(text).IsKnown || German.Say(text).Text == text)).Distinct()];
        Assert.True(unsaid.Length == 0, string.Join('\n', unsaid));
    }

    // A text that is put together is looked for by its pieces of two words and more.
    [Fact]
    public void Whatever_a_page_puts_together_is_in_it()
    {
        var known = string.Join('\n', German.Sentences);
        string[] unsaid = [.. Pages().SelectMany(f => Between().Matches(Worked().Replace(Comments().Replace(f.Text, ""), "\0"))
            .Select(m => m.Value).Where(t => t.Contains('\0')).SelectMany(t => t.Split('\0'))
            .Select(p => Spaces().Replace(p, " ").Trim(' ', '.', ',', ':', ';', '(', ')', '·', '“', '”', '\n'))
            .Where(p => Letters().Count(p) > 1 && !Code().IsMatch(p) && !p.Contains("Enum.", StringComparison.Ordinal)
                && !p.Contains("RenderSection", StringComparison.Ordinal) && !Member().IsMatch(p)
                && !known.Contains(p, StringComparison.OrdinalIgnoreCase))
            .Select(p => $"{f.Name}: {p}"))];
        Assert.True(unsaid.Length == 0, string.Join('\n', unsaid));
    }

    [Fact]
    public void Every_sentence_of_a_script_is_said_in_the_language_of_its_page_and_none_stands_there_for_nothing()
    {
        var scripts = string.Concat(Directory.EnumerateFiles(Path.Combine(Root(), "src/Anakyklos.Web/wwwroot/js"), "*.js")
            .Order(StringComparer.Ordinal).Select(File.ReadAllText));
        var said = Said().Matches(scripts).Select(m => m.Groups[1].Value).ToHashSet();
        Assert.Subset(said, Written().Matches(scripts).Select(m => m.Groups[1].Value).ToHashSet());
        Assert.Equal(said.Order(StringComparer.Ordinal),
            Offered.ScriptEntries(CultureInfo.GetCultureInfo("de")).Select(e => e.Key).Order(StringComparer.Ordinal));
        Assert.All(Offered.ScriptEntries(CultureInfo.GetCultureInfo("de")),
            e => Assert.Equal(Holes().Matches(e.Key).Select(m => m.Value).Order(), Holes().Matches(e.Value).Select(m => m.Value).Order()));
    }

    [Fact]
    public void What_a_page_carries_for_its_scripts_ends_no_script_element()
    {
        var words = Offered.Script(CultureInfo.GetCultureInfo("de"))!;
        Assert.DoesNotContain("<", words, StringComparison.Ordinal);
        Assert.Equal("Keine Leitung", System.Text.Json.Nodes.JsonNode.Parse(words)!["No line"]!.GetValue<string>());
        Assert.Null(Offered.Script(Offered.English));
    }

    private static IEnumerable<(string Name, string Text)> Pages() =>
        Directory.EnumerateFiles(Path.Combine(Root(), "src/Anakyklos.Web"), "*.cshtml", SearchOption.AllDirectories)
            .Where(f => !f.Contains("/obj/", StringComparison.Ordinal) && !f.Contains("/bin/", StringComparison.Ordinal))
            .Select(f => (Path.GetFileName(f), File.ReadAllText(f)));

    // All that the program is made of, with sentences put together that were parted over lines.
    private static string Sources()
    {
        var root = Root();
        var text = new StringBuilder();
        foreach (var folder in (string[])["src", "sheets", "lessons", "stock"])
            foreach (var file in Directory.EnumerateFiles(Path.Combine(root, folder), "*", SearchOption.AllDirectories)
                .Where(f => Path.GetExtension(f) is ".cs" or ".cshtml" or ".js" or ".json" or ".csv"
                    && !f.Contains("/obj/", StringComparison.Ordinal) && !f.Contains("/bin/", StringComparison.Ordinal)))
                text.Append(File.ReadAllText(file)).Append('\n');
        return Spaces().Replace(Seams().Replace(text.ToString(), "").Replace("\\\"", "\"", StringComparison.Ordinal), " ");
    }

    private static string Root()
    {
        var root = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(root, "Anakyklos.slnx")))
            root = Path.GetDirectoryName(root) ?? throw new InvalidOperationException("The sources are not there.");
        return root;
    }

    // Between two tags, or in an attribute that is read out, without anything that is worked out.
    [GeneratedRegex(@"(?<=>)(?<text>[^<>@{}]+)(?=<)|(?:aria-label|title|placeholder|alt)=""(?<text>[^""@]+)""")]
    private static partial Regex Drawn();

    [GeneratedRegex(@"[;=()]\s|=>|&&|\|\||\)\)|^[A-Za-z.]*\w\.\w|\w\(|^\)|^\d \?|^[.!]|^Quantity$|, Func$")]
    private static partial Regex Code();

    [GeneratedRegex(@"\{\d+\}")]
    private static partial Regex Holes();

    // What a page works out: "@Model.Name", "@(one ? "a" : "b")", brackets three deep.
    [GeneratedRegex(@"@(?:\((?:[^()]|\((?:[^()]|\((?:[^()]|\([^()]*\))*\))*\))*\)|[A-Za-z_]\w*(?:!?\.[A-Za-z_]\w*|\((?:[^()]|\((?:[^()]|"
        + @"\([^()]*\))*\))*\)|\[[^\]]*\])*)")]
    private static partial Regex Worked();

    [GeneratedRegex(@"(?<=>)[^<>{}]+(?=<)")]
    private static partial Regex Between();

    [GeneratedRegex(@"@\*.*?\*@", RegexOptions.Singleline)]
    private static partial Regex Comments();

    [GeneratedRegex("[A-Za-z]{2,}")]
    private static partial Regex Letters();

    [GeneratedRegex(@"\w\.[A-Z]")]
    private static partial Regex Member();

    [GeneratedRegex(@"\bsay\('([^']+)'")]
    private static partial Regex Said();

    // A capital, small letters and another word: what people read and programs do not.
    [GeneratedRegex(@"['`]([A-Z][a-z']+ [a-z][^'`\n]*)['`]")]
    private static partial Regex Written();

    [GeneratedRegex(@"^\W+|\W+$")]
    private static partial Regex Ends();

    [GeneratedRegex(@"""\s*\+\s*\$?""")]
    private static partial Regex Seams();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();
}
