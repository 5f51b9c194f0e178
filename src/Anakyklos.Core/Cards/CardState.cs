using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Cards;

/// <summary>How a step stands.</summary>
public enum StepStatus
{
    /// <summary>Not done.</summary>
    Waiting,

    /// <summary>Done.</summary>
    Done,

    /// <summary>Left for later; it must still be done before the card is signed.</summary>
    Aside,

    /// <summary>Left out for good, as a deviation.</summary>
    LeftOut,
}

/// <summary>The state of a step and the event that brought it there.</summary>
/// <param name="Status">How it stands.</param>
/// <param name="Through">The event, null while nothing happened.</param>
/// <param name="Reason">Why it was left, empty otherwise.</param>
public sealed record StepState(StepStatus Status, Recorded? Through, string Reason = "");

/// <summary>Something open that must be closed.</summary>
/// <param name="Id">Id of the access, fastener, fluid or indicator; "lift" and "engine" for those two.</param>
/// <param name="Name">Name with a capital.</param>
/// <param name="Detail">A few words more, or empty.</param>
/// <param name="By">The step that opened it; empty when it was no step.</param>
/// <param name="Since">Seq of the event that opened it.</param>
/// <param name="Count">Fasteners that came out, 0 where they are not counted.</param>
public sealed record OpenItem(string Id, string Name, string Detail, string By, int Since, int Count = 0);

/// <summary>A wait that runs by itself.</summary>
/// <param name="Id">The step that it belongs to.</param>
/// <param name="For">What it waits for.</param>
/// <param name="From">When it began.</param>
/// <param name="Until">When it is over.</param>
public sealed record RunningWait(string Id, string For, DateTimeOffset From, DateTimeOffset Until);

/// <summary>An event of one kind with its place.</summary>
/// <typeparam name="T">The kind of event.</typeparam>
/// <param name="Seq">Its seq.</param>
/// <param name="Recorded">When and by whom.</param>
/// <param name="Event">The event.</param>
public sealed record Noted<T>(int Seq, Recorded Recorded, T Event) where T : CardEvent;

/// <summary>How a fluid system stands on this card.</summary>
/// <param name="Out">It was drained and has not been brought to the mark since.</param>
/// <param name="Poured">Sum of what went in since it was drained, less what was taken out.</param>
/// <param name="Pours">How many pours.</param>
/// <param name="Level">Last reading, null before the first.</param>
/// <param name="SinceReading">What went in after the last reading.</param>
/// <param name="Good">The last reading was inside the target, or the whole amount went in where nothing is read.</param>
/// <param name="CameOut">What was measured coming out; null when it was not.</param>
public sealed record FluidState(bool Out, Quantity<Volume> Poured, int Pours, Level? Level, Quantity<Volume> SinceReading, bool Good, Quantity<Volume>? CameOut = null)
{
    internal static readonly FluidState Untouched = new(false, Quantity<Volume>.Zero, 0, null, Quantity<Volume>.Zero, false);
}
