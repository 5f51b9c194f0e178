using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation;

/// <summary>The engine, the lift, and the road.</summary>
public sealed partial record Vehicle
{
    private Answer Set(Access hold) => !hold.HoldsVehicle ? Cannot(hold.Name, "it holds nothing")
        : Elsewhere(hold.Name, LiftNeed.Down) ?? Well(this with { Off = Off.SetItem(hold.Id, hold.Count) });

    private Answer TakeAway(Access hold)
    {
        if (!hold.HoldsVehicle || !IsOff(hold.Id))
            return Cannot(hold.Name, "it is not there");
        return new(this with { Off = Off.Remove(hold.Id) },
            IsUp ? [new(HarmKind.RaisedUnsafely, hold.Name, "taken away under a raised vehicle")] : []);
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
        return new(this with { IsUp = true }, harms);
    }

    private Answer Lower()
    {
        if (!IsUp)
            return Cannot("Lift", "it is down already");
        List<Harm> harms = PanUnder ? [new(HarmKind.LoweredOnto, "Pan", "it is crushed")] : [];
        foreach (var open in Sheet.Fasteners.Values.Where(f => !Joints[f.Id].IsIn && (f.Lift ?? f.Place.UsualLift()) == LiftNeed.Up))
            harms.Add(new(HarmKind.LoweredOnto, open.Name, "it is still out, and the pan cannot follow"));
        return new(this with { IsUp = false, ArmsSeen = false }, harms);
    }

    private Answer Start()
    {
        if (Runs)
            return Cannot("Engine", "it runs already");
        var fluids = Fluids;
        foreach (var system in Sheet.Fluids.Values.Where(f => f.Pumped))
        {
            // The pump fills filter and galleries from the sump.
            var now = fluids[system.Id];
            var draws = FilterOf(Sheet, system) - now.Filter;
            fluids = fluids.SetItem(system.Id, now with { Inside = now.Inside - draws, Filter = now.Filter + draws });
        }
        var next = this with { Runs = true, RanAt = Now, Fluids = fluids };
        return new(next, [.. next.WhileRunning()]);
    }

    private IEnumerable<Harm> WhileRunning()
    {
        if (LiesAbove)
            yield return new(HarmKind.LeftInBay, "Engine bay", "a tool lies in it");
        foreach (var part in WrongIn.Where(p => HolderOf(p) is { System: not null } or { Holds.Count: > 0 }))
            yield return new(HarmKind.WrongPart, Sheet.Parts[part].Name, "it lets too little through");
        foreach (var part in Unprimed)
            yield return new(HarmKind.CrankedUnprimed, Sheet.Parts[part].Name, "it cranks on air");
        foreach (var system in Sheet.Fluids.Values)
        {
            var now = Fluids[system.Id];
            var safe = system.SafeToStart?.Value
                ?? (system.Pumped ? system.Amount.Value * Physics.LeastWithoutWord : Quantity<Volume>.Zero);
            if (now.Inside + now.Filter < safe * Physics.DrawsAirBelow)
                yield return new(HarmKind.RunDry, system.Name, $"only {now.Inside + now.Filter} is in");
            if (system is { Pumped: true, BetweenMarks: not null } && LevelOf(system.Id) > 1 + Physics.FrothsAbove)
                yield return new(HarmKind.Overfull, system.Name, "it froths");
        }
        foreach (var fastener in Sheet.Fasteners.Values.Where(f => f.Drains is not null || f.System is not null))
            if (LeaksAt(fastener) is { } leak)
                yield return new(HarmKind.Leak, fastener.Name, leak);
        foreach (var access in Sheet.Access.Values.Where(a => (a.ClosedToRun || a.Intake) && !a.HoldsVehicle && IsOff(a.Id)))
            yield return new(HarmKind.RunOpen, access.Name, "it is off");
    }

    private Answer Drive()
    {
        if (IsUp)
            return Cannot("Vehicle", "it is up");
        var harms = (Runs ? [] : WhileRunning()).ToList();
        foreach (var fastener in Sheet.Fasteners.Values.Where(f => Joints[f.Id] is { IsIn: false } or { IsTight: false }))
            harms.Add(new(HarmKind.DrivenOpen, fastener.Name, "it is not tight"));
        if (PedalIsSoft)
            harms.Add(new(HarmKind.SoftPedal, "Brake", "the pedal goes to the floor"));
        foreach (var hold in Sheet.Access.Values.Where(a => a.HoldsVehicle && IsOff(a.Id)))
            harms.Add(new(HarmKind.DrivenOpen, hold.Name, "it is still in place"));
        return new(this with { Runs = false, RanAt = Now, ArmsSeen = false }, harms);
    }
}
