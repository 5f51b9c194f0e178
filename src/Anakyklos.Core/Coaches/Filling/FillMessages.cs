using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using System.Text.Json.Serialization;

namespace Anakyklos.Core.Coaches.Filling;

/// <summary>An amount went in.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">The amount in the unit it was given in.</param>
/// <param name="AgainstWarning">The warning that was passed over, or empty.</param>
public sealed record Poured(StepId Step, Typed<Volume> Amount, string AgainstWarning = "") : CardEvent, IStepEvent
{
    /// <inheritdoc/>
    [JsonIgnore]
    public bool GoesOn => true;
}

/// <summary>An amount was taken out again, because it stood too high.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">The amount.</param>
public sealed record TakenOut(StepId Step, Typed<Volume> Amount) : CardEvent, IStepEvent
{
    /// <inheritdoc/>
    [JsonIgnore]
    public bool GoesOn => true;
}

/// <summary>The dipstick was read.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Level">Where the oil stood.</param>
public sealed record GaugeRead(StepId Step, Level Level) : CardEvent, IStepEvent
{
    /// <inheritdoc/>
    [JsonIgnore]
    public bool GoesOn => true;
}

/// <summary>An amount went in.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">In the unit typed.</param>
/// <param name="WarningSeen">The person was warned and stands by it.</param>
public sealed record Pour(StepId Step, Typed<Volume> Amount, bool WarningSeen = false) : StepCommand(Step);

/// <summary>An amount came out again.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">In the unit typed.</param>
public sealed record TakeOut(StepId Step, Typed<Volume> Amount) : StepCommand(Step);

/// <summary>The dipstick was read.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Level">Where the oil stands.</param>
public sealed record ReadGauge(StepId Step, Level Level) : StepCommand(Step);

/// <summary>Really pour it?</summary>
/// <param name="Text">The warning as a question.</param>
/// <param name="Amount">The amount.</param>
public sealed record PourQuestion(string Text, Typed<Volume> Amount) : Question(Text);
