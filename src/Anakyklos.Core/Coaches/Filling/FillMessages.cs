using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Kit;
using Anakyklos.Core.Quantities;
using System.Text.Json.Serialization;

namespace Anakyklos.Core.Coaches.Filling;

/// <summary>An amount went in.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">The amount in the unit it was given in.</param>
/// <param name="AgainstWarning">The warning that was passed over, or empty.</param>
/// <param name="OneOfSeveral">Whether it goes on until somebody says that it runs over; without that the pour itself said so, as it did
/// before there were several.</param>
/// <param name="From">Out of which containers of the stores, in the order in which they were taken; null where they had none of it. What is
/// missing to the amount came out of one that they do not know.</param>
/// <param name="Device">The dispenser that metered it; null when a person measured it.</param>
public sealed record Poured(StepId Step, Typed<Volume> Amount, string AgainstWarning = "",
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool OneOfSeveral = false,
    IReadOnlyList<PouredFrom>? From = null, DeviceId? Device = null) : CardEvent, IPourEvent, IMayStray
{
    Stray? IMayStray.Strayed => AgainstWarning is { Length: > 0 } ? Stray.Warned : null;
}

/// <summary>An amount was taken out again, because it stood too high.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">The amount.</param>
public sealed record TakenOut(StepId Step, Typed<Volume> Amount) : CardEvent, IGoesOn;

/// <summary>The level was read: on a stick, in a window, on a rod, at a part.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Level">Where it stood.</param>
/// <param name="Depth">How far below the filler, as it was read on a rod; null for every other gauge, and where it was not said.</param>
/// <param name="AgainstWarning">The warning that was passed over; null for none.</param>
public sealed record GaugeRead(StepId Step, Level Level, Typed<Length>? Depth = null, string? AgainstWarning = null)
    : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => AgainstWarning is { Length: > 0 } ? Stray.Warned : null;
}

/// <summary>The level was read before the first run on what went in: it tells whether the oil is there at all, and nothing is topped up
/// after it.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Level">Where it stood.</param>
/// <param name="AgainstWarning">The warning that was passed over; null for none.</param>
public sealed record StoodBeforeRun(StepId Step, Level Level, string? AgainstWarning = null) : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => AgainstWarning is { Length: > 0 } ? Stray.Warned : null;
}

/// <summary>What it goes into was taken apart, and is dry inside.</summary>
/// <param name="Step">Step id.</param>
public sealed record WasStripped(StepId Step) : CardEvent, IGoesOn;

/// <summary>It ran out of the hole through which it is filled.</summary>
/// <param name="Step">Step id.</param>
/// <param name="AgainstWarning">The warning that was passed over, or empty.</param>
public sealed record RanOver(StepId Step, string AgainstWarning = "") : CardEvent, IGoesOn, IMayStray
{
    Stray? IMayStray.Strayed => AgainstWarning is { Length: > 0 } ? Stray.Warned : null;
}

/// <summary>An amount went in.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">In the unit typed.</param>
/// <param name="WarningSeen">The person was warned and stands by it.</param>
/// <param name="From">The container of the stores that was poured from first; null for the one that they give out.</param>
/// <param name="Device">The dispenser that metered it; null when a person measured it. No client says this.</param>
public sealed record Pour(StepId Step, Typed<Volume> Amount, bool WarningSeen = false, int? From = null, DeviceId? Device = null)
    : StepCommand(Step)
{
    /// <inheritdoc/>
    public override bool AsksServer => true;
}

/// <summary>An amount came out again.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Amount">In the unit typed.</param>
public sealed record TakeOut(StepId Step, Typed<Volume> Amount) : StepCommand(Step);

/// <summary>The level was read between two marks.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Level">Where it stands.</param>
/// <param name="WarningSeen">The person was asked whether that can be and stands by it.</param>
public sealed record ReadGauge(StepId Step, Level Level, bool WarningSeen = false) : StepCommand(Step);

/// <summary>The level was read before the first run on what went in.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Level">Where it stands.</param>
/// <param name="Meant">The person was asked whether that can be and stands by it.</param>
public sealed record ReadBeforeRun(StepId Step, Level Level, bool Meant = false) : StepCommand(Step);

/// <summary>Does it really stand there, with what went in and before the first run?</summary>
/// <param name="Text">The question, with what may be behind it, the likeliest first.</param>
/// <param name="Level">What was read.</param>
public sealed record BeforeRunQuestion(string Text, Level Level) : Question(Text);

/// <summary>The level was read on a rod.</summary>
/// <param name="Step">Step id.</param>
/// <param name="Depth">From the filler down to where the fluid ends, in the unit typed.</param>
/// <param name="WarningSeen">The person was asked whether that can be and stands by it.</param>
public sealed record ReadRod(StepId Step, Typed<Length> Depth, bool WarningSeen = false) : StepCommand(Step);

/// <summary>It runs out of the hole through which it is filled.</summary>
/// <param name="Step">Step id.</param>
/// <param name="WarningSeen">The person was warned and stands by it.</param>
public sealed record RunOver(StepId Step, bool WarningSeen = false) : StepCommand(Step);

/// <summary>What it goes into was taken apart, and is dry inside.</summary>
/// <param name="Step">Step id.</param>
public sealed record SayStripped(StepId Step) : StepCommand(Step);

/// <summary>Really pour it?</summary>
/// <param name="Text">The warning as a question.</param>
/// <param name="Amount">The amount.</param>
/// <param name="From">The container that was poured from first; null where none was named.</param>
public sealed record PourQuestion(string Text, Typed<Volume> Amount, int? From = null) : Question(Text);

/// <summary>Does it really stand there, with so much in?</summary>
/// <param name="Text">The warning as a question, with what may be the reason, the likeliest first.</param>
/// <param name="Level">What was read.</param>
/// <param name="Depth">As it was read on a rod; null for every other gauge.</param>
public sealed record LevelQuestion(string Text, Level Level, Typed<Length>? Depth) : Question(Text);

/// <summary>Does it really run over already?</summary>
/// <param name="Text">The warning as a question.</param>
public sealed record RunOverQuestion(string Text) : Question(Text);
