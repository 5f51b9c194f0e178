using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Booking;

/// <summary>What an event of a card means for the stores.</summary>
public abstract record StockMove;

/// <summary>A part was fitted: one less on the shelf, and one less waiting for the card.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Name">Its name.</param>
public sealed record PartUsed(string Number, string Name) : StockMove;

/// <summary>Oil was poured.</summary>
/// <param name="Product">The product in the kit.</param>
/// <param name="Amount">How much.</param>
public sealed record OilPoured(string Product, Quantity<Volume> Amount) : StockMove;

/// <summary>Oil was poured out of containers that are known.</summary>
/// <param name="From">How much out of each.</param>
public sealed record PouredOut(IReadOnlyList<PouredFrom> From) : StockMove;

/// <summary>What an earlier event took goes back on the shelf.</summary>
/// <param name="From">First event taken back.</param>
/// <param name="To">Last event taken back.</param>
public sealed record PutBack(int From, int To) : StockMove;

/// <summary>The kit was laid out: exactly this is kept for the card from now on.</summary>
/// <param name="Numbers">The numbers, one entry a piece.</param>
public sealed record KitKept(IReadOnlyList<string> Numbers) : StockMove;

/// <summary>Nothing is kept for the card any more.</summary>
public sealed record KitReleased : StockMove;

/// <summary>Says what events of cards mean for the stores.</summary>
public static class StockMoves
{
    /// <summary>The move that follows from an event, or null when the stores do not change.</summary>
    /// <param name="card">The card after the event.</param>
    /// <param name="e">The event.</param>
    /// <returns>The move, or null when the event changes nothing on the shelf.</returns>
    public static StockMove? Of(JobCard card, CardEvent e) => e switch
    {
        TakenBack back => new PutBack(back.From, back.To),
        KitConfirmed kit => new KitKept([.. kit.Parts.Where(p => !card.IsFitted(p.Key) && !IsOld(p.Value)).Select(p => p.Value)]),
        Signed or CardVoided => new KitReleased(),
        IPourEvent { From: { } from } => new PouredOut(from),
        _ => card.EffectsOf(e).Select(effect => Of(card, effect)).FirstOrDefault(move => move is not null),
    };

    private static StockMove? Of(JobCard card, Effect effect) => effect switch
    {
        PartGoesIn part when card.Kit?.Parts.GetValueOrDefault(part.Part) is { } number && !IsOld(number) =>
            new PartUsed(number, card.Sheet.Parts[part.Part].Name),
        SealIsNew seal => new PartUsed(seal.Number, card.Sheet.Parts[seal.Part].Name),
        FluidGoesIn oil when oil.Amount > Quantity<Volume>.Zero
            && card.OilInHand(oil.Fluid) is { } can => new OilPoured(can.Product, oil.Amount),
        FluidRunsThrough oil when card.OilInHand(oil.Fluid) is { } can => new OilPoured(can.Product, oil.Amount),
        PartHolds oil when card.OilInHand(oil.Fluid) is { } can => new OilPoured(can.Product, oil.Amount),
        _ => null,
    };

    private static bool IsOld(string number) => number == KitConfirmed.OldOneAgain;
}
