using System.Globalization;
using System.Text.Json.Nodes;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A product as it was typed; of lists a line each.</summary>
/// <param name="Name">Range and name.</param>
/// <param name="Grades">Its grades.</param>
/// <param name="Codes">Approvals and classes that it claims.</param>
/// <param name="Additives">What it holds.</param>
/// <param name="LowAsh">Whether it is low in ash.</param>
/// <param name="OpenDays">For how many days an open container may be poured from; empty where that does not matter.</param>
public sealed record TypedOil(string Name, string Grades, string Codes, string Additives, bool LowAsh, string OpenDays);

/// <summary>The desk of the oil book: products and covers, one by one. What was not touched stays in its file letter by letter.</summary>
public sealed class OilDesk(ShelfStore shelf)
{
    private static readonly string Empty = $$"""
        {
          "format": "{{OilBook.Format}}",
          "products": [],
          "covers": []
        }

        """;

    private static readonly Refusal Quicker = new("Somebody else has changed the oil book just now.", "Send it once more.");

    /// <summary>The book as it is.</summary>
    public OilBook Book => shelf.Read().Oils;

    /// <summary>Keeps a product: a new one, or another word on one that is there.</summary>
    /// <param name="typed">What was typed; what has the name of a product that is there is put right.</param>
    /// <param name="isNew">Whether it is to be new.</param>
    /// <returns>What is wrong; nothing is kept then.</returns>
    public Task<IReadOnlyList<Refusal>> Keep(TypedOil typed, bool isNew) => Kept(Product(typed, isNew));

    /// <summary>The book as it would be with a product; nothing is kept.</summary>
    /// <param name="typed">What was typed.</param>
    /// <param name="isNew">Whether it is to be new.</param>
    /// <returns>The book, or what is wrong.</returns>
    public (OilBook? Book, IReadOnlyList<Refusal> Wrong) Would(TypedOil typed, bool isNew) => Would(Product(typed, isNew));

    private (Func<SheetText, SheetText>? Change, IReadOnlyList<Refusal> Wrong) Product(TypedOil typed, bool isNew)
    {
        List<Refusal> wrong = [];
        var name = typed.Name.Trim();
        if (name.Length is 0 or > 80)
            wrong.Add(new(name.Length == 0 ? "The name is missing." : "The name is longer than 80 signs.",
                "Write range and name as the can has them.", Field: "name"));
        if (AmountText.Lines(typed.Grades).Count == 0)
            wrong.Add(new("No grade is said.", "Such as SAE 5W-30, a line each.", Field: "grades"));
        var days = 0;
        if (typed.OpenDays.Trim().Length > 0 && !(int.TryParse(typed.OpenDays, NumberStyles.None, CultureInfo.InvariantCulture, out days)
            && days is > 0 and <= 3650))
            wrong.Add(new($"“{typed.OpenDays}” is not a number of days.", "Type 1 to 3650, or leave it empty.", Field: "open-days"));
        if (isNew && name.Length > 0 && Book.Find(name) is { } there)
            wrong.Add(new($"“{there.Name}” is in the book already.", "Put it right there.", Field: "name"));
        if (wrong.Count > 0)
            return (null, wrong);
        return (text =>
        {
            var place = Place(text, "products", p => PartNumber.Same(text.Said($"{p}.name"), name));
            var at = $"products[{place ?? text.Count("products")}]";
            if (place is null)
                text = text.With(at, new JsonObject { ["name"] = name, ["grades"] = List(typed.Grades), ["codes"] = List(typed.Codes) });
            text = Put(text, $"{at}.grades", List(typed.Grades));
            text = Put(text, $"{at}.codes", List(typed.Codes));
            text = Put(text, $"{at}.additives", List(typed.Additives) is { Count: > 0 } some ? some : null);
            text = Put(text, $"{at}.lowAsh", typed.LowAsh ? JsonValue.Create(true) : null);
            return Put(text, $"{at}.openDays", days > 0 ? JsonValue.Create(days) : null);
        }, []);
    }

    private static JsonArray List(string lines) => [.. AmountText.Lines(lines).Select(l => JsonValue.Create(l))];

    // What says the same already is left as it is written.
    private static SheetText Put(SheetText text, string path, JsonNode? value) => value is null ? text.Without(path)
        : JsonNode.DeepEquals(text.Value(path), value) ? text : text.With(path, value);

    private static int? Place(SheetText text, string list, Func<string, bool> is_) =>
        Enumerable.Range(0, text.Count(list)).Cast<int?>().FirstOrDefault(i => is_($"{list}[{i}]"));

    /// <summary>Takes a product out of the book, where nothing of it is left in the stores.</summary>
    public async Task<Refusal?> Remove(string name)
    {
        if (shelf.Read().Containers.Where(c => PartNumber.Same(c.Product, name) && c.Left > Quantity<Volume>.Zero).Select(c => c.Name)
            .FirstOrDefault() is { } can)
            return new($"{can} still holds it.", "Use it up, or scrap what is left.");
        var wrong = await Write(text => Place(text, "products", p => PartNumber.Same(text.Said($"{p}.name"), name)) is { } place
            ? text.Without($"products[{place}]") : text);
        return wrong.Count > 0 ? wrong[0] : null;
    }

    /// <summary>Writes down that one code covers another.</summary>
    /// <param name="code">The newer or stricter code.</param>
    /// <param name="covers">The code that it covers.</param>
    /// <param name="fuel">For petrol or diesel only; empty for both.</param>
    /// <param name="meant">Whether a circle is meant: that each covers the other.</param>
    /// <returns>What is wrong, by the fields <c>code</c>, <c>covers</c>, <c>fuel</c> and <c>meant</c>.</returns>
    public Task<IReadOnlyList<Refusal>> Cover(string code, string covers, string fuel, bool meant) =>
        Kept(Covering(code, covers, fuel, meant));

    /// <summary>The book as it would be with a cover; nothing is kept.</summary>
    /// <param name="code">The newer or stricter code.</param>
    /// <param name="covers">The code that it covers.</param>
    /// <param name="fuel">For petrol or diesel only; empty for both.</param>
    /// <returns>The book, or what is wrong; a circle is drawn without being asked about.</returns>
    public (OilBook? Book, IReadOnlyList<Refusal> Wrong) WouldCover(string code, string covers, string fuel) =>
        Would(Covering(code, covers, fuel, meant: true));

    private (Func<SheetText, SheetText>? Change, IReadOnlyList<Refusal> Wrong) Covering(string code, string covers, string fuel, bool meant)
    {
        (code, covers) = (code.Trim(), covers.Trim());
        List<Refusal> wrong = [];
        foreach (var (field, text) in new[] { ("code", code), ("covers", covers) })
            if (text.Length is 0 or > 60)
                wrong.Add(new(text.Length == 0 ? "A code is missing." : "A code has 60 signs at most.", "Write it as it is printed.",
                    Field: field));
        if (fuel is not ("" or "petrol" or "diesel"))
            wrong.Add(new("That is not a fuel.", "Choose one.", Field: "fuel"));
        if (wrong.Count == 0 && PartNumber.Same(code, covers))
            wrong.Add(new("A code covers itself anyway.", "Write another code.", Field: "covers"));
        if (wrong.Count > 0)
            return (null, wrong);
        IReadOnlyList<Fuel> fuels = fuel switch { "petrol" => [Fuel.Petrol], "diesel" => [Fuel.Diesel], _ => [] };
        if (!meant && Book.Book.Back(new(code, covers, fuels)) is { } back)
            return (null, [new($"{string.Join(" covers ", back)} already. Does each cover the other?",
                "Look it up; where it is so, say that it is meant.", Field: "meant")]);
        return (text => Place(text, "covers", p => PartNumber.Same(text.Said($"{p}.code"), code)
            && PartNumber.Same(text.Said($"{p}.covers"), covers)) is { } place
                ? Put(text, $"covers[{place}].fuels", fuel.Length == 0 ? null : new JsonArray(fuel))
                : text.With($"covers[{text.Count("covers")}]", fuel.Length == 0 ? new JsonObject { ["code"] = code, ["covers"] = covers }
                    : new JsonObject { ["code"] = code, ["covers"] = covers, ["fuels"] = new JsonArray(fuel) }), []);
    }

    /// <summary>Takes a cover out of the book.</summary>
    public Task<IReadOnlyList<Refusal>> Uncover(string code, string covers) => Write(text => Place(text, "covers", p =>
        text.Said($"{p}.code") == code && text.Said($"{p}.covers") == covers) is { } place ? text.Without($"covers[{place}]") : text);

    private Task<IReadOnlyList<Refusal>> Kept((Func<SheetText, SheetText>? Change, IReadOnlyList<Refusal> Wrong) asked) =>
        asked.Change is { } change ? Write(change) : Task.FromResult(asked.Wrong);

    private (OilBook? Book, IReadOnlyList<Refusal> Wrong) Would((Func<SheetText, SheetText>? Change, IReadOnlyList<Refusal> Wrong) asked)
    {
        if (asked.Change is not { } change)
            return (null, asked.Wrong);
        var (book, errors) = OilBook.Read(change(Text(shelf.OilBookText())).ToString());
        return (book, [.. errors.Select(e => e with { Line = null })]);
    }

    private async Task<IReadOnlyList<Refusal>> Write(Func<SheetText, SheetText> change)
    {
        var was = shelf.OilBookText();
        var next = change(Text(was)).ToString();
        var (_, errors) = OilBook.Read(next);
        return errors.Count > 0 ? [.. errors.Select(e => e with { Line = null })]
            : next == was || await shelf.ReplaceOilBook(was, next) ? [] : [Quicker];
    }

    private static SheetText Text(string? book)
    {
        var text = SheetText.Read(book ?? Empty, out _)!;
        return text.Has("covers") ? text : text.With("covers", new JsonArray());
    }
}
