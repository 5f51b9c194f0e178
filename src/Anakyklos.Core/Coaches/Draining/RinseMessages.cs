using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Coaches.Draining;

/// <summary>A little fresh fluid was poured through with the plug out.</summary>
/// <param name="Step">The step that let the old fluid out.</param>
/// <param name="Amount">How much, in the unit it was given in.</param>
/// <param name="From">Out of which containers of the stores; null where they had none of it.</param>
public sealed record Rinsed(StepId Step, Typed<Volume> Amount, IReadOnlyList<PouredFrom>? From = null) : CardEvent, IPourEvent;

/// <summary>A little fresh fluid was poured through with the plug out.</summary>
/// <param name="Step">The step that let the old fluid out.</param>
/// <param name="Amount">How much, in the unit typed.</param>
/// <param name="From">The container of the stores that was poured from; null for the one that they give out.</param>
public sealed record Rinse(StepId Step, Typed<Volume> Amount, int? From = null) : StepCommand(Step)
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>What may be said once a fluid has run out.</summary>
internal sealed class RinseCommands : ICommandPage
{
    private static readonly CommandField<Typed<Volume>> Through = Field.Amount<Volume>("amount", "how much was poured through");
    private static readonly CommandField<int?> From = Field.Count("from", "the number of the container that was poured from first");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("rinse", "A little fresh fluid was poured through with the plug out", [Field.Step, Through, From],
            said => new Rinse(said.Of(Field.Step), said.Of(Through), said.Of(From))),
    ];
}
