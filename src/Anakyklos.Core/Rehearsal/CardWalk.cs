using Anakyklos.Core.Cards;
using Anakyklos.Core.Composing;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Planning;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Rehearsal;

/// <summary>Works a card through from its opening to its signature by the usual press alone, and says where that is refused.</summary>
public static class CardWalk
{
    private static readonly Person Hand = new("walk", "The one who walks", Role.Technician);

    private static readonly DateTimeOffset Morning = new(2026, 1, 5, 8, 0, 0, TimeSpan.Zero);

    /// <summary>A new card in a walk's world: nothing known of the vehicle before.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="jobs">The jobs.</param>
    /// <param name="steps">The steps in their order.</param>
    /// <param name="schools">How the workshop works; null for the usual.</param>
    /// <returns>A card that has been opened and nothing more.</returns>
    public static JobCard Open(ModelSheet sheet, IReadOnlyList<JobId> jobs, IReadOnlyList<SheetStep> steps, WorkSchools? schools = null) =>
        JobCard.Replay(sheet, [new(1, Morning, Hand, Guid.Empty,
        new CardOpened("WALK", sheet.Id, sheet.Revision, jobs, steps, Quantity<Distance>.Of(10_000, Distance.Kilometre), Use.Normal, null,
            new Dictionary<PartId, int>(), Schools: schools))]);

    /// <summary>Walks jobs of a sheet.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="jobs">The jobs.</param>
    /// <param name="people">1 or 2.</param>
    /// <param name="schools">How the workshop works; null for the usual.</param>
    /// <returns>What was refused on the way, with the step; null when the card can be signed.</returns>
    /// <exception cref="ComposingException">The sheet asks for a circle.</exception>
    public static string? Refused(ModelSheet sheet, IReadOnlyList<JobId> jobs, int people = 1, WorkSchools? schools = null)
    {
        var card = Open(sheet, jobs, CardPlanner.Plan(sheet, jobs, people, schools).Steps, schools);
        var (now, facts) = (Morning, UsualPress.Facts(sheet));
        for (var presses = 0; card.Next is { } step; presses++)
        {
            now += step.Takes;
            now = Later(card, step, now);
            switch (card.Decide(UsualPress.Of(card, step), Hand, now, facts))
            {
                case Accepted accepted when presses < 4 * card.Steps.Count:
                    card = card.Taking(accepted, Guid.Empty, Hand, now).Card;
                    break;
                case Refused refused:
                    return $"“{step.Title}” is refused when its turn comes: {string.Join(" ", refused.Reasons)}";
                case Asked asked:
                    return $"“{step.Title}” asks when its turn comes: {asked.Question.Text}";
                default:
                    return $"“{step.Title}” comes again and again.";
            }
        }
        return card.Decide(new Sign(), Hand, now, facts) is Refused unsigned
            ? $"The card cannot be signed: {string.Join(" ", unsigned.Reasons)}" : null;
    }

    /// <summary>Walks jobs of a sheet and shows the card after each press.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="jobs">The jobs.</param>
    /// <returns>The card as it is opened, after each press of the usual hand, and signed at last; it ends where a press is
    /// refused.</returns>
    /// <exception cref="ComposingException">The sheet asks for a circle.</exception>
    public static IEnumerable<JobCard> Along(ModelSheet sheet, IReadOnlyList<JobId> jobs)
    {
        var card = Open(sheet, jobs, CardPlanner.Plan(sheet, jobs, 1).Steps);
        var (now, facts) = (Morning, UsualPress.Facts(sheet));
        yield return card;
        for (var presses = 0; presses < 4 * card.Steps.Count; presses++)
        {
            now = card.Next is { } step ? Later(card, step, now + step.Takes) : now;
            CardCommand press = card.Next is { } next ? UsualPress.Of(card, next) : new Sign();
            if (card.Decide(press, Hand, now, facts) is not Accepted accepted)
                yield break;
            card = card.Taking(accepted, Guid.Empty, Hand, now).Card;
            yield return card;
            if (card.Signature is not null)
                yield break;
        }
    }

    /// <summary>When a step can be done that is next: the clock goes on until neither a wait nor heat stands in the way.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step of it that is next.</param>
    /// <param name="now">When a hand is free for it.</param>
    /// <returns>Not before that.</returns>
    public static DateTimeOffset Later(JobCard card, SheetStep step, DateTimeOffset now)
    {
        foreach (var wait in card.Waits.Where(w => w.Until > now && (w.Id == step.Id || step.Awaits.Contains(w.Id))))
            now = wait.Until > now ? wait.Until : now;
        return step.Cold && card.InTheWay(step, now).Count > 0 ? now + card.Sheet.CoolsIn : now;
    }
}
