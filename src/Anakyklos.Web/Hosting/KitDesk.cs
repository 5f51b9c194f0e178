using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Storage;
using Anakyklos.Web.Pages;

namespace Anakyklos.Web.Hosting;

/// <summary>Holds a card's kit against the stores.</summary>
public sealed class KitDesk(ShelfStore shelf, SettingStore settings, VehicleStore vehicles, ISupplier supplier, WorkshopClock clock)
{
    /// <summary>The kit of a card as the stores stand now; what is kept for this card counts as there.</summary>
    public KitList Of(long id, JobCard card) =>
        KitCheck.Of(card.Sheet, card.Opened.Jobs, card.Steps, card.Opened.SealsUsedAgain, shelf.Read(id), settings.Read().Climate, clock.Today);

    /// <summary>The day on which something can be here, or null.</summary>
    public DateOnly? Boat(string number) => supplier.Arrives(number, clock.Now);

    /// <summary>What somebody laid out, held against the oil book: products that lack something carry it with them, and under warranty they are refused.</summary>
    /// <param name="card">The card.</param>
    /// <param name="kit">What was laid out.</param>
    /// <param name="refusals">Gets what stands in the way.</param>
    /// <returns>The command to bring to the card.</returns>
    public ConfirmKit Judge(JobCard card, ConfirmKit kit, List<Refusal> refusals)
    {
        var (stores, climate) = (shelf.Read(), settings.Read().Climate);
        var warranty = vehicles.Find(card.Opened.Plate)?.IsUnderWarranty(clock.Today) == true;
        var oils = new Dictionary<string, KitOil>();
        foreach (var (id, oil) in kit.Oils)
        {
            // Two that go into one fill are written with a plus between them; each must fit by itself.
            var products = oil.Product.Split('+').Select(stores.Oils.Find).OfType<OilProduct>();
            var lacks = card.Sheet.Fluids.TryGetValue(id, out var fluid)
                ? string.Join("; ", OilMatch.Mix(products, OilRequirement.Of(card.Sheet, fluid), stores.Oils.Book, climate).Where(f => !f.Fits).Select(OilWords.Lacks)) : "";
            if (lacks.Length > 0 && warranty)
                refusals.Add(new($"{oil.Product} lacks {lacks}, and the vehicle is under warranty.", "Take one that fits.", Field: $"product-{id}"));
            oils[id] = oil with { Lacks = lacks };
        }
        // A number that the stores lead to, by supersession or as an equivalent, is as good as the one in the sheet.
        var parts = kit.Parts.ToDictionary(p => p.Key, p => p.Value.Choice is KitChoice.InHand or KitChoice.Other && p.Value.Number.Trim().Length > 0 && card.Sheet.Parts.TryGetValue(p.Key, out var part)
            && !PartNumber.Same(part.Number.Value, p.Value.Number) && stores.IsGoodFor(p.Value.Number, part.Number.Value) ? p.Value with { Choice = KitChoice.StandsIn } : p.Value);
        return kit with { Oils = oils, Parts = parts };
    }

    /// <summary>What is in hand of a fluid when nobody says otherwise: all that is left of the product that the stores would take.</summary>
    public static (string Product, Quantity<Volume> Amount)? InHand(KitOilLine line) => line.Chosen is null ? null
        : (line.Chosen.Product.Name, line.Shares.Aggregate(Quantity<Volume>.Zero, (sum, s) => sum + s.Takes + s.Leaves));
}
