using Anakyklos.Core.Quantities;

namespace Anakyklos.Core.Filling;

/// <summary>The two marks of a rod as depths below the filler: the fluid must end between them.</summary>
/// <param name="Low">The lower mark, which is the deeper one.</param>
/// <param name="High">The upper mark; less deep than <paramref name="Low"/>.</param>
public sealed record RodMarks(Quantity<Length> Low, Quantity<Length> High)
{
    /// <summary>How far the marks are apart.</summary>
    public Quantity<Length> Apart => Low - High;

    /// <summary>The level that a depth stands for; not rounded.</summary>
    /// <param name="depth">From the filler down to the fluid.</param>
    /// <returns>0 at the lower mark, 1 at the upper one; it may lie outside of what can be read.</returns>
    public Level At(Quantity<Length> depth) => new((Low - depth) / Apart);

    /// <summary>How deep a level lies below the filler.</summary>
    /// <param name="level">The level.</param>
    /// <returns>The depth, not rounded; negative for a level above the filler.</returns>
    public Quantity<Length> DepthOf(Level level) => Low - Apart * level.Fraction;
}
