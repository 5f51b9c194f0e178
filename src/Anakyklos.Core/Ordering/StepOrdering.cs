namespace Anakyklos.Core.Ordering;

/// <summary>Puts work in order: earliest finish, then fewest moves of the lift, then fewest changes of place, with a proven
/// bound.</summary>
public static class StepOrdering
{
    /// <summary>Partial orders grown before it stops looking for a proof: about a second of work.</summary>
    public const int UsualEffort = 15_000;

    /// <summary>The best order for one person.</summary>
    /// <param name="problem">The work.</param>
    /// <param name="effort">How many partial orders may be grown beyond which only a narrow search goes on; the bound then says what is
    /// left open.</param>
    /// <exception cref="ArgumentException">The tasks go round in a circle, there are too many, or nothing is begun and there is no order at
    /// all.</exception>
    /// <returns>The best order found, with a bound below which none can lie.</returns>
    public static OrderedWork ForOne(OrderingProblem problem, int effort = UsualEffort) => 
        Solve(problem, shape => SoloOrdering.Solve(shape, effort) is { } found ? ShortOpening.Of(shape, found) : null);

    /// <summary>A good order for two people who share the lift: nobody works while it moves, and what takes both waits for both.</summary>
    /// <param name="problem">The work.</param>
    /// <returns>The best order found for two pairs of hands, with a bound below which none can lie.</returns>
    /// <exception cref="ArgumentException">The tasks go round in a circle, or there are too many.</exception>
    public static OrderedWork ForTwo(OrderingProblem problem) => Solve(problem, PairOrdering.Solve);

    // Work that was begun in an unforeseen way may hold tasks that nothing leads to any more: they wait, the rest is put in order.
    private static OrderedWork Solve(OrderingProblem problem, Func<OrderingShape, OrderedWork?> how)
    {
        var shape = new OrderingShape(problem);
        if (how(shape) is { } found)
            return found;
        if (!shape.Done.IsEmpty && shape.Unreachable() is { IsEmpty: false } stuck)
            return Solve(problem with { Start = problem.Start with { LeftOut = problem.Start.LeftOut.Union(shape.Range()
                .Where(t => stuck[t])).ToHashSet() } }, how);
        throw new ArgumentException("These tasks cannot be done in any order: what is barred while something is open is needed to "
            + "close it.", nameof(problem));
    }
}
