using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Tightening;

/// <summary>A tightening: the torque in the unit of the wrench that is to be taken, what passes, and the seal behind it.</summary>
public sealed class TighteningScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["tighten", "retighten"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var (fastener, sheet) = (scene.Card.Sheet.Fasteners[scene.Step.What], scene.Card.Sheet);
        if (fastener.Count > 1)
            scene.Facts.Add(new("How many", $"{fastener.Count}{(fastener.Order.Length > 0 ? $", {fastener.Order}" : "")}"));
        scene.Facts.Add(new("Thread", $"{(fastener.Thread.Length > 0 ? fastener.Thread + " in " : "")}{fastener.Material}"));
        if (fastener.Seal is { } seal)
            scene.Facts.Add(new("Seal",
                $"{sheet.Parts[seal].Name}, {scene.Card.Kit?.Parts.GetValueOrDefault(seal) ?? sheet.Parts[seal].Number.Value}"));
        scene.Facts.Add(new("Source", fastener.Tightening.From.ToString()));
        scene.Disputed(fastener.Tightening);
        switch (fastener.Tightening.Value)
        {
            case ToTorque torque:
                Torqued(scene, fastener, torque, to);
                break;
            case TurnAfterContact turn:
                (scene.Number, scene.Unit) = (Turns(turn.Turns), turn.Turns > 1 ? "turns after contact" : "turn after contact");
                scene.Beside = [$"{turn.Turns * 360:0}° from where the ring touches"];
                scene.Offer($"Turned {Turns(turn.Turns)} after contact");
                break;
            case ByHand hand:
                scene.Facts.Insert(0, new("By hand", hand.How));
                scene.Offer("Tight by hand");
                break;
            default:
                throw new InvalidOperationException($"Nobody has said how {fastener.Name} is drawn.");
        }
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        ReadingTaken { Corrects: { } of } r => $"Reading {of} put right: {r.Reading}, {LiftWords.Outcome(r.Outcome)} ({r.Reason})",
        ReadingTaken r => $"{card.Sheet.Fasteners[card.Step(r.Step)!.What].Name}: {r.Reading}, {LiftWords.Outcome(r.Outcome)}"
            + (r.Device is { } wrench ? $", sent by {wrench}" : ""),
        OverTorqueSettled s => $"After too much torque: {s.What}",
        _ => null,
    };

    private static void Torqued(LiftScene scene, Fastener fastener, ToTorque to, Looker looker)
    {
        var units = looker.Viewer.TorqueUnits;
        var wrench = TorqueWrench.For(looker.Wrenches, to);
        var target = to.Target.Print(units[0]);
        (scene.Number, scene.Unit) = (target.Number, target.Unit);
        scene.Beside = [.. units.Skip(1).Select(u => to.Target.Print(u).ToString()),
            $"{to.Low.Print(units[0]).Number} to {to.High.Print(units[0]).Number} passes"];
        var setting = wrench is null ? "and no wrench here in calibration reaches it"
            : $"wrench {wrench.Name} set to {wrench.Setting(to).Print(wrench.Scale)}";
        scene.Facts.Insert(0, new("Tool", $"{DriveWords.Tool(fastener.Drive)}, {setting}"));
        scene.Main = new($"Clicked at {target.Number}", "reading", ("torque", target.ToString()));
    }

    private static string Turns(decimal turns) => turns switch
    {
        0.25m => "1/4",
        0.5m => "1/2",
        0.75m => "3/4",
        1.25m => "1 1/4",
        1.5m => "1 1/2",
        _ => $"{turns:0.##}",
    };
}
