namespace Anakyklos.Core.Quantities;

/// <summary>Something that is measured in units of its own.</summary>
/// <typeparam name="TSelf">What is measured.</typeparam>
public interface IMeasure<TSelf> where TSelf : IMeasure<TSelf>
{
    /// <summary>The word used in messages, such as "torque".</summary>
    static abstract string Name { get; }

    /// <summary>Its units. The first is the base unit and has the factor 1.</summary>
    static abstract IReadOnlyList<Unit<TSelf>> Units { get; }

    /// <summary>Spellings that could mean two things (normalised as in <see cref="Unit{T}.Normalise"/>), with what to type
    /// instead.</summary>
    static virtual IReadOnlyDictionary<string, string> Ambiguous => NoAmbiguity.Empty;
}

/// <summary>A kind of quantity: torque, volume and so on. The kinds never mix, because each is a type argument of its own.</summary>
/// <typeparam name="TSelf">The dimension itself.</typeparam>
public interface IDimension<TSelf> : IMeasure<TSelf> where TSelf : IDimension<TSelf>;

internal static class NoAmbiguity
{
    internal static readonly IReadOnlyDictionary<string, string> Empty = new Dictionary<string, string>();
}

/// <summary>A unit of one measure.</summary>
/// <typeparam name="T">What the unit measures.</typeparam>
public sealed class Unit<T> where T : IMeasure<T>
{
    private readonly HashSet<string> _spellings;

    internal Unit(string symbol, decimal factor, int minDecimals, int maxDecimals, string[] spellings, decimal offset = 0m)
    {
        Symbol = symbol;
        Factor = factor;
        Offset = offset;
        MinDecimals = minDecimals;
        MaxDecimals = maxDecimals;
        _spellings = [Normalise(symbol), .. spellings.Select(Normalise)];
    }

    /// <summary>The printed symbol, such as "N·m".</summary>
    public string Symbol { get; }

    /// <summary>How many base units one of this unit is. Exact wherever a decimal of 28 digits can be.</summary>
    public decimal Factor { get; }

    /// <summary>Where this unit's zero lies, in base units. Zero for everything but temperature.</summary>
    public decimal Offset { get; }

    /// <summary>Fewest decimals printed.</summary>
    public int MinDecimals { get; }

    /// <summary>Most decimals printed, unless the value would then read as zero.</summary>
    public int MaxDecimals { get; }

    /// <summary>Whether the text, whatever its case, dots and dashes, names this unit.</summary>
    /// <param name="spelling">A unit as typed, such as "ft-lb".</param>
    public bool IsSpelt(string spelling) => _spellings.Contains(Normalise(spelling));

    /// <summary>Lower case, without the signs people put between two units (dots, dashes, spaces).</summary>
    /// <param name="spelling">A unit as typed.</param>
    public static string Normalise(string spelling) =>
        new([.. spelling.Where(c => !char.IsWhiteSpace(c) && !"·⋅•.-*‑–".Contains(c)).Select(char.ToLowerInvariant)]);

    /// <inheritdoc />
    public override string ToString() => Symbol;
}

/// <summary>A value as printed: the number and its unit, which stay together.</summary>
/// <param name="Number">The rounded number, with a point for the decimals.</param>
/// <param name="Unit">The unit's symbol.</param>
public readonly record struct Printed(string Number, string Unit)
{
    /// <inheritdoc />
    public override string ToString() => $"{Number} {Unit}";
}
