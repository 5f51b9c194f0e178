using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>What a level is called, and the edges of what a reading asks for.</summary>
public class LevelTests
{
    // 6.4 L to the top mark, 1.4 L between the marks: as on the Courier.
    private static DipstickFill Fill(TargetSchool school) => new(L(6.4m), L(1.4m), L(0.2m), school);

    [Theory]
    [InlineData(-0.03, "below the bottom mark")]
    [InlineData(-0.02, "at the bottom mark")]
    [InlineData(0, "at the bottom mark")]
    [InlineData(0.0624, "at the bottom mark")]
    [InlineData(0.0625, "one eighth")]
    [InlineData(0.25, "one quarter")]
    [InlineData(0.375, "three eighths")]
    [InlineData(0.5, "half way")]
    [InlineData(0.625, "five eighths")]
    [InlineData(0.75, "three quarters")]
    [InlineData(0.875, "seven eighths")]
    [InlineData(1, "at the top mark")]
    [InlineData(1.02, "at the top mark")]
    [InlineData(1.03, "above the top mark")]
    public void A_level_is_said_to_the_nearest_eighth(double fraction, string words) =>
        Assert.Equal(words, new Level((decimal)fraction).ToString());

    // 0.5 L between the marks: a workshop that pours what is missing pours it in one, another half of the span at most.
    [Theory]
    [InlineData(PourStages.InOne, 0, 0.5)]
    [InlineData(PourStages.InOne, -0.5, 0.75)]
    [InlineData(PourStages.InOne, 0.4, 0.3)]
    [InlineData(PourStages.ByHalves, 0, 0.25)]
    [InlineData(PourStages.ByHalves, 0.6, 0.2)]
    public void What_is_missing_goes_in_by_halves_or_in_one(PourStages stages, double level, double litres)
    {
        var fill = new DipstickFill(L(4), L(0.5m), L(0.1m), TargetSchool.TopMark, stages);
        Assert.Equal(L((decimal)litres), fill.After(new((decimal)level)).Amount);
        Assert.Equal((false, true), (fill.IsMoreThanHalf(L(0.25m)), fill.IsMoreThanHalf(L(0.26m))));
    }

    // Marks that say "5.0 and 6.0 L in the engine", and a book that says 5.8: the book is four fifths of the way, and the first pour is 5.
    [Fact]
    public void Marks_that_carry_amounts_are_not_moved_by_the_book()
    {
        DipstickFill At(TargetSchool school) => new(L(5.8m), L(1), L(0.1m), school, PourStages.InOne, L(6));
        Assert.Equal((L(5), L(5)), (At(TargetSchool.TopMark).FirstPour, At(TargetSchool.ThreeQuarters).FirstPour));
        Assert.Equal(0.8m, At(TargetSchool.TopMark).Warn(L(5), L(0.8m), null, L(0)).Reaches.Fraction);
        // To the top mark goes more than the book says, and that is no warning; past the mark is one.
        Assert.Equal((L(6), L(5.8m)), (At(TargetSchool.TopMark).InAll, At(TargetSchool.ThreeQuarters).InAll));
        Assert.Equal(new PourWarning(false, false, new(1)), At(TargetSchool.TopMark).Warn(L(5), L(1), new(0), L(0)));
        Assert.True(At(TargetSchool.TopMark).Warn(L(5), L(1.05m), new(0), L(0)).PassesTop);
        Assert.True(At(TargetSchool.ThreeQuarters).Warn(L(5), L(0.95m), new(0), L(0)).OverBook);
    }

    [Theory]
    [InlineData("top", 1)]
    [InlineData(" Bottom ", 0)]
    [InlineData("-1/4", -0.25)]
    [InlineData("0.123456789", 0.123456789)] // 11 signs are read, 12 are not
    public void A_level_that_is_read_leaves_no_complaint(string text, double fraction)
    {
        Assert.Equal((decimal)fraction, Level.Read(text, out var problem)!.Value.Fraction);
        Assert.Equal("", problem);
    }

    [Theory]
    [InlineData("0.1234567890")]
    [InlineData("")]
    [InlineData(null)]
    public void What_is_no_level_is_refused_with_what_to_type(string? text)
    {
        Assert.Null(Level.Read(text, out var problem));
        Assert.Contains("such as 3/4", problem);
    }

    [Theory]
    [InlineData(TargetSchool.ThreeQuarters, 0.65, FillVerdict.Good, 0, 0.65)] // a tenth of the span under the aim is at it
    [InlineData(TargetSchool.ThreeQuarters, 0.64, FillVerdict.Pour, 0.15, 0.747142857)] // 0.154 L, down to 0.15; 0.64 + 0.15 / 1.4
    [InlineData(TargetSchool.ThreeQuarters, 0, FillVerdict.Pour, 0.70, 0.5)] // half the span at most
    [InlineData(TargetSchool.TopMark, 1.25, FillVerdict.TakeOut, 0.35, 1.0)]
    [InlineData(TargetSchool.TopMark, 1.26, FillVerdict.TakeOut, 0.40, 0.974285714)] // 0.364 L, up to 0.40; 1.26 − 0.40 / 1.4
    public void Advice_says_how_much_and_where_the_oil_then_stands(TargetSchool school, double level, FillVerdict verdict,
        double litres, double reaches)
    {
        var advice = Fill(school).After(new((decimal)level));
        Assert.Equal((verdict, L((decimal)litres)), (advice.Verdict, advice.Amount));
        Assert.Equal(reaches, (double)advice.Reaches.Fraction, 6);
    }

    [Fact]
    public void A_pour_to_the_top_mark_exactly_does_not_pass_it()
    {
        var fill = Fill(TargetSchool.TopMark);
        Assert.False(fill.Warn(L(5.7m), L(0.7m), new(0.5m), L(0)).PassesTop);
        // One thousandth of the span is lost in rounding: 0.7014 L from half way.
        Assert.False(fill.Warn(L(5.7m), L(0.7014m), new(0.5m), L(0)).PassesTop);
        Assert.True(fill.Warn(L(5.7m), L(0.7015m), new(0.5m), L(0)).PassesTop);
    }

    // 6.40 L at the top mark, 1.40 L between the marks; what differs by up to 1.60 L goes together. Beyond the marks nobody knows how far.
    [Theory]
    [InlineData(0.9, 4.66, 0)]
    [InlineData(0.9, 4.65, 1.61)]
    [InlineData(0, 3.39, 1.61)]
    [InlineData(-0.01, 0.1, 0)]
    [InlineData(1.01, 4.8, 1.614)]
    [InlineData(1, 8.01, -1.61)]
    [InlineData(1.01, 9, 0)]
    [InlineData(-1, 5.2, 0)]
    [InlineData(-1, 5.21, -1.61)]
    public void A_level_is_held_against_what_went_in(double level, double poured, double missing) =>
        Assert.Equal(L((decimal)missing), Fill(TargetSchool.ThreeQuarters).MissingFor(new((decimal)level), L((decimal)poured)));

    // Marks at 74 and 64 mm: 69 is half way, 64 the upper mark, a millimetre is a tenth of the way; 2.5 in are 63.5 mm.
    [Theory]
    [InlineData("74 mm", 0)]
    [InlineData("69 mm", 0.5)]
    [InlineData("64 mm", 1)]
    [InlineData("2.5 in", 1.05)]
    [InlineData("79 mm", -0.5)]
    public void A_depth_on_a_rod_is_a_place_between_its_marks(string depth, double level)
    {
        var rod = new RodMarks(Mm(74), Mm(64));
        var read = Quantity<Length>.Read(depth, out _)!.Value;
        Assert.Equal((decimal)level, rod.At(read.Value).Fraction);
        Assert.Equal(read.Value, rod.DepthOf(rod.At(read.Value)));
    }

    private static Quantity<Length> Mm(decimal mm) => Quantity<Length>.Of(mm, Length.Millimetre);

    // A sump with a stick that is read up to an eighth wrong, wherever it starts: the advice alone, followed for as long as it asks, ends
    // no further from the aim than the eye errs and the tenth that counts as there, and never brings it past the top mark by more.
    [Fact]
    public void A_sump_that_is_filled_by_the_advice_alone_ends_at_its_aim()
    {
        var random = new Random(20261127);
        for (var i = 0; i < 4000; i++)
        {
            var between = L(Math.Round(0.08m + (decimal)random.NextDouble() * 2, 2));
            var fill = new DipstickFill(L(6.4m), between, L(0.2m), (TargetSchool)random.Next(3), (PourStages)random.Next(2));
            var error = Math.Round(((decimal)random.NextDouble() - 0.5m) / 4, 3);
            var level = Math.Round((decimal)random.NextDouble() * 2.4m - 0.8m, 2);
            var readings = 0;
            for (; readings < 12; readings++)
            {
                var advice = fill.After(new(Math.Clamp(level + error, Level.Lowest, Level.Highest)));
                if (advice.Verdict == FillVerdict.Good)
                    break;
                var sign = advice.Verdict == FillVerdict.Pour ? 1 : -1;
                // Tapped out of a can that shows quarts as well: what is poured is the printed amount.
                var amount = random.Next(2) == 0 ? advice.Amount : advice.Amount.RoundDown(Volume.Units[2]);
                if (amount == L(0))
                    break;
                level += sign * (amount / between);
                if (sign > 0)
                    Assert.True(level + error <= fill.Target.Fraction + 0.0001m, $"seed 20261127, walk {i}: past the aim, to {level}");
            }
            Assert.True(readings < 12, $"seed 20261127, walk {i}: it asks again and again at {level}");
            Assert.True(level + error <= 1.0201m && level + error >= fill.Target.Fraction - 0.2m,
                $"seed 20261127, walk {i}: it ends at {level} for {fill.Target.Fraction}, read {error} wrong, {between} between the marks");
        }
    }

    [Fact]
    public void A_reading_that_is_not_on_the_stick_says_where_it_must_lie()
    {
        var wrong = Assert.Throws<ArgumentOutOfRangeException>(() => Fill(TargetSchool.TopMark).After(new(2.01m)));
        Assert.Contains("between −1 and 2", wrong.Message);
    }
}
