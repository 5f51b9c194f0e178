using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Coaches.Draining;

/// <summary>What came out was measured.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">The amount in the unit it was given in; litres where it was weighed.</param>
/// <param name="Weighed">What the scale showed; null where it was measured by volume.</param>
/// <param name="Asked">What was asked about it and answered with yes; null for nothing.</param>
public sealed record Measured(StepId Step, Typed<Volume> Amount, Weighed? Weighed = null, string? Asked = null)
    : CardEvent, IStepEvent, IMayStray
{
    Stray? IMayStray.Strayed => Asked is { Length: > 0 } ? Stray.Warned : null;
}

/// <summary>What a scale showed.</summary>
/// <param name="Full">Pan and fluid.</param>
/// <param name="Empty">The empty pan.</param>
public sealed record Weighed(Typed<Mass> Full, Typed<Mass> Empty);

/// <summary>What came out was measured by volume.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">In the unit typed.</param>
/// <param name="Meant">The person was asked about it and stands by it.</param>
public sealed record Measure(StepId Step, Typed<Volume> Amount, bool Meant = false) : StepCommand(Step);

/// <summary>What came out was weighed in its pan.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Full">Pan and fluid, in the unit typed.</param>
/// <param name="Empty">The empty pan, in the unit typed.</param>
/// <param name="Meant">The person was asked about it and stands by it.</param>
public sealed record Weigh(StepId Step, Typed<Mass> Full, Typed<Mass> Empty, bool Meant = false) : StepCommand(Step);

/// <summary>Did really so much, or so little, come out?</summary>
/// <param name="Text">The question, with what may be behind it.</param>
/// <param name="Amount">How much.</param>
/// <param name="Weighed">What the scale showed; null where it was measured by volume.</param>
/// <param name="Step">The step at which it is measured.</param>
public sealed record MeasureQuestion(string Text, Typed<Volume> Amount, Weighed? Weighed, StepId Step) : Question(Text);

/// <summary>What may be said when what came out is measured.</summary>
internal sealed class MeasureCommands : ICommandPage
{
    private static readonly CommandField<Typed<Volume>> Amount = Field.Amount<Volume>("amount", "how much came out");
    private static readonly CommandField<Typed<Mass>> Full = Field.Amount<Mass>("full", "what pan and oil weigh together");
    private static readonly CommandField<Typed<Mass>> Empty = Field.Amount<Mass>("empty", "what the empty pan weighs");
    private static readonly CommandField<bool> Meant = Field.Yes("meant", "whether it was asked about and is meant");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("measure", "What came out was measured", [Field.Step, Amount, Meant],
            said => new Measure(said.Of(Field.Step), said.Of(Amount), said.Of(Meant))),
        new("weigh", "What came out was weighed in its pan", [Field.Step, Full, Empty, Meant],
            said => new Weigh(said.Of(Field.Step), said.Of(Full), said.Of(Empty), said.Of(Meant))),
    ];
}
