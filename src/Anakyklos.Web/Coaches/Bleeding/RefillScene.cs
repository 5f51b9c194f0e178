using Anakyklos.Core.Coaches.Bleeding;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Web.Drawing;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Bleeding;

/// <summary>A reservoir is sucked out or filled: how it stands between its lines, how much is missing, and out of which can that
/// comes.</summary>
public sealed class RefillScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["refill", "suck"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        FluidId fluid = scene.Step.What;
        if (scene.Card.Sheet.Steps.Values.Any(s => s.Spec is BleedSpec bleed && bleed.Fluid == fluid))
            scene.Pictures = new(Left: "/Coaches/Bleeding/_Reservoir.cshtml");
        if (scene.Step.Traits.SucksOut)
        {
            scene.Offer(Said(scene.Step));
            return;
        }
        var missing = Reservoir.Of(scene.Card, fluid).Missing;
        if (missing == Quantity<Volume>.Zero)
            scene.Offer("It stands at the upper line", "topUp");
        else
        {
            (scene.Number, scene.Unit) = DriveWords.Split(missing.Print(CupGauge.UnitOf(to.Viewer.VolumeUnits[0])).ToString());
            scene.Beside = ["missing to the upper line"];
            scene.Offer("Filled to the upper line", "topUp");
        }
        if (scene.IsDone || scene.Card.PlanOfPour(fluid, missing, to.Shelf, to.Today) is not { From.Count: > 0 } plan)
            return;
        var unit = to.Viewer.VolumeUnits[0];
        scene.Facts.AddRange(plan.From.Select(s => new LiftScene.Fact("Out of",
            $"{LiftWords.Can(s.Container)}; {(s.Container.Left - s.Takes).Print(unit)} stays in it")));
    }
}
