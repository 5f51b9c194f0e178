using Anakyklos.Core.Oils;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;

namespace Anakyklos.Core.Cards;

/// <summary>What the server knows and a card does not: it is handed to every decision and never taken from whoever asks.</summary>
/// <param name="Shelf">Stores and oil book. Empty when there is nothing to compare with: then nothing counts as known.</param>
/// <param name="Climate">The weather that oils must bear, or null.</param>
/// <param name="UnderWarranty">Whether the maker's warranty holds today.</param>
/// <param name="Rulings">What the lead has ruled on disputed values of the card's model; null for nothing.</param>
/// <param name="Brakes">What the lead asks for before somebody works on brakes alone; null for nothing.</param>
/// <param name="Photos">The pictures that were brought in for this card, by id; null for none.</param>
public sealed record CardFacts(Shelf Shelf, Climate? Climate = null, bool UnderWarranty = false, IReadOnlySet<string>? Photos = null,
    IReadOnlyList<Ruling>? Rulings = null, BrakeLesson? Brakes = null)
{
    /// <summary>Nothing is known.</summary>
    public static CardFacts None { get; } = new(Shelf.Empty);
}
