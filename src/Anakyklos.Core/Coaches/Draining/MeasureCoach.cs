using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Draining;

/// <summary>What came out was measured.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">The amount in the unit it was given in.</param>
public sealed record Measured(StepId Step, Typed<Volume> Amount) : CardEvent, IStepEvent;

/// <summary>What came out was measured.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">In the unit typed.</param>
public sealed record Measure(StepId Step, Typed<Volume> Amount) : StepCommand(Step);

/// <summary>What may be said when what came out is measured.</summary>
internal sealed class MeasureCommands : ICommandPage
{
    private static readonly CommandField<Typed<Volume>> Amount = Field.Amount<Volume>("amount", "how much came out");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("measure", "What came out was measured", [Field.Step, Amount], said => new Measure(said.Of(Field.Step), said.Of(Amount))),
    ];
}

/// <summary>What came out is measured.</summary>
internal sealed class MeasureCoach : Coach
{
    public override string Kind => "measure";

    public override StepTraits Traits(SheetStep step) => new() { MeasuresOut = true, IsMeasured = true };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fluids.ContainsKey(step.What) ? null : "a fluid";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        if (!card.Fluid(step.What).Out)
            yield return new($"The {Words.Low(card.Sheet.Fluids[step.What].Name)} is not out yet.", "Let it out first.",
                card.First(s => s.Traits.LetsOut && card.Sheet.Fasteners[s.What].Drains == step.What));
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said switch
    {
        Measure c => at.NotNow() ?? Implausible(c.Amount) ?? (Decision)Yes(new Measured(c.Step, c.Amount)),
        ConfirmStep => at.NotNow() ?? No("This one needs an amount or a level.", "Enter what you poured or read."),
        Deviate d => NeverLeftOut(at, d),
        _ => NotHere(at),
    };

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened is Measured m
        ? [new FluidMeasured(step.What, m.Amount.Value), new StepEnds(step.Id)] : throw Foreign(happened);

    internal override CardCommand ByTheBook(JobCard card, SheetStep step) =>
        new Measure(step.Id, new(card.Sheet.Fluids[step.What].Amount.Value, Volume.Litre));
}
