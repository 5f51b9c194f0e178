using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Web.Coaches.Tightening;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Bleeding;

/// <summary>One wheel is bled: the stroke that comes, what the two call to each other, the reservoir, the wheels in their order; then its
/// screw is tightened like any other.</summary>
public sealed class BleedScene : WorkScene
{
    private const string Here = "/Coaches/Bleeding/";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["bleed"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var state = BleedState.Of(scene.Card, scene.Step);
        scene.Pictures = new(Here + "_Reservoir.cshtml", Here + "_Strokes.cshtml", Here + "_Wheels.cshtml");
        if (state.IsClear || scene.IsDone)
        {
            TighteningScene.DrawAt(scene, to);
            scene.Pictures = scene.Pictures with { Left = Here + "_Reservoir.cshtml", Middle = "" };
            scene.Facts.Insert(1, new("After it", "Rubber cap back on the nipple, and the place washed down"));
            return;
        }
        (scene.Number, scene.Unit) = ($"{state.Strokes}", $"of {state.Spec.Strokes} strokes");
        if (state.Left == 0)
        {
            scene.Offer("Filled to the upper line", "topUp");
            scene.Others.Add(new("The can ran empty", "topUp", "o", Asks: true));
        }
        else
            scene.Offer("One stroke", "stroke");
        if (state.Strokes >= state.Spec.Strokes && state.Runs is null)
            scene.Main = new("It runs clear, no bubbles", "hose", ("runs", "clear"));
        else if (state.Left > 0)
            scene.Others.Add(new("Several", "stroke", "o", Asks: true));
        if (state.Left > 0 && state.Reservoir.Missing > Quantity<Volume>.Zero)
            scene.Others.Add(new("Topped up", "topUp", "t"));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        StrokesMade s => $"{Screw(card, s.Step)}: {s.Strokes} {(s.Strokes == 1 ? "stroke" : "strokes")}",
        HoseSeen h => $"{Screw(card, h.Step)}: {Says(h.How)}",
        ReservoirFilled { Filled: null } => "Reservoir filled to the upper line",
        ReservoirFilled { Short: true } f => $"Reservoir: {f.Amount} went in, not yet to the upper line",
        ReservoirFilled f => $"Reservoir filled to the upper line ({f.Amount})",
        BleedScrewShut s => $"{Screw(card, s.Step)}: {s.Reading}, {(s.Outcome == TorqueOutcome.Passes ? "passes" : "too much")}; cap on",
        _ => null,
    };

    /// <summary>What runs, in words.</summary>
    public static string Says(Runs how) => how switch
    {
        Runs.Dark => "runs dark",
        Runs.Bubbles => "bubbles: begin this wheel again",
        Runs.Clear => "runs clear",
        _ => throw new InvalidOperationException($"Nobody says what {how} means."),
    };

    /// <summary>A wheel in words.</summary>
    public static string Name(Wheel wheel) => wheel switch
    {
        Wheel.FrontLeft => "front left",
        Wheel.FrontRight => "front right",
        Wheel.RearLeft => "rear left",
        Wheel.RearRight => "rear right",
        Wheel.Front => "front",
        Wheel.Rear => "rear",
        Wheel.Clutch => "clutch",
        _ => throw new InvalidOperationException($"Nobody says what {wheel} means."),
    };

    /// <summary>Where somebody stands who opens the screw.</summary>
    /// <param name="wheel">Which.</param>
    /// <param name="onTwo">The vehicle has two wheels.</param>
    public static string At(Wheel wheel, bool onTwo) => wheel == Wheel.Clutch ? "At the clutch cylinder"
        : $"At the {Name(wheel)} {(onTwo ? "caliper" : "wheel")}";

    /// <summary>Where a wheel is drawn, left edge and top edge of it.</summary>
    /// <param name="wheel">Which.</param>
    /// <param name="onTwo">The vehicle has two wheels: two calipers in front sit on either side of one.</param>
    public static (int X, int Y) Spot(Wheel wheel, bool onTwo) => wheel switch
    {
        Wheel.FrontLeft => onTwo ? (85, 50) : (30, 70),
        Wheel.FrontRight => onTwo ? (165, 50) : (220, 70),
        Wheel.RearLeft => (30, 270),
        Wheel.RearRight => (220, 270),
        Wheel.Front => (125, 50),
        Wheel.Rear => (125, 290),
        Wheel.Clutch => (125, 170),
        _ => throw new InvalidOperationException($"Nobody has said where {wheel} is drawn."),
    };

    private static string Screw(JobCard card, StepId step) => card.Sheet.Fasteners[card.StepEver(step)!.What].Name;
}
