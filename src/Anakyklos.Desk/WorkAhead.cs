using System.Collections.Concurrent;
using Anakyklos.Core.Composing;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>What work that is ahead needs, and what of it the stores lack.</summary>
public sealed class WorkAhead(CardStore cards, ShelfStore shelf, ISupplier supplier, WorkshopClock clock)
{
    private readonly ConcurrentDictionary<string, PlannedWork> _composed = new();

    /// <summary>The work of open cards whose kit is not laid out.</summary>
    /// <param name="open">The open cards.</param>
    public IEnumerable<PlannedWork> OfCards(IReadOnlyList<CardEntry> open)
    {
        foreach (var entry in open)
            if (cards.Find(entry.Id) is { Kit: null } card)
                yield return new($"card {entry.Id}, {entry.Plate}", card.Sheet, card.Jobs, card.Steps);
    }

    /// <summary>The work of a visit; vehicles of one model with the same jobs need the same.</summary>
    /// <param name="plate">Whom it is for.</param>
    /// <param name="sheet">The model's sheet.</param>
    /// <param name="jobs">The jobs, one at least.</param>
    public PlannedWork Of(string plate, ModelSheet sheet, IReadOnlyList<JobId> jobs) =>
        _composed.GetOrAdd($"{sheet.Id} {sheet.Revision} {string.Join(' ', jobs)}",
            _ => new("", sheet, jobs, CardComposer.Compose(sheet, jobs).Steps)) with { For = plate };

    /// <summary>What is missing for some work, and when it can be here. What is on the shelf goes to the work in its order.</summary>
    public IReadOnlyList<OrderLine> Lines(IReadOnlyList<PlannedWork> work)
    {
        var stores = shelf.Read();
        return OrderList.Of(work, stores, clock.Today, number => supplier.Arrives(number, clock.Now, stores));
    }
}
