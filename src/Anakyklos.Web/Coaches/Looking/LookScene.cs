using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.Looking;

/// <summary>Joints are looked at.</summary>
public sealed class LookScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["look"];

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is LeakFound l ? $"{card.Sheet.Fasteners[l.Fastener].Name} leaks" : null;
}
