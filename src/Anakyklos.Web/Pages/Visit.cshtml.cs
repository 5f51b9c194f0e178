using Anakyklos.Core.Due;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Weeks;
using Anakyklos.Core.Wording;
using Anakyklos.Core.Workshop;
using Anakyklos.Desk;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Anakyklos.Web.Wording;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>One visit of the week: why it is proposed, what other days would cost, and what the plan should know of the vehicle.</summary>
public sealed class VisitModel(WeekDesk desk, WeekMoves moves, VisitStore visits, VehicleStore vehicles, CardStore cards,
    WorkshopClock clock, Viewer viewer) : PageModel
{
    private readonly Dictionary<string, string> _typed = [];

    public Vehicle Vehicle { get; private set; } = null!;
    public WorkshopWeek Week { get; private set; } = null!;

    /// <summary>The visit; null where nothing asks for it, it is left out, or it is here.</summary>
    public WeekVisit? Visit { get; private set; }

    /// <summary>What each day would bring.</summary>
    public IReadOnlyList<(DateOnly Day, WeekChange Change)> Choices { get; private set; } = [];

    /// <summary>What would come of the slot that was typed, or null.</summary>
    public WeekChange? Tried { get; private set; }

    /// <summary>What would come of leaving it out.</summary>
    public WeekChange? LeftOut { get; private set; }

    public DroppedVisit? Dropped => Week.Dropped.FirstOrDefault(d => d.Plate == Vehicle.Plate);

    /// <summary>What there is instead of a place, in a word or two.</summary>
    public string Instead => Card is not null ? "It is here" : Dropped is not null ? "Left out" : Visit is null ? "Need not come"
        : "No place";

    /// <summary>Why it has no place.</summary>
    public string WhyInstead => Card is { } c ? $"Card {c.Id} is open."
        : Dropped is { } d ? $"Until {WeekWords.Day(d.Until)}: {d.Reason} ({d.By})."
        : Visit is null ? "Nothing asks for it within two weeks." : WeekWords.NoPlace(Visit, Week);

    public CardEntry? Card { get; private set; }
    public Trip? Trip { get; private set; }
    public string Told { get; private set; } = "";
    public WeeklyTimes Needed { get; private set; } = WeeklyTimes.Never;
    public IReadOnlyList<Refusal> Refusals { get; private set; } = [];
    public DateOnly Today => clock.Today;
    public bool MayMove => viewer.Member?.Person.WorksOnCards == true;

    /// <summary>What was typed into a field, or what stands there.</summary>
    public string Typed(string field, string stands = "") => _typed.GetValueOrDefault(field, stands);

    public IActionResult OnGet(string plate) => Load(plate) ? Page() : NotFound();

    /// <summary>Shows what would come of a slot; nothing is kept.</summary>
    public Task<IActionResult> OnPostTryAsync([FromRoute] string plate, string? day, string? time, string? bay) =>
        Do(plate, [("day", day), ("time", time), ("bay", bay)], () =>
    {
        (Tried, _, var wrong) = moves.Try(plate, day, time, bay);
        return Task.FromResult(wrong);
    }, stays: true);

    public Task<IActionResult> OnPostFixAsync([FromRoute] string plate, string? day, string? time, string? bay) =>
        Do(plate, [("day", day), ("time", time), ("bay", bay)], () => moves.Fix(plate, day, time, bay, viewer.Member!.Person));

    public Task<IActionResult> OnPostFreeAsync([FromRoute] string plate) =>
        Do(plate, [], () => moves.Free(plate, viewer.Member!.Person));

    public Task<IActionResult> OnPostDropAsync([FromRoute] string plate, string? until, string? reason) =>
        Do(plate, [("until", until), ("reason", reason)], () => moves.Drop(plate, until, reason, viewer.Member!.Person));

    public Task<IActionResult> OnPostTakeBackAsync([FromRoute] string plate) => Do(plate, [], () => moves.TakeBack(plate));

    public Task<IActionResult> OnPostNeededAsync([FromRoute] string plate, string? needed) =>
        Do(plate, [("needed", needed)], () => moves.SetNeeded(plate, needed));

    public Task<IActionResult> OnPostTripAsync([FromRoute] string plate, string? tripLength, string? tripLeaves, string? tripDays) =>
        Do(plate, [("tripLength", tripLength), ("tripLeaves", tripLeaves), ("tripDays", tripDays)],
            () => moves.SetTrip(plate, tripLength, tripLeaves, tripDays, viewer.DistanceUnit, viewer.Member!.Person));

    public Task<IActionResult> OnPostDashAsync([FromRoute] string plate, string? dash) =>
        Do(plate, [("dash", dash)], () => moves.Tell(plate, dash, viewer.Member!.Person));

    private async Task<IActionResult> Do(string plate, (string Field, string? Text)[] typed, Func<Task<IReadOnlyList<Refusal>>> what,
        bool stays = false)
    {
        if (vehicles.Find(plate) is null)
            return NotFound();
        if (!MayMove)
            return Forbid();
        foreach (var (field, text) in typed)
            _typed[field] = (text ?? "").Trim();
        Refusals = await what();
        if (Refusals.Count == 0 && !stays)
            return Redirect($"/week/{Uri.EscapeDataString(plate)}");
        if (Refusals.Count > 0)
            Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
        Load(plate);
        return Page();
    }

    private bool Load(string plate)
    {
        if (vehicles.Find(plate) is not { } vehicle)
            return false;
        (Vehicle, Week) = (vehicle, desk.Week());
        Visit = Week.Of(plate);
        Card = cards.OfVehicle(plate).FirstOrDefault(c => c.IsOpen);
        Trip = visits.Trips(clock.Today).GetValueOrDefault(plate);
        Told = visits.Told().GetValueOrDefault(plate, "");
        Needed = visits.Needed().GetValueOrDefault(plate, WeeklyTimes.Never);
        if (Visit is null || !MayMove)
            return true;
        (Choices, LeftOut) = (moves.Choices(plate), moves.Without(plate));
        return true;
    }

    /// <summary>A distance as it is typed, in the unit of whoever looks.</summary>
    public string Far(Quantity<Distance> far) => $"{far.In(viewer.DistanceUnit):0}";
}
