using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>Hand over: what happened, what is still open, second names, the signature.</summary>
public sealed class HandoverModel(CardStore cards, PeopleStore people, PinDesk desk, WorkshopClock clock, Viewer viewer)
    : CardPage(cards, clock, viewer)
{
    public IReadOnlyList<Refusal> InTheWay { get; private set; } = [];
    public IReadOnlyList<Core.Sheets.SheetStep> Remaining { get; private set; } = [];
    public IReadOnlyList<Recorded> Wanting { get; private set; } = [];
    public IReadOnlyList<Recorded> Readings { get; private set; } = [];
    public IReadOnlyList<Member> Countersigners { get; private set; } = [];

    /// <summary>Those who decide about a stop.</summary>
    public IEnumerable<Member> Leads => Countersigners.Where(p => p.Role == Role.Lead);
    public string PinProblem { get; private set; } = "";

    public IActionResult OnGet(long id) => Load(id) ?? (Card.Ended is null ? Show() : Redirect($"/record/{id}"));

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

    public Task<IActionResult> OnPostCountersignAsync(long id, string? of, string? who, string? pin) =>
        WithName(id, who, pin, () => new Countersign(int.TryParse(of, out var n) ? n : 0));

    public Task<IActionResult> OnPostDecideAsync(long id, string? of, string? who, string? pin, string? words, string? mended) =>
        WithName(id, who, pin, () => new DecideStop(int.TryParse(of, out var n) ? n : 0, mended == "yes", words?.Trim() ?? ""));

    public Task<IActionResult> OnPostMendAsync(long id, string? index, string? who, string? pin, string? words) =>
        WithName(id, who, pin, () => new MendCarried(int.TryParse(index, out var n) ? n : -1, words?.Trim() ?? ""));

    public async Task<IActionResult> OnPostVoidAsync(long id, string? reason)
    {
        if (Load(id) is { } missing)
            return missing;
        return await Carry(id, () => new VoidCard(reason?.Trim() ?? "")) is not null ? Redirect($"/record/{id}") : Show();
    }

    // Somebody else puts a name to it, at this screen, with a PIN of their own.
    private async Task<IActionResult> WithName(long id, string? who, string? pin, Func<CardCommand> command)
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
        if (await Carry(id, command, second.Person) is not null)
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
