using Anakyklos.Core.Cards;
using Anakyklos.Core.Rehearsal;
using Anakyklos.Core.Sheets;
using static Anakyklos.Core.Tests.Workbench;

namespace Anakyklos.Core.Tests;

/// <summary>A card of any model in one pair of hands: what is said to it, what it answers, and a clock that goes on where it
/// waits.</summary>
internal sealed class CardAtHand(JobCard card)
{
    /// <summary>The card as it stands.</summary>
    internal JobCard Card { get; private set; } = card;

    /// <summary>The time; set forward to let it pass.</summary>
    internal DateTimeOffset Now { get; set; } = new(2026, 3, 9, 8, 0, 0, TimeSpan.Zero);

    /// <summary>By the usual press up to the first step that is meant; it is the next one then.</summary>
    internal SheetStep UpTo(Func<SheetStep, bool> which)
    {
        while (Card.Next is { } next && !which(next))
            if (Say(UsualPress.Of(Card, next)) is not Accepted)
                Now += TimeSpan.FromHours(1);
        return Card.Next!;
    }

    internal Decision Say(CardCommand command)
    {
        var decision = Card.Decide(command, Iona, Now, UsualPress.Facts(Card.Sheet));
        if (decision is Accepted accepted)
        {
            var (seq, id) = (Card.History.Count, Guid.NewGuid());
            Card = Card.With([.. accepted.Events.Select(e => new Recorded(++seq, Now, Iona, id, e))]);
        }
        return decision;
    }

    internal void Do(CardCommand command)
    {
        var decision = Say(command);
        Assert.True(decision is Accepted, $"{command}: {Describe(decision)}");
    }

    /// <summary>What the card says against it.</summary>
    internal string No(CardCommand command) => Assert.IsType<Refused>(Say(command)).Reasons[0].What;
}
