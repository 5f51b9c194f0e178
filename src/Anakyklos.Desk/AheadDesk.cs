using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>What comes next on the way ahead: a command, or a time that passes.</summary>
/// <param name="Command">What would be said; null where time passes.</param>
/// <param name="Passes">How long nothing is said; null where something is.</param>
public sealed record AheadMove(CardCommand? Command, TimeSpan? Passes);

/// <summary>A card as it would stand.</summary>
/// <param name="Card">The card.</param>
/// <param name="At">When, in the workshop's time zone.</param>
/// <param name="Moves">So many of the moves were taken; fewer than were given where the card would not take the next.</param>
public sealed record AheadCard(JobCard Card, DateTimeOffset At, int Moves);

/// <summary>Goes ahead on a card without writing anything, so that a screen is prepared for a line that dies.</summary>
public sealed class AheadDesk(CardStore cards)
{
    /// <summary>So far ahead at most.</summary>
    public const int Most = 60;

    /// <summary>The card as it would stand after moves, each judged as the card would judge it.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="card">As it stands now.</param>
    /// <param name="moves">At most <see cref="Most"/>; what is beyond is not taken.</param>
    /// <param name="by">Whoever stands at the screen.</param>
    /// <param name="now">In the workshop's time zone.</param>
    public AheadCard Go(CardNumber id, JobCard card, IReadOnlyList<AheadMove> moves, Person by, DateTimeOffset now)
    {
        var at = now;
        for (var i = 0; i < moves.Count; i++)
        {
            if (i == Most || card.Ended is not null)
                return new(card, at, i);
            if (moves[i].Passes is { } passes)
            {
                if (passes < TimeSpan.Zero || at + passes - now > JobCard.KeptAtMost)
                    return new(card, at, i);
                at += passes;
                continue;
            }
            if (moves[i].Command is not { } command || Would(id, card, command, by, at) is not Accepted yes)
                return new(card, at, i);
            card = card.Taking(yes, Guid.CreateVersion7(), by, at).Card;
        }
        return new(card, at, moves.Count);
    }

    /// <summary>Of several things that could be said next, those from which the card goes on in the same way.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="card">As it would stand.</param>
    /// <param name="said">What could be said, the usual one among them; null where it could not even be read.</param>
    /// <param name="usual">Which of them is the usual one.</param>
    /// <param name="by">Whoever stands at the screen.</param>
    /// <param name="at">When, in the workshop's time zone.</param>
    /// <returns>Their places; empty where the usual one is not taken.</returns>
    public IReadOnlyList<int> Alike(CardNumber id, JobCard card, IReadOnlyList<CardCommand?> said, int usual, Person by, DateTimeOffset at)
    {
        string? After(CardCommand? command) => command is not null && Would(id, card, command, by, at) is Accepted yes
            ? Course(card.Taking(yes, Guid.Empty, by, at).Card) : null;
        return After(said[usual]) is { } wanted ? [.. Enumerable.Range(0, said.Count).Where(i => After(said[i]) == wanted)] : [];
    }

    private Decision Would(CardNumber id, JobCard card, CardCommand command, Person by, DateTimeOffset at) =>
        command.AsksServer || card.AsksWhoMay(command) ? cards.WouldAnswer(id, card, command, by, at)
            : card.Decide(command, by, at, CardFacts.None);

    // What the screen shows next and what stands against going on; not the number that was read.
    private static string Course(JobCard card) => string.Join(' ', card.Next is { } next ? $"{next.Id} {card.TitleOf(next)}" : "",
        card.Open.Count, card.Steps.Count, card.Deviations.Count, card.Findings.Count, card.Stops.Count(), card.Holds.Count,
        string.Join(',', card.Steps.Where(s => card.State(s.Id).Status == StepStatus.Aside).Select(s => s.Id.Text)));
}
