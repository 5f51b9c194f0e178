using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.Draining;

/// <summary>What came out is measured: the book's amount stands beside it, and the number is asked for.</summary>
public sealed class MeasureScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["measure"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        scene.Fluid = scene.Card.Sheet.Fluids[scene.Step.What];
        scene.Facts.Add(new("The book says", scene.Fluid.Amount.Value.Print(to.Viewer.VolumeUnits[0]).ToString()));
        scene.Offer("", "measure");
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is not Measured m ? null
        : $"Came out: {m.Amount}{(m.Weighed is { } scale ? $", {scale.Full} less {scale.Empty} for the pan" : "")}"
            + $"{(m.Asked is { } asked ? $". Asked: {asked}" : "")}";
}
