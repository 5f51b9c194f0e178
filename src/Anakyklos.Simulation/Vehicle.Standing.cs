using System.Collections.Immutable;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation;

/// <summary>Who and what stands where, and what it stands on.</summary>
public sealed partial record Vehicle
{
    private static readonly string[] FourWheels = ["front left", "front right", "rear left", "rear right"];
    private static readonly string[] TwoWheels = ["front", "rear"];

    /// <summary>Where each person is who did something; beside the vehicle before.</summary>
    public ImmutableDictionary<string, Place> People { get; private init; } = ImmutableDictionary<string, Place>.Empty;

    /// <summary>The tools that were put down, and where.</summary>
    public ImmutableDictionary<string, Place> Lies { get; private init; } = ImmutableDictionary<string, Place>.Empty;

    /// <summary>Whether a tool lies in the engine bay.</summary>
    public bool LiesAbove => Lies.ContainsValue(Place.Top);

    /// <summary>The cans that were brought, by what they are called.</summary>
    public ImmutableDictionary<string, Can> Cans { get; private init; } = ImmutableDictionary<string, Can>.Empty;

    /// <summary>The air in each tyre.</summary>
    public IReadOnlyDictionary<string, Quantity<Pressure>> Tyres { get; private init; } = new Dictionary<string, Quantity<Pressure>>();

    /// <summary>The pans that were brought, by what they are called.</summary>
    public ImmutableDictionary<string, Pan> Pans { get; private init; } = ImmutableDictionary<string, Pan>.Empty;

    /// <summary>The pan that stands under the holes of each fluid.</summary>
    public ImmutableDictionary<FluidId, string> PanUnder { get; private init; } = ImmutableDictionary<FluidId, string>.Empty;

    private static Dictionary<string, Quantity<Pressure>> TyresOf(ModelSheet sheet) => (sheet.IsMotorcycle ? TwoWheels : FourWheels)
        .ToDictionary(w => w, _ => Quantity<Pressure>.Of(Physics.TyreHolds, Pressure.Bar));

    // What is done with a tool leaves the tool there until somebody clears up.
    private Vehicle Laying(string tool, Place at) =>
        tool.Length == 0 || tool.Contains("by hand", StringComparison.Ordinal) ? this : this with { Lies = Lies.SetItem(tool, at) };

    private Vehicle Cleared(Place at) => this with
    {
        Lies = Lies.Where(l => l.Value != at).ToImmutableDictionary(),
        Cans = Cans.ToImmutableDictionary(c => c.Key, c => c.Value.Stands == at ? c.Value with { Stands = Place.Side } : c.Value),
    };

    private Vehicle Out(Place of) => this with
    {
        People = People.ToImmutableDictionary(p => p.Key, p => p.Value == of ? Place.Side : p.Value),
    };

    private Answer ClearBelow() =>
        Well(Cleared(Place.Below).Out(Place.Below) with { PanUnder = PanUnder.Clear() });

    private Answer SlidePan(SlidesPanUnder hand) => Well(this with
    {
        Pans = Pans.ContainsKey(hand.Pan) ? Pans
            : Pans.Add(hand.Pan, new(hand.Holds, ImmutableDictionary<FluidId, Quantity<Volume>>.Empty)),
        PanUnder = hand.Under is { } fluid ? PanUnder.SetItem(Known(Sheet.Fluids, fluid).Id, hand.Pan)
            : PanUnder.SetItems(Sheet.Fluids.Keys.Select(f => KeyValuePair.Create(f, hand.Pan))),
    });

    private Answer EmptyPan(string pan)
    {
        var full = Known(Pans, pan);
        return Well(this with
        {
            Pans = Pans.SetItem(pan, full with { In = full.In.Clear() }),
            Fluids = Fluids.SetItems(full.In.Select(i => KeyValuePair.Create(i.Key,
                Fluids[i.Key] with { Pan = Less(Fluids[i.Key].Pan, i.Value) }))),
        });
    }

    private Answer Go(string by, Place to) => Well(this with { People = People.SetItem(by, to) });

    // A hand reaches what is where its person stands.
    // Beside a motorcycle everything is at hand.
    private Answer? TooFar(Hand hand) => hand.By.Length > 0 && Sheet.Stands == Stand.Lift && PlaceOf(hand) is { } place
        && People.GetValueOrDefault(hand.By, Place.Side) is var stands && stands != place
            ? Cannot($"{hand}", $"{hand.By} is at the {stands}, and it is at the {place}") : null;

    private Place? PlaceOf(Hand hand) => hand switch
    {
        TakesOff h => Sheet.Access[h.What].Place,
        PutsOn h => Sheet.Access[h.What].Place,
        Sets h => Sheet.Access[h.What].Place,
        TakesAway h => Sheet.Access[h.What].Place,
        Undoes h => Sheet.Fasteners[h.What].Place,
        Loosens h => Sheet.Fasteners[h.What].Place,
        RunsIn h => Sheet.Fasteners[h.What].Place,
        Tightens h => Sheet.Fasteners[h.What].Place,
        Turns h => Sheet.Fasteners[h.What].Place,
        MendsThread h => Sheet.Fasteners[h.What].Place,
        // What goes onto a fastener is put on it in the hand.
        Fits h => HolderOf(h.What) is null ? Sheet.Parts[h.What].Place : null,
        ClearsAbove => Place.Top,
        SlidesPanUnder or ClearsBelow => Place.Below,
        SetsArms or Raises or Lowers => Place.Side,
        Starts or Cranks or Stops or RunsWarm or TurnsKey or PutsOut => Place.Cab,
        _ => null,
    };

    private Answer Set(Access hold) => !hold.HoldsVehicle ? Cannot(hold.Name, "it holds nothing")
        : Elsewhere(hold.Name, LiftNeed.Down) ?? Well(this with { Off = Off.SetItem(hold.Id, hold.Count) });

    private Answer TakeAway(Access hold)
    {
        if (!hold.HoldsVehicle || !IsOff(hold.Id))
            return Cannot(hold.Name, "it is not there");
        return new(this with { Off = Off.Remove(hold.Id) },
            IsUp ? [new(HarmKind.OffItsStand, hold.Name, "taken away under a raised vehicle")] : []);
    }

    private Answer Raise()
    {
        List<Harm> harms = [];
        if (IsUp)
            return Cannot("Lift", "it is up already");
        if (!ArmsSeen)
            harms.Add(new(HarmKind.RaisedUnsafely, "Lift", "nobody looked at the lifting points where it stands"));
        if (Runs)
            harms.Add(new(HarmKind.RaisedUnsafely, "Lift", "the engine runs"));
        foreach (var hold in Sheet.Access.Values.Where(a => a.HoldsVehicle && !IsOff(a.Id)))
            harms.Add(new(HarmKind.RaisedUnsafely, hold.Name, "it is not in place"));
        foreach (var inside in People.Where(p => p.Value == Place.Cab))
            harms.Add(new(HarmKind.RaisedUnsafely, inside.Key, "sits in it"));
        return new(this with { IsUp = true }, [.. harms, .. Crushes()]);
    }

    private Answer Lower()
    {
        if (!IsUp)
            return Cannot("Lift", "it is down already");
        List<Harm> harms = [.. PanUnder.Values.Distinct().Select(pan => new Harm(HarmKind.LoweredOnto, pan, "it is crushed"))];
        foreach (var thing in Lies.Where(l => l.Value == Place.Below).Select(l => l.Key)
            .Concat(Cans.Where(c => c.Value.Stands == Place.Below).Select(c => c.Key)))
            harms.Add(new(HarmKind.LoweredOnto, thing, "it is under it"));
        foreach (var open in Sheet.Fasteners.Values.Where(f => !Joints[f.Id].IsIn && (f.Lift ?? f.Place.UsualLift()) == LiftNeed.Up))
            harms.Add(new(HarmKind.LoweredOnto, open.Name, "it is still out, and the pan cannot follow"));
        return new(this with { IsUp = false, ArmsSeen = false }, [.. harms, .. Crushes()]);
    }

    private IEnumerable<Harm> Crushes() => Sheet.Stands != Stand.Lift ? []
        : People.Where(p => p.Value == Place.Below).Select(p => new Harm(HarmKind.Crushed, p.Key, "stands under it while it moves"));
}

/// <summary>A can with a fluid, beside the vehicle.</summary>
/// <param name="Of">What is in it.</param>
/// <param name="Left">How much is left.</param>
/// <param name="Stands">Where it stands.</param>
public sealed record Can(FluidId Of, Quantity<Volume> Left, Place Stands);

/// <summary>A drain pan.</summary>
/// <param name="Holds">What it holds; null for one that is never full.</param>
/// <param name="In">What is in it, by fluid.</param>
public sealed record Pan(Quantity<Volume>? Holds, ImmutableDictionary<FluidId, Quantity<Volume>> In)
{
    /// <summary>How much is in it.</summary>
    public Quantity<Volume> Filled => In.Values.Aggregate(Quantity<Volume>.Zero, (sum, amount) => sum + amount);
}
