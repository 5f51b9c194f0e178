using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>The engine is started and runs on; one that does not fire is not cranked for longer than its starter bears.</summary>
internal sealed class RunCoach : PressedCoach
{
    public override string Kind => "run";

    public override StepTraits Traits(SheetStep step) => new() { Engine = EngineUse.Starts };

    public override string? Wants(ModelSheet sheet, SheetStep step) => sheet.Fluids.ContainsKey(step.What) ? null : "a fluid";

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step) => [];

    internal override Decision Decide(StepAt at, CardCommand said) =>
        said is CrankEngine ? at.NotNow() ?? Cranked(at) : base.Decide(at, said);

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) => happened switch
    {
        EngineCranked e => [new WaitBegins(step.Id, e.Cools ? "Starter cools" : "Starter rests", e.Rests),
            .. e.Again.Select(a => new StepBeginsAgain(a))],
        _ => base.Effects(card, step, happened),
    };

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) =>
        [new EngineStarts(), new Opens(OpenRef.Engine, "Engine running", "until it is switched off", step.Id)];

    // What does not fire after so many tries is dry, or has another fault: what was primed is primed again.
    private static Decision Cranked(StepAt at)
    {
        if (at.Sheet.Starter is not { } starter)
            return No("The sheet does not say how long it may be cranked.", "Note what it did as something seen, and ask the lead.");
        var cools = Cranking.Of(at.Card, at.Step).Left <= 1;
        IReadOnlyList<StepId> again = cools
            ? [.. at.Card.Steps.Where(s => s.Traits.Primes && at.Card.State(s.Id).Status == StepStatus.Done).Select(s => s.Id)] : [];
        return Yes(new EngineCranked(at.Id, cools, cools ? starter.Cools : starter.Rest, again));
    }
}

/// <summary>How often an engine was cranked that did not fire.</summary>
/// <param name="Left">How many tries are left until it cools; 0 where the sheet sets no limit.</param>
/// <param name="Times">How many there were on this card.</param>
public sealed record Cranking(int Left, int Times)
{
    /// <summary>How it stands at a step.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step that starts the engine.</param>
    public static Cranking Of(JobCard card, SheetStep step)
    {
        var tries = card.HappenedAt(s => s.Id == step.Id).Select(h => h.Event).OfType<EngineCranked>().ToList();
        return new((card.Sheet.Starter?.Tries ?? 0) - (tries.Count - 1 - tries.FindLastIndex(t => t.Cools)), tries.Count);
    }
}

/// <summary>What may be said at a start.</summary>
internal sealed class RunCommands : ICommandPage
{
    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("cranked", "The engine was cranked and did not fire", [Field.Step], said => new CrankEngine(said.Of(Field.Step))),
    ];
}

/// <summary>The engine was cranked for as long as it may be, and did not fire.</summary>
/// <param name="Step">Step id.</param>
public sealed record CrankEngine(StepId Step) : StepCommand(Step);
