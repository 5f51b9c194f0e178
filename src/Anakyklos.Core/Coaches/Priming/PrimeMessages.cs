using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Priming;

/// <summary>The key was turned, or the primer pressed, and is held from now.</summary>
/// <param name="Step">Step id.</param>
/// <param name="For">For how long it is to be held.</param>
public sealed record PrimeHeld(StepId Step, TimeSpan For) : CardEvent, IGoesOn;

/// <summary>Strokes or turns were made.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Times">How many.</param>
public sealed record PrimeCounted(StepId Step, int Times) : CardEvent, IGoesOn;

/// <summary>The key was turned and is held there.</summary>
/// <param name="Step">Step id.</param>
public sealed record HoldPrimer(StepId Step) : StepCommand(Step);

/// <summary>Strokes or turns were made.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Times">How many.</param>
public sealed record CountPrimer(StepId Step, int Times) : StepCommand(Step);

/// <summary>How a priming stands.</summary>
/// <param name="Spec">What the sheet says.</param>
/// <param name="Made">How many were made.</param>
/// <param name="HeldUntil">Until when it is held now; null when it is not.</param>
public sealed record Priming(PrimeSpec Spec, int Made, DateTimeOffset? HeldUntil)
{
    /// <summary>How many are left at least.</summary>
    public int Left => Math.Max(0, Spec.Times - Made);

    /// <summary>How it stands at a step.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step that says how often.</param>
    public static Priming Of(JobCard card, SheetStep step)
    {
        var made = 0;
        foreach (var (_, happened) in card.HappenedAt(s => s.Id == step.Id || s.Traits.Engine == EngineUse.Starts))
            made = happened switch
            {
                PrimeCounted e => made + e.Times,
                EngineCranked e when e.Again.Contains(step.Id) => 0,
                _ => made,
            };
        return new((PrimeSpec)step.Spec!, made, card.Waits.FirstOrDefault(w => w.Id == step.Id)?.Until);
    }
}

/// <summary>What may be said while a system is filled before the start.</summary>
internal sealed class PrimeCommands : ICommandPage
{
    private static readonly CommandField<int?> Times = Field.Count("times", "how many");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("primerHeld", "The key was turned, and is held", [Field.Step], said => new HoldPrimer(said.Of(Field.Step))),
        new("primed", "Strokes of the primer, or turns of the key, were made", [Field.Step, Times],
            said => new CountPrimer(said.Of(Field.Step), said.Of(Times) ?? 1)),
    ];
}
