using Anakyklos.Core.Cards;
using Anakyklos.Core.Readings;
using Anakyklos.Core.Sheets;
using Anakyklos.Desk;
using Anakyklos.Devices;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using System.Text.Json.Nodes;

namespace Anakyklos.Web.Pages.StandIns;

/// <summary>The stand-in of the scan tool in the hand: a plug for the vehicles of the depot, what it shows, and what can be pressed on
/// it.</summary>
public sealed class ScanToolModel(DemoScanTool demo, SheetStore sheets, WorkshopClock clock, Viewer viewer) : PageModel, ISentAsOftenAsLiked
{
    public ScanToolStandIn Tool => demo.Device!;

    /// <summary>The vehicles that it could be plugged into.</summary>
    public IReadOnlyList<string> Plates => demo.Plates;

    /// <summary>The open card of the vehicle that it is plugged into; null where it has none.</summary>
    public CardInBay? Card { get; private set; }

    /// <summary>How that vehicle's indicator is put out, where it wants a scan tool; else null.</summary>
    public ResetRitual? Ritual { get; private set; }

    /// <summary>The models that can be chosen on it.</summary>
    public IReadOnlyList<ModelSheet> Models { get; private set; } = [];

    /// <summary>When the vehicle answers; null when it has.</summary>
    public DateTimeOffset? Answers { get; private set; }

    /// <summary>What the workshop said to what was sent last.</summary>
    public string Said => demo.Said;

    public async Task<IActionResult> OnGetAsync()
    {
        if (demo.Device is null)
            return NotFound();
        // What it waited for it shows now, and sends.
        Tool.Settle(clock.Now);
        return Tool.Waiting > 0 && !Tool.IsCut ? await Sent() : Show();
    }

    public async Task<IActionResult> OnPostBayAsync(string bay)
    {
        if (demo.Device is null || !viewer.Bays.Has(bay))
            return NotFound();
        Tool.Bay = bay;
        return await Sent();
    }

    /// <summary>It is plugged into a vehicle; an empty plate pulls it.</summary>
    public async Task<IActionResult> OnPostPlugAsync(string? plate)
    {
        if (demo.Device is null)
            return NotFound();
        if (string.IsNullOrEmpty(plate))
            Tool.Unplug(clock.Now);
        else if (demo.SocketOf(plate) is { } socket)
            Tool.Plug(socket, demo.RitualOf(plate), clock.Now);
        else
            return NotFound();
        return await Sent();
    }

    /// <summary>It reads the vehicle.</summary>
    public async Task<IActionResult> OnPostReadAsync()
    {
        if (demo.Device is null)
            return NotFound();
        if (Tool.On is not { } plate || demo.SocketOf(plate) is not { } socket)
            return Says("It is plugged into nothing.");
        Tool.Read(socket, clock.Now);
        return await Sent();
    }

    /// <summary>A model is chosen on it, or its button is pressed.</summary>
    public async Task<IActionResult> OnPostPressAsync(string? model, string? typed)
    {
        if (demo.Device is null)
            return NotFound();
        if (Tool.On is not { } plate || demo.RitualOf(plate) is not var (behind, ritual))
            return Says(Tool.On is null ? "It is plugged into nothing." : "It knows no service of this vehicle.");
        var wrong = model is not null && behind.Vehicle.Sheet.Id != model;
        Tool.Work(behind, ritual, model is null ? DashControl.Tool : DashControl.Choice, (typed ?? "").Trim(),
            wrong ? DashTrouble.OtherVehicle : DashTrouble.None, clock.Now);
        return await Sent();
    }

    public async Task<IActionResult> OnPostSpoilAsync(bool cut, bool loose, int clock)
    {
        if (demo.Device is null)
            return NotFound();
        Tool.IsCut = cut;
        Tool.IsLoose = loose;
        Tool.ClockOff = TimeSpan.FromMinutes(Math.Clamp(clock, -600, 600));
        return await Sent();
    }

    private async Task<IActionResult> Sent()
    {
        var (had, lines) = (Tool.Waiting, await demo.Send());
        return Says(had == 0 ? "" : lines.Length == 0 ? "The line is cut: it keeps what it has and sends it later."
            : lines.TrimEnd('\n').Split('\n').Skip(1).LastOrDefault() is { } last && JsonNode.Parse(last) is { } answer
                ? $"{answer["says"]}" : "");
    }

    private RedirectResult Says(string said)
    {
        demo.Said = said;
        return Redirect("/stand-ins/scan-tool");
    }

    private PageResult Show()
    {
        if (Tool.On is not { } plate)
            return Page();
        (Card, Ritual) = (demo.CardOf(plate), demo.RitualOf(plate)?.Ritual);
        Answers = demo.RitualOf(plate)?.Behind.AsOf(clock.Now) is { Display.Answers: { } at } vehicle && at > vehicle.Now
            ? clock.Now + (at - vehicle.Now) : null;
        Models = Ritual is null ? [] : [.. sheets.Newest().Where(s => s.Resets.Values.Any(r => r.By == ResetBy.ScanTool))];
        return Page();
    }
}
