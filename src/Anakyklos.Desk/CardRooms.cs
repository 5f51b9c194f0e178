using Anakyklos.Core.Cards;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>Where a card is kept, by its number.</summary>
public sealed class CardRooms(CardStore cards, PracticeDesk practice)
{
    /// <summary>The room of a card.</summary>
    public ICardRoom Of(CardNumber id) => PracticeStore.IsRun(id) ? practice : cards;

    /// <summary>Whether somebody may see a card: a run of the practice bay is seen by whoever works in it, and by the lead.</summary>
    public bool MaySee(CardNumber id, Person who) =>
        !PracticeStore.IsRun(id) || practice.Of(id) is not { } run || PracticeDesk.MaySee(run, who);

    /// <summary>How many things have happened in a run of the practice bay; 0 where there is none of this number.</summary>
    public int Moved(CardNumber id) => practice.Run(id)?.Log.Count ?? 0;

    /// <summary>What the clock says at a card: the practice bay has its own.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="now">The workshop's time.</param>
    public DateTimeOffset Now(CardNumber id, DateTimeOffset now) => PracticeStore.IsRun(id) ? practice.Run(id)?.Now ?? now : now;
}
