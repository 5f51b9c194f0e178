using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Devices;

/// <summary>A thing of which a card believes something else than is.</summary>
/// <param name="What">The thing; empty for the lift and the engine.</param>
/// <param name="Name">Its name.</param>
/// <param name="Card">What the card believes, in a word or two.</param>
/// <param name="Vehicle">What is.</param>
public sealed record Difference(ThingId What, string Name, string Card, string Vehicle)
{
    /// <summary>Holds the two accounts of one vehicle against each other.</summary>
    /// <param name="card">What the card was told.</param>
    /// <param name="vehicle">The vehicle.</param>
    /// <returns>What differs: accesses, then fasteners, then lift and engine; none when they agree.</returns>
    public static IEnumerable<Difference> Between(JobCard card, Vehicle vehicle)
    {
        var open = card.Open.Where(o => o.Kind == OpenKind.Access).Select(o => o.Id.Text).ToHashSet();
        foreach (var access in card.Sheet.Access.Values.Where(a => open.Contains(a.Id.Text) != vehicle.IsOff(a.Id)))
            yield return new(access.Id, access.Name, Of(!open.Contains(access.Id.Text)), Of(!vehicle.IsOff(access.Id)));
        var loose = card.Open.Where(o => o.Kind == OpenKind.Fastener).Select(o => o.Id.Text).ToHashSet();
        foreach (var fastener in card.Sheet.Fasteners.Values.Where(f => loose.Contains(f.Id.Text) == vehicle.Joints[f.Id].IsTight))
            yield return new(fastener.Id, fastener.Name, loose.Contains(fastener.Id.Text) ? "open" : "tight",
                vehicle.Joints[fastener.Id] switch { { IsIn: false } => "out", { IsTight: false } => "loose", _ => "tight" });
        if (card.LiftUp != vehicle.IsUp)
            yield return new("", "Vehicle", card.LiftUp ? "up" : "down", vehicle.IsUp ? "up" : "down");
        if (card.EngineRuns != vehicle.Runs)
            yield return new("", "Engine", card.EngineRuns ? "runs" : "is off", vehicle.Runs ? "runs" : "is off");
    }

    private static string Of(bool shut) => shut ? "shut" : "open";
}
