using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using CsCheck;

namespace Anakyklos.Core.Tests;

public sealed class OilTests
{
    private static readonly CoverBook Book = new([new("T-41L", "T-41", []), new("T-41", "T-40", []), new("C8", "C7", [Fuel.Petrol]),
        new("DOT 5.1", "DOT 4", [])]);
    private static readonly OilRequirement Diesel = OilRequirement.Of(Workbench.Courier, Workbench.Courier.Fluids["engine-oil"]);

    private static OilProduct Oil(string grade, string code, bool lowAsh = false, params string[] additives) =>
        new("A can", [grade], code.Length > 0 ? [code] : [], additives, lowAsh);

    private static Temperature C(int degrees) => Temperature.Of(degrees, TemperatureScale.Celsius);

    private static OilRequirement Wants(string grade, string approval, params string[] additives) =>
        new([new(grade, null, null)], approval.Length > 0 ? [approval] : [], additives, false, Fuel.Diesel);

    [Theory]
    [InlineData("T-41L", "T-41L", "T-41L")]
    [InlineData("t 41 l", "T-41", "t 41 l>T-41")]
    [InlineData("T-41L", "T-40", "T-41L>T-41>T-40")]
    [InlineData("T-41", "T-41L", null)] // never the other way round
    [InlineData("C8", "C7", null)] // for petrol only, and this is a diesel
    public void A_code_covers_along_its_way_and_never_back(string had, string wanted, string? way) =>
        Assert.Equal(way, Book.Way(had, wanted, Fuel.Diesel) is { } found ? string.Join('>', found) : null);

    [Fact]
    public void What_holds_for_petrol_only_holds_for_petrol() => Assert.Equal(["C8", "C7"], Book.Way("C8", "C7", Fuel.Petrol)!);

    private static readonly Gen<Cover[]> Covers =
        Gen.Select(Gen.Int[0, 9], Gen.Int[0, 9], (a, b) => new Cover($"K{a}", $"K{b}", [])).Array[0, 14];

    [Fact]
    public void Cover_is_what_walking_the_arrows_reaches() => Covers.Sample(covers =>
    {
        var book = new CoverBook(covers);
        // Independent: the closure by Warshall's algorithm.
        var reach = new bool[10, 10];
        for (var i = 0; i < 10; i++)
            reach[i, i] = true;
        foreach (var c in covers)
            reach[c.Code[1] - '0', c.Covers[1] - '0'] = true;
        for (var k = 0; k < 10; k++)
            for (var i = 0; i < 10; i++)
                for (var j = 0; j < 10; j++)
                    reach[i, j] |= reach[i, k] && reach[k, j];
        for (var i = 0; i < 10; i++)
            for (var j = 0; j < 10; j++)
            {
                var way = book.Way($"K{i}", $"K{j}", Fuel.Diesel);
                Assert.Equal(reach[i, j], way is not null);
                Assert.All(way?.Zip(way.Skip(1)) ?? [], step =>
                    Assert.Contains(covers, c => c.Code == step.First && c.Covers == step.Second));
            }
    });

    [Fact]
    public void Without_stated_circles_cover_is_never_mutual() => Covers.Sample(covers =>
    {
        // Codes that only cover lower ones cannot come back.
        var book = new CoverBook(covers.Where(c => c.Code.CompareTo(c.Covers) > 0));
        for (var i = 0; i < 10; i++)
            for (var j = 0; j < i; j++)
                Assert.Null(book.Way($"K{j}", $"K{i}", Fuel.Diesel));
    });

    [Fact]
    public void Only_the_low_ash_oil_fits_and_each_of_the_others_says_what_it_lacks()
    {
        var book = new CoverBook([new("Tarn T-41L", "Tarn T-41", [])]);
        OilFit Of(OilProduct p) => OilMatch.Of(p, Diesel, book, new(C(-12), C(24)));
        Assert.True(Of(Oil("SAE 5W-30", "Tarn T-41L", true)).Fits);
        Assert.Equal([Lack.Approval, Lack.Ash], Of(Oil("SAE 5W-30", "Tarn T-41")).Lacks.Select(l => l.Of));
        Assert.Equal([Lack.Grade, Lack.Approval, Lack.Ash], Of(Oil("SAE 5W-40", "Tarn T-41")).Lacks.Select(l => l.Of));
        var lack = Of(Oil("SAE 5W-40", "Tarn T-41L", true)).Lacks.Single();
        Assert.Equal((Lack.Grade, "SAE 5W-30 or SAE 0W-30", "SAE 5W-40"), (lack.Of, lack.Wanted, lack.Has));
    }

    [Theory]
    [InlineData(-25, 40, null)]
    [InlineData(-26, 30, Lack.TooColdForGrade)]
    [InlineData(-20, 41, Lack.TooHotForGrade)]
    public void A_grade_is_good_between_its_temperatures(int coldest, int hottest, Lack? lack) =>
        Assert.Equal(lack, OilMatch.Of(Oil("SAE 5W-30", "Tarn T-41L", true), Diesel, CoverBook.Empty,
            new(C(coldest), C(hottest))).Lacks.Select(l => (Lack?)l.Of).SingleOrDefault());

    [Fact]
    public void A_limited_slip_axle_wants_its_additive_and_brake_fluid_its_class()
    {
        Assert.Equal(Lack.Additive, OilMatch.Of(Oil("SAE 80W-90", "GL-5"), Wants("SAE 80W-90", "GL-5", "LS"), Book,
            null).Lacks.Single().Of);
        Assert.True(OilMatch.Of(Oil("SAE 80W-90", "GL-5", false, "LS"), Wants("SAE 80W-90", "GL-5", "LS"), Book, null).Fits);
        Assert.Equal(Lack.Approval, OilMatch.Of(Oil("SAE 75W-90", "GL-4"), Wants("SAE 75W-90", "GL-5"), Book, null).Lacks.Single().Of);
        Assert.True(OilMatch.Of(Oil("DOT 5.1", ""), Wants("DOT 4", ""), Book, null).Fits);
        Assert.False(OilMatch.Of(Oil("DOT 4", ""), Wants("DOT 5.1", ""), Book, null).Fits);
    }

    [Fact]
    public void Of_two_that_are_mixed_each_must_fit() =>
        Assert.Equal([true, false], OilMatch.Mix([Oil("SAE 5W-30", "T-41L"), Oil("SAE 5W-30", "T-40")], Wants("SAE 5W-30", "T-41"), Book,
            null).Select(f => f.Fits));

    [Fact]
    public void Every_error_of_an_oil_book_comes_at_once_with_its_line()
    {
        var (book, errors) = OilBook.Read("""
            {
              "format": "anakyklos/oil-book/1",
              "products": [
                { "name": "One", "grades": ["SAE 5W-30"], "ash": 1 },
                { "name": "one", "grades": [] }
              ],
              "covers": [{ "code": "A", "covers": "B", "fuels": ["paraffin"] }]
            }
            """);
        Assert.Null(book);
        Assert.Contains(errors, e => e.Line == 4 && e.Field!.EndsWith("ash"));
        Assert.Contains(errors, e => e.What.Contains("2 times"));
        Assert.Contains(errors, e => e.Line == 7 && e.What.Contains("paraffin"));
    }
}
