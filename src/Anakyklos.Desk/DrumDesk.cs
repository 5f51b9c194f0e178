using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A drum and how it stands.</summary>
/// <param name="Drum">The drum.</param>
/// <param name="Stand">How full it is, and when it must be collected.</param>
public sealed record DrumNow(WasteDrum Drum, DrumStand Stand);

/// <summary>What came and went in a month.</summary>
/// <param name="Month">Its first day.</param>
/// <param name="Waste">Of what.</param>
/// <param name="Came">How much came, less what was taken back.</param>
/// <param name="Pieces">How many pieces came.</param>
/// <param name="Gone">How much was taken away.</param>
/// <param name="PiecesGone">How many pieces were taken away.</param>
/// <param name="Cards">From how many cards it came.</param>
public sealed record WasteMonth(DateOnly Month, Waste Waste, Quantity<Volume> Came, int Pieces, Quantity<Volume> Gone, int PiecesGone,
    int Cards);

/// <summary>The drums of the workshop: what is in them, when they are collected, and the log.</summary>
public sealed class DrumDesk(DrumStore drums, WorkshopClock clock)
{
    private const int Longest = 40;

    /// <summary>All drums as they stand.</summary>
    public IReadOnlyList<DrumNow> Now()
    {
        var lines = drums.Book().ToLookup(l => l.Drum);
        return [.. drums.All().Select(d => new DrumNow(d, DrumStand.Of(d, [.. lines[d.Name].Select(Here)], clock.Today)))];
    }

    /// <summary>The drum that something goes into now; null where there is none for it.</summary>
    /// <param name="waste">What it is.</param>
    public WasteDrum? For(Waste waste) => DrumStand.For(waste, Now().Select(d => (d.Drum, d.Stand.Full)));

    /// <summary>The log, the newest month first.</summary>
    public IReadOnlyList<WasteMonth> Months() => [.. drums.Book()
        .GroupBy(l => (Month: Month(l), l.Waste)).Select(g =>
        {
            var (came, gone) = (g.Where(l => l.Kind != "collected").ToList(), g.Where(l => l.Kind == "collected").ToList());
            return new WasteMonth(g.Key.Month, g.Key.Waste, Sum(came), came.Sum(l => l.Pieces), Quantity<Volume>.Zero - Sum(gone),
                -gone.Sum(l => l.Pieces), came.Select(l => l.Card).Distinct().Count());
        }).OrderByDescending(m => m.Month).ThenBy(m => m.Waste)];

    /// <summary>What had no drum to go into.</summary>
    public IReadOnlyList<DrumLine> Nowhere() => [.. drums.Book().Where(l => l.Drum is null)];

    /// <summary>The log as a file, line by line, the oldest first.</summary>
    /// <param name="name">The name of a person.</param>
    public string Write(Func<PersonId, string> name) => CsvTable.Write(
        ["time", "kind", "drum", "waste", "what", "litres", "pieces", "card", "person", "taken away by"],
        drums.Book().Select(l => new[]
        {
            clock.Local(l.At).ToString("yyyy-MM-ddTHH:mm:sszzz", CultureInfo.InvariantCulture), l.Kind, l.Drum ?? "", $"{l.Waste}", l.Name,
            l.Amount.In(Volume.Litre).ToString("0.###", CultureInfo.InvariantCulture), $"{l.Pieces}", l.Card is { } card ? $"{card}" : "",
            name(l.Person), l.Words,
        }));

    /// <summary>Puts a drum up, or changes what is known of one.</summary>
    /// <param name="by">Who.</param>
    /// <param name="name">What is painted on it.</param>
    /// <param name="waste">The name of a <see cref="Waste"/>.</param>
    /// <param name="holds">What it holds: an amount with its unit, or a count of pieces for filters.</param>
    /// <param name="keep">For how many days something may lie in it; empty for no limit.</param>
    /// <returns>What is wrong, by its field; nothing is written then.</returns>
    public async Task<IReadOnlyList<Refusal>> Put(Person by, string? name, string? waste, string? holds, string? keep)
    {
        if (!MayChange(by))
            return [new("You can look at the drums, not change them.", "Ask the stores or the lead.")];
        var wrong = new List<Refusal>();
        name = (name ?? "").Trim();
        if (name.Length is 0 or > Longest)
            wrong.Add(new("What is painted on it?", $"Type up to {Longest} letters.", Field: "name"));
        if (!Enum.TryParse<Waste>(waste, out var kind) || !Enum.IsDefined(kind))
            wrong.Add(new("What goes into it?", "Choose one of those shown.", Field: "waste"));
        var (litres, pieces) = (Quantity<Volume>.Zero, 0);
        if (kind == Waste.Filters)
            pieces = Count(holds, "holds", "How many filters does it hold?", wrong, least: 1);
        else if (Quantity<Volume>.Read((holds ?? "").Trim(), out var problem) is { } typed && typed.Value > Quantity<Volume>.Zero)
            litres = typed.Value;
        else
            wrong.Add(new(problem.Length > 0 ? problem : "It holds more than nothing.", "Type it with its unit: 200 L.", Field: "holds"));
        var days = string.IsNullOrWhiteSpace(keep) ? 0 : Count(keep, "keep", "For how many days may it lie there?", wrong, least: 1);
        // What lies in it would become something else.
        if (Now().FirstOrDefault(d => d.Drum.Name == name) is { } known && known.Drum.Waste != kind && IsInUse(known.Stand))
            wrong.Add(new($"Something else lies in {name}.", "Have it collected first.", Field: "waste"));
        if (wrong.Count == 0)
            await drums.Put(new(name, kind, litres, pieces, days));
        return wrong;
    }

    /// <summary>Notes that a drum was emptied by whoever takes it away.</summary>
    /// <param name="by">Who saw to it.</param>
    /// <param name="name">The drum.</param>
    /// <param name="words">Who took it, and the number of the paper.</param>
    /// <returns>What is wrong; nothing is written then.</returns>
    public async Task<IReadOnlyList<Refusal>> Collect(Person by, string? name, string? words) =>
        !MayChange(by) ? [new("You can look at the drums, not change them.", "Ask the stores or the lead.")]
        : Reason.Wrong(words ?? "", "words", "Who took it away, and the number of the paper,") is { } wrong ? [wrong]
        : await drums.Collect(name ?? "", words!.Trim(), by.Id, clock.Now) ? []
        : [new("Nothing is in that drum.", "Look which one was collected.", Field: "words")];

    /// <summary>Takes an empty drum out of use; what went through it stays in the book.</summary>
    /// <param name="by">Who.</param>
    /// <param name="name">The drum.</param>
    /// <returns>What is wrong; nothing is written then.</returns>
    public async Task<IReadOnlyList<Refusal>> TakeOut(Person by, string? name) =>
        !MayChange(by) ? [new("You can look at the drums, not change them.", "Ask the stores or the lead.")]
        : await drums.TakeOut(name ?? "", clock.Now) ? []
        : [new("There is no such drum, or something is in it.", "Have it collected first.")];

    private static bool IsInUse(DrumStand stand) => stand.Amount > Quantity<Volume>.Zero || stand.Pieces > 0;

    /// <summary>Whether somebody may change the drums.</summary>
    /// <param name="by">Who.</param>
    public static bool MayChange(Person by) => by.WorksOnCards || by.Role is Role.Stores;

    private static int Count(string? text, string field, string ask, List<Refusal> wrong, int least)
    {
        if (int.TryParse((text ?? "").Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var count) && count >= least
            && count <= 10_000)
            return count;
        wrong.Add(new(ask, $"Type a whole number from {least}.", Field: field));
        return 0;
    }

    private DrumEntry Here(DrumLine line) => DrumStore.Entry(line) with { Day = clock.Day(line.At) };

    private DateOnly Month(DrumLine line) => clock.Day(line.At) is var day ? new(day.Year, day.Month, 1) : default;

    private static Quantity<Volume> Sum(IEnumerable<DrumLine> lines) =>
        lines.Aggregate(Quantity<Volume>.Zero, (sum, l) => sum + l.Amount);
}
