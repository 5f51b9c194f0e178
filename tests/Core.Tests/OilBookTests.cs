using Anakyklos.Core.Oils;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Tests;

/// <summary>The oil book as a file, and what an oil lacks, in words.</summary>
public sealed class OilBookTests
{
    private const string Whole = """
        {
          "format": "anakyklos/oil-book/1",
          "products": [
            { "name": "Gannet Lowash 5W-30", "grades": ["SAE 5W-30"], "codes": ["Tarn T-41L"], "additives": ["LS"], "lowAsh": true },
            { "name": "Plain", "grades": ["SAE 30"] }
          ],
          "covers": [{ "code": "C8", "covers": "C7", "fuels": ["petrol"] }, { "code": "A", "covers": "B" }]
        }
        """;

    [Fact]
    public void What_no_product_serves_is_named_once_by_its_code_or_by_what_that_covers()
    {
        var book = new OilBook([new("One", ["SAE 30"], ["A"], [], false), new("Two", ["SAE 30"], ["C8"], [], false)],
            OilBook.Read(Whole).Book!.Book);
        // A covers B for any fuel, C8 covers C7 for petrol only.
        Assert.Equal(["C7", "D"], book.Unserved([("A", Fuel.Diesel), ("B", Fuel.Diesel), ("C7", Fuel.Petrol), ("C7", Fuel.Diesel),
            ("D", Fuel.Petrol), ("D", Fuel.Diesel), ("C8", Fuel.Diesel)]));
        Assert.Empty(book.Unserved([]));
        Assert.Equal(["A"], OilBook.Empty.Unserved([("A", Fuel.Petrol)]));
    }

    [Fact]
    public void A_book_is_read_with_all_that_stands_in_it()
    {
        var (book, errors) = OilBook.Read(Whole);
        Assert.Empty(errors);
        var oil = book!.Products[0];
        Assert.Equal(("Gannet Lowash 5W-30", "SAE 5W-30", "Tarn T-41L", "LS", true),
            (oil.Name, oil.Grades.Single(), oil.Codes.Single(), oil.Additives.Single(), oil.LowAsh));
        Assert.Equal((0, 0, false), (book.Products[1].Codes.Count, book.Products[1].Additives.Count, book.Products[1].LowAsh));
        Assert.NotNull(book.Book.Way("C8", "C7", Fuel.Petrol));
        Assert.Null(book.Book.Way("C8", "C7", Fuel.Diesel));
        Assert.NotNull(book.Book.Way("A", "B", Fuel.Diesel));
        Assert.Equal("Plain", book.Find("plain")!.Name);
        Assert.Null(book.Find("Salad oil"));
        Assert.NotNull(OilBook.Read(Whole.Replace("petrol", "PETROL")).Book); // a fuel whatever its case
    }

    [Theory]
    [InlineData("[]", 1, "An oil book is one JSON object in braces.")]
    [InlineData("{ \"format\": \"anakyklos/oil-book/1\" }", 1, "products")]
    [InlineData("{\n\"format\": \"other/9\", \"products\": [] }", 2, "This reads anakyklos/oil-book/1, not “other/9”.")]
    [InlineData("{ \"products\": [] }", 1, "format")]
    [InlineData("{ \"format\": \"anakyklos/oil-book/1\", \"products\": [],\n\"extra\": 1 }", 2, "extra")]
    [InlineData("{ \"format\": \"anakyklos/oil-book/1\", \"products\": [\n{ \"grades\": [\"SAE 30\"] }] }", 2, "name")]
    [InlineData("{ \"format\": \"anakyklos/oil-book/1\", \"products\": [\n{ \"name\": \"One\" }] }", 2, "grades")]
    [InlineData("{ \"format\": \"anakyklos/oil-book/1\", \"products\": [], \"covers\": [\n{ \"covers\": \"B\" }] }", 2, "code")]
    [InlineData("{ \"format\": \"anakyklos/oil-book/1\", \"products\": [], \"covers\": [\n{ \"code\": \"B\" }] }", 2, "covers")]
    public void What_is_wrong_is_said_with_its_line(string text, int line, string says)
    {
        var (book, errors) = OilBook.Read(text);
        Assert.Null(book);
        Assert.Contains(errors, e => e.Line == line && $"{e.Field}: {e.What}".Contains(says));
    }

    [Fact]
    public void A_product_that_is_there_twice_is_named()
    {
        var (_, errors) = OilBook.Read(Whole.Replace("Plain", "gannet lowash 5w30"));
        Assert.Contains("“Gannet Lowash 5W-30” is there 2 times.", Assert.Single(errors).What);
        Assert.Equal("products", errors[0].Field);
    }

    [Fact]
    public void What_a_product_lacks_is_said_as_a_person_would()
    {
        Assert.Equal("the grade SAE 5W-30 (it has SAE 5W-40)", $"{new Shortfall(Lack.Grade, "SAE 5W-30", "SAE 5W-40")}");
        Assert.Equal("the approval Tarn T-41L", $"{new Shortfall(Lack.Approval, "Tarn T-41L", "")}");
        Assert.Equal("a grade for -30 °C (SAE 5W-30 from -25 °C)",
            $"{new Shortfall(Lack.TooColdForGrade, "-30 °C", "SAE 5W-30 from -25 °C")}");
        Assert.Equal("a grade for 45 °C (SAE 5W-30 to 40 °C)", $"{new Shortfall(Lack.TooHotForGrade, "45 °C", "SAE 5W-30 to 40 °C")}");
        Assert.Equal("the additive LS", $"{new Shortfall(Lack.Additive, "LS", "")}");
        Assert.Equal("low ash, and the particulate filter would block", $"{new Shortfall(Lack.Ash, "low ash", "")}");
        var fit = new OilFit(new("A can", [], [], [], false), "", [], [new(Lack.Additive, "LS", ""), new(Lack.Approval, "GL-5", "GL-4")]);
        Assert.Equal("the additive LS, the approval GL-5 (it has GL-4)", fit.Lacking);
    }

    [Fact]
    public void Near_is_what_somebody_could_take_for_it()
    {
        var book = new CoverBook([new("T-41L", "T-41", []), new("T-41", "T-40", [])]);
        var wanted = new OilRequirement([new("SAE 5W-30", null, null), new("SAE 0W-30", null, null)], ["T-41", "X-9"], [], false,
            Fuel.Diesel);
        bool Near(string[] grades, params string[] codes) => OilMatch.IsNear(new("A can", grades, codes, [], false), wanted, book);
        Assert.True(Near(["sae 0w30", "SAE 90"])); // one grade is enough
        Assert.True(Near(["SAE 90"], "T-41L", "Z-1")); // covers what is wanted
        Assert.True(Near(["SAE 90"], "T-40")); // is covered by what is wanted
        Assert.False(Near(["SAE 90"], "Z-1"));
        Assert.False(Near([]));
    }
}
