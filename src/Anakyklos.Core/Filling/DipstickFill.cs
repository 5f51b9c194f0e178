using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Filling;

/// <summary>How high a workshop fills by dipstick.</summary>
public enum TargetSchool
{
    /// <summary>To the top mark.</summary>
    TopMark,

    /// <summary>Three quarters of the way from the bottom mark to the top mark.</summary>
    ThreeQuarters,

    /// <summary>A little under the top mark: nine tenths of the way.</summary>
    LittleUnder,
}

/// <summary>How much a workshop tops up on one reading.</summary>
public enum PourStages
{
    /// <summary>At most half of what lies between the marks: a misread stick then cannot overfill.</summary>
    ByHalves,

    /// <summary>All that is missing to the target.</summary>
    InOne,
}

/// <summary>A place on the dipstick: 0 is the bottom mark, 1 the top mark; below and above are possible.</summary>
/// <param name="Fraction">From −1 to 2; a reading further out is not on the stick.</param>
public readonly record struct Level(decimal Fraction) : IComparable<Level>
{
    /// <summary>The lowest place that can be read.</summary>
    public const decimal Lowest = -1m;

    /// <summary>The highest place that can be read.</summary>
    public const decimal Highest = 2m;

    /// <summary>Whether the place is on the stick at all.</summary>
    public bool IsOnStick => Fraction is >= Lowest and <= Highest;

    /// <summary>Reads what a person typed: "0.75", "3/4", "top", "bottom".</summary>
    /// <param name="text">The place; a negative number lies below the bottom mark.</param>
    /// <param name="problem">What is wrong, empty when it was read.</param>
    /// <returns>The level, or null with <paramref name="problem"/> said.</returns>
    public static Level? Read(string? text, out string problem)
    {
        var typed = (text ?? "").Trim().ToLowerInvariant();
        problem = "";
        if (typed is "top" or "bottom")
            return new(typed == "top" ? 1m : 0m);
        if (typed.Length is > 0 and < 12 && QuantityText.TryNumber(typed.TrimStart('-', '−'), out var number, out _))
            return new(typed[0] is '-' or '−' ? -number : number);
        problem = "Tap the dipstick, or type a place from 0 (bottom mark) to 1 (top mark), such as 3/4.";
        return null;
    }

    /// <inheritdoc />
    public int CompareTo(Level other) => Fraction.CompareTo(other.Fraction);

    /// <summary>In words, to the nearest eighth between the marks.</summary>
    public override string ToString()
    {
        if (Fraction < -0.02m) return "below the bottom mark";
        if (Fraction > 1.02m) return "above the top mark";
        string[] eighths = ["at the bottom mark", "one eighth", "one quarter", "three eighths", "half way", "five eighths",
            "three quarters", "seven eighths", "at the top mark"];
        return eighths[(int)Math.Clamp(Math.Round(Fraction * 8, MidpointRounding.AwayFromZero), 0, 8)];
    }
}

/// <summary>What the dipstick asks for next.</summary>
public enum FillVerdict
{
    /// <summary>Inside the target: nothing more goes in.</summary>
    Good,

    /// <summary>Pour <see cref="FillAdvice.Amount"/> and read again.</summary>
    Pour,

    /// <summary>Above the top mark: take <see cref="FillAdvice.Amount"/> out and read again.</summary>
    TakeOut,
}

/// <summary>The answer to a reading.</summary>
/// <param name="Verdict">What to do.</param>
/// <param name="Amount">How much, zero when good.</param>
/// <param name="Reaches">Where the level should stand afterwards.</param>
public readonly record struct FillAdvice(FillVerdict Verdict, Quantity<Volume> Amount, Level Reaches);

/// <summary>
/// The arithmetic of filling by dipstick. The book amount reaches the top mark, filter included, unless the marks carry amounts of their
/// own; the span between the marks holds a known volume.
/// </summary>
/// <param name="Book">The amount with filter that the book gives.</param>
/// <param name="Between">What lies between the marks.</param>
/// <param name="Tolerance">By how much the sum may pass the book amount without a word.</param>
/// <param name="School">Where to stop.</param>
/// <param name="Stages">How much goes in on one reading.</param>
/// <param name="AtTop">What is in, filter included, where it stands at the top mark; null where that is the book amount.</param>
public sealed record DipstickFill(Quantity<Volume> Book, Quantity<Volume> Between, Quantity<Volume> Tolerance, TargetSchool School,
    PourStages Stages = PourStages.ByHalves, Quantity<Volume>? AtTop = null)
{
    /// <summary>The finest amount that a can shows: 0.05 L.</summary>
    public static readonly Quantity<Volume> Graduation = Quantity<Volume>.Of(0.05m, Volume.Litre);

    // What a measuring cup, and for the smallest spans a syringe, can still pour.
    private static readonly Quantity<Volume>[] Graduations =
    [
        Graduation, Quantity<Volume>.Of(0.02m, Volume.Litre), Quantity<Volume>.Of(0.01m, Volume.Litre),
            Quantity<Volume>.Of(0.005m, Volume.Litre),
        Quantity<Volume>.Of(0.002m, Volume.Litre), Quantity<Volume>.Of(0.001m, Volume.Litre),
    ];

    // A reading is good to about an eighth of the span, so a level this far under the aim counts as there.
    private const decimal Slack = 0.1m;

    // A reading this little above the top mark is at the mark: no eye tells the two apart.
    private const decimal AtTheMark = 0.02m;

    private const decimal HalfTheSpan = 0.5m;

    /// <summary>Where to stop.</summary>
    public Level Target => new(School switch { TargetSchool.TopMark => 1m, TargetSchool.ThreeQuarters => 0.75m, _ => 0.9m });

    /// <summary>What is in, filter included, at the top mark.</summary>
    public Quantity<Volume> Top => AtTop ?? Book;

    /// <summary>The first pour into an empty sump: what should reach the bottom mark, rounded down to <see cref="Finest"/>.</summary>
    public Quantity<Volume> FirstPour => (Top - Between).DownTo(Finest);

    /// <summary>What goes in altogether: the book amount, or what the target of this workshop takes where that is more.</summary>
    public Quantity<Volume> InAll => Top - Between * (1 - Target.Fraction) is var aim && aim > Book ? aim : Book;

    /// <summary>
    /// The finest amount that counts between these marks: the largest that is no more than a tenth of the span, so that what is missing can
    /// always be poured in whole parts of it without passing the aim.
    /// </summary>
    public Quantity<Volume> Finest => Graduations.FirstOrDefault(g => g <= Between * Slack, Graduations[^1]);

    /// <summary>
    /// What a reading asks for. What goes in is rounded down to <see cref="Finest"/>, so that it never passes the aim, and is nothing where
    /// less than that is missing; what comes out is rounded up.
    /// </summary>
    /// <param name="reading">Where the oil stands.</param>
    /// <returns>The amount, never below zero, and where the level will stand after it.</returns>
    /// <exception cref="ArgumentOutOfRangeException">The reading is not on the stick.</exception>
    public FillAdvice After(Level reading)
    {
        if (!reading.IsOnStick)
            throw new ArgumentOutOfRangeException(nameof(reading), "The level must lie between −1 and 2.");
        if (reading.Fraction > 1m + AtTheMark)
        {
            var much = Between * (reading.Fraction - Target.Fraction);
            var whole = much.DownTo(Finest);
            return Move(FillVerdict.TakeOut, reading, whole < much ? whole + Finest : whole, -1);
        }
        if (reading.Fraction >= Target.Fraction - Slack)
            return new(FillVerdict.Good, Quantity<Volume>.Zero, reading);
        var missing = Target.Fraction - reading.Fraction;
        var amount = (Between * (Stages == PourStages.ByHalves ? Math.Min(missing, HalfTheSpan) : missing)).DownTo(Finest);
        return amount == Quantity<Volume>.Zero ? new(FillVerdict.Good, amount, reading) : Move(FillVerdict.Pour, reading, amount, 1);
    }

    /// <summary>Whether an amount is more than a workshop that tops up by halves pours on one reading.</summary>
    /// <param name="amount">What was poured.</param>
    public bool IsMoreThanHalf(Quantity<Volume> amount) => amount > Between * HalfTheSpan;

    /// <summary>What is in, filter included, where it stands at a level.</summary>
    /// <param name="level">The level; below the bottom mark it is reckoned on as between the marks.</param>
    /// <returns>Never less than nothing.</returns>
    public Quantity<Volume> InAt(Level level) => Top - Between * (1 - level.Fraction) is var much && much > Quantity<Volume>.Zero
        ? much : Quantity<Volume>.Zero;

    /// <summary>By how much a reading does not go with what went in: more than lies between the marks and the tolerance together, which no
    /// eye misreads and no filter holds.</summary>
    /// <param name="level">What was read.</param>
    /// <param name="poured">What went in since it was drained.</param>
    /// <returns>What is missing in it for that level; negative where there is too much in; zero where the two go together. Below the bottom
    /// mark any less goes with it, above the top mark any more.</returns>
    public Quantity<Volume> MissingFor(Level level, Quantity<Volume> poured)
    {
        var (missing, far) = (InAt(level) - poured, Between + Tolerance);
        return (missing > far && level.Fraction >= 0) || (missing < Quantity<Volume>.Zero - far && level.Fraction <= 1) ? missing
            : Quantity<Volume>.Zero;
    }

    /// <summary>By how much a reading before the first run does not go with what went in. The filter is empty yet, so it stands as high as
    /// it ever will: half the span too low is oil that has not run down, or runs out.</summary>
    /// <param name="level">What was read.</param>
    /// <param name="poured">What went in since it was drained.</param>
    /// <returns>As <see cref="MissingFor"/> does.</returns>
    public Quantity<Volume> MissingBeforeRun(Level level, Quantity<Volume> poured)
    {
        var missing = InAt(level) - poured;
        return missing < Quantity<Volume>.Zero - Between * HalfTheSpan && level.Fraction <= 1 ? missing : MissingFor(level, poured);
    }

    private FillAdvice Move(FillVerdict verdict, Level from, Quantity<Volume> amount, int direction) =>
        new(verdict, amount, new(from.Fraction + direction * (amount / Between)));

    /// <summary>What there is to say before an amount is poured.</summary>
    /// <param name="poured">What went in so far.</param>
    /// <param name="next">What is about to go in.</param>
    /// <param name="level">The last reading, or null before the first.</param>
    /// <param name="sinceReading">What went in after that reading.</param>
    /// <returns>What it would pass, and where the level would stand.</returns>
    public PourWarning Warn(Quantity<Volume> poured, Quantity<Volume> next, Level? level, Quantity<Volume> sinceReading)
    {
        var top = level is { } l ? l.Fraction + (sinceReading + next) / Between : 1m + (poured + next - Top) / Between;
        return new(PassesTop: top > 1.001m, OverBook: poured + next > InAll + Tolerance, Reaches: new(top));
    }
}

/// <summary>Warnings before a pour.</summary>
/// <param name="PassesTop">It would pass the top mark.</param>
/// <param name="OverBook">The sum would exceed the book amount by more than the tolerance.</param>
/// <param name="Reaches">Where the level would stand.</param>
public readonly record struct PourWarning(bool PassesTop, bool OverBook, Level Reaches);
