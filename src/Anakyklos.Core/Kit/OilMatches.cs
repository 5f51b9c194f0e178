using System.Runtime.CompilerServices;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Core.Kit;

/// <summary>Which products fit what, found out once for much work of the same models.</summary>
/// <param name="book">What covers what.</param>
/// <param name="climate">The weather the oils must bear, or null.</param>
internal sealed class OilMatches(CoverBook book, Climate? climate)
{
    private readonly Dictionary<FluidSystem, OilRequirement> _wanted = new(ReferenceEqualityComparer.Instance);
    private readonly Dictionary<(OilProduct, OilRequirement), OilFit> _matches = new(ByReference.Instance);
    private readonly Dictionary<(OilProduct, OilRequirement), bool> _near = new(ByReference.Instance);

    /// <summary>What a fluid of a sheet asks for.</summary>
    internal OilRequirement Wanted(ModelSheet sheet, FluidSystem fluid) =>
        Once(_wanted, fluid, () => OilRequirement.Of(sheet, fluid));

    /// <summary>Whether and how a product fits.</summary>
    internal OilFit Of(OilProduct product, OilRequirement wanted) =>
        Once(_matches, (product, wanted), () => OilMatch.Of(product, wanted, book, climate));

    /// <summary>Whether a product is near to fitting.</summary>
    internal bool AreNear(OilProduct product, OilRequirement wanted) =>
        Once(_near, (product, wanted), () => OilMatch.IsNear(product, wanted, book));

    private static TValue Once<TKey, TValue>(Dictionary<TKey, TValue> known, TKey key, Func<TValue> find) where TKey : notnull
    {
        if (!known.TryGetValue(key, out var value))
            known[key] = value = find();
        return value;
    }

    // The two stay the same objects throughout, and are long to compare by what is in them.
    private sealed class ByReference : IEqualityComparer<(OilProduct Product, OilRequirement Wanted)>
    {
        internal static ByReference Instance { get; } = new();

        public bool Equals((OilProduct Product, OilRequirement Wanted) x, (OilProduct Product, OilRequirement Wanted) y) =>
            ReferenceEquals(x.Product, y.Product) && ReferenceEquals(x.Wanted, y.Wanted);

        public int GetHashCode((OilProduct Product, OilRequirement Wanted) of) =>
            HashCode.Combine(RuntimeHelpers.GetHashCode(of.Product), RuntimeHelpers.GetHashCode(of.Wanted));
    }
}
