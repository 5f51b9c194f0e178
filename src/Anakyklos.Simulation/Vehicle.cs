using System.Collections.Immutable;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Simulation;

/// <summary>What a hand did to a vehicle: how it stands now, and what harm came of it.</summary>
/// <param name="Vehicle">The vehicle afterwards; as before where the hand could do nothing.</param>
/// <param name="Harms">What should not have happened, in the order in which it did.</param>
public sealed record Answer(Vehicle Vehicle, IReadOnlyList<Harm> Harms);

/// <summary>
/// A vehicle in software, made from a model sheet. It answers to hands as a real one would and knows nothing of cards, orders or rules:
/// what is open, in, tight or hot follows from what was done to it alone. A value: a hand makes the next one.
/// </summary>
public sealed partial record Vehicle
{
    private Vehicle(ModelSheet sheet, DateTimeOffset now) => (Sheet, Now) = (sheet, now);

    /// <summary>The model.</summary>
    public ModelSheet Sheet { get; }

    /// <summary>The moment up to which it was followed.</summary>
    public DateTimeOffset Now { get; private init; }

    /// <summary>How each fastener sits.</summary>
    public ImmutableDictionary<FastenerId, Joint> Joints { get; private init; } = ImmutableDictionary<FastenerId, Joint>.Empty;

    /// <summary>What is off, with the screws or clips that are out; of what holds the vehicle, what is in place.</summary>
    public ImmutableDictionary<AccessId, int> Off { get; private init; } = ImmutableDictionary<AccessId, int>.Empty;

    /// <summary>How each fluid stands.</summary>
    public ImmutableDictionary<FluidId, Contents> Fluids { get; private init; } = ImmutableDictionary<FluidId, Contents>.Empty;

    /// <summary>Fasteners that no hand moves.</summary>
    public ImmutableHashSet<FastenerId> Stuck { get; private init; } = [];

    /// <summary>How each brake circuit stands that the sheet knows how to bleed.</summary>
    public ImmutableDictionary<FluidId, Brake> Brakes { get; private init; } = ImmutableDictionary<FluidId, Brake>.Empty;

    /// <summary>What is wrong and has not shown itself, or still can.</summary>
    public ImmutableHashSet<Fault> Faults { get; private init; } = [];

    /// <summary>Parts in the vehicle that are not the right ones.</summary>
    public ImmutableHashSet<PartId> WrongIn { get; private init; } = [];

    /// <summary>Filters that hold no fuel yet.</summary>
    public ImmutableHashSet<PartId> Unprimed { get; private init; } = [];

    /// <summary>Indicators that are lit.</summary>
    public ImmutableHashSet<ResetId> Lit { get; private init; } = [];

    /// <summary>How far it was driven since it came in.</summary>
    public Quantity<Distance> Driven { get; private init; }

    /// <summary>Whether it is up.</summary>
    public bool IsUp { get; private init; }

    /// <summary>Whether the arms were seen to sit on the lifting points where it stands now.</summary>
    public bool ArmsSeen { get; private init; }

    /// <summary>Whether the engine runs.</summary>
    public bool Runs { get; private init; }

    /// <summary>A vehicle as it comes in: everything shut and tight, old seals in, each fluid at its mark, indicators lit, on its
    /// wheels.</summary>
    /// <param name="sheet">The model.</param>
    /// <param name="now">When it comes in.</param>
    /// <param name="hot">It was driven in just now; else it stood over night.</param>
    public static Vehicle AsItComes(ModelSheet sheet, DateTimeOffset now, bool hot = false) => new(sheet, now)
    {
        Joints = sheet.Fasteners.Values.ToImmutableDictionary(f => f.Id, f => new Joint(true, true,
            f.LastTorque?.Target, f.Seal is { } seal ? [new(seal, 1)] : [], [.. f.Holds])
            { Turned = f.Tightening.Value is ToTorque ? Physics.DegreesToTorque : 0, Screws = ScrewsOf(f) }),
        Fluids = sheet.Fluids.Values.ToImmutableDictionary(f => f.Id, f => Full(sheet, f)),
        Lit = [.. sheet.Resets.Keys],
        Brakes = BrakesOf(sheet),
        Tyres = TyresOf(sheet),
        Warmth = hot ? Physics.Warm : 0,
    };

    /// <summary>Whether an access is off, or what holds the vehicle is in place.</summary>
    public bool IsOff(AccessId what) => Off.ContainsKey(what);

    /// <summary>What becomes of the vehicle when a hand does something, or something goes wrong by itself.</summary>
    /// <param name="what">What happens.</param>
    /// <param name="at">When; not before <see cref="Now"/>.</param>
    /// <exception cref="ArgumentException">The sheet has no such thing, or time would run backwards.</exception>
    public Answer Answer(Happening what, DateTimeOffset at)
    {
        var (vehicle, harms) = Until(at);
        var answer = what is Fault fault ? Well(vehicle.With(fault)) : vehicle.Do((Hand)what);
        return harms.Count == 0 ? answer : new(answer.Vehicle, [.. harms, .. answer.Harms]);
    }

    /// <summary>What becomes of it when nobody touches it.</summary>
    /// <param name="at">Until when.</param>
    /// <exception cref="ArgumentException">Time would run backwards.</exception>
    public Answer Until(DateTimeOffset at)
    {
        if (at < Now)
            throw new ArgumentException($"It is {Now:O} already.", nameof(at));
        return at == Now ? new(this, []) : RunOut(at);
    }

    private Answer Do(Hand hand) => TooFar(hand) ?? Done(hand);

    private Answer Done(Hand hand) => hand switch
    {
        Goes h => Go(h.By, h.To),
        TakesOff h => TakeOff(Known(Sheet.Access, h.What), h.Count),
        PutsOn h => PutOn(Known(Sheet.Access, h.What), h.Count),
        Sets h => Set(Known(Sheet.Access, h.What)),
        TakesAway h => TakeAway(Known(Sheet.Access, h.What)),
        Loosens h => Loosen(Known(Sheet.Fasteners, h.What), h.Place),
        Undoes h => Undo(Known(Sheet.Fasteners, h.What)),
        Fits h => Fit(Known(Sheet.Parts, h.What), h.Old),
        RunsIn h => RunIn(Known(Sheet.Fasteners, h.What)),
        Turns h => Turn(Known(Sheet.Fasteners, h.What), h.Degrees, h.Place),
        MendsThread h => AtJoint(Known(Sheet.Fasteners, h.What))
            ?? Well(Mended(Sheet.Fasteners[h.What]), Sheet.Fasteners[h.What]),
        Tightens h => Tighten(Known(Sheet.Fasteners, h.What), h.To, h.Place),
        Brings h => Well(this with { Cans = Cans.SetItem(h.Can, new(Known(Sheet.Fluids, h.Of).Id, Cans.TryGetValue(h.Can, out var can)
            ? can.Left : h.Holds, h.To)) }),
        Pours h => h.Can.Length == 0 ? Pour(Known(Sheet.Fluids, h.What), h.Amount)
            : PourFrom(Known(Cans, h.Can), Known(Sheet.Fluids, h.What), h),
        RunsThrough h => RunThrough(Known(Sheet.Fluids, h.What), h.Amount),
        FillsPart h => FillPart(Known(Sheet.Fluids, h.What), h.Amount),
        Dispenses h => Dispense(Known(Sheet.Fluids, h.What), h),
        SucksOut h => SuckOut(Known(Brakes, h.What), h.What),
        TopsUp h => TopUp(Known(Brakes, h.What), h),
        Strokes h => Stroke(Known(Sheet.Fasteners, h.What), h.Count),
        ClearsAbove => Well(Cleared(Place.Top)),
        FetchesRight h => Well(this with { Faults = Faults.Remove(new WrongInBox(h.What)), WrongIn = WrongIn.Remove(h.What) }),
        RenewsSeal h => Renew(Known(Sheet.Fasteners, h.What)),
        FreesWire => Well(this with { Faults = Faults.Remove(new TrappedWire()) }),
        PicksOff h => PickOff(Known(Sheet.Fasteners, h.What)),
        DrawsOff h => DrawOff(Known(Sheet.Fluids, h.What), h.Amount),
        SlidesPanUnder h => SlidePan(h),
        EmptiesPan h => EmptyPan(h.Pan),
        ClearsBelow => ClearBelow(),
        SetsArms => Well(Out(Place.Cab) with { ArmsSeen = true }),
        Raises => Raise(),
        Lowers => Lower(),
        Primes h => Prime(h.What),
        RunsWarm => RunWarm(),
        Starts => Start(),
        Cranks h => Crank(h.For),
        Stops => Stop(),
        Drives h => Drive(h.Far),
        PutsOut h => PutOut(h.What),
        WorksDash h => Work(h),
        StandsLevel => Well(this with { Faults = Faults.Except(Faults.OfType<MisreadStick>()) }),
        ShutsDoors => Well(this with { Faults = Faults.Remove(new DoorAjar()) }),
        TurnsKey h => Well(this with { KeyIsOn = h.On }),
        Charges => Well(this with { Charge = 1, Faults = Faults.Remove(new WeakBattery()) }),
        Frees h => Well(this with { Stuck = Stuck.Remove(h.What) }),
        FetchesRightCan h => Well(this with { Faults = Faults.Remove(new WrongInCan(h.What)) }),
        SeatsBelt h => Well(this with { Faults = Faults.Remove(new BesideItsGroove(h.What)) }),
        Inflates h => Well(this with { Tyres = Tyres.ToDictionary(t => t.Key, _ => h.To) }),
        _ => throw new ArgumentException($"Nobody has said what {hand.GetType().Name} does to a vehicle.", nameof(hand)),
    };

    private static T Known<TKey, T>(IReadOnlyDictionary<TKey, T> things, TKey id) where TKey : notnull =>
        things.TryGetValue(id, out var thing) ? thing : throw new ArgumentException($"This model has no “{id}”.");

    private static Answer Well(Vehicle vehicle) => new(vehicle, []);

    private Answer Cannot(string what, string says) => new(this, [new(HarmKind.OutOfReach, what, says)]);

    // What lies in front of something; null when the way is free.
    private Answer? Behind(string what, IEnumerable<AccessId> needs) => needs.FirstOrDefault(n => !IsOff(n)) is { IsEmpty: false } shut
        ? Cannot(what, $"{Sheet.Access[shut].Name} is in front of it") : null;

    // From the ground nobody reaches what is underneath, and from below nobody reaches what wants it down.
    private Answer? Elsewhere(string what, LiftNeed need) => need == LiftNeed.Up && !IsUp && Sheet.Stands == Stand.Lift
        ? Cannot(what, "the vehicle stands on its wheels")
        : need == LiftNeed.Down && IsUp ? Cannot(what, "the vehicle is up") : null;
}

/// <summary>How a fastener sits.</summary>
/// <param name="IsIn">It is in its thread.</param>
/// <param name="IsTight">It was tightened as it should be, or more.</param>
/// <param name="Torque">What it was last tightened to; null where it is not done by torque, or loose.</param>
/// <param name="Seals">The seals under it.</param>
/// <param name="Holds">The parts it holds.</param>
public sealed record Joint(bool IsIn, bool IsTight, Quantity<Torque>? Torque, ImmutableList<SealIn> Seals, ImmutableHashSet<PartId> Holds)
{
    /// <summary>How far it was turned after its face touched, in degrees.</summary>
    public decimal Turned { get; init; }

    /// <summary>Whether its thread gave way.</summary>
    public bool IsStripped { get; init; }

    /// <summary>Each of a group by its number, and one that is tightened in stages; one that is out is not there. Empty for every
    /// other.</summary>
    public ImmutableDictionary<int, Screw> Screws { get; init; } = ImmutableDictionary<int, Screw>.Empty;
}

/// <summary>A seal in its place.</summary>
/// <param name="Part">Which.</param>
/// <param name="Squeezed">How often it was tightened down, this time with it.</param>
public sealed record SealIn(PartId Part, int Squeezed);

/// <summary>Where a fluid is.</summary>
/// <param name="Inside">In the sump, case, reservoir or circuit.</param>
/// <param name="Filter">In filter and galleries.</param>
/// <param name="Pan">In the pan below.</param>
/// <param name="Floor">On the floor.</param>
/// <param name="Poured">What was poured in, less what was drawn off, since it last ran out.</param>
public sealed record Contents(Quantity<Volume> Inside, Quantity<Volume> Filter, Quantity<Volume> Pan, Quantity<Volume> Floor,
    Quantity<Volume> Poured);
