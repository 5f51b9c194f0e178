using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using static Anakyklos.Core.Cards.Decision;

namespace Anakyklos.Core.Coaches.Looking;

/// <summary>A joint leaks: it counts as open again.</summary>
/// <param name="Step">The step at which it was looked at.</param>
/// <param name="Fastener">Fastener id.</param>
public sealed record LeakFound(StepId Step, FastenerId Fastener) : CardEvent, IStepEvent;

/// <summary>A joint leaks.</summary>
/// <param name="Step">The step at which it was looked at.</param>
/// <param name="Fastener">Fastener id.</param>
public sealed record ReportLeak(StepId Step, FastenerId Fastener) : StepCommand(Step);

/// <summary>What may be said while joints are looked at.</summary>
internal sealed class LookCommands : ICommandPage
{
    private static readonly CommandField<string> Fastener = Field.Text("fastener", "the fastener whose joint leaks", needed: true);

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("leak", "A joint leaks", [Field.Step, Fastener], said => new ReportLeak(said.Of(Field.Step), said.Of(Fastener))),
    ];
}

/// <summary>Opened joints are looked at for leaks.</summary>
internal sealed class LookCoach : PressedCoach
{
    public override string Kind => "look";

    public override StepTraits Traits(SheetStep step) => new() { LooksAtJoints = true, Engine = EngineUse.Either };

    internal override IEnumerable<Refusal> Gate(JobCard card, SheetStep step)
    {
        foreach (var r in card.OpenPlugs("Tighten it first."))
            yield return r;
        if (card.ClosedSinceRun || (!card.HasRun && card.Steps.Any(s => s.Traits.Engine == EngineUse.Starts)))
            yield return new("The engine has not run since the joints were closed.", "A leak shows only after it has run. Start it first.",
                card.First(s => s.Traits.Engine == EngineUse.Starts));
    }

    internal override Decision Decide(StepAt at, CardCommand said) => said is not ReportLeak leak ? base.Decide(at, said)
        : at.Card.JointsOpened.Any(f => f.Id == leak.Fastener)
            ? Yes(new LeakFound(at.Id, leak.Fastener),
                new FindingNoted(at.Id, FindingGrade.PlanIt, $"{at.Sheet.Fasteners[leak.Fastener].Name} leaked after it was closed"))
            : NotHere(at);

    internal override IReadOnlyList<Effect> Effects(JobCard card, SheetStep step, CardEvent happened) =>
        happened is LeakFound leak ? [.. Leaks(card, leak)] : base.Effects(card, step, happened);

    protected override IEnumerable<Effect> Does(JobCard card, SheetStep step, StepDone done) => [new JointsSeen()];

    // The joint is proved again whatever runs through it; the look itself has not been done.
    private static IEnumerable<Effect> Leaks(JobCard card, LeakFound leak) =>
        card.Steps.FirstOrDefault(s => s.Traits.Fastens && s.What == leak.Fastener) is { } tighten
            ? Of(tighten).Leaks(card, tighten) : [];
}
