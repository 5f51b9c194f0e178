using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using System.Text.Json.Serialization;

namespace Anakyklos.Core.Torques;

/// <summary>A torque was read off the wrench, or it clicked at its setting.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Reading">What the wrench said, in its unit; where it clicked, its setting.</param>
/// <param name="Outcome">What it was worth.</param>
/// <param name="Corrects">Seq of the reading that this one puts right, or null.</param>
/// <param name="Reason">Why it was put right; empty for a first reading.</param>
/// <param name="Device">The wrench that sent it; null when a person read it off.</param>
/// <param name="Pass">In which pass, from 1; 0 on cards from the time when a group had one reading for all.</param>
/// <param name="Places">Of which fasteners, by their numbers; null for the only one, or for all on old cards.</param>
/// <param name="Wrench">The wrench of the crib that clicked at its setting; null where a number was read.</param>
/// <param name="With">What was across its head, or null.</param>
/// <param name="AtFastener">What came to the fastener by that; null where it is the reading.</param>
public sealed record ReadingTaken(StepId Step, Typed<Torque> Reading, TorqueOutcome Outcome, int? Corrects = null,
    string Reason = "", DeviceId? Device = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] int Pass = 0,
    IReadOnlyList<int>? Places = null, string? Wrench = null, CrowFoot? With = null, Typed<Torque>? AtFastener = null)
    : CardEvent, IStepEvent, IMayStray
{
    Stray? IMayStray.Strayed => Corrects is not null ? Stray.PutRight : Outcome == TorqueOutcome.TooMuch ? Stray.TooMuch : null;

    /// <inheritdoc/>
    [JsonIgnore]
    public bool GoesOn => Corrects is not null;

    /// <summary>What came to the fastener.</summary>
    [JsonIgnore]
    public Typed<Torque> Reached => AtFastener ?? Reading;

    /// <summary>The fasteners that it speaks of; the only one where none is named.</summary>
    [JsonIgnore]
    public IReadOnlyList<int> Of => Places ?? [1];
}

/// <summary>Fasteners were drawn down in a pass that has no torque: by hand, or by a turn.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Pass">In which pass, from 1.</param>
/// <param name="Places">Which, by their numbers, in the order in which they were done.</param>
public sealed record FastenersDrawn(StepId Step, int Pass, IReadOnlyList<int> Places) : CardEvent, IStepEvent;

/// <summary>Another wrench than the card says was taken up, or something put across its head.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Wrench">Its name; empty for the one that the card says.</param>
/// <param name="With">What is across its head, or null.</param>
public sealed record WrenchTaken(StepId Step, string Wrench, CrowFoot? With) : CardEvent, IGoesOn;

/// <summary>What was done after too much torque.</summary>
/// <param name="Step">Step id.</param>
/// <param name="What">In the person's words.</param>
public sealed record OverTorqueSettled(StepId Step, string What) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => Stray.TooMuch;
}

/// <summary>A joint that leaked turned under the wrench: it had been loose, and its seal stays.</summary>
/// <param name="Step">Step id.</param>
public sealed record JointWasLoose(StepId Step) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => Stray.Leak;
}

/// <summary>A joint that leaked has a new seal; what stands over it was let down and poured back.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Number">The number on the new seal.</param>
public sealed record SealRenewed(StepId Step, string Number) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => Stray.Leak;
}

/// <summary>A joint that leaked turned under the wrench; its seal stays.</summary>
/// <param name="Step">Step id.</param>
public sealed record SayJointWasLoose(StepId Step) : StepCommand(Step);

/// <summary>A joint that leaked has a new seal.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Number">The number on it, typed or scanned.</param>
public sealed record RenewSeal(StepId Step, string Number) : StepCommand(Step)
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>A torque was read at the fastener that is next.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Reading">What the wrench said; without a unit on the scale of the wrench in the hand.</param>
/// <param name="UnitIsMeant">The person was asked about the unit and stands by it.</param>
/// <param name="Device">The wrench that sent it, which knows its unit; null when a person says it.</param>
public sealed record TakeReading(StepId Step, NumberSaid<Torque> Reading, bool UnitIsMeant = false, DeviceId? Device = null)
    : StepCommand(Step)
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>Says that fasteners were drawn down in their order, from the one that was next to this one: the wrench clicked at its setting
/// on each, or each was turned as the pass wants it.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Pass">In which pass, from 1.</param>
/// <param name="Place">The last one, by its number.</param>
/// <param name="Wrench">The wrench that clicked; empty for the one that the card says.</param>
/// <param name="Setting">What it was set to; null for what the card says.</param>
public sealed record DrawInOrder(StepId Step, int Pass, int Place, string Wrench = "", Typed<Torque>? Setting = null) : StepCommand(Step)
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>Takes up another wrench, or puts something across its head.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Wrench">Its name in the crib; empty for the one that the card says.</param>
/// <param name="Length">Of a crow-foot or extension, from square to fastener; null for none.</param>
/// <param name="Degrees">From the line of the handle; null for straight on.</param>
public sealed record TakeWrench(StepId Step, string Wrench, Typed<Length>? Length = null, int? Degrees = null) : StepCommand(Step)
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>An earlier reading was noted wrongly.</summary>
/// <param name="Of">Its seq.</param>
/// <param name="Reading">What it should have said; without a unit in that of the reading.</param>
/// <param name="Reason">Why.</param>
public sealed record CorrectReading(int Of, NumberSaid<Torque> Reading, string Reason) : CorrectionCommand(Of);

/// <summary>Says what was done after too much torque.</summary>
/// <param name="Step">Step id.</param>
/// <param name="What">In words.</param>
public sealed record SettleOverTorque(StepId Step, string What) : StepCommand(Step);

/// <summary>Was another unit meant?</summary>
/// <param name="Text">The question.</param>
/// <param name="AsTyped">The reading as typed.</param>
/// <param name="PerhapsMeant">The same number in the unit in which it would pass.</param>
public sealed record UnitQuestion(string Text, Typed<Torque> AsTyped, Typed<Torque> PerhapsMeant) : Question(Text);
