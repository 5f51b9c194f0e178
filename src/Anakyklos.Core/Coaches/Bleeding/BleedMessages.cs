using System.Text.Json.Serialization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Coaches.Bleeding;

/// <summary>What runs through the hose.</summary>
public enum Runs
{
    /// <summary>Old fluid.</summary>
    Dark,

    /// <summary>Air.</summary>
    Bubbles,

    /// <summary>Fresh fluid without air.</summary>
    Clear,
}

/// <summary>Full strokes were made: pressed, screw open, screw shut, released.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Strokes">How many.</param>
public sealed record StrokesMade(StepId Step, int Strokes) : CardEvent, IStepEvent
{
    /// <inheritdoc/>
    [JsonIgnore]
    public bool GoesOn => true;
}

/// <summary>Somebody looked at what runs through the hose.</summary>
/// <param name="Step">Step id.</param>
/// <param name="How">What runs.</param>
public sealed record HoseSeen(StepId Step, Runs How) : CardEvent, IStepEvent
{
    /// <inheritdoc/>
    [JsonIgnore]
    public bool GoesOn => true;
}

/// <summary>The reservoir was filled to its upper line.</summary>
/// <param name="Step">Step id.</param>
public sealed record ReservoirFilled(StepId Step) : CardEvent, IStepEvent
{
    /// <inheritdoc/>
    [JsonIgnore]
    public bool GoesOn => true;
}

/// <summary>The screw was tightened and its cap put on.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Reading">In the unit typed.</param>
/// <param name="Outcome">How it compares.</param>
public sealed record BleedScrewShut(StepId Step, Typed<Torque> Reading, TorqueOutcome Outcome) : CardEvent, IStepEvent;

/// <summary>Full strokes were made.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Strokes">How many.</param>
public sealed record MakeStrokes(StepId Step, int Strokes) : StepCommand(Step);

/// <summary>Somebody looked at what runs through the hose.</summary>
/// <param name="Step">Step id.</param>
/// <param name="How">What runs.</param>
public sealed record SeeHose(StepId Step, Runs How) : StepCommand(Step);

/// <summary>The reservoir was filled to its upper line.</summary>
/// <param name="Step">Step id.</param>
public sealed record FillReservoir(StepId Step) : StepCommand(Step);

/// <summary>The screw was tightened.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Reading">In the unit typed.</param>
public sealed record ShutBleedScrew(StepId Step, Typed<Torque> Reading) : StepCommand(Step);

/// <summary>What may be said while brakes or a clutch are bled.</summary>
internal sealed class BleedCommands : ICommandPage
{
    private static readonly CommandField<int?> Strokes = Field.Count("strokes", "how many full strokes");
    private static readonly CommandField<Typed<Torque>> Torque = Field.Amount<Torque>("torque", "what the wrench said");

    private static readonly CommandField<Runs> How = Field.Choice<Runs>("runs", "what runs through the hose",
        "Say what runs through the hose.", "Dark, bubbles or clear.");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("stroke", "Full strokes were made", [Field.Step, Strokes], said => new MakeStrokes(said.Of(Field.Step), said.Of(Strokes) ?? 1)),
        new("hose", "Somebody looked at the hose", [Field.Step, How], said => new SeeHose(said.Of(Field.Step), said.Of(How))),
        new("topUp", "The reservoir was filled to its upper line", [Field.Step], said => new FillReservoir(said.Of(Field.Step))),
        new("bleedScrew", "The bleed screw was tightened", [Field.Step, Torque],
            said => new ShutBleedScrew(said.Of(Field.Step), said.Of(Torque))),
    ];
}
