using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Opening;

/// <summary>Opening and closing: the tool and its size, or how many fasteners come out and go in.</summary>
public sealed class OpeningScene : WorkScene
{
    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["open", "close"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        if (scene.Access is { } access)
            Way(scene, access);
        else
            Fastener(scene, scene.Card.Sheet.Fasteners[scene.Step.What]);
    }

    private static void Way(LiftScene scene, Access access)
    {
        scene.Facts.Add(new("Tool", access.Tool));
        if (access.Count == 0)
        {
            scene.Offer(Said(scene.Step));
            return;
        }
        var count = scene.Counted?.Count ?? access.Count;
        (scene.Number, scene.Unit) = ($"{count}", access.CountOf);
        scene.Offer($"All {count} {access.CountOf} {(scene.Step.Traits.Opens ? "out" : "in")}");
    }

    /// <summary>When a fastener comes out on its wheel or cover, from 1.</summary>
    public static int OrderOf(FastenerGroup group, FastenerPlace place) =>
        group.ComesOff.Where(p => p.At == place.At).ToList().IndexOf(place) + 1;

    private static void Fastener(LiftScene scene, Fastener fastener)
    {
        (scene.Number, scene.Unit) = DriveWords.Figure(fastener.Drive);
        if (scene.Number.Length == 0)
            scene.Facts.Add(new("Tool", fastener.Drive));
        if (fastener.Group is { } group && scene.Step.Traits.Opens)
        {
            scene.Facts.Insert(0, new("How many", $"{fastener.Count}" + (group.LastOut is { } last
                ? $"; {string.Join(" and ", group.ComesOff.TakeLast(last.Count).Select(p => OrderOf(group, p)))} stay in till last" : "")));
            scene.Pictures = scene.Pictures with { Middle = "~/Coaches/Opening/_Undo.cshtml" };
        }
        scene.Offer(fastener.Group is not null && scene.Step is { Said.Length: 0, Traits.Opens: true } ? $"All {fastener.Count} out"
            : Said(scene.Step));
    }
}
