using System.Text.Json.Serialization;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Kit;
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
public sealed record StrokesMade(StepId Step, int Strokes) : CardEvent, IGoesOn;

/// <summary>Somebody looked at what runs through the hose.</summary>
/// <param name="Step">Step id.</param>
/// <param name="How">What runs.</param>
public sealed record HoseSeen(StepId Step, Runs How) : CardEvent, IGoesOn;

/// <summary>The reservoir was filled.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Filled">What went in: as it was typed, or what was missing to the upper line by the strokes; null on old cards.</param>
/// <param name="Short">It does not stand at its upper line after that, because a can ran empty.</param>
/// <param name="From">Out of which containers of the stores, in the order in which they were taken; null where they had none of it.</param>
public sealed record ReservoirFilled(StepId Step, Typed<Volume>? Filled = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Short = false,
    IReadOnlyList<PouredFrom>? From = null) : CardEvent, IPourEvent
{
    /// <inheritdoc/>
    [JsonIgnore]
    public Typed<Volume> Amount => Filled ?? new(Quantity<Volume>.Zero, Volume.Millilitre);
}

/// <summary>What a pedal or lever does that is pressed and held.</summary>
public enum Pedal
{
    /// <summary>It stands high and hard, and stays there.</summary>
    Hard,

    /// <summary>It gives like a spring.</summary>
    Soft,

    /// <summary>It goes down slowly.</summary>
    Sinks,
}

/// <summary>The pedal or lever was pressed, and is held from now.</summary>
/// <param name="Step">Step id.</param>
/// <param name="For">For how long it is to be held.</param>
public sealed record PedalPressed(StepId Step, TimeSpan For) : CardEvent, IGoesOn;

/// <summary>Somebody felt what the pedal or lever does.</summary>
/// <param name="Step">Step id.</param>
/// <param name="How">What it does.</param>
public sealed record PedalFelt(StepId Step, Pedal How) : CardEvent, IStepEvent;

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

/// <summary>The reservoir was filled.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">What went in, in the unit typed, where a can ran empty before; null to the upper line.</param>
public sealed record FillReservoir(StepId Step, Typed<Volume>? Amount = null) : StepCommand(Step)
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>The pedal or lever was pressed and is held.</summary>
/// <param name="Step">Step id.</param>
public sealed record PressPedal(StepId Step) : StepCommand(Step);

/// <summary>Somebody felt what the pedal or lever does.</summary>
/// <param name="Step">Step id.</param>
/// <param name="How">What it does.</param>
public sealed record FeelPedal(StepId Step, Pedal How) : StepCommand(Step);

/// <summary>What may be said while brakes or a clutch are bled.</summary>
internal sealed class BleedCommands : ICommandPage
{
    private static readonly CommandField<int?> Strokes = Field.Count("strokes", "how many full strokes");
    private static readonly CommandField<Typed<Volume>?> Amount = Field.AmountIfAny<Volume>("amount", "what went in");

    private static readonly CommandField<Pedal> Feels = Field.Choice<Pedal>("pedal", "what the pedal or lever does",
        "Say what it does.", "Hard, soft, or it sinks.");

    private static readonly CommandField<Runs> How = Field.Choice<Runs>("runs", "what runs through the hose",
        "Say what runs through the hose.", "Dark, bubbles or clear.");

    public IEnumerable<CommandDeclaration> Commands =>
    [
        new("stroke", "Full strokes were made", [Field.Step, Strokes], said => new MakeStrokes(said.Of(Field.Step), said.Of(Strokes) ?? 1)),
        new("hose", "Somebody looked at the hose", [Field.Step, How], said => new SeeHose(said.Of(Field.Step), said.Of(How))),
        new("topUp", "The reservoir was filled, to its upper line unless an amount is said", [Field.Step, Amount],
            said => new FillReservoir(said.Of(Field.Step), said.Of(Amount))),
        new("pedalDown", "The pedal or lever was pressed and is held", [Field.Step], said => new PressPedal(said.Of(Field.Step))),
        new("pedal", "Somebody felt what the pedal or lever does", [Field.Step, Feels],
            said => new FeelPedal(said.Of(Field.Step), said.Of(Feels))),
    ];
}
