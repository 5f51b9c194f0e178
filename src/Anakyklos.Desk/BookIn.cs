using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>Books stock in and wakes the cards that wait for it.</summary>
public sealed class BookIn(ShelfStore shelf, CardStore cards, WorkshopClock clock)
{
    /// <summary>Books parts in.</summary>
    /// <returns>The part as it stands now and the cards that were woken; null when the number is not known.</returns>
    public async Task<(StockPart Part, IReadOnlyList<CardNumber> Woken)?> Parts(string number, int count, Person by) =>
        await shelf.Receive(number, count, by, clock.Now) is { } part
            ? (part, await Wake(waited => shelf.Read().IsGoodFor(part.Number, waited), by)) : null;

    /// <summary>Books a container of oil in; the cards that were woken.</summary>
    public async Task<IReadOnlyList<CardNumber>> Oil(OilContainer container, Person by)
    {
        await shelf.Receive(container, by, clock.Now);
        return await Wake(waited => PartNumber.Same(waited, container.Product), by);
    }

    private async Task<IReadOnlyList<CardNumber>> Wake(Func<string, bool> isHere, Person by)
    {
        var woken = new List<CardNumber>();
        foreach (var entry in cards.Unsigned())
            foreach (var waited in cards.Find(entry.Id)!.Awaited.Where(a => isHere(a.Number)).ToList())
                if ((await cards.Handle(entry.Id, Guid.CreateVersion7(), new PartIsHere(waited.Number), by,
                    clock.Now))?.Decision is Accepted)
                    woken.Add(entry.Id);
        return [.. woken.Distinct()];
    }
}
