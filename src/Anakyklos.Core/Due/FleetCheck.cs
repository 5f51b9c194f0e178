using Anakyklos.Core.Intervals;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Due;

/// <summary>A vehicle for the pass over the fleet.</summary>
/// <param name="Plate">Its plate.</param>
/// <param name="Items">Its jobs; vehicles of one model, use and owner share them.</param>
/// <param name="Last">When each was last done, in the same order.</param>
/// <param name="Now">Where it stands.</param>
/// <param name="Past">Its life before.</param>
/// <param name="Times">How often the job that each counts was done since, in the same order; null where nobody counted.</param>
public sealed record FleetVehicle(string Plate, IReadOnlyList<ServiceItem> Items, IReadOnlyList<UseMark?> Last, UseMark Now,
    VehiclePast Past, IReadOnlyList<int>? Times = null);

/// <summary>How a vehicle of the fleet stands.</summary>
/// <param name="Plate">Its plate.</param>
/// <param name="Worst">The most urgent of its jobs, by state, then by what is left of the interval; null when it has none.</param>
/// <param name="Overdue">Jobs overdue.</param>
/// <param name="Due">Jobs due, those of unknown history with them.</param>
/// <param name="Soon">Jobs near.</param>
public readonly record struct FleetRow(string Plate, Standing? Worst, int Overdue, int Due, int Soon);

/// <summary>Who is due, over many vehicles in one pass.</summary>
public static class FleetCheck
{
    /// <summary>One row a vehicle, in the order given. Takes time in proportion to the jobs.</summary>
    /// <param name="fleet">The vehicles.</param>
    /// <param name="window">What counts as near.</param>
    /// <returns>The rows; a vehicle without jobs has no worst one.</returns>
    public static IReadOnlyList<FleetRow> Of(IReadOnlyList<FleetVehicle> fleet, DueWindow window)
    {
        var rows = new FleetRow[fleet.Count];
        for (var v = 0; v < rows.Length; v++)
        {
            var vehicle = fleet[v];
            var (overdue, due, soon, worst, least) = (0, 0, 0, (Standing?)null, decimal.MaxValue);
            foreach (var standing in ServiceItem.Of(vehicle.Items, vehicle.Now, vehicle.Last, vehicle.Past, window, vehicle.Times))
            {
                switch (standing.State)
                {
                    case DueState.Overdue: overdue++; break;
                    case DueState.Due or DueState.Unknown: due++; break;
                    case DueState.Soon: soon++; break;
                }
                if (worst is { } w && standing.State < w.State)
                    continue;
                var unused = ServiceItem.Unused(standing, vehicle.Now, standing.Last ?? vehicle.Past.Delivered);
                if (worst is null || standing.State > worst.Value.State || unused < least)
                    (worst, least) = (standing, unused);
            }
            rows[v] = new(vehicle.Plate, worst, overdue, due, soon);
        }
        return rows;
    }
}
