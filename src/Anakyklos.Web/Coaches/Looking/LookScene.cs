using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Web.Coaches.Looking;

/// <summary>Joints are looked at.</summary>
public sealed class LookScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["look"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        base.Draw(scene, to);
        string[] joints = [.. scene.Card.JointsOpened.Select(f => f.Name)];
        if (joints.Length > 0)
            scene.Facts.Insert(0, new(joints.Length == 1 ? "Joint" : $"{joints.Length} joints", string.Join(", ", joints)));
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e is LeakFound l ? $"{card.Sheet.Fasteners[l.Fastener].Name} leaks" : null;
}
