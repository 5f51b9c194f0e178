using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Rotating;

/// <summary>Somebody looked whether the treads carry an arrow.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Arrowed">They do.</param>
public sealed record TreadLookedAt(StepId Step, bool Arrowed) : CardEvent, IGoesOn;

/// <summary>Somebody looked whether the treads carry an arrow.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Arrowed">They do.</param>
public sealed record LookAtTread(StepId Step, bool Arrowed) : StepCommand(Step);

/// <summary>How the wheels are rotated on a card.</summary>
/// <param name="Arrowed">Whether their treads carry an arrow; null while nobody looked.</param>
/// <param name="Moves">Where each goes; as without an arrow while nobody looked.</param>
public sealed record Rotation(bool? Arrowed, IReadOnlyList<WheelMove> Moves)
{
    /// <summary>How they are rotated at a step.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step that rotates wheels.</param>
    public static Rotation Of(JobCard card, SheetStep step)
    {
        var arrowed = card.HappenedAt(s => s.Id == step.Id).Select(h => h.Event).OfType<TreadLookedAt>().LastOrDefault()?.Arrowed;
        return new(arrowed, ((RotateSpec)step.Spec!).For(arrowed == true));
    }
}

/// <summary>What may be said while wheels are rotated.</summary>
internal sealed class RotateCommands : ICommandPage
{
    private static readonly CommandField<bool> Arrowed = Field.Yes("arrowed", "whether the treads carry an arrow");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("tread", "Somebody looked whether the treads carry an arrow", [Field.Step, Arrowed],
            said => new LookAtTread(said.Of(Field.Step), said.Of(Arrowed))),
    ];
}
