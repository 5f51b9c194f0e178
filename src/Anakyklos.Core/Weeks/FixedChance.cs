namespace Anakyklos.Core.Weeks;

/// <summary>Numbers that look like chance and are the same each time: splitmix64 (Steele, Lea and Flood, 2014).</summary>
/// <param name="seed">Where it begins.</param>
internal sealed class FixedChance(ulong seed)
{
    private const ulong Golden = 0x9E3779B97F4A7C15UL;

    private ulong _at = seed;

    /// <summary>From 0 to one below the most.</summary>
    internal int Next(int most) => (int)((UInt128)Number() * (ulong)most >> 64);

    /// <summary>From 0 to just below 1.</summary>
    internal double Part() => (Number() >> 11) * (1.0 / (1UL << 53));

    /// <summary>A number of its own for each number.</summary>
    internal static ulong Of(ulong number)
    {
        var z = number * Golden;
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9UL;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EBUL;
        return z ^ (z >> 31);
    }

    private ulong Number() => Of(++_at);
}
