using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Priming;
using Anakyklos.Core.Sheets;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Priming;

/// <summary>A system is filled before the start: how many strokes, or turns of the key by the clock, were made of how many.</summary>
public sealed class PrimeScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["prime"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        if (scene.Step.Spec is not PrimeSpec spec)
        {
            base.Draw(scene, to);
            return;
        }
        var priming = Core.Coaches.Priming.Priming.Of(scene.Card, scene.Step);
        (scene.Number, scene.Unit) = ($"{priming.Made}", $"of {spec.Times} {spec.Of}");
        if (priming.Left == 0)
            scene.Offer(Said(scene.Step));
        else if (spec.Each is not { } each)
        {
            scene.Main = new($"{Math.Min(10, priming.Left)} {spec.Of} made", "primed", ("times", $"{Math.Min(10, priming.Left)}"));
            scene.Others.Add(new("Another number", "primed", "o", Asks: true));
        }
        else if (priming.HeldUntil is null)
        {
            scene.Beside = [$"{LiftWords.Hold(each)} each, by the clock"];
            scene.Offer("It is on", "primerHeld");
        }
        else
            scene.Main = new($"Off again: {priming.Made + 1} of {spec.Times}", "primed", ("times", "1"));
        if (priming.Left > 0)
            scene.Facts.Add(new("Why", "Dry, it would only be cranked; nothing runs before it is full"));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        PrimeHeld h => $"On, to be held for {LiftWords.Hold(h.For)}",
        PrimeCounted c => $"{c.Times} {(card.StepEver(c.Step)?.Spec as PrimeSpec)?.Of} made",
        _ => null,
    };
}
