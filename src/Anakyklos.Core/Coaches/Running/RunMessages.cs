using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Coaches.Running;

/// <summary>A move was made of what makes an engine run that would not by itself.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Number">Which, from 1.</param>
public sealed record StartMoveMade(StepId Step, int Number) : CardEvent, IGoesOn;

/// <summary>The engine caught and runs.</summary>
/// <param name="Step">Step id.</param>
public sealed record EngineCaught(StepId Step) : CardEvent, IGoesOn;

/// <summary>The oil light went out.</summary>
/// <param name="Step">Step id.</param>
/// <param name="After">How long after the engine caught that was said, in whole seconds, rounded up.</param>
/// <param name="Timed">Whether that was in time; otherwise somebody said that it was out in time and pressed late.</param>
public sealed record OilLightOut(StepId Step, TimeSpan After, bool Timed) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => Timed ? null : Stray.Light;
}

/// <summary>The oil light stayed on, and the engine was switched off.</summary>
/// <param name="Step">Step id.</param>
/// <param name="After">How long after the engine caught, in whole seconds, rounded up.</param>
public sealed record OilLightStayed(StepId Step, TimeSpan After) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => Stray.Light;
}

/// <summary>Somebody looked why the oil light stayed on.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Found">What was found.</param>
public sealed record LightLookedInto(StepId Step, string Found) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => Stray.Light;
}

/// <summary>The engine was cranked for as long as it may be, and did not fire.</summary>
/// <param name="Step">Step id.</param>
public sealed record CrankEngine(StepId Step) : StepCommand(Step);

/// <summary>The next move was made of what makes an engine run.</summary>
/// <param name="Step">Step id.</param>
public sealed record MakeStartMove(StepId Step) : StepCommand(Step);

/// <summary>The engine caught and runs.</summary>
/// <param name="Step">Step id.</param>
public sealed record EngineRunsNow(StepId Step) : StepCommand(Step);

/// <summary>The oil light went out.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Meant">It was out in time, whenever it is pressed.</param>
public sealed record LightWentOut(StepId Step, bool Meant = false) : StepCommand(Step);

/// <summary>The oil light is still on, and the engine was switched off.</summary>
/// <param name="Step">Step id.</param>
public sealed record LightStaysOn(StepId Step) : StepCommand(Step);

/// <summary>It was looked why the oil light stayed on.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Found">What was found.</param>
public sealed record LookIntoLight(StepId Step, string Found) : StepCommand(Step);

/// <summary>Whether the oil light was out in time, of which nobody spoke then.</summary>
/// <param name="Text">The question.</param>
/// <param name="After">How long after the engine caught it was said.</param>
public sealed record LightQuestion(string Text, TimeSpan After) : Question(Text);

/// <summary>How a start stands.</summary>
/// <param name="Spec">What the sheet says.</param>
/// <param name="Made">How many moves were made of what makes it run.</param>
/// <param name="CaughtAt">When it caught, while its light is waited for; null otherwise.</param>
/// <param name="Stayed">How often the oil light stayed on.</param>
/// <param name="Untried">It stayed on, and nobody has said since what was found.</param>
public sealed record Starting(StartSpec Spec, int Made, DateTimeOffset? CaughtAt, int Stayed, bool Untried)
{
    /// <summary>The next move of what makes it run; null when all were made, or none is needed.</summary>
    public StartMove? Next => Spec.Moves.ElementAtOrDefault(Made);

    /// <summary>How it stands at a step.</summary>
    /// <param name="card">The card.</param>
    /// <param name="step">A step that starts the engine.</param>
    public static Starting Of(JobCard card, SheetStep step)
    {
        var (made, stayed, untried) = (0, 0, false);
        foreach (var (_, happened) in card.HappenedAt(s => s.Id == step.Id))
            (made, stayed, untried) = happened switch
            {
                StartMoveMade e => (e.Number, stayed, untried),
                OilLightStayed => (0, stayed + 1, true),
                LightLookedInto => (made, stayed, false),
                OilLightOut => (0, 0, false),
                _ => (made, stayed, untried),
            };
        return new(StartSpec.Of(step), made, card.StartedAt(step), stayed, untried);
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
    private static readonly CommandField<string> Found = Field.Text("found", "what was found");
    private static readonly CommandField<bool> Meant = Field.Yes("meant", "whether it was out in time, though it is said late");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("cranked", "The engine was cranked and did not fire", [Field.Step], said => new CrankEngine(said.Of(Field.Step))),
        new("startMove", "The next move was made of what makes the engine run", [Field.Step],
            said => new MakeStartMove(said.Of(Field.Step))),
        new("runs", "The engine caught and runs", [Field.Step], said => new EngineRunsNow(said.Of(Field.Step))),
        new("lightOut", "The oil light went out", [Field.Step, Meant], said => new LightWentOut(said.Of(Field.Step), said.Of(Meant))),
        new("lightStays", "The oil light is still on, and the engine was switched off", [Field.Step],
            said => new LightStaysOn(said.Of(Field.Step))),
        new("lightFound", "It was looked why the oil light stayed on", [Field.Step, Found],
            said => new LookIntoLight(said.Of(Field.Step), said.Of(Found))),
    ];
}
