using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>What a person in the practice bay has about them: where they stand follows from the vehicle.</summary>
/// <param name="Vehicle">The vehicle as it is.</param>
/// <param name="Who">The person's name.</param>
/// <param name="Wrench">The torque wrench in hand; null for none.</param>
/// <param name="Wrenches">Those that lie ready.</param>
/// <param name="Known">The things at which somebody has seen or felt what is wrong.</param>
/// <param name="Pan">What a pan holds; null for one that is never full.</param>
/// <param name="Worn">What is measured otherwise than usual.</param>
internal sealed record AtHand(Vehicle Vehicle, string Who, PracticeWrench? Wrench, IReadOnlyList<PracticeWrench> Wrenches,
    IReadOnlySet<ThingId> Known, Quantity<Volume>? Pan, IReadOnlyList<WornPoint> Worn)
{
    internal ModelSheet Sheet => Vehicle.Sheet;

    /// <summary>Where the person stands; beside the vehicle at first.</summary>
    internal Place Place => Vehicle.People.GetValueOrDefault(Who, Place.Side);

    /// <summary>Whether a hand reaches what is in a place: beside a motorcycle everything is at hand.</summary>
    internal bool Reaches(Place place) => Sheet.Stands != Stand.Lift || place == Place;
}

/// <summary>What can be done from where somebody stands: whatever a hand could do to a real vehicle there, right or not.</summary>
internal static class Reach
{
    internal static IReadOnlyList<InReach> Of(AtHand at) =>
    [
        .. Feet(at), .. Things.Accesses(at),
        .. Things.Fasteners(at), .. Things.Parts(at), .. Things.Belts(at), .. Flows.Fluids(at), .. Flows.Pans(at),
        .. Measures.Points(at),
        .. Controls.Lift(at), .. Controls.Primers(at), .. Controls.Above(at), .. Controls.Cab(at), .. Controls.Beside(at), .. Wrenches(at),
    ];

    private static IEnumerable<InReach> Feet(AtHand at)
    {
        if (at.Sheet.Stands != Stand.Lift)
            yield break;
        yield return new("feet", "You", $"{Where(at.Place)}", [.. Enum.GetValues<Place>().Where(p => p != at.Place
            && (p != Place.Below || at.Vehicle.IsUp) && (p is not (Place.Top or Place.Cab) || !at.Vehicle.IsUp))
            .Select(p => Do($"feet/{p.ToString().ToLowerInvariant()}", Words.Capital(To(p)), ChoiceKind.Go, To(p), new Goes(p)))]);
    }

    private static IEnumerable<InReach> Wrenches(AtHand at)
    {
        yield return new("wrenches", "Torque wrenches", at.Wrench is { } held ? $"{held.Name} in hand" : "none in hand",
            [.. at.Wrenches.Where(w => w != at.Wrench).Select(w => new Choice($"wrenches/{w.Name}", $"Take {w.Name}", ChoiceKind.Take)
            {
                Does = _ => (new Deed($"takes {w.Name}", [])
                {
                    Takes = w, Sees = _ => Sight.Well($"Its scale is in {w.Scale.Symbol}."),
                }, ""),
            })]);
    }

    internal static string Where(Place place) => place switch
    {
        Place.Cab => "in the cab",
        Place.Top => "over the engine bay",
        Place.Below => "under the vehicle",
        _ => "beside the vehicle",
    };

    private static string To(Place place) => place switch
    {
        Place.Cab => "into the cab",
        Place.Top => "to the engine bay",
        Place.Below => "under it",
        _ => "beside it",
    };

    /// <summary>A choice that asks nothing.</summary>
    internal static Choice Do(string id, string words, ChoiceKind kind, string told, params Happening[] hands) => new(id, words, kind)
    {
        Does = _ => (new Deed(told, hands), ""),
    };

    /// <summary>A choice that asks nothing, and by which the hand feels something.</summary>
    internal static Choice Feel(string id, string words, string told, Hand hand, Func<Vehicle, Sight> feels) =>
        new(id, words, ChoiceKind.Hand) { Does = _ => (new Deed(told, [hand]) { Sees = feels }, "") };

    /// <summary>A look, which changes nothing.</summary>
    internal static Choice Look(string id, string words, string told, Func<Vehicle, Sight> sees) => new(id, words, ChoiceKind.Look)
    {
        Does = _ => (new Deed(told, []) { Sees = sees }, ""),
    };
}
