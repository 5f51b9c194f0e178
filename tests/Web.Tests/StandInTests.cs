using Anakyklos.Core.Due;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using Anakyklos.Desk.Files;
using Anakyklos.Devices;
using Anakyklos.Web.Drawing;
using CsCheck;

namespace Anakyklos.Web.Tests;

/// <summary>The supplier that stands in, the drawing of a life, and files as people write them.</summary>
public sealed class StandInTests
{
    private static Shelf Having(string number) => Shelf.Empty with { Parts = [new(number, "Part", 0, 0, "", [])] };

    private static readonly DateTimeOffset Monday = new(2026, 3, 9, 11, 59, 0, TimeSpan.Zero);

    [Theory]
    [InlineData(0, "2026-03-10")] // Monday before noon: Tuesday's boat
    [InlineData(1, "2026-03-13")] // after noon it misses that one
    [InlineData(24 * 60, "2026-03-13")] // Tuesday: Friday's
    [InlineData(3 * 24 * 60 + 1, "2026-03-17")] // Thursday afternoon misses Friday's
    public void The_boat_comes_on_Tuesdays_and_Fridays_and_takes_what_was_ordered_the_day_before(int minutes, string day) =>
        Assert.Equal(DateOnly.ParseExact(day, "yyyy-MM-dd"),
            new BoatSupplier().Arrives("SK-3312-S", Monday.AddMinutes(minutes), Having("SK-3312-S")));

    [Fact]
    public void An_order_always_comes_later_on_a_boat_day_and_what_nobody_has_never()
    {
        Gen.Select(Gen.String[Gen.Char.AlphaNumeric, 1, 9], Gen.Int[0, 600_000]).Sample((number, minutes) =>
        {
            var at = Monday.AddMinutes(minutes);
            var boat = new BoatSupplier().Arrives(number, at, Having(number))!.Value;
            Assert.True(boat.DayOfWeek is DayOfWeek.Tuesday or DayOfWeek.Friday);
            Assert.InRange(boat.DayNumber - DateOnly.FromDateTime(at.DateTime).DayNumber, 1, 10);
        });
        Assert.Null(new BoatSupplier().Arrives("X", Monday, Shelf.Empty));
    }

    private static UseMark Mark(int day, int km) =>
        new(Quantity<Distance>.Of(km, Distance.Kilometre), new DateOnly(2025, 1, 1).AddDays(day));

    [Fact]
    public void A_life_is_drawn_from_two_readings_on_and_stays_on_the_paper()
    {
        Assert.Null(LifeDrawing.Of([Mark(0, 100)], [], Mark(5, 100), null, [], Distance.Kilometre));
        Gen.Select(Gen.Int[1, 900], Gen.Int[0, 90_000], Gen.Int[0, 200], Gen.Int[1, 600]).Sample((days, km, rate, ahead) =>
        {
            var now = Mark(days, 10_000 + km);
            var use = new DailyUse(Quantity<Distance>.Of(rate, Distance.Kilometre), Quantity<Distance>.Of(rate / 2, Distance.Kilometre),
                Quantity<Distance>.Of(rate * 2, Distance.Kilometre), 3, 0, 0);
            var due = new DueDay(now.Day.AddDays(ahead), now.Day, null);
            var life = LifeDrawing.Of([now, Mark(0, 10_000)], [Mark(0, 10_000)], now, use, [("Oil", due)], Distance.Mile)!;
            foreach (var (x, y) in life.Services.Concat(life.Next)
                .Select(d => (double.Parse(d.X, System.Globalization.CultureInfo.InvariantCulture),
                double.Parse(d.Y, System.Globalization.CultureInfo.InvariantCulture))))
            {
                Assert.InRange(x, 59, 976);
                Assert.InRange(y, 39, 251);
            }
            Assert.All(life.Heights, h => Assert.InRange(double.Parse(h.X, System.Globalization.CultureInfo.InvariantCulture), 39, 251));
        });
    }

    [Theory]
    [InlineData("a,b\n1,2\n")]
    [InlineData("a;b\r\n1;2\r\n")]
    [InlineData("a\tb\n1\t2")]
    [InlineData("\uFEFFB,A\n\"2\",\" 1\"\n\n")]
    public void Files_are_read_as_spreadsheets_write_them(string text)
    {
        var (rows, errors) = CsvTable.Read(text, ["a", "b"], l => (l.Text("a"), l.Text("b")));
        Assert.Empty(errors);
        Assert.Equal(("1", "2"), rows.Single());
    }

    [Fact]
    public void What_is_written_is_read_back_whatever_stands_in_it() =>
        Gen.String[Gen.Char[" ,;\"'\nABCäß°·-="], 0, 12].Where(s => s.Trim() == s && !s.Contains('\n')).Array[1, 5].Sample(cells =>
        {
            var (rows, errors) = CsvTable.Read(CsvTable.Write(["n", "cell"], cells.Select((c, i) => new[] { $"{i}", c })), ["n", "cell"],
                l => l.Text("cell", false));
            Assert.Empty(errors);
            Assert.Equal(cells, rows);
        });
}
