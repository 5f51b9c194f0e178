using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Hand over: what happened, what is still open, second names, the signature.</summary>
public sealed class HandoverModel(CardStore cards, PeopleStore people, PinDesk desk, WorkshopClock clock, Viewer viewer) : CardPage(cards, clock, viewer)
{
    public IReadOnlyList<Refusal> InTheWay { get; private set; } = [];
    public IReadOnlyList<Core.Sheets.SheetStep> Remaining { get; private set; } = [];
    public IReadOnlyList<Recorded> Wanting { get; private set; } = [];
    public IReadOnlyList<Recorded> Readings { get; private set; } = [];
    public IReadOnlyList<Member> Countersigners { get; private set; } = [];
    public string PinProblem { get; private set; } = "";

    public IActionResult OnGet(long id) => Load(id) ?? (Card.Signature is null ? Show() : Redirect($"/record/{id}"));

    private PageResult Show()
    {
        InTheWay = [.. Card.BeforeSigning()];
        Remaining = [.. Card.Remaining];
        Wanting = [.. Card.WantingCountersignature.Select(seq => Card.History[seq - 1])];
        var putRight = Card.History.Select(h => h.Event).OfType<ReadingTaken>().Select(r => r.Corrects).ToHashSet();
        Readings = [.. Card.History.Where(h => h.Event is ReadingTaken && !putRight.Contains(h.Seq))];
        Countersigners = [.. people.All().Where(p => p.Person.WorksOnCards)];
        return Page();
    }

    public async Task<IActionResult> OnPostSignAsync(long id)
    {
        if (Load(id) is { } missing)
            return missing;
        return await Carry(id, () => new Sign()) is not null ? Redirect($"/record/{id}") : Show();
    }

    public async Task<IActionResult> OnPostCountersignAsync(long id, string? of, string? who, string? pin)
    {
        if (Load(id) is { } missing)
            return missing;
        var outcome = await desk.Try(who ?? "", pin, HttpContext.Connection.RemoteIpAddress?.ToString() ?? "");
        if (outcome.Member is not { } second)
        {
            PinProblem = outcome.Problem;
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Show();
        }
        if (await Carry(id, () => new Countersign(int.TryParse(of, out var n) ? n : 0), second.Person) is not null)
            return Redirect($"/handover/{id}");
        PinProblem = string.Join(" ", Refusals);
        Refusals.Clear();
        return Show();
    }

    public async Task<IActionResult> OnPostCorrectAsync(long id, string? of, string? torque, string? reason)
    {
        if (Load(id) is { } missing)
            return missing;
        var done = await Carry(id, () =>
        {
            if (Quantity<Torque>.Read(torque, out var problem) is { } typed)
                return new CorrectReading(int.TryParse(of, out var n) ? n : 0, typed, reason?.Trim() ?? "");
            Refusals.Add(new(problem, "", Field: "torque"));
            return null;
        });
        return done is not null ? Redirect($"/handover/{id}#readings") : Show();
    }
}
