using Anakyklos.Core.Torques;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using Anakyklos.Web.Drawing;

namespace Anakyklos.Web.Coaches.Tightening;

/// <summary>A fastener on the drawing of its group.</summary>
/// <param name="Number">Its number in the group.</param>
/// <param name="Turn">Its turn on its wheel or cover: what stands on it.</param>
/// <param name="X">Its middle, in units of the drawing.</param>
/// <param name="Y">Its middle, downwards.</param>
/// <param name="State">"done", "next" or empty.</param>
/// <param name="Says">What it is for whoever does not see it.</param>
/// <param name="CanBeSaid">Whether a tap says that this was the last one.</param>
public sealed record PlaceDot(int Number, int Turn, decimal X, decimal Y, string State, string Says, bool CanBeSaid);

/// <summary>A wheel or side that has fasteners of its own.</summary>
/// <param name="Name">Its name.</param>
/// <param name="State">"done", "here" or empty.</param>
public sealed record WheelChip(string Name, string State);

/// <summary>The fasteners of a group in their places, numbered in their order: done, next, still to come.</summary>
/// <param name="Dots">Those of the wheel or cover that is next.</param>
/// <param name="Wheels">All wheels or sides; empty where there is one.</param>
/// <param name="IsRound">They sit on a circle.</param>
/// <param name="Wide">How wide the drawing is.</param>
/// <param name="High">How high it is.</param>
public sealed record GroupPicture(IReadOnlyList<PlaceDot> Dots, IReadOnlyList<WheelChip> Wheels, bool IsRound, int Wide, int High)
{
    /// <summary>The drawing of a group as it stands; null where there is one fastener, or nothing is left.</summary>
    /// <param name="fastening">How it stands.</param>
    public static GroupPicture? Of(Fastening fastening)
    {
        if (fastening.Next is not { } next || fastening.Fastener.Count == 1)
            return null;
        var group = fastening.Plan.Group;
        var here = fastening.Plan.Slots.Where(s => s.IsWith(next)).ToList();
        var drawn = GroupPlaces.Of([.. here.Select(s => s.Place)]);
        return new(
            [.. here.Zip(drawn.Spots, (s, spot) => new PlaceDot(s.Place.Number, group.Turn(s.Place.Number), spot.X, spot.Y,
                fastening.IsDone(s) ? "done" : s == next ? "next" : "",
                $"{Words.Capital(group.Named(s.Place.Number))}{(fastening.IsDone(s) ? ", done" : s == next ? ", next" : "")}",
                !fastening.IsDone(s) && (s == next || group.Together)))],
            [.. group.Places.Select(p => p.At).Distinct().Where(at => at.Length > 0).Select(at => new WheelChip(at,
                at == next.Place.At ? "here" : fastening.Plan.Slots.Where(s => s.Place.At == at).All(fastening.IsDone) ? "done" : ""))],
            group.Order == TighteningOrder.Star, drawn.Wide, drawn.High);
    }
}
