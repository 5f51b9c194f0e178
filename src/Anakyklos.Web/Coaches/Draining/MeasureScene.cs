using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;

namespace Anakyklos.Web.Coaches.Draining;

/// <summary>Where what came out is typed, tapped or weighed.</summary>
/// <param name="Fields">What every form carries, with the step at which it is measured.</param>
/// <param name="Here">The step that is looked at.</param>
/// <param name="Fluid">What came out.</param>
/// <param name="Panel">The panel in which the form stands.</param>
/// <param name="Problems">What was wrong with what was typed.</param>
/// <param name="Typed">What was typed into a field before.</param>
public sealed record MeasureForm(PressFields Fields, StepId Here, FluidSystem Fluid, string Panel, IReadOnlyList<Refusal> Problems,
    Func<string, string> Typed);

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
    public override string? Line(JobCard card, CardEvent e) => e is Measured m ? Said(m) : null;

    /// <summary>What was measured, in words.</summary>
    internal static string Said(Measured m) =>
        $"Came out: {m.Amount}{(m.Weighed is { } scale ? $", {scale.Full} less {scale.Empty} for the pan" : "")}"
            + $"{(m.Asked is { } asked ? $". Asked: {asked}" : "")}";
}
