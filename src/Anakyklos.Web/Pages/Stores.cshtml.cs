using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Stores and crib: what is there, what comes in, what has to be ordered.</summary>
public sealed class StoresModel(ShelfStore shelf, BookIn bookIn, OrderDesk orders, PeopleStore people, TrailStore trail,
    ComingFiles coming, WorkshopClock clock, Viewer viewer) : PageModel
{
    private const int MostText = 2_000_000, OnPage = 60, FewFor = 6;

    /// <summary>So many of the containers that are empty are shown, those first that were opened last.</summary>
    internal const int EmptyShown = 30;

    private readonly Dictionary<string, string> _typed = [];

    public Shelf Shelf { get; private set; } = Shelf.Empty;
    public IReadOnlyList<StockLine> Book { get; private set; } = [];
    public IReadOnlyList<OrderLine> Orders { get; private set; } = [];
    public List<Refusal> Refusals { get; } = [];
    public IReadOnlyList<Refusal> Errors { get; private set; } = [];
    public string Said { get; private set; } = "";

    /// <summary>What is looked for.</summary>
    public string Q { get; private set; } = "";

    /// <summary>The part that was looked up, and how it was found.</summary>
    public (StockPart Part, FoundAs As)? Found { get; private set; }

    /// <summary>Whether this person may change the stores.</summary>
    public bool CanBook => viewer.Member?.Role is Role.Stores or Role.Lead or Role.Technician;

    public string Typed(string field) => _typed.GetValueOrDefault(field, "");

    public string Name(PersonId person) => people.All().FirstOrDefault(p => p.Id == person)?.Name ?? person.Text;

    public void OnGet(string? q, string? said, string? of, int at = 1) => Fill(q, said, of, at);

    public IActionResult OnGetFile(string kind) => !StockFiles.Kinds.Contains(kind) ? NotFound()
        : File(System.Text.Encoding.UTF8.GetBytes(StockFiles.Write(kind, shelf.Read())), "text/csv", $"{kind}.csv");

    public IActionResult OnGetOils() => shelf.OilBookText() is { } text
        ? File(System.Text.Encoding.UTF8.GetBytes(text), "application/json", "oils.json") : NotFound();

    public IActionResult OnGetOrder() => File(System.Text.Encoding.UTF8.GetBytes(orders.Write()), "text/csv",
        $"order-{clock.Today:yyyy-MM-dd}.csv");

    public async Task<IActionResult> OnPostPartAsync(string? number, string? count)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        (_typed["number"], _typed["count"]) = ((number ?? "").Trim(), (count ?? "").Trim());
        var (pieces, problem) = StockFiles.Count(Typed("count"));
        if (pieces is null or 0)
            Refusals.Add(new(pieces == 0 ? "None is nothing to book." : problem, "", Field: "count"));
        if (Refusals.Count == 0 && await bookIn.Parts(Typed("number"), pieces!.Value, viewer.Member!.Person) is { } booked)
            return RedirectToPage(new { said = $"{pieces} × {booked.Part.Name} {booked.Part.Number}: {booked.Part.OnShelf} on the "
                + $"shelf now{Woken(booked.Woken)}", q = booked.Part.Number });
        if (Refusals.Count == 0)
            Refusals.Add(new($"The stores do not know “{Typed("number")}”.",
                "Look at the number again, or write it down as a new part.", Field: "number"));
        return Again();
    }

    public async Task<IActionResult> OnPostContainerAsync(string? product, string? size, string? batch)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        (_typed["product"], _typed["size"], _typed["batch"]) = ((product ?? "").Trim(), (size ?? "").Trim(), (batch ?? "").Trim());
        var (amount, problem) = StockFiles.Amount(Typed("size"));
        if (amount is null || amount.Value.Value <= Quantity<Volume>.Zero)
            Refusals.Add(new(amount is null ? problem : "An empty container is nothing to book.", "", Field: "size"));
        if (shelf.Read().Oils.Find(Typed("product")) is not { } known)
            Refusals.Add(new($"“{Typed("product")}” is not in the oil book.", "Choose one from it.", Field: "product"));
        else if (Refusals.Count == 0)
        {
            var woken = await bookIn.Oil(new(0, known.Name, amount!.Value.Value, amount.Value.Value, amount.Value.Unit, null,
                Typed("batch").Length > 40 ? Typed("batch")[..40] : Typed("batch")), viewer.Member!.Person);
            return RedirectToPage(new { said = $"{amount} of {known.Name} are in{Woken(woken)}" });
        }
        return Again();
    }

    /// <summary>What the file that was sent would change; null where none was looked at.</summary>
    public Preview? Would { get; private set; }

    /// <summary>Shows what a file would change, and takes nothing in.</summary>
    public Task<IActionResult> OnPostLookAsync(string? kind, string? text) => File(kind, text, false);

    public Task<IActionResult> OnPostFileAsync(string? kind, string? text) => File(kind, text, true);

    private async Task<IActionResult> File(string? kind, string? text, bool take)
    {
        if (Refuse() is { } forbidden)
            return forbidden;
        var file = Request.Form.Files.GetFile("file");
        if (file is { Length: > 0 and <= MostText })
            text = (await TextFile.Of(file.OpenReadStream())).Text;
        (_typed["kind"], _typed["text"]) = (kind ?? "", text ?? "");
        if (text?.Length > MostText || file?.Length > MostText)
            Refusals.Add(new("The file is too large.", "Bring it in as several files, of 2 MB each at most.", Field: "text"));
        else if (string.IsNullOrWhiteSpace(text))
            Refusals.Add(new("There is nothing in it.", "Choose a file, or paste its text.", Field: "text"));
        else if (kind == "oils")
        {
            (var book, Errors) = OilBook.Read(text);
            if (book is not null && !take)
                return Look(new([.. book.Products.Select(p => p.Name).Except(shelf.Read().Oils.Products.Select(p => p.Name))
                    .Select(n => $"{n}: new"), .. shelf.Read().Oils.Products.Select(p => p.Name).Except(book.Products.Select(p => p.Name))
                    .Select(n => $"{n}: gone")], book.Products.Count(p => shelf.Read().Oils.Find(p.Name) is null), 0,
                    book.Products.Count(p => shelf.Read().Oils.Find(p.Name) is not null)));
            if (book is not null)
            {
                await shelf.WriteOilBook(text);
                return RedirectToPage(new { said = $"The oil book is in: {book.Products.Count} products, {book.Book.Covers.Count} "
                    + "covers" });
            }
        }
        else if (!StockFiles.Kinds.Contains(kind))
            Refusals.Add(new("What kind of file is it?", "Choose one of those shown.", Field: "kind"));
        else
        {
            using var comes = coming.Begin(viewer.Member!.Id, SentForms.IdOf(Request.Form));
            var (stock, errors) = StockFiles.Read(kind!, text, clock.Today, [.. shelf.Read().Oils.Products.Select(p => p.Name)], comes);
            Errors = errors;
            if (stock is not null && !take)
                return Look(Preview.Of(stock, shelf.Read()));
            if (stock is not null)
            {
                var rows = $"{await shelf.BringIn(stock, viewer.Member!.Person, clock.Now,
                    (done, of) => comes.At(FileStage.Kept, done, of))} rows of {kind}";
                await trail.Note(viewer.Member!.Id.Text, "brought in", $"{rows} from a file", clock.Now);
                return RedirectToPage(new { said = $"{rows} are in" });
            }
        }
        return Again();
    }

    /// <summary>How the part that was found has to do with the number that was looked for.</summary>
    public string FoundBy => Found?.As switch
    {
        FoundAs.Successor => $", which supersedes {Q}",
        FoundAs.Equivalent => $", the same as {Q} from another maker",
        _ => "",
    };

    /// <summary>What else is known of a part: what is kept, what it is superseded by, what is the same.</summary>
    public static string Beside(StockPart p) => string.Join(" ", new[]
    {
        p.Reserved > 0 ? $"{p.Reserved} kept for cards" : "",
        p.Minimum > 0 ? $"at least {p.Minimum}" : "",
        p.Place,
        p.SupersededBy.Length > 0 ? $"superseded by {p.SupersededBy}" : "",
        p.Equivalents.Count > 0 ? $"same as {string.Join(", ", p.Equivalents)}" : "",
    }.Where(t => t.Length > 0));

    private static string Woken(IReadOnlyList<CardNumber> cards) => cards.Count == 0 ? ""
        : $". Card {string.Join(", ", cards)} waited for it and goes on";

    private ForbidResult? Refuse() => CanBook ? null : Forbid();

    private PageResult Look(Preview would)
    {
        Would = would;
        Fill(null, null);
        return Page();
    }

    private PageResult Again()
    {
        Fill(null, null);
        Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    private void Fill(string? q, string? said, string? of = null, int at = 1)
    {
        (Q, Said) = ((q ?? "").Trim(), said is { Length: < 300 } ? said : "");
        Shelf = shelf.Read();
        Book = shelf.Book(14);
        Orders = orders.Lines();
        Found = Q.Length > 0 ? Shelf.Find(Q) : null;
        Groups = Grouped(of ?? "", at);
    }

    /// <summary>A group of parts, of which one page is shown.</summary>
    public sealed record Group(string Name, string Title, int Count, IReadOnlyList<StockPart> Parts, int At, int Pages, bool IsOpen);

    /// <summary>The parts to list: those that the search is about; or what is missing or kept for cards, and all the others.</summary>
    public IReadOnlyList<Group> Groups { get; private set; } = [];

    /// <summary>The address of another page of a group.</summary>
    public string To(Group group, int page) =>
        $"/stores?{(Q.Length > 0 ? $"q={Uri.EscapeDataString(Q)}&" : "")}of={group.Name}&at={page}#{group.Name}";

    /// <summary>What a line of the order is for; of many the first few.</summary>
    public static string For(OrderLine line) => line.For.Count <= FewFor + 1 ? string.Join(", ", line.For)
        : $"{string.Join(", ", line.For.Take(FewFor))} and {line.For.Count - FewFor} more";

    private List<Group> Grouped(string of, int at)
    {
        if (Q.Length > 0)
        {
            var found = Shelf.Containing(Q).ToList();
            // One that stands under another number.
            if (Found is { } other && found.All(p => p.Number != other.Part.Number))
                found.Insert(0, other.Part);
            return [.. Paged("found", "Found", found, true)];
        }
        var wanted = Shelf.Parts.ToLookup(p => p.OnShelf == 0 || p.Reserved > 0 || p.OnShelf < p.Minimum);
        return [.. Paged("wanted", "Missing, or kept for cards", [.. wanted[true]], true),
            .. Paged("others", "All the others", [.. wanted[false]], of == "others")];

        IEnumerable<Group> Paged(string name, string title, IReadOnlyList<StockPart> parts, bool open)
        {
            var pages = (parts.Count + OnPage - 1) / OnPage;
            var page = of == name ? Math.Clamp(at, 1, Math.Max(1, pages)) : 1;
            if (pages > 0)
                yield return new(name, title, parts.Count, [.. parts.Skip((page - 1) * OnPage).Take(OnPage)], page, pages, open);
        }
    }
}
