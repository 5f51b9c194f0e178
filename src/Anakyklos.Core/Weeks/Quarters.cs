namespace Anakyklos.Core.Weeks;

/// <summary>Quarter hours of one day, as a set; the first begins at midnight.</summary>
/// <param name="Set">One bit a quarter, the lowest for the first.</param>
public readonly record struct Quarters(UInt128 Set)
{
    /// <summary>So many are in a day.</summary>
    public const int InDay = 96;

    /// <summary>Minutes in one.</summary>
    public const int Minutes = 15;

    /// <summary>None.</summary>
    public static Quarters None => default;

    /// <summary>The whole day.</summary>
    public static Quarters AllDay { get; } = Between(0, InDay);

    /// <summary>How many there are.</summary>
    public int Count => (int)UInt128.PopCount(Set);

    /// <summary>A stretch of the day.</summary>
    /// <param name="from">Its first quarter, 0 to 96; what lies outside the day is cut off.</param>
    /// <param name="to">The one after its last.</param>
    /// <returns>None where it does not end after its beginning.</returns>
    public static Quarters Between(int from, int to)
    {
        (from, to) = (Math.Clamp(from, 0, InDay), Math.Clamp(to, 0, InDay));
        return to <= from ? None : new(((UInt128.One << (to - from)) - 1) << from);
    }

    /// <summary>Between two times of the day; begun quarters count.</summary>
    /// <param name="from">From when.</param>
    /// <param name="to">Until when; midnight is the end of the day.</param>
    public static Quarters Between(TimeOnly from, TimeOnly to) => Between(At(from), to == default ? InDay : Up(to.ToTimeSpan()));

    /// <summary>The quarter that a time of day lies in.</summary>
    /// <param name="time">The time.</param>
    public static int At(TimeOnly time) => (time.Hour * 60 + time.Minute) / Minutes;

    /// <summary>How many quarters something takes, begun ones with them.</summary>
    /// <param name="time">From zero.</param>
    public static int Up(TimeSpan time) => (int)Math.Ceiling(time.TotalMinutes / Minutes);

    /// <summary>When a quarter begins; the end of the day is midnight.</summary>
    /// <param name="quarter">From 0 to 96.</param>
    public static TimeOnly Time(int quarter) => new(quarter * Minutes / 60 % 24, quarter * Minutes % 60);

    /// <summary>Whether it has one that the other has, too.</summary>
    /// <param name="other">The other.</param>
    public bool Overlaps(Quarters other) => (Set & other.Set) != UInt128.Zero;

    /// <summary>Whether it has all that the other has.</summary>
    /// <param name="other">The other.</param>
    public bool Covers(Quarters other) => (other.Set & ~Set) == UInt128.Zero;

    /// <summary>Whether it has a quarter.</summary>
    /// <param name="quarter">From 0 to 95.</param>
    public bool Has(int quarter) => (Set >> quarter & 1) == UInt128.One;

    /// <summary>The same, later in the day; what would lie beyond its end is cut off.</summary>
    /// <param name="by">Quarters.</param>
    public Quarters Later(int by) => new(Set << by & AllDay.Set);

    /// <summary>Both together.</summary>
    /// <param name="other">The other.</param>
    public Quarters And(Quarters other) => new(Set | other.Set);

    /// <summary>Without those of the other.</summary>
    /// <param name="other">The other.</param>
    public Quarters Without(Quarters other) => new(Set & ~other.Set);

    /// <summary>Its stretches, the earliest first: the first quarter of each and the one after its last.</summary>
    public IEnumerable<(int From, int To)> Stretches()
    {
        for (var q = 0; q < InDay; q++)
        {
            if (!Has(q))
                continue;
            var from = q;
            while (q < InDay && Has(q))
                q++;
            yield return (from, q);
        }
    }
}
