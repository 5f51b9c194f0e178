using Anakyklos.Core.Planning;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Drawing;

/// <summary>A plan as shapes: a lane for each place, waits as spans below, and the height of the lift.</summary>
public sealed class PlanDrawing
{
    private const double Left = 96, Wide = 1140, LaneHeight = 66, BlockHeight = 36, Top = 30, WaitHeight = 22;

    private static readonly (Place Place, string Name)[] Order =
        [(Place.Top, "Above"), (Place.Side, "Side"), (Place.Below, "Below"), (Place.Cab, "Cab")];

    /// <summary>A lane with the middle of its height.</summary>
    public sealed record Lane(string Name, string Y, string Line);

    /// <summary>A step as a block; words only where they fit.</summary>
    public sealed record Block(StepId Step, string Title, string X, string Y, string Width, string Height, IReadOnlyList<string> Words,
        string WordX, string WordY, int Person, bool MovesLift);

    /// <summary>Steps of one job that follow each other in one place, with the job's name below.</summary>
    public sealed record Run(string Words, string X, string Width, string Y, string WordX);

    /// <summary>A wait as a span; its words stand to the right, or to the left where the drawing ends.</summary>
    public sealed record Wait(string For, string X, string Y, string Width, string WordX, string WordY, bool Ends);

    /// <summary>A line through all lanes at a time.</summary>
    public sealed record Tick(string Time, string X);

    private PlanDrawing() { }

    public IReadOnlyList<Lane> Lanes { get; private init; } = [];
    public IReadOnlyList<Block> Blocks { get; private init; } = [];
    public IReadOnlyList<Run> Runs { get; private init; } = [];
    public IReadOnlyList<Wait> Waits { get; private init; } = [];
    public IReadOnlyList<Tick> Ticks { get; private init; } = [];
    public string LiftPath { get; private init; } = "";
    public string LiftY { get; private init; } = "";
    public string WaitsY { get; private init; } = "";
    public string Height { get; private init; } = "";
    public string TickEnd { get; private init; } = "";

    /// <summary>Draws a plan.</summary>
    /// <param name="plan">The plan.</param>
    /// <param name="liftUp">Where the lift is at the beginning.</param>
    public static PlanDrawing Of(CardPlan plan, bool liftUp = false)
    {
        var minutes = Math.Max(10, Math.Max(plan.Total.TotalMinutes, plan.Waits.Select(w => w.Ends.TotalMinutes).DefaultIfEmpty(0).Max()));
        var scale = Wide / minutes;
        double X(TimeSpan at) => Left + at.TotalMinutes * scale;
        var lanes = Order.Where(o => plan.Rows.Any(r => r.Step.Place == o.Place)).ToList();
        double LaneTop(Place p) => Top + lanes.FindIndex(l => l.Place == p) * LaneHeight;

        var blocks = plan.Rows.Select(r =>
        {
            var half = plan.People == 2 && r.Step.People == 1 ? BlockHeight / 2 : BlockHeight;
            var y = LaneTop(r.Step.Place) + 6 + (plan.People == 2 && r.Person == 1 && r.Step.People == 1 ? half : 0);
            var (x, width) = (X(r.Begins), Math.Max(2.5, X(r.Ends) - X(r.Begins) - 1.5));
            var words = Words(plan, r.Step, width, half);
            return new Block(r.Step.Id, r.Step.Title, Svg.N(x), Svg.N(y), Svg.N(width), Svg.N(half - (plan.People == 2 ? 2 : 0)), words,
                Svg.N(x + 5),
                Svg.N(y + half / 2 + 4 - (words.Count - 1) * 7), r.Person, r.Step.MovesLift);
        }).ToList();

        var waitsTop = Top + lanes.Count * LaneHeight + 12;
        var ends = new List<double>();
        var waits = new List<Wait>();
        foreach (var w in plan.Waits.OrderBy(w => w.Begins).Where(w => w.Ends > w.Begins))
        {
            var (from, to) = (X(w.Begins), X(w.Ends));
            var wordy = 8.0 + w.For.Length * 7.2;
            var flip = to + wordy > Left + Wide;
            var begin = flip ? from - wordy : from;
            var row = ends.FindIndex(e => e <= begin);
            if (row < 0)
            {
                row = ends.Count;
                ends.Add(0);
            }
            ends[row] = flip ? to + 4 : to + wordy;
            var y = waitsTop + row * WaitHeight;
            waits.Add(new(w.For, Svg.N(from), Svg.N(y), Svg.N(to - from), Svg.N(flip ? from - 6 : to + 6), Svg.N(y + 12), flip));
        }
        var liftTop = waitsTop + Math.Max(1, ends.Count) * WaitHeight + 16;
        var hasLift = plan.Work.Sheet.Stands == Stand.Lift;
        var each = new[] { 5, 10, 15, 30, 60 }.First(m => minutes / m <= 16 || m == 60);
        return new()
        {
            Lanes = [.. lanes.Select(l => new Lane(l.Name, Svg.N(LaneTop(l.Place) + 6 + BlockHeight / 2 + 6),
                Svg.N(LaneTop(l.Place) + LaneHeight)))],
            Blocks = blocks,
            Runs = [.. RunsOf(plan, X, LaneTop)],
            Waits = waits,
            Ticks = [.. Enumerable.Range(0, (int)(minutes / each) + 1).Select(i => TimeSpan.FromMinutes(i * each))
                .Select(t => new Tick($"{(int)t.TotalHours}:{t.Minutes:00}", Svg.N(X(t))))],
            WaitsY = Svg.N(waitsTop + 12),
            LiftPath = hasLift ? Lift(plan, X, liftTop, liftUp) : "",
            LiftY = Svg.N(liftTop + 22),
            Height = Svg.N(liftTop + (hasLift ? 46 : 0)),
            TickEnd = Svg.N(liftTop + (hasLift ? 36 : -6)),
        };
    }

    private static IEnumerable<Run> RunsOf(CardPlan plan, Func<TimeSpan, double> x, Func<Place, double> top)
    {
        static string Job(PlannedStep r) => r.Step.MovesLift ? "" : r.Step.Jobs.Count == 1 ? r.Step.Jobs[0].Text : "";
        var rows = plan.Rows.ToList();
        for (var i = 0; i < rows.Count;)
        {
            var from = i;
            while (i < rows.Count && Job(rows[i]) == Job(rows[from]) && rows[i].Step.Place == rows[from].Step.Place)
                i++;
            var (job, left, width) = (Job(rows[from]), x(rows[from].Begins), x(rows[from..i].Max(r => r.Ends)) - x(rows[from].Begins));
            if (job.Length == 0)
                continue;
            var name = plan.Work.Sheet.Jobs[job].Name.ToLowerInvariant();
            var words = name.Length * 6.9 <= width ? name : name.Split([' ', ',']) is [var first, ..] && first.Length * 6.9 <= width ? first
                : "";
            if (words.Length > 0)
                yield return new(words, Svg.N(left + 1), Svg.N(width - 3), Svg.N(top(rows[from].Step.Place) + 6 + BlockHeight + 4),
                    Svg.N(left + width / 2));
        }
    }

    private static string Lift(CardPlan plan, Func<TimeSpan, double> x, double top, bool up)
    {
        double Y(bool raised) => raised ? top + 4 : top + 32;
        var path = $"M{Svg.N(Left)} {Svg.N(Y(up))}";
        foreach (var move in plan.Rows.Where(r => r.Step.Traits.Lift is LiftMove.Raises or LiftMove.Lowers))
        {
            path += $"H{Svg.N(x(move.Begins))}L{Svg.N(x(move.Ends))} {Svg.N(Y(move.Step.Traits.Lift == LiftMove.Raises))}";
            up = move.Step.Traits.Lift == LiftMove.Raises;
        }
        return $"{path}H{Svg.N(x(plan.Total))}";
    }

    private static IReadOnlyList<string> Words(CardPlan plan, SheetStep step, double width, double height)
    {
        var sheet = plan.Work.Sheet;
        var name = step.MovesLift ? step.Traits.Lift == LiftMove.Raises ? "up" : step.Traits.Lift == LiftMove.Lowers ? "down" : ""
            : sheet.Access.GetValueOrDefault(step.What)?.Name ?? sheet.Fasteners.GetValueOrDefault(step.What)?.Name
                ?? sheet.Fluids.GetValueOrDefault(step.What)?.Name
            ?? sheet.Parts.GetValueOrDefault(step.What)?.Name ?? step.Title;
        var verb = step.Traits switch { { Fills: true } => "fill ", { Engine: EngineUse.Warms } => "warm ", { LetsOut: true } => "drain ",
            _ => "" };
        var words = (verb + name.ToLowerInvariant()).Replace(" drain plug", "").Replace(" fill plug", "")
            .Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var lines = new List<string>();
        foreach (var word in words)
        {
            if (lines.Count > 0 && (lines[^1].Length + 1 + word.Length) * 7.0 <= width - 8)
                lines[^1] += " " + word;
            else
                lines.Add(word);
        }
        return lines.Count * 14 <= height && lines.All(l => l.Length * 7.0 <= width - 8) ? lines : [];
    }
}
