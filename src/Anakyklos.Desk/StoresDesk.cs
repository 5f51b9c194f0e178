using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A part as it was typed.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Name">Its name.</param>
/// <param name="Count">How many lie there.</param>
/// <param name="Minimum">How many are to lie there at least; empty for none.</param>
/// <param name="Place">Where it lies.</param>
/// <param name="SupersededBy">The number that replaces it.</param>
/// <param name="Equivalents">Numbers of other makers, with commas or semicolons between them.</param>
public sealed record TypedPart(string Number, string Name, string Count, string Minimum, string Place, string SupersededBy,
    string Equivalents);

/// <summary>A container as it was typed.</summary>
/// <param name="Product">What is in it.</param>
/// <param name="Size">What it holds, with its unit.</param>
/// <param name="Left">What is left, with its unit.</param>
/// <param name="Opened">When it was opened; empty for not yet.</param>
/// <param name="Batch">Its batch.</param>
/// <param name="Place">Where it stands.</param>
/// <param name="Reason">Why another amount is left than the book says; empty where nobody says.</param>
public sealed record TypedContainer(string Product, string Size, string Left, string Opened, string Batch, string Place, string Reason);

/// <summary>
/// What lies in the stores is written down by hand, counted, put right, moved and taken out. Whatever cannot be taken as typed is told by
/// its field, and nothing is kept of it.
/// </summary>
public sealed class StoresDesk(ShelfStore shelf, WorkshopClock clock)
{
    private const int LongestNumber = 40, LongestName = 80, LongestPlace = 40, LongestReason = 120;

    /// <summary>A part of just this number, or null.</summary>
    /// <param name="number">However typed.</param>
    public StockPart? Part(string number) => shelf.Read().Own(number);

    /// <summary>A container, or null.</summary>
    /// <param name="id">Its number.</param>
    public OilContainer? Container(int id) => shelf.Read().Containers.FirstOrDefault(c => c.Id == id);

    /// <summary>Whether a container has been open for longer than what is in it bears.</summary>
    public bool IsOpenTooLong(OilContainer container) => shelf.Read().IsOpenTooLong(container, clock.Today);

    /// <summary>Writes a part down, or puts right what is known of it.</summary>
    /// <param name="typed">As typed.</param>
    /// <param name="isNew">Whether the stores do not know it yet.</param>
    /// <param name="by">Who.</param>
    /// <returns>What is wrong, by the fields number, name, count, minimum, place, superseded and equivalents.</returns>
    public async Task<IReadOnlyList<Refusal>> Put(TypedPart typed, bool isNew, Person by)
    {
        var wrong = new List<Refusal>();
        if (PartNumber.Bare(typed.Number).Length == 0 || typed.Number.Length > LongestNumber)
            wrong.Add(new("Type the number as it is printed.", $"Up to {LongestNumber} characters.", Field: "number"));
        Short(typed.Name, LongestName, "name", true, wrong);
        Short(typed.Place, LongestPlace, "place", false, wrong);
        Short(typed.SupersededBy, LongestNumber, "superseded", false, wrong);
        var (count, odd) = StockFiles.Count(typed.Count);
        if (count is null)
            wrong.Add(new(odd, Field: "count"));
        var (minimum, not) = typed.Minimum.Length == 0 ? (0, "") : StockFiles.Count(typed.Minimum);
        if (minimum is null)
            wrong.Add(new(not, Field: "minimum"));
        string[] others = typed.Equivalents.Split([';', ','], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (others.Length > 20 || others.Any(o => o.Length > LongestNumber))
            wrong.Add(new("That is more than fits.", $"Up to 20 numbers of {LongestNumber} characters.", Field: "equivalents"));
        if (others.Append(typed.SupersededBy).Any(o => PartNumber.Same(o, typed.Number)))
            wrong.Add(new("That is this part itself.", "Take it away there.",
                Field: PartNumber.Same(typed.SupersededBy, typed.Number) ? "superseded" : "equivalents"));
        if (wrong.Count > 0)
            return wrong;
        var kept = await shelf.Keep(new(typed.Number, typed.Name, count!.Value, 0, typed.SupersededBy, others, minimum!.Value, typed.Place),
            isNew, by, clock.Now);
        return kept ? [] : [isNew ? new($"{typed.Number} is in the stores already.", "Open it, and put it right there.", Field: "number")
            : new($"{typed.Number} is not in the stores any more.", "Write it down anew.", Field: "number")];
    }

    /// <summary>Takes a part out of the stores' list.</summary>
    /// <param name="number">Its number.</param>
    /// <returns>Why not; null when it is out.</returns>
    public async Task<Refusal?> Drop(string number)
    {
        if (Part(number) is not { } part)
            return new("There is no such part.", "Load the page again.");
        if (part.OnShelf > 0)
            return new($"{part.OnShelf} lie there.", "Use them up, or count them: none.");
        return await shelf.Drop(number) == 1 ? null : new("Some are kept for a card.", "Give up or finish that card first.");
    }

    /// <summary>Counts a container, puts right what is known of it, or moves it.</summary>
    /// <param name="id">Its number.</param>
    /// <param name="typed">As typed.</param>
    /// <param name="by">Who.</param>
    /// <returns>What is wrong, by the fields product, size, left, opened, batch, place and reason.</returns>
    public async Task<IReadOnlyList<Refusal>> Put(int id, TypedContainer typed, Person by)
    {
        var wrong = new List<Refusal>();
        var product = shelf.Read().Oils.Find(typed.Product);
        if (product is null)
            wrong.Add(new($"“{typed.Product}” is not in the oil book.", "Choose one from it.", Field: "product"));
        var size = Amount(typed.Size, "size", wrong);
        var left = Amount(typed.Left, "left", wrong);
        if (size is { } holds && holds.Value <= Quantity<Volume>.Zero)
            wrong.Add(new("It holds something.", "Type its size, such as 20 L.", Field: "size"));
        if (left?.Value > size?.Value)
            wrong.Add(new($"{left} is more than it holds, {size}.", "Read its scale once more.", Field: "left"));
        var (opened, odd) = typed.Opened.Length == 0 ? (null, "") : StockFiles.Day(typed.Opened, clock.Today);
        if (odd.Length > 0 || opened > clock.Today)
            wrong.Add(new(odd.Length > 0 ? odd : "That day is still to come.", Field: "opened"));
        Short(typed.Batch, LongestNumber, "batch", false, wrong);
        Short(typed.Place, LongestPlace, "place", false, wrong);
        Short(typed.Reason, LongestReason, "reason", false, wrong);
        if (wrong.Count > 0)
            return wrong;
        return await shelf.Keep(new OilContainer(id, product!.Name, size!.Value.Value, left!.Value.Value, size.Value.Unit, opened,
            typed.Batch, typed.Place), typed.Reason, by, clock.Now) ? [] : [new("There is no such container.", Field: "product")];
    }

    /// <summary>Scraps what is left in a container: nothing is poured out of it any more.</summary>
    /// <param name="id">Its number.</param>
    /// <param name="why">Why.</param>
    /// <param name="by">Who.</param>
    /// <returns>What is wrong, by the field why; null when it is done.</returns>
    public async Task<Refusal?> Scrap(int id, string why, Person by)
    {
        if (why.Length is 0 or > LongestReason)
            return new("Say why, in a few words.", $"Up to {LongestReason} characters.", Field: "why");
        if (Container(id) is not { } there || there.Left <= Quantity<Volume>.Zero)
            return new("Nothing is left in it.", "Load the page again.", Field: "why");
        await shelf.Keep(there with { Left = default }, $"scrapped: {why}", by, clock.Now);
        return null;
    }

    /// <summary>Writes a pan down, or puts right what it holds.</summary>
    /// <param name="name">What is painted on it.</param>
    /// <param name="holds">What it holds, with its unit.</param>
    /// <returns>What is wrong, by the fields name and holds.</returns>
    public async Task<IReadOnlyList<Refusal>> PutPan(string name, string holds)
    {
        var wrong = new List<Refusal>();
        Short(name, LongestPlace, "name", true, wrong);
        var amount = Amount(holds, "holds", wrong);
        if (amount is { } typed && typed.Value <= Quantity<Volume>.Zero)
            wrong.Add(new("A pan holds something.", "Type such as 20 L.", Field: "holds"));
        if (wrong.Count == 0)
            await shelf.Keep(new DrainPan(name, amount!.Value.Value));
        return wrong;
    }

    /// <summary>Writes a tool down, or where it is now.</summary>
    /// <param name="size">As the sheets write it.</param>
    /// <param name="place">Drawer or board.</param>
    /// <returns>What is wrong, by the fields size and place.</returns>
    public async Task<IReadOnlyList<Refusal>> PutTool(string size, string place)
    {
        var wrong = new List<Refusal>();
        if (PartNumber.Bare(size).Length == 0)
            wrong.Add(new("Type it as the sheets write it, such as 14 mm socket.", Field: "size"));
        Short(size, LongestPlace, "size", true, wrong);
        Short(place, LongestPlace, "place", false, wrong);
        if (wrong.Count == 0)
            await shelf.Keep(new CribTool(size, place));
        return wrong;
    }

    /// <summary>Takes a pan out of use.</summary>
    /// <returns>Why not; null when it is out.</returns>
    public async Task<Refusal?> DropPan(string name) => await shelf.DropPan(name) == 1 ? null
        : new("There is no such pan.", "Load the page again.");

    /// <summary>Takes a tool out of use.</summary>
    /// <returns>Why not; null when it is out.</returns>
    public async Task<Refusal?> DropTool(string size) => await shelf.DropTool(size) == 1 ? null
        : new("There is no such tool.", "Load the page again.");

    private static Typed<Volume>? Amount(string text, string field, List<Refusal> wrong)
    {
        var (amount, odd) = StockFiles.Amount(text);
        if (amount is null)
            wrong.Add(new(odd, Field: field));
        return amount;
    }

    private static void Short(string text, int most, string field, bool required, List<Refusal> wrong)
    {
        if (wrong.All(w => w.Field != field) && (text.Length > most || (required && text.Length == 0)))
            wrong.Add(new(text.Length == 0 ? "This is missing." : $"This is {text.Length} characters long.", $"Up to {most} characters.",
                Field: field));
    }
}
