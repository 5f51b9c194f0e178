using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Storage;
using Anakyklos.Web.Hosting;
using Microsoft.AspNetCore.Mvc;
using Anakyklos.Web.Coaches;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Pages;

/// <summary>The lift: one step of a card at a time.</summary>
public sealed class LiftModel(CardStore cards, SettingStore settings, SheetStore sheets, KitDesk kits, WorkshopClock clock, Viewer viewer)
    : CardPage(cards, clock, viewer)
{
    /// <summary>Panels that can stand in the middle in place of the facts.</summary>
    private static readonly string[] Panels = ["reading", "amount", "count", "saw", "stuck", "jump", "lift", "keys"];

    public LiftScene Scene { get; private set; } = null!;
    public string Panel { get; private set; } = "";
    public SheetStep? After { get; private set; }

    /// <summary>Where the hands go next, such as "stay below: two more here, then lower it".</summary>
    public string Stay { get; private set; } = "";

    /// <summary>Whether this step is shown before its turn and could be done now.</summary>
    public bool IsAhead { get; private set; }

    /// <summary>How much later the card ends when it is taken now; null when it is not ahead.</summary>
    public TimeSpan? AheadCosts { get; private set; }

    public ModelSheet? NewerSheet { get; private set; }
    public KitConfirmed? LastKit { get; private set; }

    /// <summary>The kit held against the stores, at the kit step.</summary>
    public KitList? Kit { get; private set; }

    public IActionResult OnGet(long id, string? step, string? panel)
    {
        if (Load(id) is { } missing)
            return missing;
        if (Card.Ended is not null)
            return Redirect($"/record/{id}");
        if (step is null && Card.Next is null)
            return Redirect($"/handover/{id}");
        return Show(step, panel);
    }

    private IActionResult Show(string? stepId, string? panel)
    {
        if ((stepId is null ? Card.Next ?? Card.Steps[^1] : Card.Step(stepId)) is not { } step)
            return NotFound();
        Panel = Panels.Contains(panel) ? panel! : "";
        // What nobody measured is not offered as a press: the amount is asked for at once.
        if (Panel.Length == 0 && step.Traits.MeasuresOut && Card.State(step.Id).Status is StepStatus.Waiting or StepStatus.Aside
            && Card.InTheWay(step, Clock.Now).Count == 0)
            Panel = "amount";
        Scene = LiftScene.Of(Card, step, Viewer, Clock.Now,
            [.. settings.Read().Wrenches.Where(w => w.InCrib.IsCalibrated(Clock.Today)).Select(w => w.Wrench)]);
        After = Card.Steps.SkipWhile(s => s.Id != step.Id).Skip(1).FirstOrDefault(s => Card.State(s.Id).Status == StepStatus.Waiting);
        Stay = LiftWords.Stay(Card.HandsAfter(step));
        IsAhead = Card.Next is { } next && next.Id != step.Id && !step.MovesLift && !Scene.IsDone && Scene.InTheWay.Count == 0
            && Scene.WaitsFor is null && Question is null;
        AheadCosts = IsAhead && Panel.Length == 0 ? Card.PlanWith(step.Id, Clock.Now)?.Costs : null;
        NewerSheet = sheets.Newest(Card.Sheet.Id) is { } newest && newest.Revision > Card.Sheet.Revision ? newest : null;
        if (Scene.IsKit)
            Kit = kits.Of(Id, Card);
        if (Scene.IsKit)
            LastKit = Card.Kit ?? Cards.OfVehicle(Card.Opened.Plate).Where(c => c.SignedAt is not null).Select(c => Cards.Find(c.Id)!.Kit)
                .FirstOrDefault();
        return Page();
    }

    public Task<IActionResult> OnPostDoneAsync(long id, string step, string? count, string? reason) => Give(id, step, "count", () =>
        string.IsNullOrWhiteSpace(count) ? new ConfirmStep(step, null, reason?.Trim() ?? "")
        : int.TryParse(count.Trim(), out var n) ? new ConfirmStep(step, n, reason?.Trim() ?? "")
        : Unread("count", "That is not a whole number.", "Count them and type how many."));

    public Task<IActionResult> OnPostReadingAsync(long id, string step, string? torque, string? meant) => Give(id, step, "reading", () =>
        Quantity<Torque>.Read(torque, out var problem) is { } typed ? new TakeReading(step, typed, meant == "yes")
            : Unread("torque", problem, ""));

    public Task<IActionResult> OnPostPourAsync(long id, string step, string? amount, string? warned) => Give(id, step, "amount", () =>
        Quantity<Volume>.Read(amount, out var problem) is { } typed ? new Pour(step, typed, warned == "yes")
            : Unread("amount", problem, ""));

    public Task<IActionResult> OnPostTakeOutAsync(long id, string step, string? amount) => Give(id, step, "amount", () =>
        Quantity<Volume>.Read(amount, out var problem) is { } typed ? new TakeOut(step, typed) : Unread("amount", problem, ""));

    public Task<IActionResult> OnPostMeasureAsync(long id, string step, string? amount) => Give(id, step, "amount", () =>
        Quantity<Volume>.Read(amount, out var problem) is { } typed ? new Measure(step, typed) : Unread("amount", problem, ""));

    public Task<IActionResult> OnPostEarlyAsync(long id, string step) => Give(id, step, "", () => new TakeEarly(step));

    public Task<IActionResult> OnPostOrderAsync(long id, string step) => Give(id, step, "", () => new OrderAgain());

    public Task<IActionResult> OnPostGaugeAsync(long id, string step, string? level) => Give(id, step, "", () =>
        Core.Filling.Level.Read(level, out var problem) is { } read ? new ReadGauge(step, read) : Unread("level", problem, ""));

    public Task<IActionResult> OnPostKitAsync(long id, string step) => Give(id, step, "", () => ReadKit(step, p => new(
        Enum.TryParse<KitChoice>(Typed($"choice-{p.Id}"), out var choice) && Enum.IsDefined(choice) ? choice : KitChoice.Missing,
            Typed($"number-{p.Id}"), Typed($"reason-{p.Id}"))));

    public Task<IActionResult> OnPostAsideAsync(long id, string step, string? reason) =>
        Give(id, step, "stuck", () => new PutAside(step, reason?.Trim() ?? ""));

    public Task<IActionResult> OnPostDeviateAsync(long id, string step, string? kind, string? reason) => Give(id, step, "stuck", () =>
        Enum.TryParse<DeviationKind>(kind, out var k) ? new Deviate(step, k, reason?.Trim() ?? "")
            : Unread("kind", "That is not a way to go on.", "Choose one of those shown."));

    public Task<IActionResult> OnPostDropAsync(long id, string step, string? job, string? reason) =>
        Give(id, step, "stuck", () => new DropJob(job ?? "", reason?.Trim() ?? ""));

    public async Task<IActionResult> OnPostVoidAsync(long id, string step, string? reason) =>
        await Give(id, step, "stuck", () => new VoidCard(reason?.Trim() ?? "")) is var answer && Card?.Voided is not null
            ? Redirect($"/record/{id}") : answer;

    public Task<IActionResult> OnPostSettledAsync(long id, string step, string? what) =>
        Give(id, step, "", () => new SettleOverTorque(step, what?.Trim() ?? ""), stay: true);

    public Task<IActionResult> OnPostCutAsync(long id, string step, string? wait, string? reason) =>
        Give(id, step, "", () => new CutWait(wait ?? "", reason?.Trim() ?? ""), stay: true);

    public Task<IActionResult> OnPostBackAsync(long id, string step, string? of) =>
        Give(id, step, "", () => new TakeBack(int.TryParse(of, out var n) ? n : 0));

    public Task<IActionResult> OnPostSawAsync(long id, string step, string? grade, string? text) => Give(id, step, "saw", () =>
        Enum.TryParse<FindingGrade>(grade, out var g) && Enum.IsDefined(g) ? new NoteFinding(step, g, text?.Trim() ?? "")
            : Unread("grade", "Say how bad it is.", "Choose one of the four."), stay: true);

    public Task<IActionResult> OnPostLeakAsync(long id, string step, string? fastener) =>
        Give(id, step, "stuck", () => new ReportLeak(step, fastener ?? ""));

    public Task<IActionResult> OnPostFailAsync(long id, string step) => Give(id, step, "", () => new FailReset(step));

    public Task<IActionResult> OnPostMoveAsync(long id, string step, string? up, string? looked) =>
        Give(id, step, "lift", () => new MoveLift(up == "yes", looked == "yes"), stay: true);

    private async Task<IActionResult> Give(long id, string step, string panel, Func<CardCommand?> read, bool stay = false)
    {
        if (Load(id) is { } missing)
            return missing;
        if (Card.Step(step ?? "") is null)
            return NotFound();
        if (await Carry(id, read) is { } where)
            return Redirect(stay && Card.Ended is null && Card.Step(step!) is not null ? $"{where}&step={step}" : where);
        // A press that was refused for the card's sake is explained on the step itself; for the sake of what was typed, beside the field.
        return Show(step, Typed("panel").Length > 0 || Refusals.Any(r => r.Field is not null) ? panel : "");
    }

    private CardCommand? Unread(string field, string what, string @do)
    {
        Refusals.Add(new(what, @do, Field: field));
        return null;
    }
}
