using Anakyklos.Core.Coaches.Tightening;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Web.Coaches.Tightening;

/// <summary>A fastener on the drawing of its group.</summary>
/// <param name="Number">Its turn in the order.</param>
/// <param name="X">Across, in percent of the drawing.</param>
/// <param name="Y">Down, in percent.</param>
/// <param name="State">"done", "next" or empty.</param>
/// <param name="Says">What it is for whoever does not see it.</param>
/// <param name="CanBeSaid">Whether a tap says that this was the last one.</param>
public sealed record PlaceDot(int Number, decimal X, decimal Y, string State, string Says, bool CanBeSaid);

/// <summary>A wheel or side that has fasteners of its own.</summary>
/// <param name="Name">Its name.</param>
/// <param name="State">"done", "here" or empty.</param>
public sealed record WheelChip(string Name, string State);

/// <summary>The fasteners of a group in their places, numbered in their order: done, next, still to come.</summary>
/// <param name="Dots">Those of the wheel or cover that is next.</param>
/// <param name="Wheels">All wheels or sides; empty where there is one.</param>
/// <param name="IsRound">They sit on a circle.</param>
/// <param name="IsWide">They sit along something that is wider than high.</param>
/// <param name="Pass">Which pass it is, in words; empty where there is one.</param>
public sealed record GroupPicture(IReadOnlyList<PlaceDot> Dots, IReadOnlyList<WheelChip> Wheels, bool IsRound, bool IsWide, string Pass)
{
    /// <summary>The drawing of a group as it stands; null where there is one fastener, or nothing is left.</summary>
    /// <param name="fastening">How it stands.</param>
    public static GroupPicture? Of(Fastening fastening)
    {
        if (fastening.Next is not { } next || fastening.Fastener.Count == 1)
            return null;
        var group = fastening.Plan.Group;
        var here = fastening.Plan.Slots.Where(s => s.IsWith(next)).ToList();
        var (wide, high) = (Spread(here.Select(s => s.Place.X)), Spread(here.Select(s => s.Place.Y)));
        return new(
            [.. here.Select(s => new PlaceDot(s.Place.Number, s.Place.X, s.Place.Y,
                fastening.IsDone(s) ? "done" : s == next ? "next" : "",
                $"Number {s.Place.Number}{(fastening.IsDone(s) ? ", done" : s == next ? ", next" : "")}",
                !fastening.IsDone(s) && (s == next || group.Together)))],
            [.. group.Places.Select(p => p.At).Distinct().Where(at => at.Length > 0).Select(at => new WheelChip(at,
                at == next.Place.At ? "here" : fastening.Plan.Slots.Where(s => s.Place.At == at).All(fastening.IsDone) ? "done" : ""))],
            group.Order == TighteningOrder.Star, wide > 1.6m * high, TighteningScene.PassOf(next, fastening));
    }

    private static decimal Spread(IEnumerable<decimal> at) => at.Max() - at.Min();
}
