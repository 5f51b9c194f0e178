using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Ordering;

/// <summary>One piece of work to be put in order.</summary>
/// <param name="Seconds">How long it takes, in seconds; 0 or more.</param>
/// <param name="Lift">Where the lift has to be.</param>
/// <param name="Place">Where the person stands.</param>
/// <param name="People">1 or 2.</param>
/// <param name="Alone">Nobody else is at, in or under the vehicle meanwhile: it is driven, ridden or run through its gears.</param>
/// <param name="Away">It is not done at the vehicle, so it may go on while the vehicle is driven.</param>
public sealed record OrderingTask(int Seconds, LiftNeed Lift, Place Place, int People = 1, bool Alone = false, bool Away = false)
{
    /// <summary>Whether the two may not be done at the same time.</summary>
    internal bool Excludes(OrderingTask other) => (Alone && !other.Away) || (other.Alone && !Away);
}

/// <summary>One task comes before another, with so many seconds from the end of the first to the beginning of the second at the
/// least.</summary>
/// <param name="Before">Index of a task.</param>
/// <param name="After">Index of a task.</param>
/// <param name="Seconds">The wait between them, 0 or more.</param>
public sealed record OrderingLag(int Before, int After, int Seconds);

/// <summary>From the beginning of one task to the end of another some tasks may not be done.</summary>
/// <param name="Opens">Index of the task that begins it.</param>
/// <param name="Closes">Index of the task that ends it.</param>
/// <param name="Barred">Indices of the tasks that may not stand between.</param>
public sealed record OrderingBar(int Opens, int Closes, IReadOnlyList<int> Barred);

/// <summary>
/// Work to be put in order: earliest finish first, then fewest moves of the lift, then fewest changes of place. The lift moves when a task
/// needs it
/// elsewhere; nobody works while it moves. It is brought down at the end.
/// </summary>
/// <param name="Tasks">The tasks; at most <see cref="Most"/>.</param>
/// <param name="Lags">What comes before what.</param>
/// <param name="Bars">What may not stand between what.</param>
/// <param name="RaiseSeconds">How long raising takes, with the look at the lifting points.</param>
/// <param name="LowerSeconds">How long lowering takes, with the look underneath.</param>
public sealed record OrderingProblem(IReadOnlyList<OrderingTask> Tasks, IReadOnlyList<OrderingLag> Lags, IReadOnlyList<OrderingBar> Bars,
    int RaiseSeconds, int LowerSeconds)
{
    /// <summary>The most tasks that can be put in order at once.</summary>
    public const int Most = 256;

    /// <summary>
    /// What stands open from the beginning of one task to that of another: of orders that cost the same the one counts in which that is
    /// shorter.
    /// </summary>
    public IReadOnlyList<(int Opens, int Closes)> Pairs { get; init; } = [];

    /// <summary>Where it begins: the state of the lift and the person, and what is done, on its way or not to be had.</summary>
    public OrderingStart Start { get; init; } = OrderingStart.Fresh;
}

/// <summary>Where the work stands.</summary>
/// <param name="Done">Tasks that are done.</param>
/// <param name="LeftOut">Tasks that are not put in order, because something for them is missing; what comes after them is left out too,
/// and so is the opening of what could not be closed again.</param>
/// <param name="ReadyIn">Seconds until a running wait lets a task begin.</param>
/// <param name="LiftUp">Where the lift is.</param>
/// <param name="Place">Where the person stands; null when nowhere yet.</param>
public sealed record OrderingStart(IReadOnlySet<int> Done, IReadOnlySet<int> LeftOut, IReadOnlyDictionary<int, int> ReadyIn, bool LiftUp,
    Place? Place)
{
    /// <summary>Nothing done, lift down.</summary>
    public static OrderingStart Fresh { get; } = new(new HashSet<int>(), new HashSet<int>(), new Dictionary<int, int>(), false, null);
}

/// <summary>A task in its place.</summary>
/// <param name="Task">Index.</param>
/// <param name="Begins">Seconds from now.</param>
/// <param name="Person">0 or 1; the first of the two when it takes both.</param>
/// <param name="LiftMoveBegins">When the lift is moved for it, or null when it stays.</param>
public sealed record OrderedTask(int Task, int Begins, int Person, int? LiftMoveBegins);

/// <summary>What an order costs. Compared by time, then lift moves, then changes of place.</summary>
/// <param name="Seconds">To the end of the last task, and of the last lowering.</param>
/// <param name="LiftMoves">Moves of the lift.</param>
/// <param name="PlaceChanges">Changes of place.</param>
public readonly record struct OrderCost(int Seconds, int LiftMoves, int PlaceChanges) : IComparable<OrderCost>
{
    internal long Packed => ((long)Seconds << 24) + ((long)LiftMoves << 12) + PlaceChanges;

    internal static OrderCost Unpack(long packed) => new((int)(packed >> 24), (int)(packed >> 12 & 0xFFF), (int)(packed & 0xFFF));

    /// <inheritdoc />
    public int CompareTo(OrderCost other) => Packed.CompareTo(other.Packed);
}

/// <summary>An order with what it costs and what no order can beat.</summary>
/// <param name="Tasks">In the order of their beginning.</param>
/// <param name="Cost">What it costs.</param>
/// <param name="Bound">Proven: no order costs less.</param>
public sealed record OrderedWork(IReadOnlyList<OrderedTask> Tasks, OrderCost Cost, OrderCost Bound)
{
    /// <summary>Whether nothing better exists.</summary>
    public bool IsProven => Cost == Bound;
}
