namespace Anakyklos.Core.Weeks;

/// <summary>
/// What no plan of a week can be cheaper than. Each day is given a price for a quarter; then every visit takes the day that is cheapest
/// for it, and every day takes as many quarters as pay for it, as if the two had nothing to do with each other. Whatever the prices, the
/// sum is a bound (Lagrangian relaxation); the prices are moved to where it is highest.
/// </summary>
internal static class WeekBound
{
    private const int Steps = 400, Thousandths = 1000;

    /// <summary>The bound.</summary>
    /// <param name="lengths">Quarters of each visit.</param>
    /// <param name="costs">What each costs on each day; null where it cannot stand there.</param>
    /// <param name="waits">What each costs without a day.</param>
    /// <param name="loads">What each number of further quarters costs on each day.</param>
    /// <param name="known">The cost of a plan that there is.</param>
    /// <returns>Never above the cost of the best plan.</returns>
    internal static int Of(int[] lengths, int?[][] costs, int[] waits, int[][] loads, int known)
    {
        var (days, best) = (loads.Length, long.MinValue);
        var (price, over) = (new long[days], new int[days]);
        var (ease, since) = (1.0, 0);
        for (var step = 0; step < Steps && ease > 0.001; step++)
        {
            var sum = 0L;
            Array.Clear(over);
            for (var v = 0; v < lengths.Length; v++)
            {
                var (least, at) = ((long)waits[v] * Thousandths, -1);
                for (var d = 0; d < days; d++)
                    if (costs[v][d] is { } cost && (long)cost * Thousandths + price[d] * lengths[v] is var priced && priced < least)
                        (least, at) = (priced, d);
                sum += least;
                if (at >= 0)
                    over[at] += lengths[v];
            }
            for (var d = 0; d < days; d++)
            {
                var (least, at) = (long.MaxValue, 0);
                for (var l = 0; l < loads[d].Length; l++)
                    if ((long)loads[d][l] * Thousandths - price[d] * l is var paid && paid < least)
                        (least, at) = (paid, l);
                sum += least;
                over[d] -= at;
            }
            if (sum > best)
                (best, since) = (sum, 0);
            else if (++since % 10 == 0)
                ease *= 0.7;
            var far = over.Sum(o => (long)o * o);
            if (far == 0)
                break;
            var far1 = ease * Math.Max(Thousandths, (long)known * Thousandths - sum) / far;
            for (var d = 0; d < days; d++)
                price[d] = Math.Max(0, price[d] + (long)Math.Round(far1 * over[d]));
        }
        return (int)Math.Ceiling(best / (double)Thousandths);
    }
}
