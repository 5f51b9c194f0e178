using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Balance;

/// <summary>The balance of a fluid over the services of a vehicle: what was filled, topped up, found and used.</summary>
public static class FluidBalance
{
    /// <summary>The limit where the sheet names none: half a litre in 1,000 km, which is what makers of engines commonly bear.</summary>
    public static readonly Quantity<Volume> UsualLimit = Quantity<Volume>.Of(0.5m, Volume.Litre);

    // Two readings of a gauge, each good to an eighth of the way between its marks.
    private const decimal ReadingError = 0.25m;

    // So many stretches tell a trend: two could be chance.
    private const int Stretches = 3;

    /// <summary>What was used between the services.</summary>
    /// <param name="services">In order of their days.</param>
    /// <returns>One for each service that shows what was left of an earlier filling, the oldest first.</returns>
    public static IReadOnlyList<FluidUse> Uses(IEnumerable<FluidService> services)
    {
        var (uses, before) = (new List<FluidUse>(), (FilledBefore?)null);
        foreach (var service in services)
        {
            if (service.Drained && before is not null && service.Had is { } had)
                uses.Add(before.Until(service.Day, service.Odometer, had, service.Found is not null));
            before = After(before, service);
        }
        return uses;
    }

    /// <summary>What a vehicle has in it after its services.</summary>
    /// <param name="services">In order of their days.</param>
    /// <returns>Null where nobody knows.</returns>
    public static FilledBefore? Now(IEnumerable<FluidService> services) => services.Aggregate((FilledBefore?)null, After);

    /// <summary>What use says.</summary>
    /// <param name="use">The use.</param>
    /// <param name="limit">The most that is borne in 1,000 km; null for <see cref="UsualLimit"/>.</param>
    /// <param name="between">What lies between the marks of its gauge; null where it has none.</param>
    public static UseVerdict Judge(FluidUse use, Quantity<Volume>? limit, Quantity<Volume>? between)
    {
        if (between is { } span && Quantity<Volume>.Zero - use.Used > span * ReadingError)
            return UseVerdict.Gained;
        return use.PerThousand is { } rate && rate > (limit ?? UsualLimit) ? UseVerdict.Much : UseVerdict.Usual;
    }

    /// <summary>Which way the use goes: over at least the last three stretches each was more, or less, than the one before, and from the
    /// first of them to the last by more than the readings err.</summary>
    /// <param name="uses">The oldest first.</param>
    /// <param name="between">What lies between the marks of its gauge; null where it has none.</param>
    public static UseTrend Trend(IReadOnlyList<FluidUse> uses, Quantity<Volume>? between)
    {
        var known = uses.Where(u => u.PerThousand is not null).ToList();
        if (known.Count < Stretches)
            return UseTrend.Unknown;
        var errs = between ?? Quantity<Volume>.Zero;
        return Run(known, (a, b) => b > a) is var up && up.Count >= Stretches && Span(up) > Errs(up) ? UseTrend.Rising
            : Run(known, (a, b) => b < a) is var down && down.Count >= Stretches && Quantity<Volume>.Zero - Span(down) > Errs(down)
                ? UseTrend.Falling : UseTrend.Steady;

        static Quantity<Volume> Span(List<FluidUse> run) => run[^1].PerThousand!.Value - run[0].PerThousand!.Value;

        Quantity<Volume> Errs(List<FluidUse> run) => errs * ReadingError / (run.Min(u => u.Over) / FluidUse.Thousand);
    }

    // The longest run up to the newest in which each goes the same way from the one before.
    private static List<FluidUse> Run(List<FluidUse> uses, Func<Quantity<Volume>, Quantity<Volume>, bool> goes)
    {
        var from = uses.Count - 1;
        while (from > 0 && goes(uses[from - 1].PerThousand!.Value, uses[from].PerThousand!.Value))
            from--;
        return uses[from..];
    }

    // A drain begins anew; what is topped up without one adds to what was there, and a level that was read then is not a new beginning.
    private static FilledBefore? After(FilledBefore? before, FluidService service) =>
        service.Drained ? service.Stands is { } stands ? new(service.Day, service.Odometer, stands, Quantity<Volume>.Zero) : null
            : before is null ? null : before with { ToppedUp = before.ToppedUp + service.In };
}
