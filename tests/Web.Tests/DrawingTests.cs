using System.Globalization;
using System.Text.RegularExpressions;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Languages;
using Anakyklos.Web.Pages;
using Anakyklos.Web.Wording;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Time.Testing;

namespace Anakyklos.Web.Tests;

public sealed partial class DrawingTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;

    public async ValueTask InitializeAsync() => _host = await WorkshopHost.Demo();

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private JobCard Card(long id) => _host.Services.GetRequiredService<CardStore>().Find(id)!;

    [Fact]
    public void A_signed_ring_is_closed_and_has_no_gap()
    {
        var ring = RingDrawing.Of(Card(1003));
        Assert.True(ring.IsSigned);
        Assert.Empty(ring.Dots);
        Assert.Equal("", ring.Notch);
        Assert.All(ring.Arcs, a => Assert.True(a.Done));
        Assert.Equal(360, ring.Arcs.Sum(a => Degrees(a.Path)), 0.5);
    }

    [Fact]
    public void An_open_ring_shows_what_is_open_and_how_far_it_is()
    {
        var card = Card(1058);
        var ring = RingDrawing.Of(card);
        Assert.Equal(card.Open.Count, ring.Open);
        Assert.InRange(ring.Dots.Count, 1, card.Open.Count);
        Assert.NotEqual("", ring.Notch);
        var done = card.Steps.Count(s => card.State(s.Id).Status == StepStatus.Done);
        Assert.InRange(ring.Arcs.Where(a => a.Done).Sum(a => Degrees(a.Path)), 360.0 * done / card.Steps.Count - 12,
            360.0 * done / card.Steps.Count);
        Assert.Equal($"{card.Open.Count} still open", ring.Words);
    }

    // The angle between the two ends of an arc as it is drawn, clockwise from the first.
    private static double Degrees(string path)
    {
        var n = Numbers().Matches(path).Select(m => double.Parse(m.Value, CultureInfo.InvariantCulture)).ToArray();
        static double Angle(double x, double y) => Math.Atan2(y - 120, x - 120) * 180 / Math.PI;
        return ((Angle(n[7], n[8]) - Angle(n[0], n[1])) % 360 + 360) % 360;
    }

    [GeneratedRegex(@"-?\d+(?:\.\d+)?")]
    private static partial Regex Numbers();

    [Theory]
    [InlineData(-5, "00:00")]
    [InlineData(59, "00:59")]
    [InlineData(252, "04:12")]
    [InlineData(3725, "1:02:05")]
    public void Waits_read_like_a_clock(int seconds, string text) => Assert.Equal(text, LiftWords.Clock(TimeSpan.FromSeconds(seconds)));

    [Fact]
    public void Every_event_of_the_demo_has_a_line_of_its_own()
    {
        foreach (var id in Enumerable.Range(1001, 58))
        {
            var card = Card(id);
            Assert.All(card.History, h => Assert.False(string.IsNullOrWhiteSpace(CardLine.Of(card, h)), h.Event.ToString()));
        }
        var washer = Card(1026).History.Single(h => h.Event is DeviationTaken);
        Assert.Equal("Washer for the drain plug used again, the first time (Washer box was empty, boat came a day late)",
            CardLine.Of(Card(1026), washer));
    }

    [Fact]
    public void The_demos_history_tells_of_the_washer_and_of_oil_that_creeps_up()
    {
        Assert.Equal(1, Card(1037).Opened.SealsUsedAgain["drain-washer"]);
        Assert.True(Card(1048).Fluid("engine-oil").Poured > Card(1009).Fluid("engine-oil").Poured);
        Assert.All(Enumerable.Range(1001, 55), id => Assert.NotNull(Card(id).Signature));
    }

    [Fact]
    public void A_hurried_clock_runs_as_many_times_as_fast_from_the_real_start()
    {
        var real = new FakeTimeProvider(new DateTimeOffset(2026, 3, 9, 9, 0, 0, TimeSpan.Zero));
        var clock = new WorkshopClock(new HurriedClock(real, 60));
        var start = clock.Now;
        real.Advance(TimeSpan.FromSeconds(15));
        Assert.Equal(TimeSpan.FromMinutes(15), clock.Now - start);
        Assert.Equal(60, clock.Speed);
    }

    [Fact]
    public void A_clock_that_is_started_once_more_is_never_before_what_was_lived_through()
    {
        var real = new FakeTimeProvider(new DateTimeOffset(2026, 3, 9, 9, 0, 0, TimeSpan.Zero));
        var clock = new HurriedClock(real, 60);
        var last = real.GetUtcNow().AddHours(3);
        clock.NotBefore(last);
        Assert.Equal(last, clock.GetUtcNow());
        clock.NotBefore(last.AddHours(-1));
        real.Advance(TimeSpan.FromSeconds(10));
        Assert.Equal(last.AddMinutes(10), clock.GetUtcNow());
        // What is noted last on any card is what a demo that goes on asks for.
        Assert.Equal(Enumerable.Range(1001, 58).Max(id => Card(id).History[^1].At),
            _host.Services.GetRequiredService<CardStore>().LastAt());
    }

    [Theory]
    [InlineData("en")]
    [InlineData("de")]
    public void No_words_of_a_map_lie_on_others_or_on_what_is_pointed_at(string language)
    {
        var say = Speaker(language);
        var (drawn, crowded) = (0, new List<string>());
        foreach (var (sheet, map, here) in Drawn())
        {
            var whole = new MapDrawing(map, here?.For ?? default(ThingId), near: false, say);
            var words = (here is null ? whole.Names.Blocks : whole.Names.Blocks.Append(whole.Names.Here)).Select(w => w!.Value).ToArray();
            crowded.AddRange(Crowded(words, whole, 4).Select(w => $"{sheet}, {map.Id}, {here?.For}: {w}"));
            crowded.AddRange(words.Where(w => w.X < w.Half - 2 || w.X > 102 - w.Half)
                .Select(w => $"{sheet}, {map.Id}, {here?.For}: {say(here?.Label ?? "")} is wider than the drawing"));
            drawn++;
        }
        Assert.True(drawn > 50, $"only {drawn} drawn");
        Assert.True(crowded.Count == 0, string.Join("\n", crowded));
    }

    [Theory]
    [InlineData("en")]
    [InlineData("de")]
    public void Beside_a_step_the_map_comes_near_to_where_the_hands_are(string language)
    {
        var say = Speaker(language);
        var (near, crowded) = (0, new List<string>());
        foreach (var (sheet, map, here) in Drawn().Where(d => d.Here is not null))
        {
            var drawing = new MapDrawing(map, here!.For, near: true, say);
            if (!drawing.IsNear)
                continue;
            near++;
            var (part, at) = (drawing.Window, $"{sheet}, {map.Id}, {here.For}");
            Assert.True(part.Width <= 84 && part.Width < MapWindow.Whole(map).Width * .81, at);
            Assert.All(drawing.Alikes.Append(here), p => Assert.True(p.X > part.X + 6 && p.X < part.Right - 6
                && p.Y > part.Y + 6 && p.Y < part.Foot - 6, $"{at}: {p.Label} is cut off"));
            var words = drawing.Names.Blocks.OfType<MapWords>().ToArray();
            Assert.All(words, w => Assert.True(w.X - w.Half >= part.X && w.X + w.Half <= part.Right && w.Y <= part.Foot, at));
            crowded.AddRange(Crowded(words, drawing, 4 * drawing.Scale).Select(w => $"{at}: {w}"));
            var lines = drawing.HereLines.Concat(drawing.AlikeLines).ToList();
            Assert.All(lines, l => Assert.True(l.Length * 2 * MapNames.Letter * drawing.Scale <= part.Width, $"{at}: {l}"));
            Assert.All(drawing.HereLines, l => Assert.True(l.Length * 2 * 1.1 * MapNames.Bold * drawing.Scale <= part.Width, $"{at}: {l}"));
            Assert.Equal(string.Join(" ", drawing.Alikes.Select(a => a.Label).Prepend(here.Label).Select(say)),
                string.Join(" ", lines).Replace("× ", "", StringComparison.Ordinal));
        }
        Assert.True(near > 50, $"only {near} from near");
        Assert.True(crowded.Count == 0, string.Join("\n", crowded));
    }

    [Fact]
    public void Where_nothing_is_pointed_at_or_all_of_it_is_needed_the_map_stays_whole()
    {
        var map = new VehicleMap("below", "Underneath", MapOutline.Car, Facing.Up, [],
        [
            new("plug", 10, 10, "drain plug", default, Facing.None), new(default, 90, 110, "not this", "plug", Facing.None),
        ], []);
        Assert.False(new MapDrawing(map, default, near: true, s => s).IsNear);
        Assert.False(new MapDrawing(map, "plug", near: true, s => s).IsNear);
        Assert.False(new MapDrawing(map, "cap", near: true, s => s).IsNear);
        var belt = new BeltRoute("belt", [new("Crank", 20, 20, 5, false), new("Pump", 60, 60, 5, false)]);
        Assert.False(new MapDrawing(map with { Points = [map.Points[0]], Belts = [belt] }, "plug", near: true, s => s).IsNear);
        var alone = new MapDrawing(map with { Points = [map.Points[0]] }, "plug", near: true, s => s);
        Assert.True(alone.IsNear);
        // In a corner the part stops at the edge of the drawing: 2 beyond its 100 by 120.
        Assert.Equal((-2, -2), (alone.Window.X, alone.Window.Y));
        Assert.False(new MapDrawing(map with { Points = [map.Points[0]] }, "plug", near: false, s => s).IsNear);
    }

    private Func<string, string> Speaker(string language)
    {
        var words = _host.Services.GetRequiredService<WorkshopWords>();
        return words.Book(CultureInfo.GetCultureInfo(language)) is { } book ? text => book.Say(text).Text : text => text;
    }

    private IEnumerable<(string Sheet, VehicleMap Map, MapPoint? Here)> Drawn() =>
        from sheet in _host.Services.GetRequiredService<SheetStore>().Newest()
        from map in sheet.Maps.Values
        from here in map.Points.Where(p => p.NotFor.IsEmpty).DistinctBy(p => p.For).Append(null)
        select (sheet.Id.Text, map, here);

    private static IEnumerable<MapWords> Crowded(MapWords[] words, MapDrawing drawing, double mark)
    {
        var points = (drawing.Here is null ? drawing.Alikes : drawing.Alikes.Append(drawing.Here))
            .Select(p => new MapWords(p.X, p.Y + mark, mark, 2 * mark)).ToArray();
        return words.Where((w, i) => words.Skip(i + 1).Any(o => o.Meets(w)) || points.Any(p => p.Meets(w)));
    }
}
