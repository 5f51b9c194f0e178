using Anakyklos.Core.Cards;
using Anakyklos.Core.Due;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Resetting;

/// <summary>How far and for how long a vehicle may go until what its display counts is due: the shortest of owner's, depot's and maker's
/// rules for the jobs that put the indicator out.</summary>
/// <param name="Distance">How far, not rounded; null where no rule counts it.</param>
/// <param name="DistanceOf">Whose rule that is.</param>
/// <param name="Months">How many months; null where no rule counts them.</param>
/// <param name="MonthsOf">Whose rule that is.</param>
public sealed record DueAfterReset(Quantity<Distance>? Distance, RuleOf DistanceOf, int? Months, RuleOf MonthsOf)
{
    /// <summary>What holds on a card.</summary>
    /// <param name="card">The card, with the rules it was opened with and what was seen on it.</param>
    /// <param name="reset">A reset of its sheet.</param>
    public static DueAfterReset Of(JobCard card, ResetId reset)
    {
        var next = new DueAfterReset(null, RuleOf.Maker, null, RuleOf.Maker);
        foreach (var item in ServiceItem.Of(card.Sheet, card.Opened.Use, card.Opened.OwnRules ?? [])
            .Where(i => card.Sheet.Jobs[i.Job].Resets.Contains(reset)))
        {
            var (every, everyOf, months, monthsOf) = item.Shortest(card.JobsShortened.Contains(item.Job));
            if (every is not null && (next.Distance is null || every < next.Distance))
                next = next with { Distance = every, DistanceOf = everyOf };
            if (months is not null && (next.Months is null || months < next.Months))
                next = next with { Months = months, MonthsOf = monthsOf };
        }
        return next;
    }

    /// <summary>The distance that is typed in: in the display's unit and steps, rounded down, never more than it takes and one step at
    /// least.</summary>
    /// <param name="typing">How the display takes it.</param>
    /// <returns>Null where no rule counts a distance.</returns>
    public Typed<Distance>? ToType(ResetTyping typing)
    {
        if (Distance is not { } far)
            return null;
        var down = (far < typing.Most.Value ? far : typing.Most.Value).DownTo(typing.Step.Value);
        return new(down < typing.Step.Value ? typing.Step.Value : down, typing.Step.Unit);
    }
}

/// <summary>How a reset stands at one of its moves.</summary>
/// <param name="Ritual">What the sheet says.</param>
/// <param name="Move">The move; of a card from before moves were kept with it, with no more than its words.</param>
/// <param name="Number">Which it is, from 1.</param>
/// <param name="HeldUntil">Until when it is held; null when it is not.</param>
/// <param name="Failed">How often it failed since it was last looked into.</param>
/// <param name="Expected">What of the next service is to be typed in or shown here; null where it is not known or not asked.</param>
public sealed record Resetting(ResetRitual Ritual, ResetMove Move, int Number, DateTimeOffset? HeldUntil, int Failed, ResetNext? Expected)
{
    /// <summary>Whether it failed as often as it may: somebody looks why first.</summary>
    public bool WantsLook => Failed >= Ritual.Fails;

    /// <summary>What of the next service is typed in or shown here.</summary>
    public NextService Tells => Move.Types != NextService.None ? Move.Types : Move.Shows;

    /// <summary>How it stands.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A move of a reset.</param>
    public static Resetting Of(JobCard card, SheetStep step)
    {
        var ritual = card.Sheet.Resets[step.What];
        var moves = MovesOf(card, step);
        var move = step.Spec as ResetMove ?? new(step.Title, step.Hold, step.Expect);
        var (failed, typed) = (0, new ResetNext(null, null));
        foreach (var (_, happened) in card.HappenedAt(s => s.Traits.PutsOut && s.What == step.What))
            (failed, typed) = happened switch
            {
                ResetFailed => (failed + 1, typed),
                ResetLookedInto => (0, typed),
                ResetShown e => (failed, new(e.Distance ?? typed.Distance, e.Months ?? typed.Months)),
                _ => (failed, typed),
            };
        return new(ritual, move, moves.FindIndex(m => m.Id == step.Id) + 1, card.Waits.FirstOrDefault(w => w.Id == step.Id)?.Until,
            failed, ExpectedAt(card, step, ritual, move, typed));
    }

    /// <summary>The moves of the reset that a step belongs to, in order.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">One of them.</param>
    public static List<SheetStep> MovesOf(JobCard card, SheetStep step) =>
        [.. card.Steps.Where(s => s.Traits.PutsOut && s.What == step.What)];

    // What is typed in is worked out; what is shown then is what was typed, or what the display counts from by itself.
    private static ResetNext? ExpectedAt(JobCard card, SheetStep step, ResetRitual ritual, ResetMove move, ResetNext typed)
    {
        var due = DueAfterReset.Of(card, step.What);
        return (move.Types, move.Shows) switch
        {
            (NextService.Distance, _) => due.ToType(ritual.Types!) is { } far ? new(far, null) : null,
            (NextService.Months, _) => due.Months is { } months ? new(null, months) : null,
            (_, NextService.Distance) => (typed.Distance ?? ritual.Next?.Distance) is { } far ? new(far, null) : null,
            (_, NextService.Months) => (typed.Months ?? ritual.Next?.Months) is { } months ? new(null, months) : null,
            _ => null,
        };
    }
}
