using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Due;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Resetting;

/// <summary>A move of the ritual that puts an indicator out: what to press or type in, how long, what the display answers, and what else it
/// may say.</summary>
public sealed class ResetScene : WorkScene
{
    private const string Here = "~/Coaches/Resetting/";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["reset"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var reset = Core.Coaches.Resetting.Resetting.Of(scene.Card, scene.Step);
        scene.Pictures = new(Left: Here + "_Moves.cshtml", Right: Here + "_Why.cshtml");
        (scene.Number, scene.Unit) = ("", "");
        if (scene.IsDone)
            return;
        scene.Pictures = scene.Pictures with { Middle = Here + (reset.WantsLook ? "_FailedOften.cshtml" : "_Move.cshtml"), Facts = 0 };
        if (reset.WantsLook)
        {
            scene.Sends = ("found", "Looked at: it may be tried");
            return;
        }
        if (to.ScanToolHere is { } tool && reset.Move.Uses is DashControl.Plug or DashControl.Choice or DashControl.Tool)
            scene.Beside = [$"{tool} is heard here: what it shows comes by itself"];
        var silent = new LiftScene.Other("No answer", "fail", "x");
        scene.LetsGo = true;
        scene.Meanwhile.Add(silent with { Words = reset.Move.Wait is null ? "Let go, or no answer" : "No answer" });
        if (reset.Move.Timed is not null && reset.HeldUntil is null)
        {
            scene.Offer(reset.Move.Wait is null ? "It is held now" : "Done: the wait begins", "resetHeld");
            scene.Others.Add(silent);
            return;
        }
        scene.Offer(Shows(reset) is { Length: > 0 } shows ? $"It shows {shows}" : "Done");
        if (reset.Tells != NextService.None)
            scene.Others.Add(new("Another value", "resetShows", "o", Asks: true));
        scene.Others.Add(silent);
    }

    /// <summary>What the display shows when a move went well: the value that is worked out, or the words of the sheet.</summary>
    public static string Shows(Core.Coaches.Resetting.Resetting reset) => reset.Expected switch
    {
        { Distance: { } far } => OdometerText.Of(far.Value, far.Unit),
        { Months: { } months } => $"{months} months",
        _ => reset.Move.Expect,
    };

    /// <summary>Whose rule it is, such as "the owner's rule".</summary>
    public static string Whose(RuleOf rule) => rule switch
    {
        RuleOf.Owner => "owner's rule",
        RuleOf.Depot => "depot's rule",
        RuleOf.UpperBound => "maker's upper bound",
        RuleOf.Wear => "half, for what was seen",
        _ => "maker's interval",
    };

    /// <summary>By what it is put out, in words.</summary>
    public static string By(ResetBy by) => by switch
    {
        ResetBy.Pedals => "by pedals and key",
        ResetBy.Menu => "in the menu",
        ResetBy.MenuWithValue => "in the menu, with a value",
        ResetBy.ScanTool => "with the scan tool",
        ResetBy.CableTool => "with the service lead",
        _ => "by a button",
    };

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        ResetHeld h => card.Step(h.Step)?.Spec is ResetMove { Wait: not null } ? $"Waited {LiftWords.Hold(h.For)}, hands off"
            : $"Held for {LiftWords.Hold(h.For)}",
        ResetAnswered a => $"{card.TitleOf(a.Step)}: {a.Device} shows {a.Shows}",
        ResetFailed { Shows: { } shows, Device: { } tool } f => $"{tool} showed “{shows}”; reset begun again{At(f.Again)}",
        ResetFailed { Shows: { } shows } f => $"The display showed “{shows}”; reset begun again{At(f.Again)}",
        ResetFailed f => $"The display did not answer; reset begun again{At(f.Again)}",
        ResetShown { Device: { } by } s => $"{card.TitleOf(s.Step)}: {Shown(s)}, typed into {by}",
        ResetShown s => $"{card.TitleOf(s.Step)}: {Shown(s)}",
        ResetLookedInto l => $"Why the reset failed: {l.Found}",
        _ => null,
    };

    private static string Shown(ResetShown s) => s.Distance is { } far ? OdometerText.Of(far.Value, far.Unit) : $"{s.Months} months";

    private static string At(int move) => move > 1 ? $" at move {move}" : "";
}
