using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Demo;

/// <summary>The depot's stores, brought in from the same files that any workshop would write, and what the boat brought before.</summary>
public sealed class DemoStock(ShelfStore shelf, SettingStore settings, WorkshopClock clock)
{
    // The containers of past years are numbered beyond those that stand in the stores today.
    private const int FirstOfThePast = 101;

    private static readonly Quantity<Volume> Spare = Quantity<Volume>.Of(0.6m, Volume.Litre);

    private IReadOnlyList<OilContainer> _today = [];
    private int _next = FirstOfThePast;

    /// <summary>Reads which oils stand in the stores today.</summary>
    /// <exception cref="WorkshopFileException">A shipped file has errors.</exception>
    public async Task Look()
    {
        var oils = await BringInOils();
        foreach (var kind in StockFiles.Kinds)
            if (await Read(kind, oils) is { Containers.Count: > 0 } file)
                _today = [.. file.Containers.Select((c, i) => c with { Id = i + 1 })];
    }

    /// <summary>Begins the stores, as they were when the workshop began to keep them: parts, tools and pans, and no oil.</summary>
    /// <param name="by">Who counts.</param>
    /// <param name="at">When.</param>
    /// <exception cref="WorkshopFileException">A shipped file has errors.</exception>
    public async Task Begin(Person by, DateTimeOffset at)
    {
        var oils = await BringInOils();
        foreach (var kind in StockFiles.Kinds)
            await shelf.BringIn(await Read(kind, oils) with { Containers = [] }, by, at);
    }

    /// <summary>The stores as they are today, after all that came in and went out.</summary>
    /// <param name="by">Who counts.</param>
    /// <exception cref="WorkshopFileException">A shipped file has errors.</exception>
    public async Task Count(Person by)
    {
        var oils = await BringInOils();
        foreach (var kind in StockFiles.Kinds)
            await shelf.BringIn(await Read(kind, oils) with { Containers = [] }, by, clock.Now);
        // What is left in the containers of past years is not there any more.
        var gone = shelf.Read().Containers.Where(c => c.Left > Quantity<Volume>.Zero).Select(c => c with { Left = default });
        await shelf.BringIn(new([], [.. gone, .. _today], [], []), by, clock.Now);
    }

    /// <summary>The oil book: no oil is poured before it is there to be compared with.</summary>
    /// <exception cref="WorkshopFileException">The shipped file has errors.</exception>
    public async Task<OilBook> BringInOils()
    {
        var book = await File.ReadAllTextAsync(At("oils.json"));
        var (oils, errors) = OilBook.Read(book);
        await shelf.WriteOilBook(oils is null ? throw new WorkshopFileException($"oils.json: {errors[0]}") : book);
        return oils;
    }

    /// <summary>What the last boat before a day brought for a card: its parts, and oil where what is left does not reach.</summary>
    /// <param name="card">The card.</param>
    /// <param name="without">A part that did not come; null for none.</param>
    /// <param name="before">The day.</param>
    /// <param name="by">Who booked it in.</param>
    public async Task Deliver(JobCard card, PartId? without, DateTimeOffset before, Person by)
    {
        var boat = before.AddDays(-1);
        while (boat.DayOfWeek is not (DayOfWeek.Tuesday or DayOfWeek.Friday))
            boat = boat.AddDays(-1);
        var (there, day) = (shelf.Read(), DateOnly.FromDateTime(before.DateTime));
        foreach (var kind in card.PartsWanted.Where(p => p.Id != without).GroupBy(p => there.Find(p.Number.Value)!.Value.Part.Number))
            await shelf.Receive(kind.Key, kind.Count(), by, boat);
        foreach (var oil in card.FluidsWanted.Select(f => (Product: Product(card, f), f.Amount.Value)).GroupBy(o => o.Product))
        {
            var wanted = oil.Aggregate(Spare, (sum, o) => sum + o.Value);
            var left = there.Pourable(day).Where(c => PartNumber.Same(c.Product, oil.Key))
                .Aggregate(Quantity<Volume>.Zero, (sum, c) => sum + c.Left);
            var can = _today.Where(c => PartNumber.Same(c.Product, oil.Key)).MaxBy(c => c.Size.In(Volume.Litre))!;
            for (; left < wanted; left += can.Size)
                await shelf.Receive(can with { Id = _next++, Left = can.Size, Opened = null, Batch = Batch(can.Batch, boat) }, by, boat);
        }
    }

    /// <summary>What lies there for a card: its parts, and the oils that the stores have for it.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">The step that lays it out.</param>
    /// <param name="oldWasher">Why the old washer of the drain plug goes back; empty where it is renewed.</param>
    public ConfirmKit Kit(JobCard card, SheetStep step, string oldWasher) => new(step.Id,
        card.PartsWanted.ToDictionary(p => p.Id, p => p.Id == "drain-washer" && oldWasher.Length > 0
            ? new KitPart(KitChoice.OldAgain, "", oldWasher)
            : new KitPart(KitChoice.InHand, shelf.Read().Find(p.Number.Value) is { As: not FoundAs.Itself } other
                ? other.Part.Number : "")),
        card.FluidsDrained.Any() ? [Quantity<Volume>.Of(12, Volume.Litre), Quantity<Volume>.Of(8, Volume.Litre)] : [],
        card.FluidsWanted.ToDictionary(f => f.Id, f => new OilLaidOut(f.Amount.Value + Spare, Product(card, f))));

    // Of the oils that stand in the stores today the one that the kit would choose: they were the same ones then.
    private string Product(JobCard card, FluidSystem fluid) => KitCheck.Of(card.Sheet, card.Opened.Jobs, card.Steps,
        new Dictionary<PartId, int>(), shelf.Read() with { Containers = _today }, settings.Read().Climate, clock.Today)
        .Oils.First(o => o.Fluid.Id == fluid.Id).Chosen!.Product.Name;

    // A maker numbers its batches upwards, about one a day.
    private string Batch(string today, DateTimeOffset boat)
    {
        var letters = today.TakeWhile(char.IsLetter).Count();
        var number = int.Parse(today[letters..], CultureInfo.InvariantCulture) - (clock.Today.DayNumber
            - DateOnly.FromDateTime(boat.DateTime).DayNumber) / (today.Length - letters > 3 ? 1 : 3);
        return $"{today[..letters]}{number}";
    }

    private async Task<StockFile> Read(string kind, OilBook oils)
    {
        var (file, wrong) = StockFiles.Read(kind, await File.ReadAllTextAsync(At($"{kind}.csv")), clock.Today,
            [.. oils.Products.Select(p => p.Name)]);
        return file ?? throw new WorkshopFileException($"{kind}.csv: {wrong[0]}");
    }

    private static string At(string name) => Path.Combine(AppContext.BaseDirectory, "stock", name);
}
