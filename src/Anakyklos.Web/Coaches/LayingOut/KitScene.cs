using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.LayingOut;

/// <summary>The kit has a form of its own; here stands its line on the record.</summary>
public sealed class KitScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["kit"];

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is not KitConfirmed kit ? null : $"Kit laid out: {string.Join("; ", new[]
    {
        string.Join(", ", kit.Parts.Select(p => $"{card.Sheet.Parts[p.Key].Name} {p.Value}")),
        string.Join(", ", kit.AllPans.Where(p => p > Quantity<Volume>.Zero).Select(p => $"pan {p}")
            .Concat(kit.Oils.Values.Select(o => $"{o.Amount} of {o.Product}"))),
    }.Where(lies => lies.Length > 0))}";
}
