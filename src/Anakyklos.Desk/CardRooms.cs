using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>Where a card is kept, by its number.</summary>
public sealed class CardRooms(CardStore cards, PracticeDesk practice)
{
    /// <summary>The room of a card.</summary>
    public ICardRoom Of(CardNumber id) => PracticeStore.IsRun(id) ? practice : cards;

    /// <summary>What the clock says at a card: the practice bay has its own.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="now">The workshop's time.</param>
    public DateTimeOffset Now(CardNumber id, DateTimeOffset now) => PracticeStore.IsRun(id) ? practice.Run(id)?.Now ?? now : now;
}
