using Anakyklos.Core.Booking;
using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>Books in the stores what happens on cards, in the same transaction as the event; what the stores do not know is not
/// booked.</summary>
internal static class StockBooking
{
    /// <summary>Keeps the parts of a new card that are on the shelf.</summary>
    internal static void Reserve(WriteScope scope, CardNumber id, JobCard card)
    {
        var parts = scope.Parts(null);
        if (parts.Count > 0)
            Keep(scope, id, Shelf.Empty with { Parts = parts }, card.PartsWanted.Select(p => p.Number.Value));
    }

    /// <summary>Books what follows from events, and a signed card's jobs in the vehicle's history.</summary>
    internal static void Book(WriteScope scope, CardNumber id, JobCard card, IReadOnlyList<Recorded> events)
    {
        foreach (var e in events)
        {
            switch (StockMoves.Of(card, e.Event))
            {
                case PartUsed used:
                    Use(scope, id, e, used);
                    break;
                case OilPoured poured:
                    Pour(scope, id, e, poured);
                    break;
                case PouredOut poured:
                    Pour(scope, id, e, poured.From);
                    break;
                case PutBack back:
                    Return(scope, id, e, back);
                    SampleStore.Forget(scope, id, back.From, back.To);
                    break;
                case KitKept kept:
                    scope.Connection.Execute("delete from reservation where card_id = @id", new { id });
                    Keep(scope, id, Shelf.Empty with { Parts = scope.Parts(null) }, kept.Numbers);
                    break;
                case KitReleased:
                    scope.Connection.Execute("delete from reservation where card_id = @id", new { id });
                    break;
            }
            DrumStore.Book(scope, id, card, e);
            if (e.Event is SampleTaken taken)
                SampleStore.Note(scope, id, card, e, taken);
            if (e.Event is Signed)
                NoteDone(scope, id, card, e.At);
        }
    }

    /// <summary>Notes which jobs a card did that was signed.</summary>
    internal static void NoteDone(WriteScope scope, CardNumber id, JobCard card, DateTimeOffset at)
    {
        foreach (var job in card.JobsDone)
            scope.Connection.Execute("""
                insert into done_job (plate, job, day, km, hours, card_id, shortened)
                select plate, @job, @day, coalesce((select km from odometer where card_id = @id), @km), @Hours, @id,
                    @shortened or exists (select 1 from sample where card_id = @id and leads not in ('', 'CarryOn')
                        and instr(jobs, ' ' || @job || ' ') > 0)
                from card where card.id = @id on conflict do nothing
                """, new { job, day = DateOnly.FromDateTime(at.DateTime).ToString("O", CultureInfo.InvariantCulture),
                    km = card.Opened.Odometer.In(Distance.Kilometre).ToString(CultureInfo.InvariantCulture), card.Opened.Hours,
                    id, shortened = card.JobsShortened.Contains(job) });
    }

    private static void Keep(WriteScope scope, CardNumber id, Shelf shelf, IEnumerable<string> numbers)
    {
        foreach (var kept in numbers.Select(n => shelf.Find(n)?.Part).OfType<StockPart>().GroupBy(p => PartNumber.Bare(p.Number)))
            if (Math.Min(kept.Count(), kept.First().Free) is var count and > 0)
                scope.Connection.Execute("insert into reservation (card_id, bare, count) values (@id, @Key, @count)",
                    new { id, kept.Key, count });
    }

    private static void Use(WriteScope scope, CardNumber id, Recorded e, PartUsed used)
    {
        // What is kept for the card under this number, its successor or equivalent is what was fitted.
        var parts = scope.Parts(id);
        var part = Shelf.Empty with { Parts = parts };
        if (part.Find(used.Number)?.Part is not { OnShelf: > 0 } found)
            return;
        var bare = PartNumber.Bare(found.Number);
        scope.Connection.Execute("update part set on_shelf = on_shelf - 1 where bare = @bare", new { bare });
        scope.Connection.Execute("delete from reservation where card_id = @id and bare = @bare and count = 1", new { id, bare });
        scope.Connection.Execute("update reservation set count = count - 1 where card_id = @id and bare = @bare and count > 1",
            new { id, bare });
        Note(scope, id, e, "used", bare, found.Name, "-1");
    }

    private static void Pour(WriteScope scope, CardNumber id, Recorded e, OilPoured poured) =>
        Pour(scope, id, e, PourPlan.Emptied(poured.Amount, KitOil.NamesIn(poured.Product),
            Shelf.Empty with { Containers = ShelfStore.ReadContainers(scope.Connection) }, DateOnly.FromDateTime(e.At.DateTime), null)
            ?? []);

    private static void Pour(WriteScope scope, CardNumber id, Recorded e, IReadOnlyList<PouredFrom> from)
    {
        var left = ShelfStore.ReadContainers(scope.Connection).ToDictionary(c => c.Id, c => c.Left);
        foreach (var can in from)
        {
            scope.Connection.Execute("update container set left_l = @left, opened = coalesce(opened, @day) where id = @Can",
                new { can.Can, left = Litres(left[can.Can] - can.Takes),
                    day = DateOnly.FromDateTime(e.At.DateTime).ToString("O", CultureInfo.InvariantCulture) });
            Note(scope, id, e, "poured", $"container:{can.Can}", can.Product, Litres(Quantity<Volume>.Zero - can.Takes));
        }
    }

    private static void Return(WriteScope scope, CardNumber id, Recorded e, PutBack back)
    {
        var taken = scope.Connection.Query<(string Kind, string Item, string Name, string Amount)>(
            "select kind, item, name, amount from movement where card_id = @id and seq between @From and @To and kind in ('used', "
                + "'poured')", new { id, back.From, back.To }).ToList();
        foreach (var (kind, item, name, amount) in taken)
        {
            // The press was a mistake: what it says was poured is still in its container.
            if (kind == "poured")
            {
                scope.Connection.Execute("update container set left_l = @left where id = @container", new
                {
                    container = item["container:".Length..],
                    left = Litres(ShelfStore.ReadContainers(scope.Connection).First(c =>
                        item == $"container:{c.Id}").Left + Quantity<Volume>.Of(-decimal.Parse(amount, CultureInfo.InvariantCulture),
                        Volume.Litre)),
                });
                Note(scope, id, e, "returned", item, name, amount.TrimStart('-'));
                continue;
            }
            scope.Connection.Execute("update part set on_shelf = on_shelf + 1 where bare = @item", new { item });
            scope.Connection.Execute("insert into reservation (card_id, bare, count) values (@id, @item, 1) on conflict do update "
                + "set count = count + 1", new { id, item });
            Note(scope, id, e, "returned", item, name, amount.TrimStart('-'));
        }
    }

    internal static void Note(WriteScope scope, CardNumber? id, Recorded e, string kind, string item, string name, string amount) =>
        Note(scope, id, e.Seq, e.At, e.By.Id, kind, item, name, amount);

    internal static void Note(WriteScope scope, CardNumber? id, int? seq, DateTimeOffset at, PersonId person, string kind, string item,
        string name, string amount, string reason = "") => scope.Connection.Execute("""
        insert into movement (at, person_id, card_id, seq, kind, item, name, amount, reason)
        values (@at, @person, @id, @seq, @kind, @item, @name, @amount, @reason)
        """, new { at = CardStore.Iso(at), person, id, seq, kind, item, name, amount, reason });

    internal static string Litres(Quantity<Volume> v) => v.In(Volume.Litre).ToString(CultureInfo.InvariantCulture);
}
