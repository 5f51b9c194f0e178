using Anakyklos.Core.Quantities;
using Anakyklos.Desk;

namespace Anakyklos.Web.Drawing;

/// <summary>What wears as a bar, 300 wide: from nothing to the most that was ever read there, what is left of it, and the limit.</summary>
/// <param name="Left">What is there now by the forecast.</param>
/// <param name="Before">What was read before, the oldest first.</param>
/// <param name="Limit">The least that passes.</param>
public sealed record WearBar(string Left, IReadOnlyList<string> Before, string Limit)
{
    private const int Wide = 300;

    /// <summary>Draws it.</summary>
    /// <param name="wear">What was read.</param>
    /// <param name="odometer">Where the vehicle stands; null where nobody knows.</param>
    public static WearBar Of(WearStory wear, Quantity<Distance>? odometer)
    {
        var most = Math.Max(wear.Read.Max(r => r.Least.Base), wear.Limit.Base * 1.2m);
        string At(decimal value) => Svg.N(Wide * Math.Clamp(value / most, 0, 1));
        return new(At(wear.Likely(odometer ?? wear.Read[^1].Odometer).Base), [.. wear.Read.Select(r => At(r.Least.Base))],
            At(wear.Limit.Base));
    }
}
