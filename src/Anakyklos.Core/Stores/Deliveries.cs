namespace Anakyklos.Core.Stores;

/// <summary>When the supplier brings what is ordered.</summary>
/// <param name="Days">The days of the week on which something comes; at least one.</param>
/// <param name="OrderBy">An order of a day counts for that day until then.</param>
/// <param name="LeadDays">How many days pass from the day of the order until it can come, at least; 0 to <see cref="Longest"/>.</param>
public sealed record Deliveries(IReadOnlyList<DayOfWeek> Days, TimeOnly OrderBy, int LeadDays)
{
    /// <summary>The longest lead time, in days.</summary>
    public const int Longest = 120;

    /// <summary>The day on which something comes: the first day of delivery when the lead time is over.</summary>
    /// <param name="ordered">The moment, by the workshop's clock.</param>
    /// <returns>Null where nothing ever comes.</returns>
    public DateOnly? Arrives(DateTimeOffset ordered)
    {
        var counts = DateOnly.FromDateTime(ordered.DateTime).AddDays(TimeOnly.FromDateTime(ordered.DateTime) < OrderBy ? 0 : 1);
        return Enumerable.Range(LeadDays, 7).Select(counts.AddDays).Where(d => Days.Contains(d.DayOfWeek)).Select(d => (DateOnly?)d)
            .FirstOrDefault();
    }
}
