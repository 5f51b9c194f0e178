using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Sheets;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Bleeding;

/// <summary>The pedal or lever is pressed, held by the clock, and felt.</summary>
public sealed class PedalScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["pedal"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var spec = (PedalSpec)scene.Step.Spec!;
        LiftScene.Other[] other =
        [
            new("Spongy", "pedal", "g", Fields: [("pedal", "soft")]), new("It sinks", "pedal", "k", Fields: [("pedal", "sinks")]),
        ];
        (scene.Number, scene.Unit) = DriveWords.Split(LiftWords.Hold(spec.Hold));
        scene.Beside = ["by the clock, without letting go"];
        scene.Facts.Add(new("If not hard", "Air is in: it is bled again, from the first one"));
        scene.LetsGo = true;
        scene.Meanwhile.AddRange([.. other, new("Let go: press again", "pedalDown", "l")]);
        if (scene.Card.Waits.Any(w => w.Id == scene.Step.Id))
        {
            (scene.Number, scene.Unit, scene.Beside) = ("How is it?", "", [$"held for {LiftWords.Hold(spec.Hold)}"]);
            scene.Main = new("High and hard, and it stayed", "pedal", ("pedal", "hard"));
            scene.Others.AddRange(other);
        }
        else
            scene.Offer("It is down, and held", "pedalDown");
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        PedalPressed p => $"Pressed, to be held for {LiftWords.Hold(p.For)}",
        PedalFelt { How: Pedal.Hard } => "It stood high and hard, and stayed there",
        PedalFelt { How: Pedal.Soft } => "It gave like a spring: bled again",
        PedalFelt { How: Pedal.Sinks } => "It sank: bled again",
        _ => null,
    };
}
