using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Torques;

namespace Anakyklos.Core.Coaches.Bleeding;

/// <summary>How a reservoir stands that is bled from.</summary>
/// <param name="Holds">What it holds between its two lines.</param>
/// <param name="Missing">What it lacks to its upper line.</param>
/// <param name="DrivenOut">What was driven out on this card, at all wheels, by the strokes.</param>
public sealed record Reservoir(Quantity<Volume> Holds, Quantity<Volume> Missing, Quantity<Volume> DrivenOut)
{
    /// <summary>How full it is between its lines, 0 to 1.</summary>
    public decimal Level => 1 - Math.Clamp(Missing / Holds, 0, 1);

    /// <summary>How a reservoir stands, from what happened at it and at every wheel that is bled from it. Nobody looks at it before it is
    /// opened: it counts as full until it is sucked out or a stroke is made.</summary>
    /// <param name="card">The card.</param>
    /// <param name="fluid">A fluid that the sheet says how to bleed.</param>
    public static Reservoir Of(JobCard card, FluidId fluid)
    {
        var stands = new Reservoir(HeldBy(card.Sheet, fluid)!.Value, Quantity<Volume>.Zero, Quantity<Volume>.Zero);
        foreach (var (at, happened) in card.HappenedAt(s => BledFrom(s) == fluid))
            stands = stands.After(at, happened);
        return stands;
    }

    /// <summary>What a fluid's reservoir holds between its lines; null where the sheet does not say how it is bled.</summary>
    internal static Quantity<Volume>? HeldBy(ModelSheet sheet, FluidId fluid) =>
        sheet.Steps.Values.Select(s => s.Spec).OfType<BleedSpec>().FirstOrDefault(b => b.Fluid == fluid)?.Reservoir;

    /// <summary>The fluid whose reservoir a step takes from or fills; null for every other step.</summary>
    internal static FluidId? BledFrom(SheetStep step) => step.Spec is BleedSpec bleed ? bleed.Fluid
        : step.Traits.SucksOut || step.Traits.Fills ? (FluidId)step.What : null;

    private Reservoir After(SheetStep at, CardEvent happened) => happened switch
    {
        StrokesMade e when at.Spec is BleedSpec bleed => this with
        {
            Missing = Missing + bleed.PerStroke * e.Strokes, DrivenOut = DrivenOut + bleed.PerStroke * e.Strokes,
        },
        StepDone when at.Traits.SucksOut => this with { Missing = Holds },
        ReservoirFilled { Short: true, Filled: { } filled } => this with { Missing = Missing - filled.Value },
        // On cards from before reservoirs had a step of their own, whoever poured poured to the line.
        ReservoirFilled or IPourEvent => this with { Missing = Quantity<Volume>.Zero },
        _ => this,
    };
}

/// <summary>How the bleeding of one wheel stands.</summary>
/// <param name="Spec">What the sheet says.</param>
/// <param name="Strokes">Strokes at this wheel since it was begun, or since bubbles were seen last.</param>
/// <param name="Reservoir">The reservoir that it is bled from.</param>
/// <param name="Runs">What was seen in the hose last; null when strokes were made since, or nobody looked.</param>
public sealed record BleedState(BleedSpec Spec, int Strokes, Reservoir Reservoir, Runs? Runs)
{
    /// <summary>Full strokes until the level stands at the lower line, rounded down; one more would draw air at last.</summary>
    public int Left => Math.Max(0, (int)decimal.Floor((Spec.Reservoir - Reservoir.Missing) / Spec.PerStroke));

    /// <summary>What the strokes at this wheel drove out since it was begun.</summary>
    public Quantity<Volume> DrivenOut => Spec.PerStroke * Strokes;

    /// <summary>Whether the screw may be shut for good: enough strokes, and clear at the last look.</summary>
    public bool IsClear => Strokes >= Spec.Strokes && Runs == Bleeding.Runs.Clear;

    /// <summary>How the bleeding of a step stands, from what happened at it and at the reservoir of its fluid.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step of this kind.</param>
    /// <returns>Where the wheel stands after every event of its step that was not taken back.</returns>
    public static BleedState Of(JobCard card, SheetStep step)
    {
        var spec = (BleedSpec)step.Spec!;
        var state = new BleedState(spec, 0, Reservoir.Of(card, spec.Fluid), null);
        foreach (var (_, happened) in card.HappenedAt(s => s.Id == step.Id || s.Spec is PedalSpec pedal && pedal.Again.Contains(step.Id)))
            state = state.After(happened);
        return state;
    }

    private BleedState After(CardEvent happened) => happened switch
    {
        StrokesMade e => this with { Strokes = Strokes + e.Strokes, Runs = null },
        // Air comes from further in: what was driven out so far proves nothing.
        HoseSeen { How: Bleeding.Runs.Bubbles } => this with { Strokes = 0, Runs = Bleeding.Runs.Bubbles },
        HoseSeen e => this with { Runs = e.How },
        PedalFelt { How: not Pedal.Hard } => this with { Strokes = 0, Runs = null },
        // Shut for good; whoever opens it once more begins anew.
        BleedScrewShut or DeviationTaken { Kind: DeviationKind.NoReading } or ReadingTaken { Outcome: TorqueOutcome.Passes } =>
            this with { Strokes = 0, Runs = null },
        _ => this,
    };
}
