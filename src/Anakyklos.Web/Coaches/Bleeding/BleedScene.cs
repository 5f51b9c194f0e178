using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Bleeding;

/// <summary>One wheel is bled: the stroke that comes, what the two call to each other, the reservoir, the wheels in their order.</summary>
public sealed class BleedScene : WorkScene
{
    private const string Here = "/Coaches/Bleeding/";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["bleed"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var state = BleedState.Of(scene.Card, scene.Step);
        var screw = scene.Card.Sheet.Fasteners[scene.Step.What];
        var torque = (ToTorque)screw.Tightening.Value;
        var unit = to.Viewer.TorqueUnits[0];
        scene.Pictures = new(Here + "_Reservoir.cshtml", Here + "_Strokes.cshtml", Here + "_Wheels.cshtml");
        if (state.IsClear)
        {
            scene.Facts.Add(new("Screw", $"{DriveWords.Tool(screw.Drive)}, {torque.Low.Print(unit).Number} to "
                + $"{torque.High.Print(unit).Number} passes; cap back on. {screw.Warning}"));
            var target = torque.Target.Print(unit);
            (scene.Number, scene.Unit) = (target.Number, target.Unit);
            scene.Main = new($"Clicked at {target.Number}, cap on", "bleedScrew",
                ("torque", target.ToString()));
            scene.Others.Add(new("Other reading", "bleedScrew", "o", Asks: true));
            return;
        }
        (scene.Number, scene.Unit) = ($"{state.Strokes}", $"of {state.Spec.Strokes} strokes");
        if (state.Left == 0)
            scene.Offer("Filled to the upper line", "topUp");
        else
            scene.Offer("One stroke", "stroke");
        if (state.Strokes >= state.Spec.Strokes && state.Runs is null)
            scene.Main = new("It runs clear, no bubbles", "hose", ("runs", "clear"));
        else if (state.Left > 0)
            scene.Others.Add(new("Several", "stroke", "o", Asks: true));
        if (state.Left > 0 && state.SinceFilled > 0)
            scene.Others.Add(new("Topped up", "topUp", "t"));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        StrokesMade s => $"{Screw(card, s.Step)}: {s.Strokes} {(s.Strokes == 1 ? "stroke" : "strokes")}",
        HoseSeen h => $"{Screw(card, h.Step)}: {Says(h.How)}",
        ReservoirFilled => "Reservoir filled to the upper line",
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
        _ => throw new InvalidOperationException($"Nobody says what {wheel} means."),
    };

    /// <summary>Where a wheel is drawn, left edge and top edge of it.</summary>
    public static (int X, int Y) Spot(Wheel wheel) => wheel switch
    {
        Wheel.FrontLeft => (30, 70),
        Wheel.FrontRight => (220, 70),
        Wheel.RearLeft => (30, 270),
        Wheel.RearRight => (220, 270),
        Wheel.Front => (125, 50),
        Wheel.Rear => (125, 290),
        _ => throw new InvalidOperationException($"Nobody has said where {wheel} is drawn."),
    };

    private static string Screw(JobCard card, StepId step) => card.Sheet.Fasteners[card.Step(step)!.What].Name;
}
