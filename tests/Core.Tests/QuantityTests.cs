using Anakyklos.Core.Sheets;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using CsCheck;

namespace Anakyklos.Core.Tests;

public class QuantityTests
{
    // Worked out by hand from the definitions in NIST SP 811.
    [Theory]
    [InlineData("38 Nm", 38)]
    [InlineData("38 N·m", 38)]
    [InlineData("38N.m", 38)]
    [InlineData("28 ft-lb", 37.9629025532792)]
    [InlineData("28lbf·ft", 37.9629025532792)]
    [InlineData("336 in-lbs", 37.9629025532792)]
    [InlineData("4 kgf·m", 39.2266)]
    [InlineData("4 mkg", 39.2266)]
    public void Torque_reads_what_people_type(string text, double newtonMetres) =>
        Near(newtonMetres, Quantity<Torque>.Read(text, out _)!.Value.Value.In(Torque.NewtonMetre));

    [Theory]
    [InlineData("3,5 L", 3.5)]
    [InlineData("3.5 litres", 3.5)]
    [InlineData("0,500 L", 0.5)]
    [InlineData("1/2 qt", 0.473176473)]
    [InlineData("1 1/2 qt", 1.419529419)]
    [InlineData("½ qt", 0.473176473)]
    [InlineData("5½ US gal", 20.819764812)]
    [InlineData("12 US fl oz", 0.35488235475)]
    [InlineData("2 imp pt", 1.1365225)]
    [InlineData("1,234.5 mL", 1.2345)]
    [InlineData("250cc", 0.25)]
    public void Volume_reads_what_people_type(string text, double litres) =>
        Near(litres, Quantity<Volume>.Read(text, out _)!.Value.Value.In(Volume.Litre));

    [Theory]
    [InlineData("148 200 km", 148200)]
    [InlineData("100 mi", 160.9344)]
    public void Distance_reads_what_people_type(string text, double km) =>
        Near(km, Quantity<Distance>.Read(text, out _)!.Value.Value.In(Distance.Kilometre));

    [Theory]
    [InlineData("1,234 L", "could be 1.234 or 1234")]
    [InlineData("5 pt", "imp pt")]
    [InlineData("5 gal", "US gal")]
    [InlineData("5 oz", "US fl oz")]
    [InlineData("5", "Add the unit")]
    [InlineData("5 N·m", "not a unit of volume")]
    [InlineData("1.2.3 L", "one way")]
    [InlineData("1/0 L", "divides by zero")]
    [InlineData("", "Type a volume")]
    [InlineData("five L", "is not a volume")]
    [InlineData("99999999999999999999999 L", "one way")]
    [InlineData("1e9 L", "is not a volume")]
    public void What_is_ambiguous_or_wrong_is_refused_with_what_to_type(string text, string say)
    {
        Assert.Null(Quantity<Volume>.Read(text, out var problem));
        Assert.Contains(say, problem);
    }

    [Fact]
    public void Pounds_alone_are_no_torque_and_m_alone_no_distance()
    {
        Assert.Null(Quantity<Torque>.Read("28 lb", out var torque));
        Assert.Contains("lbf·ft or lbf·in", torque);
        Assert.Null(Quantity<Distance>.Read("5 m", out var distance));
        Assert.Contains("metres or miles", distance);
        Assert.Null(Quantity<Length>.Read("5 mil", out _));
    }

    [Theory]
    [InlineData(38, "38 N·m", "28 lbf·ft", "336 lbf·in", "3.87 kgf·m")]
    [InlineData(7.5, "7.5 N·m", "5.5 lbf·ft", "66 lbf·in", "0.76 kgf·m")]
    public void Torque_prints_as_a_wrench_is_read(double nm, params string[] texts) =>
        Assert.Equal(texts, Torque.Units.Select(u => Quantity<Torque>.Of((decimal)nm, Torque.NewtonMetre).Print(u).ToString()));

    [Fact]
    public void Other_dimensions_have_their_exact_factors()
    {
        Near(6.894757293168361, Quantity<Pressure>.Of(1, Pressure.PoundPerSquareInch).In(Pressure.Kilopascal));
        Near(0.0254, Quantity<Length>.Of(1, Length.Thousandth).In(Length.Millimetre));
        Near(4.4482216152605, Quantity<Force>.Of(1, Force.PoundForce).In(Force.Newton));
        Assert.Equal("140 °F", Temperature.Read("60 °C", out _)!.Value.Print(TemperatureScale.Fahrenheit).ToString());
        Assert.Equal("-40 °F", Temperature.Of(-40, TemperatureScale.Celsius).Print(TemperatureScale.Fahrenheit).ToString());
        Assert.Equal("2.4 bar", Quantity<Pressure>.Read("240 kPa", out _)!.Value.Value.Print(Pressure.Bar).ToString());
    }

    [Fact]
    public void What_is_printed_reads_back_within_half_of_its_last_place() =>
        Gen.Select(Gen.Int[1, 5_000_000], Gen.Int[0, 5]).Sample((thousandths, which) =>
        {
            var number = thousandths / 1000m;
            var unit = Volume.Units[which];
            var amount = Quantity<Volume>.Of(number, unit);
            var printed = amount.Print(unit).ToString();
            var back = Quantity<Volume>.Read(printed, out var problem);
            Assert.True(back is not null, $"{printed}: {problem}");
            var decimals = printed.Split(' ')[0].Split('.').ElementAtOrDefault(1)?.Length ?? 0;
            Assert.InRange(Math.Abs(back.Value.Value.In(unit) - number), 0,
                0.5m / (decimal)Math.Pow(10, Math.Max(decimals, unit.MaxDecimals)) + 1e-9m);
            Assert.EndsWith(unit.Symbol, printed);
            Assert.NotEqual(0, back.Value.Value.In(unit));
        });

    [Fact]
    public void Adding_is_the_same_in_every_unit() =>
        Gen.Select(Gen.Int[0, 900_000], Gen.Int[0, 900_000], Gen.Int[0, 3]).Sample((left, right, which) =>
        {
            var (a, b) = (left / 1000m, right / 1000m);
            var unit = Torque.Units[which];
            var sum = Quantity<Torque>.Of(a, unit) + Quantity<Torque>.Of(b, unit);
            Assert.InRange(Math.Abs(sum.In(unit) - (a + b)), 0, 1e-20m);
            Assert.InRange(Math.Abs((sum - Quantity<Torque>.Of(b, unit)).In(unit) - a), 0, 1e-20m);
        });

    private static void Near(double expected, decimal actual) =>
        Assert.InRange((double)actual, expected - 1e-12 * Math.Abs(expected) - 1e-13, expected + 1e-12 * Math.Abs(expected) + 1e-13);
}

public class FillTests
{
    // What is left of dividing decimals and adding them up again.
    private const decimal Dust = 0.0000000000000000000001m;

    private static Quantity<Volume> L(decimal litres) => Quantity<Volume>.Of(litres, Volume.Litre);

    private static DipstickFill Fill(TargetSchool school = TargetSchool.ThreeQuarters) => new(L(6.4m), L(1.4m), L(0.2m), school);

    [Theory]
    [InlineData(TargetSchool.ThreeQuarters, 0.25, 0.70)] // half the span is 0.70 L; the way to three quarters is just that
    [InlineData(TargetSchool.ThreeQuarters, 0.5, 0.35)]
    [InlineData(TargetSchool.ThreeQuarters, -0.5, 0.70)] // never more than half the span on one reading
    [InlineData(TargetSchool.TopMark, 0.75, 0.35)]
    [InlineData(TargetSchool.LittleUnder, 0.5, 0.55)] // 0.4 of 1.4 L is 0.56, down to the graduation
    public void The_top_up_follows_from_the_reading(TargetSchool school, double level, double litres)
    {
        var advice = Fill(school).After(new((decimal)level));
        Assert.Equal((FillVerdict.Pour, L((decimal)litres)), (advice.Verdict, advice.Amount));
    }

    [Fact]
    public void The_first_pour_reaches_the_bottom_mark() => Assert.Equal(L(5), Fill().FirstPour);

    [Fact]
    public void Every_honest_fill_ends_inside_the_target_and_never_above_the_top_mark() =>
        Gen.Select(Gen.Int[-80, 50], Gen.Int[0, 2], Gen.Int[250, 1200], Gen.Int[50, 120])
            .Sample((from, school, bookHundredths, betweenHundredths) =>
        {
            var (start, book, between) = (from / 100m, bookHundredths / 100m, betweenHundredths / 100m);
            var fill = new DipstickFill(L(book), L(between), L(0.2m), (TargetSchool)school);
            var level = start;
            for (var pours = 0; ; pours++)
            {
                var advice = fill.After(new(level));
                if (advice.Verdict == FillVerdict.Good)
                    break;
                Assert.Equal(FillVerdict.Pour, advice.Verdict);
                Assert.True(advice.Amount >= DipstickFill.Graduation);
                level += advice.Amount / fill.Between;
                Assert.True(level <= 1m + Dust, $"{level}");
                Assert.True(pours < 6);
            }
            Assert.InRange(level, fill.Target.Fraction - 0.1m, 1m + Dust);
        });

    [Theory]
    [InlineData(null, 5.0, 1.5, true, false)]
    [InlineData(null, 0.0, 5.0, false, false)]
    [InlineData(0.5, 5.0, 0.8, true, false)]
    [InlineData(0.25, 6.0, 0.7, false, true)]
    [InlineData(0.25, 5.7, 0.7, false, false)]
    public void It_warns_before_the_top_mark_is_passed_and_when_the_sum_leaves_the_book(double? level, double poured, double next, bool top,
        bool book)
    {
        var warning = Fill().Warn(L((decimal)poured), L((decimal)next), level is { } l ? new Level((decimal)l) : null, L(0));
        Assert.Equal((top, book), (warning.PassesTop, warning.OverBook));
    }

    [Theory]
    [InlineData("3/4", 0.75)]
    [InlineData("top", 1)]
    [InlineData("-0,25", -0.25)]
    public void A_level_reads_as_typed(string text, double fraction) =>
        Assert.Equal((decimal)fraction, Level.Read(text, out _)!.Value.Fraction);

    [Theory]
    [InlineData("")]
    [InlineData("full")]
    public void A_level_that_is_none_is_asked_for_again(string text)
    {
        Assert.Null(Level.Read(text, out var problem));
        Assert.Contains("Tap the dipstick", problem);
    }

    [Fact]
    public void Too_high_comes_out_again()
    {
        var advice = Fill().After(new(1.25m));
        Assert.Equal((FillVerdict.TakeOut, L(0.7m)), (advice.Verdict, advice.Amount));
        Assert.Throws<ArgumentOutOfRangeException>(() => Fill().After(new(2.5m)));
    }
}

public class TighteningTests
{
    private static Typed<Torque> Read(string text) => Quantity<Torque>.Read(text, out _)!.Value;

    private static readonly ToTorque Plug = new(Read("38 N·m").Value, Read("35 N·m").Value, Read("41 N·m").Value);

    [Theory]
    [InlineData("35 N·m", TorqueOutcome.Passes, null)]
    [InlineData("41 N·m", TorqueOutcome.Passes, null)]
    [InlineData("28 lbf·ft", TorqueOutcome.Passes, null)]
    [InlineData("34.9 N·m", TorqueOutcome.TooLittle, null)]
    [InlineData("41.1 N·m", TorqueOutcome.TooMuch, null)]
    [InlineData("28 N·m", TorqueOutcome.TooLittle, "lbf·ft")]
    [InlineData("336 N·m", TorqueOutcome.TooMuch, "lbf·in")]
    [InlineData("38 lbf·ft", TorqueOutcome.TooMuch, "N·m")]
    [InlineData("38 lbf·in", TorqueOutcome.TooLittle, "N·m")]
    [InlineData("3.9 N·m", TorqueOutcome.TooLittle, "kgf·m")]
    public void A_reading_is_judged_and_another_unit_suspected(string reading, TorqueOutcome outcome, string? meant)
    {
        var verdict = Plug.Judge(Read(reading));
        Assert.Equal((outcome, meant), (verdict.Outcome, verdict.PerhapsMeant?.Symbol));
    }

    [Fact]
    public void The_finest_wrench_that_covers_the_torque_is_taken()
    {
        static TorqueWrench Wrench(string name, string low, string high, string step) =>
            new(name, Read(low).Value, Read(high).Value, Read(step).Value, Read(low).Unit, 4);
        TorqueWrench[] crib = [Wrench("TW-4", "40 N·m", "200 N·m", "5 N·m"), Wrench("TW-2", "5 N·m", "60 N·m", "1 N·m"),
            Wrench("coarse", "10 N·m", "50 N·m", "20 N·m")];
        Assert.Equal("TW-2", TorqueWrench.For(crib, Plug)!.Name);
        Assert.Equal("TW-4", TorqueWrench.For(crib, new(Read("120 N·m").Value, Read("110 N·m").Value, Read("130 N·m").Value))!.Name);
        Assert.Null(TorqueWrench.For(crib, new(Read("300 N·m").Value, Read("290 N·m").Value, Read("310 N·m").Value)));
    }

    [Fact]
    public void Months_end_on_the_last_day_they_have() =>
        Assert.Equal(new DateOnly(2026, 2, 28), new ServiceInterval(Quantity<Distance>.Of(10_000, Distance.Kilometre), 6)
            .After(new(default, new(2025, 8, 31))).By);

    [Fact]
    public void Part_numbers_are_the_same_whatever_their_dashes() => Assert.True(PartNumber.Same("tc 0621 f", "TC-0621-F"));
}
