using Anakyklos.Core.Cards;

namespace Anakyklos.Storage;

/// <summary>A place where cards are kept and answer: those of vehicles, and those of the practice bay.</summary>
public interface ICardRoom
{
    /// <summary>A card as it stands; null when there is none of this number.</summary>
    JobCard? Find(CardNumber id);

    /// <summary>A card as it stands in a list; null when there is none of this number.</summary>
    CardEntry? Entry(CardNumber id);

    /// <summary>Brings a command to a card.</summary>
    /// <param name="id">Card number.</param>
    /// <param name="command">The client's id of this command; the same id twice is one command.</param>
    /// <param name="said">The command, by whom and when.</param>
    /// <returns>The answer, or null when there is no such card.</returns>
    Task<CardAnswer?> Handle(CardNumber id, Guid command, CardSaid said);
}
