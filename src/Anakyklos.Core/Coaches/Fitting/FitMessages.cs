using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Coaches.Fitting;

/// <summary>Fresh fluid went into a part before it is fitted.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">How much, in the unit it was given in.</param>
/// <param name="From">Out of which containers of the stores; null where they had none of it.</param>
public sealed record PartFilled(StepId Step, Typed<Volume> Amount, IReadOnlyList<PouredFrom>? From = null) : CardEvent, IPourEvent;

/// <summary>A part is in its place, and lies as it was said.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Says">How it lies, in the sheet's words.</param>
public sealed record PartFitted(StepId Step, string Says) : CardEvent, IStepEvent;

/// <summary>A part is in its place.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Says">How it lies, in the sheet's words.</param>
public sealed record FitPart(StepId Step, string Says) : StepCommand(Step);

/// <summary>Fresh fluid went into a part before it is fitted.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">How much, in the unit typed.</param>
/// <param name="From">The container of the stores that was poured from; null for the one that they give out.</param>
public sealed record FillPart(StepId Step, Typed<Volume> Amount, int? From = null) : StepCommand(Step)
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>What may be said when a part is fitted.</summary>
internal sealed class FitCommands : ICommandPage
{
    private static readonly CommandField<Typed<Volume>> In = Field.Amount<Volume>("amount", "how much went into it");
    private static readonly CommandField<string> Says = Field.Text("says", "how it lies", needed: true);
    private static readonly CommandField<int?> From = Field.Count("from", "the number of the container that was poured from first");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("fillPart", "Fresh oil went into a filter before it is fitted", [Field.Step, In, From],
            said => new FillPart(said.Of(Field.Step), said.Of(In), said.Of(From))),
        new("fitted", "A part is in its place, and lies as it is said", [Field.Step, Says],
            said => new FitPart(said.Of(Field.Step), said.Of(Says))),
    ];
}
