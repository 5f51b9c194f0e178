using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Bleeding;

/// <summary>How the bleeding of one wheel stands.</summary>
/// <param name="Spec">What the sheet says.</param>
/// <param name="Strokes">Strokes at this wheel since it was begun, or since bubbles were seen last.</param>
/// <param name="SinceFilled">Strokes at all wheels of this fluid since the reservoir was at its upper line.</param>
/// <param name="AtAll">Strokes at all wheels of this fluid on this card.</param>
/// <param name="Runs">What was seen in the hose last; null when strokes were made since, or nobody looked.</param>
public sealed record BleedState(BleedSpec Spec, int Strokes, int SinceFilled, int AtAll, Runs? Runs)
{
    /// <summary>Strokes until the level stands at the lower line.</summary>
    public int Left => Math.Max(0, Spec.StrokesInReservoir - SinceFilled);

    /// <summary>What was driven out on this card, by the strokes.</summary>
    public Quantity<Volume> DrivenOut => Spec.PerStroke * AtAll;

    /// <summary>How full the reservoir is between its lines, 0 to 1.</summary>
    public decimal Level => 1 - Math.Clamp((Spec.PerStroke * SinceFilled) / Spec.Reservoir, 0, 1);

    /// <summary>Whether the screw may be shut for good: enough strokes, and clear at the last look.</summary>
    public bool IsClear => Strokes >= Spec.Strokes && Runs == Bleeding.Runs.Clear;

    /// <summary>How the bleeding of a step stands, from what happened at it and at the other wheels of its fluid.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step of this kind.</param>
    /// <returns>Where the wheel stands after every event of its step that was not taken back.</returns>
    public static BleedState Of(JobCard card, SheetStep step)
    {
        var spec = (BleedSpec)step.Spec!;
        var state = new BleedState(spec, 0, 0, 0, null);
        foreach (var (at, happened) in card.HappenedAt(BleedCoach.Word))
            if (((BleedSpec)at.Spec!).Fluid == spec.Fluid)
                state = state.After(happened, at.Id == step.Id);
        return state;
    }

    private BleedState After(CardEvent happened, bool here) => happened switch
    {
        StrokesMade e => this with
        {
            SinceFilled = SinceFilled + e.Strokes,
            AtAll = AtAll + e.Strokes,
            Strokes = here ? Strokes + e.Strokes : Strokes,
            Runs = here ? null : Runs,
        },
        // Air comes from further in: what was driven out so far proves nothing.
        HoseSeen { How: Bleeding.Runs.Bubbles } when here => this with { Strokes = 0, Runs = Bleeding.Runs.Bubbles },
        HoseSeen e when here => this with { Runs = e.How },
        ReservoirFilled => this with { SinceFilled = 0 },
        // Shut for good; whoever opens it once more begins anew.
        BleedScrewShut or DeviationTaken { Kind: DeviationKind.NoReading } when here => this with { Strokes = 0, Runs = null },
        _ => this,
    };
}
