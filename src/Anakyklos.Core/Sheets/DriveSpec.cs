using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Sheets;

/// <summary>What a sheet says of a road test.</summary>
/// <param name="Tries">What is tried, in order.</param>
/// <param name="Far">How far at least.</param>
public sealed record DriveSpec(IReadOnlyList<RoadTry> Tries, Typed<Distance> Far) : WorkSpec
{
    /// <summary>What is tried after some jobs: what belongs to none of them is not.</summary>
    /// <param name="jobs">The jobs.</param>
    /// <returns>The same where none belongs to them, since something is tried on any road test.</returns>
    public DriveSpec After(IReadOnlyCollection<JobId> jobs) =>
        Tries.Where(t => t.For.Count == 0 || t.For.Any(jobs.Contains)).ToList() is { Count: > 0 } these
            ? this with { Tries = these } : this;

    internal static DriveSpec Read(SheetCursor c) => new(c.List("tries", t => new RoadTry(t.Text("do"), t.Text("expect"))
    {
        For = [.. t.Texts("for").Select(JobId.Of)],
    }, true), c.Typed<Distance>("far"));
}

/// <summary>Something that is tried on the road.</summary>
/// <param name="Do">What is done.</param>
/// <param name="Expect">What it should do then.</param>
public sealed record RoadTry(string Do, string Expect)
{
    /// <summary>The jobs after which it is tried; empty for any.</summary>
    public IReadOnlyList<JobId> For { get; init; } = [];
}
