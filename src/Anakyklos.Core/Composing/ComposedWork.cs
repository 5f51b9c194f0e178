using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Composing;

/// <summary>One step comes before another.</summary>
/// <param name="Before">Step id.</param>
/// <param name="After">Step id.</param>
/// <param name="Lag">The wait that must be over in between; zero for none.</param>
/// <param name="Why">Why, as the end of a sentence: "needs the undertray off".</param>
public sealed record StepLink(StepId Before, StepId After, TimeSpan Lag, string Why);

/// <summary>While something is open, some steps may not be done: they come before it is opened or after it is closed.</summary>
/// <param name="Opens">The step that opens it.</param>
/// <param name="Closes">The step that closes it.</param>
/// <param name="Barred">Steps that may not stand between the two.</param>
/// <param name="Why">Why, as a sentence without a full stop.</param>
/// <param name="IsWish">Whether it counts only while its opening lies ahead: once that is done, it bars nothing.</param>
public sealed record OpenSpan(StepId Opens, StepId Closes, IReadOnlyList<StepId> Barred, string Why, bool IsWish = false);

/// <summary>What a set of jobs asks for on one model: steps with a partial order. The lift's own moves are not in it; they follow from the
/// order chosen.</summary>
/// <param name="Sheet">The model's sheet.</param>
/// <param name="Jobs">Job ids, in the order wanted.</param>
/// <param name="Steps">The steps, in an order that respects all links.</param>
/// <param name="Links">What comes before what; none follows from others.</param>
/// <param name="Spans">What may not be done while something is open.</param>
public sealed record ComposedWork(ModelSheet Sheet, IReadOnlyList<JobId> Jobs, IReadOnlyList<SheetStep> Steps,
    IReadOnlyList<StepLink> Links, IReadOnlyList<OpenSpan> Spans)
{
    /// <summary>What is opened on the way, in the order of the steps.</summary>
    public IEnumerable<ThingId> Opened => Steps.Where(s => s.Traits.LeavesOpen).Select(s => s.What);
}

/// <summary>Jobs that cannot be put on one card, because a sheet contradicts itself.</summary>
/// <param name="message">What contradicts what, for a person.</param>
/// <param name="path">Where in the sheet, such as <c>jobs.oil</c>.</param>
public sealed class ComposingException(string message, string path) : Exception(message)
{
    /// <summary>Where in the sheet.</summary>
    public string Path { get; } = path;
}
