using System.Text.Json.Serialization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>The engine runs, or the vehicle set off, to get warm.</summary>
/// <param name="Step">Step id.</param>
/// <param name="For">For how long at least.</param>
/// <param name="LookedAbove">The engine bay was looked over for tools and rags before it.</param>
public sealed record WarmingBegun(StepId Step, TimeSpan For,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool LookedAbove = false) : CardEvent, IGoesOn;

/// <summary>The engine runs, or the vehicle sets off, to get warm.</summary>
/// <param name="Step">Step id.</param>
/// <param name="LookedAbove">Whether the engine bay was looked over for tools and rags, where that is asked.</param>
public sealed record BeginWarming(StepId Step, bool LookedAbove = false) : StepCommand(Step);

/// <summary>How an engine that is run warm by the clock stands.</summary>
/// <param name="Spec">What the sheet says.</param>
/// <param name="Begun">What began it; null while it has not begun.</param>
public sealed record Warming(WarmSpec Spec, WarmingBegun? Begun)
{
    /// <summary>How it stands at a step.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step that says how long it is run warm.</param>
    public static Warming Of(JobCard card, SheetStep step) => new((WarmSpec)step.Spec!, card.IsAway(step)
        ? card.HappenedAt(s => s.Id == step.Id).Select(h => h.Event).OfType<WarmingBegun>().LastOrDefault() : null);
}

/// <summary>What may be said while an engine is run warm.</summary>
internal sealed class WarmCommands : ICommandPage
{
    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("warming", "The engine runs, or the vehicle sets off, to get warm", [Field.Step, Field.LookedAbove],
            said => new BeginWarming(said.Of(Field.Step), said.Of(Field.LookedAbove))),
    ];
}
