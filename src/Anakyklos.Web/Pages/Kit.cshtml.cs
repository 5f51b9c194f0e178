using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Desk.Files;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Anakyklos.Web.Pages;

/// <summary>The kit of a card: everything in hand before anything is opened.</summary>
public sealed class KitModel(CardStore cards, KitDesk kits, WorkshopClock clock, Viewer viewer)
    : CardPage(cards, clock, viewer)
{
    public KitList Kit { get; private set; } = null!;

    /// <summary>What the last scan said, and whether it was good.</summary>
    public (string Text, bool IsGood)? Scanned { get; private set; }

    /// <summary>The kit step; null when the card has none.</summary>
    public SheetStep? Step => Card.Steps.FirstOrDefault(s => s.Traits.LaysOut);

    /// <summary>Whether it may still be laid out.</summary>
    public bool CanLayOut => Step is not null && Card.Ended is null && Viewer.Member?.Person.WorksOnCards == true;

    public DateOnly? Boat(string number) => kits.Boat(number, Shelf);

    // Read once for a page, however many numbers it shows.
    private Shelf Shelf => _shelf ??= kits.Shelf(Id);
    private Shelf? _shelf;

    /// <summary>Whether a part is ticked: as posted, or as it was laid out before.</summary>
    public bool IsTicked(Part part) => Request.HasFormContentType ? _ticked.Contains(part.Id)
        : Card.Kit?.Parts.GetValueOrDefault(part.Id) is { } number && number != KitConfirmed.OldOneAgain;

    /// <summary>What the stores have of a part, and how often the seal that sits there was used again.</summary>
    public static string OnShelf(KitPartLine line) => string.Join("; ", new[]
    {
        line switch { { Found: { } f, As: FoundAs.Successor } => $"now {f.Number}",
            { Found: { } f, As: FoundAs.Equivalent } => $"{f.Number} is the same", _ => "" },
        line.Found is { } found ? $"{found.OnShelf} on the shelf{(found.Reserved > 0 ? $", {found.Reserved} kept for other cards" : "")}"
            : "the stores do not know this number",
        line.UsedAgain == 0 ? "" : $"the one in there was used again {(line.UsedAgain == 1 ? "once" : $"{line.UsedAgain} times")}",
    }.Where(t => t.Length > 0));

    /// <summary>How many things stop it, and for how many the old one may go in again.</summary>
    public (int Stops, int Worse) Lacks => (
        Kit.Parts.Count(p => p.Verdict == KitVerdict.Stops) + Kit.Oils.Count(o => o.Verdict == KitVerdict.Stops)
            + (Kit.Pan?.Short is null ? 0 : 1),
        Kit.Parts.Count(p => p.Verdict == KitVerdict.Worse));

    /// <summary>How the kit stands, as its heading.</summary>
    public string Verdict => Lacks switch
    {
        (1, _) => "One thing stops it",
        ( > 1 and var stops, _) => $"{stops} things stop it",
        (_, 1) => "One old seal, or wait",
        (_, > 1 and var worse) => $"{worse} old seals, or wait",
        _ => "All of it is here",
    };

    /// <summary>What the card waits for, where it waits for a number; otherwise null.</summary>
    public string? Waits(string number) => Card.Awaited.FirstOrDefault(a => PartNumber.Same(a.Number, number)) is not { } awaited ? null
        : awaited.Boat is { } boat ? $"waits until {boat:dddd d MMMM}" : "waits; nobody knows until when";

    /// <summary>What the button says that waits for a number.</summary>
    public string WaitFor(string number) =>
        Boat(number) is { } boat ? $"Wait until {boat:dddd}, when it comes" : "Wait; nobody knows until when";

    /// <summary>Whether something is wrong with what was typed about a fluid.</summary>
    public bool IsWrong(KitOilLine line) =>
        Refusals.Any(r => r.Field?.StartsWith($"oils.{line.Fluid.Id}.", StringComparison.Ordinal) == true);

    /// <summary>What runs into a pan, with how much.</summary>
    public string Into(IReadOnlyList<FluidSystem> fluids) => fluids.Count == 0 ? "" : "for the " + string.Join(" and the ",
        fluids.Select(f => $"{Words.Low(f.Name)}, {f.Amount.Value.Print(Viewer.VolumeUnits[0])}"));

    /// <summary>The wrench of a group of fasteners, and how its calibration stands.</summary>
    public static string Calibration(KitTorqueLine line) => line switch
    {
        { Wrench: { } wrench } => $"calibrated until {wrench.CalibrationDue:d MMM yyyy}",
        { OutOfCalibration: { CalibrationDue: null } never } => $"{never.Wrench.Name} would do, but it is not calibrated",
        { OutOfCalibration: { } past } => $"{past.Wrench.Name} would do, but its calibration ended {past.CalibrationDue:d MMM yyyy}",
        _ => "in calibration covers this",
    };

    /// <summary>What the pans hold, as typed, as laid out before, or of the pans that were chosen.</summary>
    public string Pans => Typed("command").Length > 0 ? Typed("pan")
        : string.Join(" + ", (Card.Kit?.AllPans ?? [.. Kit.Pan?.Pans.Select(p => p.Holds) ?? []])
            .Select(holds => holds.Print(Viewer.VolumeUnits[0]).ToString()));

    /// <summary>The three fields of a fluid: what is on the can, how much, and why all the same.</summary>
    public IEnumerable<TypedField> OilFields(KitOilLine line)
    {
        var fluid = line.Fluid.Id;
        var laid = Card.OilInHand(fluid);
        var inHand = laid is null ? KitDesk.InHand(line) : (laid.Product, laid.Amount);
        yield return Typed($"oils.{fluid}.product", "On the can; two with a + between them", inHand?.Product ?? "");
        yield return Typed($"oils.{fluid}.amount", "In hand", inHand?.Amount.Print(Viewer.VolumeUnits[0]).ToString() ?? "");
        yield return Typed($"oils.{fluid}.reason", "If it lacks something: why all the same?", laid?.Reason ?? "");
    }

    private TypedField Typed(string name, string label, string otherwise) =>
        new(name, label, Typed("command").Length > 0 ? Typed(name) : otherwise, Refusals) { Most = 120 };

    private readonly HashSet<PartId> _ticked = [];

    public IActionResult OnGet(long id)
    {
        if (Load(id) is { } missing)
            return missing;
        Kit = kits.Of(id, Card);
        return Page();
    }

    /// <summary>The kit as a file.</summary>
    public IActionResult OnGetFile(long id)
    {
        if (Load(id) is { } missing)
            return missing;
        return File(System.Text.Encoding.UTF8.GetBytes(KitFile.Write(kits.Of(id, Card))), "text/csv", $"kit-{id}.csv");
    }

    /// <summary>A number was scanned or typed: the part it belongs to is ticked.</summary>
    public IActionResult OnPostScan(long id, string? scan)
    {
        if (Keep(id) is { } missing)
            return missing;
        Scanned = Find((scan ?? "").Trim());
        return Page();
    }

    /// <summary>Everything that is on the shelf was packed as a kit: all of it is ticked at once.</summary>
    public IActionResult OnPostAll(long id)
    {
        if (Keep(id) is { } missing)
            return missing;
        foreach (var line in Kit.Parts.Where(p => p.Missing == 0))
            _ticked.UnionWith(line.Uses.Select(p => p.Id));
        return Page();
    }

    public async Task<IActionResult> OnPostConfirmAsync(long id)
    {
        if (Keep(id) is { } missing)
            return missing;
        foreach (var line in Kit.Parts.Where(l => l.Compare && l.Uses.Any(p => _ticked.Contains(p.Id))
            && Typed($"compared-{l.Uses[0].Id}").Length == 0))
            Refusals.Add(new($"The {Words.Low(line.Name)} was not held against the old one.",
                "Hold it against the old one, or against the drawing on its box, and say so.", Field: $"parts.{line.Uses[0].Id}"));
        return await Carry(Refusals.Count > 0 ? null : ReadKit()) ? Redirect(Lift) : Page();
    }

    /// <summary>The card waits for something that is not here.</summary>
    public async Task<IActionResult> OnPostAwaitAsync(long id, string? number)
    {
        if (Keep(id) is { } missing)
            return missing;
        if ((Kit.Parts.FirstOrDefault(p => p.Number == number)?.Name
            ?? Kit.Oils.FirstOrDefault(o => Wanting(o) == number)?.Fluid.Name) is not { } name)
            Refusals.Add(new("That does not belong to this kit.", "Load the page again."));
        else if (await Carry(new AwaitPart(number!, name, Boat(number!))))
            return Redirect($"/kit/{id}");
        Response.StatusCode = StatusCodes.Status409Conflict;
        return Page();
    }

    /// <summary>What to order for a fluid that is short: the product taken, or the first of the book that fits.</summary>
    public string Wanting(KitOilLine line)
    {
        var oils = Shelf.Oils;
        return (line.Chosen?.Product ?? oils.Products.FirstOrDefault(p =>
            Core.Oils.OilMatch.Of(p, line.Wanted, oils.Book, null).Fits))?.Name ?? "";
    }

    private IActionResult? Keep(long id)
    {
        if (Load(id) is { } missing)
            return missing;
        if (!CanLayOut)
            return Forbid();
        Kit = kits.Of(id, Card);
        _ticked.UnionWith(Card.PartsWanted.Select(p => p.Id).Where(p => Typed($"tick-{p}").Length > 0));
        return null;
    }

    // What lies there is what is ticked; pans and oils are as typed.
    private ConfirmKit? ReadKit() => Read("kit") is ConfirmKit said
        ? said with { Step = Step!.Id, Parts = Card.PartsWanted.ToDictionary(p => p.Id, Lies) } : null;

    private KitPart Lies(Part part)
    {
        if (Typed($"old-{part.Id}").Length > 0)
            return new(KitChoice.OldAgain, "", Typed($"parts.{part.Id}.reason"));
        if (!_ticked.Contains(part.Id))
            return new(KitChoice.Missing);
        var line = Kit.Parts.First(l => l.Uses.Contains(part));
        return line is { As: not FoundAs.Itself, Found: { } found } ? new(KitChoice.InHand, found.Number) : new(KitChoice.InHand);
    }

    private (string, bool) Find(string scan)
    {
        if (scan.Length == 0)
            return ("Scan the number on the part, or type it.", false);
        var found = ScannedPart.Of(Kit, Shelf, _ticked, scan);
        if (found.Verdict == ScanVerdict.Good)
            _ticked.Add(found.Part!.Id);
        return found.Verdict switch
        {
            ScanVerdict.Good =>
                ($"{found.Part!.Name} {scan.ToUpperInvariant()}{(PartNumber.Same(scan, found.Number) ? "" : $", good for {found.Number}")}",
                true),
            ScanVerdict.Enough => ($"{found.Part!.Name} {found.Number}: all of them are ticked already.", false),
            ScanVerdict.WrongButFits =>
                ($"{scan.ToUpperInvariant()} is the wrong {Words.Low(found.Part!.Name)}: {found.Why}. It needs {found.Number}.", false),
            _ => ($"{scan} does not belong to this kit.", false),
        };
    }
}
