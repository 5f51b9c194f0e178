using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation;

/// <summary>The engine, and the road.</summary>
public sealed partial record Vehicle
{
    private IEnumerable<Harm> WhileRunning()
    {
        if (LiesAbove)
            yield return new(HarmKind.LeftInBay, "Engine bay",
                $"{string.Join(", ", Lies.Where(l => l.Value == Place.Top).Select(l => l.Key))} lies in it");
        foreach (var part in WrongIn.Where(p => HolderOf(p) is { System: not null } or { Holds.Count: > 0 }))
            yield return new(HarmKind.WrongPart, Sheet.Parts[part].Name, "it lets too little through");
        foreach (var belt in Faults.OfType<BesideItsGroove>())
            yield return new(HarmKind.BeltThrown, Sheet.Parts[belt.What].Name, "it runs off its pulleys");
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
                yield return new(HarmKind.Overfull, system.Name,
                    LevelOf(system.Id) > 1 + Physics.BlowsAbove ? "it blows a seal" : "it froths");
        }
        foreach (var fastener in Sheet.Fasteners.Values.Where(f => f.Drains is not null || f.System is not null))
            if (LeaksAt(fastener) is { } leak)
                yield return new(HarmKind.Leak, fastener.Name, leak.Why) { Grade = leak.Grade };
        foreach (var access in Sheet.Access.Values.Where(a => (a.ClosedToRun || a.Intake) && !a.HoldsVehicle && IsOff(a.Id)))
            yield return new(HarmKind.RunOpen, access.Name, "it is off");
    }

    private Answer Drive(Quantity<Distance>? far)
    {
        if (far is { } way && way <= Quantity<Distance>.Zero)
            throw new ArgumentOutOfRangeException(nameof(far), far, "A drive takes a way.");
        if (IsUp)
            return Cannot("Vehicle", "it is up");
        if (!Runs && WithoutCurrent("Engine") is { } dead)
            return dead;
        var harms = (Runs ? [] : WhileRunning()).ToList();
        foreach (var fastener in Sheet.Fasteners.Values.Where(f => Joints[f.Id] is { IsIn: false } or { IsTight: false }))
            harms.Add(new(HarmKind.DrivenOpen, fastener.Name, "it is not tight"));
        if (PedalIsSoft)
            harms.Add(new(HarmKind.SoftPedal, "Brake", "the pedal goes to the floor"));
        foreach (var hold in Sheet.Access.Values.Where(a => a.HoldsVehicle && IsOff(a.Id)))
            harms.Add(new(HarmKind.DrivenOpen, hold.Name, "it is still in place"));
        foreach (var tyre in Tyres.Where(t => t.Value < Quantity<Pressure>.Of(Physics.TyreNeeds, Pressure.Bar)))
            harms.Add(new(HarmKind.FlatTyre, tyre.Key, $"only {tyre.Value} in it"));
        // An engine under load warms with the way.
        var drives = far ?? Physics.WarmsOn * Physics.WarmAfter;
        var stays = (decimal)Math.Exp(-(double)(drives / Physics.WarmsOn));
        var warmth = far is null ? Physics.Warm : Math.Round(Physics.Warm + (Warmth - Physics.Warm) * stays, 6);
        return new(this with
        {
            Runs = false, KeyIsOn = false, Warmth = warmth, ArmsSeen = false, PressureFrom = null, Driven = Driven + drives,
        }, harms);
    }
}
