using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using System.Text.Json.Serialization;

namespace Anakyklos.Core.Coaches.Tightening;

/// <summary>A torque was read off the wrench.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Reading">The reading in its unit.</param>
/// <param name="Outcome">What it was worth.</param>
/// <param name="Corrects">Seq of the reading that this one puts right, or null.</param>
/// <param name="Reason">Why it was put right; empty for a first reading.</param>
/// <param name="Device">The wrench that sent it; null when a person read it off.</param>
public sealed record ReadingTaken(StepId Step, Typed<Torque> Reading, TorqueOutcome Outcome, int? Corrects = null,
    string Reason = "", DeviceId? Device = null) : CardEvent, IStepEvent
{
    /// <inheritdoc/>
    [JsonIgnore]
    public bool GoesOn => Corrects is not null;
}

/// <summary>What was done after too much torque.</summary>
/// <param name="Step">Step id.</param>
/// <param name="What">In the person's words.</param>
public sealed record OverTorqueSettled(StepId Step, string What) : CardEvent, IStepEvent
{
    /// <inheritdoc/>
    [JsonIgnore]
    public bool GoesOn => true;
}

/// <summary>A torque was read.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Reading">In the unit typed.</param>
/// <param name="UnitIsMeant">The person was asked about the unit and stands by it.</param>
/// <param name="Device">The wrench that sent it, which knows its unit; null when a person says it.</param>
public sealed record TakeReading(StepId Step, Typed<Torque> Reading, bool UnitIsMeant = false, DeviceId? Device = null)
    : StepCommand(Step);

/// <summary>An earlier reading was noted wrongly.</summary>
/// <param name="Of">Its seq.</param>
/// <param name="Reading">What it should have said.</param>
/// <param name="Reason">Why.</param>
public sealed record CorrectReading(int Of, Typed<Torque> Reading, string Reason) : CorrectionCommand(Of);

/// <summary>Says what was done after too much torque.</summary>
/// <param name="Step">Step id.</param>
/// <param name="What">In words.</param>
public sealed record SettleOverTorque(StepId Step, string What) : StepCommand(Step);

/// <summary>Was another unit meant?</summary>
/// <param name="Text">The question.</param>
/// <param name="AsTyped">The reading as typed.</param>
/// <param name="PerhapsMeant">The same number in the unit in which it would pass.</param>
public sealed record UnitQuestion(string Text, Typed<Torque> AsTyped, Typed<Torque> PerhapsMeant) : Question(Text);
