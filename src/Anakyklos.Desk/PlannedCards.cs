using Anakyklos.Core.Planning;
using Anakyklos.Core.Schools;
using Anakyklos.Core.Sheets;
using Microsoft.Extensions.Caching.Memory;

namespace Anakyklos.Desk;

/// <summary>
/// Plans of new cards, kept for a while: at intake the same jobs are shown, changed, changed back and opened within minutes, and putting a
/// full service in order takes up to a second. A revision of a sheet never changes, so the same jobs
/// make the same plan; own lists tell how often they were changed.
/// </summary>
public sealed class PlannedCards : IDisposable
{
    private readonly MemoryCache _kept = new(new MemoryCacheOptions { SizeLimit = 400 });

    /// <summary>The plan of these jobs for one person, from a fresh start.</summary>
    /// <param name="sheet">The model's sheet in one of its revisions.</param>
    /// <param name="jobs">Ids of jobs of that sheet, in the order chosen.</param>
    /// <param name="schools">How the workshop works.</param>
    public CardPlan Plan(ModelSheet sheet, IReadOnlyList<JobId> jobs, WorkSchools schools) =>
        _kept.GetOrCreate((sheet.Id, sheet.Revision, schools, string.Join('\n', jobs), string.Join('\n', OwnAmong(sheet, jobs)
            .Select(l => $"{l.Id} {l.Changed}"))), entry =>
        {
            entry.Size = 1;
            entry.SlidingExpiration = TimeSpan.FromMinutes(20);
            return CardPlanner.Plan(sheet, jobs, schools: schools);
        })!;

    /// <summary>The own lists among some jobs.</summary>
    internal static IEnumerable<OwnList> OwnAmong(ModelSheet sheet, IReadOnlyList<JobId> jobs) =>
        sheet.OwnLists.Where(l => jobs.Contains((JobId)l.Id));

    /// <inheritdoc />
    public void Dispose() => _kept.Dispose();
}
