using System.Globalization;
using Anakyklos.Core.Ordering;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Sheets;
using Anakyklos.Storage;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Pages;
using Microsoft.Extensions.DependencyInjection;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Tests;

/// <summary>The drawing of a plan against the plan itself: every step is there, in its lane, at its time, and nothing lies over anything
/// else.</summary>
public sealed class PlanDrawingTests : IAsyncLifetime
{
    private WorkshopHost _host = null!;

    public async ValueTask InitializeAsync() => _host = await WorkshopHost.WithModels();

    public async ValueTask DisposeAsync() => await _host.DisposeAsync();

    private IReadOnlyList<ModelSheet> Sheets => _host.Services.GetRequiredService<SheetStore>().Newest();

    private static double D(string text) => double.Parse(text, CultureInfo.InvariantCulture);

    private IEnumerable<(ModelSheet Sheet, CardPlan Plan)> Plans() =>
        Sheets.SelectMany(s => s.Jobs.Keys.Select(j => (s, CardPlanner.Plan(s, [j]))));

    [Fact]
    public void Every_step_is_a_block_in_its_lane_and_blocks_of_one_person_do_not_overlap()
    {
        foreach (var (_, plan) in Plans())
        {
            var drawing = PlanDrawing.Of(plan);
            Assert.Equal(plan.Rows.Select(r => r.Step.Id), drawing.Blocks.Select(b => b.Step));
            foreach (var (a, b) in drawing.Blocks.OrderBy(b => D(b.X)).Zip(drawing.Blocks.OrderBy(b => D(b.X)).Skip(1)))
                Assert.True(D(a.X) + D(a.Width) <= D(b.X) + 2.6, $"{a.Title} over {b.Title}");
            foreach (var lane in plan.Rows.GroupBy(r => r.Step.Place))
                Assert.Single(lane.Select(r => drawing.Blocks.First(b => b.Step == r.Step.Id).Y).Distinct());
        }
    }

    [Fact]
    public void Words_are_drawn_only_where_they_fit()
    {
        foreach (var (_, plan) in Plans())
            foreach (var block in PlanDrawing.Of(plan).Blocks)
                Assert.All(block.Words, w => Assert.True(w.Length * 6.5 <= D(block.Width), $"“{w}” in {block.Width}"));
    }

    [Fact]
    public void Waits_lie_apart_and_begin_where_their_step_ends()
    {
        foreach (var (_, plan) in Plans())
        {
            var drawing = PlanDrawing.Of(plan);
            foreach (var wait in plan.Waits)
            {
                var block = drawing.Blocks.First(b => b.Step == wait.Step);
                Assert.Contains(drawing.Waits, w => w.For == wait.For && Math.Abs(D(w.X) - (D(block.X) + D(block.Width) + 1.5)) < 1.5);
            }
            foreach (var row in drawing.Waits.GroupBy(w => w.Y))
                foreach (var (a, b) in row.OrderBy(w => D(w.X)).Zip(row.OrderBy(w => D(w.X)).Skip(1)))
                    Assert.True(D(a.X) + D(a.Width) <= D(b.X), $"{a.For} over {b.For}");
        }
    }

    [Fact]
    public void The_lift_is_drawn_where_there_is_one()
    {
        foreach (var (sheet, plan) in Plans())
        {
            var path = PlanDrawing.Of(plan).LiftPath;
            Assert.Equal(sheet.Stands == Stand.Lift, path.Length > 0);
            if (path.Length > 0)
                Assert.Equal(plan.Ordered.Cost.LiftMoves, path.Count(c => c == 'L'));
        }
    }

    [Fact]
    public void A_drawing_from_the_middle_begins_with_the_lift_where_it_is()
    {
        var plan = CardPlanner.Plan(Sheets.First(s => s.Id == "hespin-16"), ["rear-axle-oil"]);
        Assert.NotEqual(PlanDrawing.Of(plan, liftUp: true).LiftPath, PlanDrawing.Of(plan).LiftPath);
    }

    [Fact]
    public void Intervals_are_said_with_every_measure()
    {
        var brae = Sheets.First(s => s.Id == "ostler-brae-28d");
        var said = LiftWords.Every(brae.Intervals["engine-oil"]).Replace('\u202f', ' ');
        Assert.Equal("every 15 000 km or 12 months or 400 h, harsh 7 500 km or 6 months or 200 h", said);
        Assert.Equal("every 24 months", LiftWords.Every(brae.Intervals["brake-fluid"]));
        Assert.EndsWith("every second time", LiftWords.Every(brae.Intervals["axle-oils"]));
    }

    [Fact]
    public void A_due_date_is_said_with_what_counts()
    {
        var day = new DateOnly(2027, 3, 12);
        var km = Core.Quantities.Quantity<Core.Quantities.Distance>.Of(90_000, Core.Quantities.Distance.Kilometre);
        Assert.Equal("12 Mar 2027 or at 90 000 km", LiftWords.Due(new(km, day), Core.Quantities.Distance.Kilometre).Replace('\u202f', ' '));
        Assert.Equal("12 Mar 2027", LiftWords.Due(new(null, day), Core.Quantities.Distance.Kilometre));
        Assert.Equal("at 90 000 km", LiftWords.Due(new(km, null), Core.Quantities.Distance.Kilometre).Replace('\u202f', ' '));
        Assert.Equal("by running hours", LiftWords.Due(new(null, null), Core.Quantities.Distance.Kilometre));
    }

    [Fact]
    public void What_an_order_costs_is_said_in_words()
    {
        Assert.Equal(": 12 min later", LiftWords.Later(TimeSpan.FromMinutes(12)));
        Assert.Equal(": 3 min earlier", LiftWords.Later(TimeSpan.FromMinutes(-3)));
        Assert.Equal("", LiftWords.Later(TimeSpan.Zero));
        Assert.Equal("2:05", LiftWords.Span(TimeSpan.FromMinutes(125)));
    }
}
