using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Practice;

namespace Anakyklos.Web.Drawing;

/// <summary>The order of a run against the best order: two rows of steps in time, with lines between those that stood elsewhere.</summary>
public sealed class OrderDrawing
{
    /// <summary>Width of the drawing.</summary>
    public const double Width = 1180;

    private const double Edge = 20;

    /// <summary>A step in its row.</summary>
    /// <param name="Step">The step.</param>
    /// <param name="X">Where it begins.</param>
    /// <param name="Wide">How wide it is.</param>
    /// <param name="Strayed">Whether it stands elsewhere than in the other row.</param>
    public sealed record Block(SheetStep Step, double X, double Wide, bool Strayed);

    /// <summary>A stretch of a row in one place.</summary>
    /// <param name="Place">The place.</param>
    /// <param name="X">Where it begins.</param>
    /// <param name="Wide">How wide it is.</param>
    public sealed record Stay(string Place, double X, double Wide);

    /// <summary>Something that happened, above the row.</summary>
    /// <param name="X">Where.</param>
    /// <param name="Mark">"harm", "gate" or "claim".</param>
    /// <param name="Says">What.</param>
    public sealed record Event(double X, string Mark, string Says);

    private OrderDrawing()
    {
    }

    /// <summary>The steps as they were done.</summary>
    public IReadOnlyList<Block> Done { get; private init; } = [];

    /// <summary>The steps in their best order.</summary>
    public IReadOnlyList<Block> Best { get; private init; } = [];

    /// <summary>Where the work was, as it was done.</summary>
    public IReadOnlyList<Stay> DoneAt { get; private init; } = [];

    /// <summary>Where the work would be.</summary>
    public IReadOnlyList<Stay> BestAt { get; private init; } = [];

    /// <summary>Harms, gates and what was told and not so.</summary>
    public IReadOnlyList<Event> Events { get; private init; } = [];

    /// <summary>Minutes at which a tick stands, and where.</summary>
    public IReadOnlyList<(int Minutes, double X)> Ticks { get; private init; } = [];

    /// <summary>How often somebody went to another place, as it was done and at best.</summary>
    public (int Done, int Best) Walks => (DoneAt.Count - 1, BestAt.Count - 1);

    /// <summary>Draws a run.</summary>
    /// <param name="run">The run.</param>
    /// <param name="back">The look back on it.</param>
    public static OrderDrawing Of(PracticeRun run, Debrief back)
    {
        var begun = run.Card.History[0].At;
        var best = run.Start.Card.PlanFrom(begun).Rows;
        var ends = new List<(SheetStep Step, TimeSpan From, TimeSpan To)>();
        var last = TimeSpan.Zero;
        foreach (var told in run.Log.OfType<CardTold>())
            foreach (var step in (told.Said.Event.Frozen?.Effects ?? []).OfType<StepEnds>().Select(e => run.Card.Step(e.Step))
                .OfType<SheetStep>().Where(s => ends.TrueForAll(e => e.Step.Id != s.Id)))
            {
                ends.Add((step, last, told.At - begun));
                last = told.At - begun;
            }
        var most = Math.Max(Math.Max(back.Took.TotalMinutes, best.Count > 0 ? best.Max(r => r.Ends).TotalMinutes : 0), 1);
        double X(TimeSpan at) => Edge + at.TotalMinutes / most * (Width - 2 * Edge);
        var kept = Kept([.. ends.Select(e => e.Step.Id)], [.. best.Select(r => r.Step.Id)]);
        List<Block> done = [.. ends.Select(e => new Block(e.Step, X(e.From), X(e.To) - X(e.From), !kept.Contains(e.Step.Id)))];
        List<Block> planned = [.. best.Select(r => new Block(r.Step, X(r.Begins), X(r.Ends) - X(r.Begins),
            ends.Exists(e => e.Step.Id == r.Step.Id) && !kept.Contains(r.Step.Id)))];
        var tick = most switch
        {
            > 240 => 60,
            > 90 => 30,
            > 30 => 10,
            _ => 5,
        };
        return new()
        {
            Done = done,
            Best = planned,
            DoneAt = Stays(done),
            BestAt = Stays(planned),
            Events = [.. back.Harms.Select(h => new Event(X(h.At - begun), "harm", $"{h.Harm.What}: {h.Harm.Says}")),
                .. back.Stopped.Select(s => new Event(X(s.At - begun), "gate", s.Reasons[0].What)),
                .. back.Claims.Select(c => new Event(X(c.At - begun), "claim", c.Says))],
            Ticks = [.. Enumerable.Range(0, (int)(most / tick) + 1).Select(n => (n * tick, X(TimeSpan.FromMinutes(n * tick))))],
        };
    }

    private static List<Stay> Stays(List<Block> row)
    {
        var stays = new List<Stay>();
        foreach (var block in row.OrderBy(b => b.X))
        {
            var place = PracticeView.At(block.Step.Place);
            if (stays.Count > 0 && stays[^1].Place == place)
                stays[^1] = stays[^1] with { Wide = Math.Max(stays[^1].Wide, block.X + block.Wide - stays[^1].X) };
            else
                stays.Add(new(place, block.X, block.Wide));
        }
        return stays;
    }

    // The most steps that follow each other in both rows; the others strayed.
    private static HashSet<StepId> Kept(IReadOnlyList<StepId> done, IReadOnlyList<StepId> best)
    {
        var longest = new int[done.Count + 1, best.Count + 1];
        for (var i = done.Count - 1; i >= 0; i--)
            for (var j = best.Count - 1; j >= 0; j--)
                longest[i, j] = done[i] == best[j] ? longest[i + 1, j + 1] + 1 : Math.Max(longest[i + 1, j], longest[i, j + 1]);
        var kept = new HashSet<StepId>();
        for (int i = 0, j = 0; i < done.Count && j < best.Count;)
            if (done[i] == best[j])
            {
                kept.Add(done[i++]);
                j++;
            }
            else if (longest[i + 1, j] >= longest[i, j + 1])
                i++;
            else
                j++;
        return kept;
    }
}
