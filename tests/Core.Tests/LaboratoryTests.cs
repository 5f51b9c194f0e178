using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;
using CsCheck;
using Xunit;

namespace Anakyklos.Core.Tests;

/// <summary>What a laboratory measured, judged.</summary>
public sealed class LaboratoryTests
{
    private static readonly string[] Thirty = ["SAE 5W-30", "SAE 0W-30"];

    private static Quantity<Distance> Km(decimal km) => Quantity<Distance>.Of(km, Distance.Kilometre);

    private static OilResult Result(params (Analyte What, decimal Value)[] values) =>
        new("1010-1M", new(2026, 3, 9), values.ToDictionary(v => v.What, v => v.Value));

    private static LabLine One(Analyte what, decimal value, decimal? km = 10_000, params (decimal Value, decimal Km)[] before) =>
        LabRules.Judge(Result((what, value)), km is { } far ? Km(far) : null, Thirty,
            [.. before.Select(b => new ResultBefore(Result((what, b.Value)), Km(b.Km)))]).Lines.Single();

    // By hand: 79 mg/kg in 10,000 km are 7.9 in a thousand, just under both limits; 80 are at both.
    [Theory]
    [InlineData(Analyte.Iron, 79, 10_000, LabReason.None, LookOutcome.CarryOn)]
    [InlineData(Analyte.Iron, 80, 10_001, LabReason.TooMuch, LookOutcome.Shorten)]
    [InlineData(Analyte.Iron, 160, 40_000, LabReason.TooMuch, LookOutcome.Specialist)]
    [InlineData(Analyte.Iron, 40, 5_000, LabReason.TooFast, LookOutcome.Shorten)]
    [InlineData(Analyte.Iron, 40, 2_500, LabReason.TooFast, LookOutcome.Specialist)]
    [InlineData(Analyte.Silicon, 26, 1_000, LabReason.TooMuch, LookOutcome.Shorten)]
    [InlineData(Analyte.Water, 0.3, 10_000, LabReason.TooMuch, LookOutcome.Specialist)]
    public void Limits_hold_in_all_and_by_the_distance(Analyte what, double value, double km, LabReason why, LookOutcome leads)
    {
        var line = One(what, (decimal)value, (decimal)km);
        Assert.Equal((why, leads), (line.Reason, line.Leads));
    }

    [Fact]
    public void Where_nobody_knows_the_distance_only_the_amount_is_judged()
    {
        Assert.Equal((LabReason.None, null), (One(Analyte.Iron, 79, null).Reason, One(Analyte.Iron, 79, null).PerThousand));
        Assert.Equal(LabReason.TooMuch, One(Analyte.Iron, 80, null).Reason);
        // Ninety kilometres tell nothing of a thousand.
        Assert.Null(One(Analyte.Iron, 5, 90).PerThousand);
    }

    // 2, 2.2 and 1.9 in 1,000 km before: the middle is 2, and 6 is three times that.
    [Fact]
    public void What_comes_three_times_as_fast_as_before_is_watched_though_it_is_little()
    {
        (decimal, decimal)[] before = [(20, 10_000), (22, 10_000), (19, 10_000)];
        Assert.Equal((LabReason.FasterThanBefore, LookOutcome.Shorten, 2m), One(Analyte.Iron, 60, 10_000, before) is var l
            ? (l.Reason, l.Leads, l.Before!.Value) : default);
        Assert.Equal(LabReason.None, One(Analyte.Iron, 59, 10_000, before).Reason);
        // Three times next to nothing is next to nothing.
        Assert.Equal(LabReason.None, One(Analyte.Iron, 6, 10_000, (2, 10_000)).Reason);
        // Of two the middle lies between them: 1 and 3.
        Assert.Equal(2m, One(Analyte.Iron, 20, 10_000, (10, 10_000), (30, 10_000)).Before);
    }

    // SAE J300: a 30 has 9.3 up to 12.5 mm²/s at 100 °C; a fifth below is 7.44.
    [Theory]
    [InlineData(9.3, LabReason.None, LookOutcome.CarryOn)]
    [InlineData(12.4, LabReason.None, LookOutcome.CarryOn)]
    [InlineData(9.2, LabReason.TooThin, LookOutcome.Shorten)]
    [InlineData(7.4, LabReason.TooThin, LookOutcome.Specialist)]
    [InlineData(12.5, LabReason.TooThick, LookOutcome.Shorten)]
    [InlineData(15.1, LabReason.TooThick, LookOutcome.Specialist)]
    public void An_oil_is_as_thick_as_its_grade(double value, LabReason why, LookOutcome leads)
    {
        var line = One(Analyte.Viscosity, (decimal)value);
        Assert.Equal((why, leads), (line.Reason, line.Leads));
        // A grade that nobody has a range for is not judged.
        Assert.Equal(LabReason.None, LabRules.Judge(Result((Analyte.Viscosity, (decimal)value)), null, ["ATF"], []).Lines[0].Reason);
    }

    [Fact]
    public void More_of_it_is_never_judged_milder_and_the_order_of_the_reports_before_does_not_matter() =>
        Gen.Select(Gen.Enum<Analyte>(), Gen.Int[0, 4000], Gen.Int[0, 400], Gen.Int[1, 400], Gen.Int[0, 300].Array[0, 5]).Sample(
            (what, tenths, more, hundredKm, before) =>
        {
            if (what == Analyte.Viscosity)
                return;
            var (value, km) = (tenths / 10m, hundredKm * 100m);
            (decimal, decimal)[] earlier = [.. before.Select(b => ((decimal)b, 10_000m))];
            var line = One(what, value, km, earlier);
            Assert.True(One(what, value + more / 10m, km, earlier).Leads >= line.Leads);
            Assert.Equal(line, One(what, value, km, [.. earlier.Reverse()]));
            // Worse never came of driving further on it.
            Assert.True(One(what, value, km + 5_000, earlier).Leads <= line.Leads);
        }, iter: 3000);

    [Fact]
    public void The_worst_of_the_values_is_what_follows()
    {
        var judged = LabRules.Judge(Result((Analyte.Iron, 20), (Analyte.Copper, 35), (Analyte.Water, 0.4m)), Km(10_000), Thirty, []);
        Assert.Equal([LookOutcome.CarryOn, LookOutcome.Shorten, LookOutcome.Specialist], judged.Lines.Select(l => l.Leads));
        Assert.Equal(LookOutcome.Specialist, judged.Leads);
    }

    [Fact]
    public void A_code_is_read_however_it_is_typed_and_a_slip_of_the_pen_is_found() =>
        Gen.Select(Gen.Int[1, 99_999], Gen.Int[1, 9], Gen.Int[0, 4], Gen.Int[1, 9]).Sample((card, number, place, by) =>
        {
            var code = SampleCode.Of(card, number);
            Assert.Equal(code, SampleCode.Read($"  {code.ToLowerInvariant()} "));
            // One digit of the card is another.
            var digits = $"{card}".ToCharArray();
            if (place < digits.Length)
            {
                digits[place] = (char)('0' + (digits[place] - '0' + by) % 10);
                Assert.Null(SampleCode.Read($"{new string(digits)}{code[code.IndexOf('-')..]}"));
            }
            // Two neighbours changed places.
            digits = $"{card}".ToCharArray();
            if (place + 1 < digits.Length && digits[place] != digits[place + 1])
            {
                (digits[place], digits[place + 1]) = (digits[place + 1], digits[place]);
                Assert.Null(SampleCode.Read($"{new string(digits)}{code[code.IndexOf('-')..]}"));
            }
        }, iter: 5000);

    [Theory]
    [InlineData("")]
    [InlineData(null)]
    [InlineData("1010")]
    [InlineData("-1M")]
    [InlineData("1010-M")]
    [InlineData("99999999999999999999999-1A")]
    [InlineData("1010-1M'; drop table sample")]
    public void What_is_no_code_is_none(string? text) => Assert.Null(SampleCode.Read(text));
}
