using System.Globalization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>An own list as it is typed.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Book">The book that it is taken from.</param>
/// <param name="Page">Page or place in it.</param>
/// <param name="Every">Every so far; empty for no distance.</param>
/// <param name="Months">Every so many months; empty for no time.</param>
/// <param name="Where">Where the person stands.</param>
/// <param name="Points">What is inspected, a line each.</param>
public sealed record OwnListForm(string Name = "", string Book = "", string Page = "", string Every = "", string Months = "",
    string Where = "", string Points = "");

/// <summary>Lists of inspections that somebody makes from the maker's book, kept with the model.</summary>
public sealed class OwnListDesk(OwnListStore lists, SheetStore sheets, WorkshopClock clock)
{
    /// <summary>A list of a model, or null.</summary>
    public OwnList? Find(SheetId sheet, string id) => lists.Of(sheet).FirstOrDefault(l => l.Id == id);

    /// <summary>A list as it was typed.</summary>
    public static OwnListForm Form(OwnList list) => new(list.Name, list.Book, list.Page, list.Every.Every is { } every
        ? $"{every.Print(Distance.Kilometre)}" : "", $"{list.Every.Months}", $"{list.Place}".ToLowerInvariant(),
        OwnPoints.Write(list.Points));

    /// <summary>Keeps what was typed.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="id">The list that is changed; empty for a new one.</param>
    /// <param name="changed">How often it was changed when it was looked at.</param>
    /// <param name="form">What was typed.</param>
    /// <param name="unit">The distance unit of who typed it.</param>
    /// <param name="by">Who.</param>
    /// <returns>The list as it is kept; null when something is wrong, which the refusals tell.</returns>
    public async Task<(OwnList? Kept, IReadOnlyList<Refusal> Wrong)> Keep(SheetId sheet, string id, int changed, OwnListForm form,
        Unit<Distance> unit, Person by)
    {
        var wrong = new List<Refusal>();
        if (!by.WorksOnCards)
            return (null, [new("You can look at lists, not change them.", "Ask a technician or the workshop lead.")]);
        if (sheets.Newest(sheet) is not { } model)
            return (null, [new("This model is not here.", "Bring its sheet in first.")]);
        Words(form.Name, "name", "The name");
        Words(form.Book, "book", "The book");
        Words(form.Page, "page", "The page or place in it");
        if (model.Jobs.Values.Any(j => j.Id.Text != id && j.Name.Equals(form.Name.Trim(), StringComparison.OrdinalIgnoreCase)))
            wrong.Add(new($"This model has “{form.Name.Trim()}” already.", "Give it another name.", Field: "name"));
        var (every, months) = (Distances(form.Every, unit, wrong), Months(form.Months, wrong));
        if (form.Every.Trim().Length == 0 && form.Months.Trim().Length == 0)
            wrong.Add(new("It says nowhere how often it is due.", "Type a distance, months, or both.", Field: "every"));
        if (!Enum.TryParse<Place>(form.Where, true, out var place) || !Enum.IsDefined(place) || form.Where.Any(char.IsDigit))
            wrong.Add(new("It does not say where one stands.", "Choose one of the four.", Field: "where"));
        var points = OwnPoints.Read(form.Points, out var bad);
        wrong.AddRange(bad);
        if (wrong.Count > 0)
            return (null, wrong);
        var name = form.Name.Trim();
        var kept = await lists.Keep(sheet, new(id, $"{char.ToUpperInvariant(name[0])}{name[1..]}", form.Book.Trim(), form.Page.Trim(),
            new(every, months), place, points, changed), by.Id, clock.Now);
        return kept is null ? (null, [id.Length == 0
            ? new($"A model has at most {OwnListStore.Most} lists of its own.", "Remove one, or add to one that is there.")
            : new("Somebody has changed or removed this list meanwhile.", "Look at it again, then change it.")]) : (kept, []);

        void Words(string text, string field, string what)
        {
            if (Reason.Wrong(text, field, what) is { } r)
                wrong.Add(r);
            else if (text.Trim().Length > 80)
                wrong.Add(new($"{what} is {text.Trim().Length} characters long.", "Keep it to 80.", Field: field));
        }
    }

    /// <summary>Removes a list; cards that have it keep it.</summary>
    /// <returns>Whether it was there, as it was looked at.</returns>
    public async Task<bool> Remove(SheetId sheet, string id, int changed, Person by) =>
        by.WorksOnCards && await lists.Remove(sheet, id, changed, by.Id, clock.Now);

    private static Quantity<Distance>? Distances(string text, Unit<Distance> unit, List<Refusal> wrong)
    {
        if (text.Trim().Length == 0)
            return null;
        if (Quantity<Distance>.Read(text, out var problem, unit) is not { } typed)
            wrong.Add(new(problem, "Type such as “10 000 km”.", Field: "every"));
        else if (typed.Value.In(Distance.Kilometre) is < 50 or > 500_000)
            wrong.Add(new($"{typed} cannot be.", "Between 50 and 500 000 km.", Field: "every"));
        else
            return typed.Value;
        return null;
    }

    private static int? Months(string text, List<Refusal> wrong)
    {
        if (text.Trim().Length == 0)
            return null;
        if (int.TryParse(text.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var months) && months is >= 1 and <= 240)
            return months;
        wrong.Add(new($"“{(text.Length > 40 ? text[..40] + "…" : text)}” is no number of months.", "Between 1 and 240.", Field: "months"));
        return null;
    }
}
