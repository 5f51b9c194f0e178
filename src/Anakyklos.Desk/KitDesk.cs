using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>Holds a card's kit against the stores.</summary>
public sealed class KitDesk(ShelfStore shelf, SettingStore settings, ISupplier supplier, WorkshopClock clock)
{
    /// <summary>The kit of a card as the stores stand now; what is kept for this card counts as there.</summary>
    public KitList Of(CardNumber id, JobCard card) =>
        KitCheck.Of(card.Sheet, card.Jobs, card.Steps, card.Opened.SealsUsedAgain, shelf.Read(id), settings.Read().Climate, clock.Today);

    /// <summary>What the stores know now: what a kit page asks for more than once.</summary>
    /// <param name="id">Card number; what is kept for it counts as there.</param>
    public Shelf Shelf(CardNumber id) => shelf.Read(id);

    /// <summary>The day on which something can be here, or null.</summary>
    /// <param name="number">Part number, or the name of an oil product.</param>
    /// <param name="known">What the stores know.</param>
    public DateOnly? Boat(string number, Shelf known) => supplier.Arrives(number, clock.Now, known);

    /// <summary>What is in hand of a fluid when nobody says otherwise: all that is left of the product that the stores would
    /// take.</summary>
    public static (string Product, Quantity<Volume> Amount)? InHand(KitOilLine line) => line.Chosen is null ? null
        : (line.Chosen.Product.Name, line.Shares.Aggregate(Quantity<Volume>.Zero, (sum, s) => sum + s.Takes + s.Leaves));
}
