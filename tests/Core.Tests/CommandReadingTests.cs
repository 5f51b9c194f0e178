using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.LayingOut;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What is said from outside becomes a command, or every field that cannot be read is named with what to do.</summary>
public sealed class CommandReadingTests
{
    private const string Odd = "it is a list.";

    // Texts, lists of texts, and entries; what has another shape than is asked for is said so.
    private sealed class Said(Dictionary<string, object> fields) : IFieldSource
    {
        public string? Text(CommandField field, out string problem)
        {
            var found = fields.GetValueOrDefault(field.Name);
            problem = found is null or string ? "" : Odd;
            return found as string;
        }

        public IReadOnlyList<string> Texts(CommandField field, out string problem)
        {
            var found = fields.GetValueOrDefault(field.Name);
            problem = found is null or string[] ? "" : Odd;
            return found as string[] ?? [];
        }

        public IReadOnlyList<KeyValuePair<string, IFieldSource>> Entries(CommandField field, out string problem)
        {
            var found = fields.GetValueOrDefault(field.Name);
            problem = found is null or Dictionary<string, Dictionary<string, object>> ? "" : Odd;
            return found is Dictionary<string, Dictionary<string, object>> entries
                ? [.. entries.Select(e => KeyValuePair.Create(e.Key, (IFieldSource)new Said(e.Value)))] : [];
        }
    }

    private static CardCommand Read(string name, params (string, object)[] fields)
    {
        var command = CommandBook.Read(name, new Said(fields.ToDictionary(f => f.Item1, f => f.Item2)), out var problems);
        Assert.True(command is not null, string.Join(" ", problems));
        Assert.Empty(problems);
        return command;
    }

    private static IReadOnlyList<Refusal> Wrong(string name, params (string, object)[] fields)
    {
        Assert.Null(CommandBook.Read(name, new Said(fields.ToDictionary(f => f.Item1, f => f.Item2)), out var problems));
        Assert.NotEmpty(problems);
        return problems;
    }

    private static (string, object)[] Step(params (string, object)[] more) => [("step", "drain"), .. more];

    [Fact]
    public void A_name_is_known_in_letters_of_either_case_and_no_other_is()
    {
        Assert.Equal(new Sign(), Read("SIGN"));
        Assert.Null(CommandBook.Find(null));
        Assert.Null(CommandBook.Find("signs"));
        var unknown = Assert.Single(Wrong("bless"));
        Assert.Equal(("Nobody here knows how that is done.", "say"), (unknown.What, unknown.Field));
        Assert.Equal(CommandBook.All.Select(c => c.Name).Order(StringComparer.Ordinal), CommandBook.All.Select(c => c.Name));
        Assert.Equal(CommandBook.All.Count, CommandBook.All.Select(c => c.Name.ToUpperInvariant()).Distinct().Count());
    }

    [Fact]
    public void Every_command_says_what_it_needs()
    {
        static string Needs(string name) => string.Join(" ", CommandBook.Find(name)!.Fields.Where(f => f.IsNeeded).Select(f => f.Name));
        Assert.Equal("step", Needs("done"));
        Assert.Equal("step torque", Needs("reading"));
        Assert.Equal("of torque", Needs("correct"));
        Assert.Equal("step level", Needs("gauge"));
        Assert.Equal("step amount", Needs("pour"));
        Assert.Equal("step grade", Needs("saw"));
        Assert.Equal("of", Needs("back"));
    }

    [Fact]
    public void Words_are_taken_without_the_blanks_around_them_and_none_are_empty()
    {
        Assert.Equal(new PutAside("drain", "boat late"), Read("aside", Step(("reason", "  boat late "))));
        Assert.Equal(new PutAside("drain", ""), Read("aside", Step()));
        Assert.Equal(new ConfirmStep("", null, ""), Read("done"));
    }

    [Theory]
    [InlineData("yes", true)]
    [InlineData("no", false)]
    [InlineData("true", false)]
    public void Yes_is_yes_and_nothing_else_is(string text, bool yes)
    {
        Assert.Equal(new MoveLift(true, yes), Read("move", ("up", "yes"), ("lookedOver", text)));
        Assert.Equal(new MoveLift(false, false), Read("move", ("up", "no")));
    }

    // The lead who pressed Enter after the PIN said neither.
    [Theory]
    [InlineData("")]
    [InlineData("true")]
    [InlineData("Yes")]
    public void Where_yes_or_no_must_be_said_nothing_else_is_either(string text)
    {
        var problem = Assert.Single(Wrong("decide", ("of", "3"), ("words", "Looked at"), ("mended", text)));
        Assert.Equal(("mended", "Nobody said whether it is put right. Say yes or no."), (problem.Field, $"{problem}"));
        Assert.Contains("Nobody said whether it goes up.", Wrong("move").Select(p => p.What));
    }

    [Fact]
    public void A_count_may_be_left_away_and_is_a_whole_number()
    {
        Assert.Equal(new ConfirmStep("drain", 9), Read("done", Step(("count", " 9 "))));
        Assert.Equal(new ConfirmStep("drain", -1), Read("done", Step(("count", "-1"))));
        Assert.Equal(new ConfirmStep("drain"), Read("done", Step(("count", "  "))));
        Assert.Equal(new ConfirmStep("drain"), Read("done", Step()));
        foreach (var text in new[] { "nine", "9.5", "9,000", "0x9" })
        {
            var wrong = Assert.Single(Wrong("done", Step(("count", text))));
            Assert.Equal(("That is not a whole number.", "Count them and type how many.", "count"), (wrong.What, wrong.Do, wrong.Field));
        }
    }

    [Fact]
    public void A_number_that_is_needed_is_missed()
    {
        Assert.Equal(new TakeBack(17), Read("back", ("of", "17")));
        var missing = Assert.Single(Wrong("back"));
        Assert.Equal(("of", "Load the page again."), (missing.Field, missing.Do));
        Assert.EndsWith(" is missing.", missing.What);
        Assert.True(char.IsUpper(missing.What[0]));
        Assert.Equal("That is not a whole number.", Assert.Single(Wrong("back", ("of", "x"))).What);
    }

    [Fact]
    public void An_amount_keeps_the_unit_it_was_said_in()
    {
        var poured = Assert.IsType<Pour>(Read("pour", Step(("amount", "1/2 qt"), ("warned", "yes"))));
        Assert.Equal("0.5 US qt", poured.Amount.Exact);
        foreach (var text in new[] { "5", "lots", "5 Nm" })
            Assert.Equal("amount", Assert.Single(Wrong("pour", Step(("amount", text)))).Field);
        var shape = Assert.Single(Wrong("pour", Step(("amount", new[] { "5 L" }))));
        Assert.Equal(("amount", Odd), (shape.Field, shape.What));
        Assert.Equal("amount", Assert.Single(Wrong("pour", Step())).Field);
    }

    [Fact]
    public void A_level_is_a_place_on_the_stick()
    {
        Assert.Equal(0.75m, Assert.IsType<ReadGauge>(Read("gauge", Step(("level", "0.75")))).Level.Fraction);
        Assert.Equal("level", Assert.Single(Wrong("gauge", Step(("level", "high")))).Field);
        var shape = Assert.Single(Wrong("gauge", Step(("level", new[] { "0.75" }))));
        Assert.Equal(("level", Odd), (shape.Field, shape.What));
        var high = Assert.Single(Wrong("gauge", Step(("level", "high")))).What;
        Assert.False(high is Odd or "", high);
    }

    [Theory]
    [InlineData("plan-it", FindingGrade.PlanIt)]
    [InlineData("PlanIt", FindingGrade.PlanIt)]
    [InlineData(" stop ", FindingGrade.Stop)]
    public void A_choice_is_one_of_its_words(string text, FindingGrade grade)
    {
        Assert.Equal(new NoteFinding("drain", grade, "Rust"), Read("saw", Step(("grade", text), ("text", "Rust"))));
        var words = CommandBook.Find("saw")!.Fields.Single(f => f.Name == "grade").Words;
        Assert.Contains("plan-it", words);
        foreach (var wrong in new[] { "0", "grave", "" })
            Assert.Equal("grade", Assert.Single(Wrong("saw", Step(("grade", wrong), ("text", "Rust")))).Field);
        Assert.Equal("grade", Assert.Single(Wrong("saw", Step(("text", "Rust")))).Field);
    }

    private static Dictionary<string, Dictionary<string, object>> Entries(params (string Id, (string, object)[] Fields)[] entries) =>
        entries.ToDictionary(e => e.Id, e => e.Fields.ToDictionary(f => f.Item1, f => f.Item2));

    [Fact]
    public void A_kit_is_said_entry_by_entry()
    {
        var kit = Assert.IsType<ConfirmKit>(Read("kit", ("step", "lay-out-kit"), ("pan", new[] { "8 L", "12 qt" }),
            ("parts", Entries(("oil-filter", [("choice", "in-hand")]), ("drain-washer", [("choice", "old-again"), ("reason", "boat")]))),
            ("oils", Entries(("engine-oil", [("amount", "7 L"), ("product", "Gannet")])))));
        Assert.Equal(new KitPart(KitChoice.InHand), kit.Parts["oil-filter"]);
        Assert.Equal(new KitPart(KitChoice.OldAgain, "", "boat"), kit.Parts["drain-washer"]);
        Assert.Equal([L(8), Quantity<Volume>.Of(12, Volume.Units.Single(u => u.Symbol == "US qt"))], kit.Pans);
        Assert.Equal(new OilLaidOut(L(7), "Gannet"), kit.Oils["engine-oil"]);
    }

    [Fact]
    public void What_is_wrong_in_a_kit_is_named_by_its_path_and_all_of_it_at_once()
    {
        Assert.Equal(["oils.engine-oil.amount", "pan", "parts.oil-filter.choice"],
            Wrong("kit", ("step", "lay-out-kit"), ("pan", new[] { "8 L", "twelve" }), ("parts", Entries(("oil-filter", []))),
                ("oils", Entries(("engine-oil", [("product", "Gannet")])))).Select(p => p.Field).Order());
        Assert.Equal(["oils", "pan", "parts"],
            Wrong("kit", ("step", "lay-out-kit"), ("pan", "8 L"), ("parts", "all"), ("oils", "some")).Select(p => p.Field).Order());
        Assert.All(Wrong("kit", ("step", "lay-out-kit"), ("pan", "8 L"), ("parts", "all"), ("oils", "some")),
            p => Assert.Equal(Odd, p.What));
        Assert.Equal(["step"], Wrong("kit", ("step", new[] { "lay-out-kit" })).Select(p => p.Field));
    }
}
