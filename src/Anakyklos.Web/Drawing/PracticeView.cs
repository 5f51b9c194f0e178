using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Practice;
using Anakyklos.Storage;

namespace Anakyklos.Web.Drawing;

/// <summary>A thing on the drawing of the practice vehicle.</summary>
/// <param name="Thing">By which it is chosen.</param>
/// <param name="Name">Its name.</param>
/// <param name="Point">Where it is.</param>
/// <param name="IsOpen">Whether it is off or out.</param>
/// <param name="Runs">Whether something runs out of it.</param>
public sealed record PracticeSpot(string Thing, string Name, MapPoint Point, bool IsOpen, bool Runs);

/// <summary>One side of the practice vehicle with what is in reach there.</summary>
/// <param name="Map">The drawing.</param>
/// <param name="Spots">The things.</param>
public sealed record PracticeSide(VehicleMap Map, IReadOnlyList<PracticeSpot> Spots);

/// <summary>A run of the practice bay as it is from where somebody stands.</summary>
public sealed class PracticeView
{
    private const int Told = 3;

    private static readonly IReadOnlyDictionary<Place, string[]> MapsAt = new Dictionary<Place, string[]>
    {
        [Place.Below] = ["below"],
        [Place.Top] = ["top", "belt"],
        [Place.Side] = ["side", "left", "right"],
        [Place.Cab] = ["cab"],
    };

    private PracticeView(CardNumber id, PracticeRun run, Person me) => (Id, Run, Me) = (id, run, me);

    /// <summary>Its number.</summary>
    public CardNumber Id { get; }

    /// <summary>The run.</summary>
    public PracticeRun Run { get; }

    /// <summary>Who looks.</summary>
    public Person Me { get; }

    /// <summary>Where they stand.</summary>
    public Place Place => Run.Vehicle.People.GetValueOrDefault(Me.Name, Place.Side);

    /// <summary>Whether the vehicle stands on a lift, so that one goes from place to place.</summary>
    public bool HasPlaces => Run.Card.Sheet.Stands == Stand.Lift;

    /// <summary>Where they can go.</summary>
    public IReadOnlyList<Choice> Goes { get; private init; } = [];

    /// <summary>The things in reach, without feet and wrenches.</summary>
    public IReadOnlyList<InReach> Reach { get; private init; } = [];

    /// <summary>The torque wrenches.</summary>
    public InReach? Wrenches { get; private init; }

    /// <summary>The thing that is looked at; null for none.</summary>
    public InReach? Chosen { get; private init; }

    /// <summary>What was done last, the newest first.</summary>
    public IReadOnlyList<HandDid> Lately { get; private init; } = [];

    /// <summary>The sides that are seen from here.</summary>
    public IReadOnlyList<PracticeSide> Sides { get; private init; } = [];

    /// <summary>What the display of the dash said when somebody looked last; empty where nobody has since something was done.</summary>
    public string Dash { get; private init; } = "";

    /// <summary>How long a wait of the card still is; null for none.</summary>
    public TimeSpan? Left => Run.Card.Waits.Select(w => w.Until - Run.Now).Where(w => w > TimeSpan.Zero).Select(w => (TimeSpan?)w).Min();

    /// <summary>Pans that stand below, and how full.</summary>
    public IReadOnlyList<(string Name, decimal Full)> Pans => Place == Place.Cab || Place == Place.Top ? []
        : [.. Run.Vehicle.PanUnder.Values.Distinct().Order().Select(name => (name, Run.Vehicle.Pans.TryGetValue(name, out var pan)
            ? Math.Min(1, pan.Filled.In(Volume.Litre) / (Run.Lesson.Pan ?? Quantity<Volume>.Of(20, Volume.Litre)).In(Volume.Litre)) : 0m))];

    /// <summary>The number of a thing on the drawing and in the list; empty where it is not on the drawing.</summary>
    public string Number(string thing) => Sides.SelectMany(s => s.Spots).Select(s => s.Thing).Distinct().ToList()
        .IndexOf(thing) is >= 0 and var i
        ? $"{i + 1}" : "";

    /// <summary>The run from where somebody stands.</summary>
    /// <param name="id">Its number.</param>
    /// <param name="run">The run.</param>
    /// <param name="me">Who looks.</param>
    /// <param name="thing">What they look at; null or empty for what their hands were at last.</param>
    public static PracticeView Of(CardNumber id, PracticeRun run, Person me, string? thing)
    {
        var reach = run.Reach(me.Name);
        var own = reach.Where(r => r.Id is not ("feet" or "wrenches") && r.Choices.Count > 0).ToList();
        var last = run.Log.OfType<HandDid>().LastOrDefault(d => d.By.Id == me.Id)?.Choice;
        var chosen = own.Find(r => r.Id == thing) ?? (last is null ? null : own.Find(r => last.StartsWith(r.Id + "/",
            StringComparison.Ordinal)));
        var place = run.Vehicle.People.GetValueOrDefault(me.Name, Place.Side);
        return new(id, run, me)
        {
            Goes = reach.FirstOrDefault(r => r.Id == "feet")?.Choices ?? [],
            Wrenches = reach.FirstOrDefault(r => r.Id == "wrenches"),
            Reach = own,
            Chosen = chosen,
            Lately = [.. run.Log.OfType<HandDid>().Reverse().Take(Told)],
            Sides = [.. MapsAt[place].Where(run.Card.Sheet.Maps.ContainsKey).Select(m => Side(run, run.Card.Sheet.Maps[m], own))
                .Where(s => s.Spots.Count > 0 || place != Place.Cab)],
            Dash = run.Log.OfType<HandDid>().LastOrDefault() is { Sees: { } sees } did && did.Choice.StartsWith("dash/",
                StringComparison.Ordinal) ? sees.Says : "",
        };
    }

    private static PracticeSide Side(PracticeRun run, VehicleMap map, IReadOnlyList<InReach> reach) => new(map,
        [.. map.Points.Where(p => !p.For.IsEmpty).SelectMany(p => reach.Where(r => Names(r, p.For)).Take(1).Select(r =>
            new PracticeSpot(r.Id, r.Name, p, r.Stands.Contains("off", StringComparison.Ordinal)
                || r.Stands.Contains("out", StringComparison.Ordinal), IsRunning(run, p.For))))]);

    // A point stands for the thing itself, or for the part that a thing in reach holds.
    private static bool Names(InReach thing, ThingId point) => thing.Id.EndsWith($":{point}", StringComparison.Ordinal)
        || thing.Choices.Any(c => c.Id.EndsWith($"/{point}/new", StringComparison.Ordinal));

    private static bool IsRunning(PracticeRun run, ThingId point) => run.Card.Sheet.Fasteners.TryGetValue(point, out var plug)
        && plug.Drains is { } fluid && !run.Vehicle.Joints[plug.Id].IsIn
        && run.Vehicle.Fluids[fluid].Inside > Quantity<Volume>.Zero;

    /// <summary>A place in words.</summary>
    public static string At(Place place) => place switch
    {
        Place.Below => "under it",
        Place.Top => "engine bay",
        Place.Cab => "cab",
        _ => "beside it",
    };
}
