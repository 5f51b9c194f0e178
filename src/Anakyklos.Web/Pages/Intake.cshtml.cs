using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;
using Anakyklos.Desk;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace Anakyklos.Web.Pages;

/// <summary>A vehicle is here: what the dash shows, what is due and why, and a card is opened.</summary>
public sealed class IntakeModel(IntakeDesk desk, Viewer viewer) : PageModel
{
    public IntakeVisit Visit { get; private set; } = null!;

    public IReadOnlyList<Refusal> Refusals => Visit.Refusals;

    public IActionResult OnGet(string? plate)
    {
        if (viewer.Member?.Person.WorksOnCards != true)
            return Forbid();
        Visit = desk.Begin(plate, viewer.DistanceUnit);
        return Page();
    }

    /// <summary>The same page with the jobs of the vehicle proposed and the card they make; nothing is opened.</summary>
    public IActionResult OnPostPreview(IntakeForm form)
    {
        if (viewer.Member?.Person.WorksOnCards != true)
            return Forbid();
        Visit = desk.Preview(WithDropped(form), viewer.DistanceUnit);
        return Page();
    }

    /// <summary>The same page, filled in from what a scan tool read; an empty name takes that out again. Nothing is opened.</summary>
    public IActionResult OnPostRead(IntakeForm form, string? take)
    {
        if (viewer.Member?.Person.WorksOnCards != true)
            return Forbid();
        Visit = desk.TakeOver(WithDropped(form), take, viewer.DistanceUnit);
        ModelState.Clear();
        return Page();
    }

    public async Task<IActionResult> OnPostAsync(IntakeForm form)
    {
        if (viewer.Member?.Person is not { WorksOnCards: true } by)
            return Forbid();
        (Visit, var card) = await desk.Open(WithDropped(form), viewer.DistanceUnit, by);
        if (card is { } opened)
            return Redirect($"/lift/{opened}");
        Response.StatusCode = Refusals.Any(r => r.Field is null) ? StatusCodes.Status409Conflict : StatusCodes.Status422UnprocessableEntity;
        return Page();
    }

    /// <summary>The last reading of the vehicle, to be seen beside the field; empty where there is none.</summary>
    public string LastReading => Visit.Standing?.Readings is [var last, ..]
        ? $"Last {OdometerText.Of(last.Odometer, viewer.DistanceUnit)} on {last.Day:d MMM yyyy}. " : "";

    /// <summary>What was read of a vehicle, in one line.</summary>
    /// <param name="of">The report.</param>
    public static string Says(ReportOf of) => string.Join(", ", new[]
    {
        OdometerText.Of(of.Report.Odometer.Value, of.Report.Odometer.Unit),
        of.Report.Code.Length > 0 ? $"code {of.Report.Code}" : "",
        of.Report.Left is { } left ? left.Value < Quantity<Distance>.Zero
            ? $"{OdometerText.Of(Quantity<Distance>.Zero - left.Value, left.Unit)} over"
            : $"{OdometerText.Of(left.Value, left.Unit)} left" : "",
        of.Report.OilLife is { } life ? $"oil life {life}\u00a0%" : "",
        of.Report.Hours is { } hours ? $"{hours} h" : "",
    }.Where(t => t.Length > 0));

    /// <summary>Whose field holds what a scan tool read: the tool's name, or null.</summary>
    /// <param name="field">The field's name.</param>
    public string? ReadBy(string field) => Visit.ReadOut.Contains(field) ? Visit.Report!.Report.Device.Text : null;

    private IntakeForm WithDropped(IntakeForm form)
    {
        foreach (var field in Request.Form.Keys.Where(k => k.StartsWith("drop-", StringComparison.Ordinal)))
            form.Dropped[field[5..]] = Request.Form[field].ToString().Trim();
        return form;
    }
}
