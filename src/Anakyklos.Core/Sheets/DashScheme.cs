namespace Anakyklos.Core.Sheets;

/// <summary>What the dash of a model can show: its own scheme of message codes, and the job that its counter counts.</summary>
/// <param name="Counts">Job id of what oil life and remaining distance stand for; empty when the dash has no counter.</param>
/// <param name="Messages">The codes.</param>
public sealed record DashScheme(JobId Counts, IReadOnlyList<DashMessage> Messages)
{
    /// <summary>A dash that shows nothing.</summary>
    public static DashScheme None { get; } = new("", []);

    /// <summary>The message of a code, whatever its case, spaces and dashes; null when the model has no such code.</summary>
    /// <returns>The message, or null when the sheet has no such code; dashes, spaces and capitals do not count.</returns>
    public DashMessage? Find(string code) => Messages.FirstOrDefault(m => PartNumber.Same(m.Code, code));
}

/// <summary>A message code and the jobs that it stands for.</summary>
/// <param name="Code">As the dash shows it.</param>
/// <param name="Says">Its meaning in the handbook.</param>
/// <param name="Jobs">Job ids.</param>
/// <param name="From">Source.</param>
public sealed record DashMessage(string Code, string Says, IReadOnlyList<JobId> Jobs, Citation From);
