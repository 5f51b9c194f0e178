using Anakyklos.Core.Intervals;

namespace Anakyklos.Core.Due;

/// <summary>A job as it was really done, on a signed card or by somebody else before.</summary>
/// <param name="Job">Job id.</param>
/// <param name="Done">Where the vehicle stood.</param>
public readonly record struct DoneJob(JobId Job, UseMark Done);
