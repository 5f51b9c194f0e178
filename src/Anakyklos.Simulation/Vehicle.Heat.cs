using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation;

/// <summary>Heat, oil pressure, current and the dash.</summary>
public sealed partial record Vehicle
{
    /// <summary>How far the engine is above its surroundings, in kelvin.</summary>
    private decimal Warmth { get; init; }

    /// <summary>The engine with its oil and coolant.</summary>
    public Temperature EngineHeat => Temperature.Of(Physics.Surroundings + Warmth, TemperatureScale.Celsius);

    /// <summary>Whether the engine is hot metal: a hand cannot stay on it, and what is under pressure scalds.</summary>
    public bool IsHot => Runs || Warmth > Physics.TooHotToTouch;

    /// <summary>What is left in the battery, as a share of its charge.</summary>
    public decimal Charge { get; private init; } = 1;

    /// <summary>Whether anything electric works: nothing that cuts it off is open.</summary>
    public bool HasCurrent => !Sheet.Access.Values.Any(a => a.CutsCurrent && IsOff(a.Id));

    /// <summary>Whether the key is on.</summary>
    public bool KeyIsOn { get; private init; }

    /// <summary>From when a running engine has oil pressure: filter and galleries must fill first. Null when it has none.</summary>
    public DateTimeOffset? PressureFrom { get; private init; }

    /// <summary>How long the engine has run without oil pressure in its life here.</summary>
    public TimeSpan RanDryFor { get; private init; }

    /// <summary>Whether the oil light burns.</summary>
    public bool OilLight => KeyIsOn && HasCurrent && (!(Runs && PressureFrom <= Now) || Faults.Contains(new TrappedWire()));

    /// <summary>The other lights that its sheet names at the start, and whether they burn: with the key on, as long as they may.</summary>
    public IReadOnlyList<(string Name, bool Burns)> WarningLights => [.. Sheet.Steps.Values.Where(s => s.Spec is StartSpec)
        .SelectMany(s => StartSpec.Of(s).Stays).Select(l => (l.Name, KeyIsOn && HasCurrent))];

    /// <summary>What the dash shows now: nothing without key and current; else the indicators that are lit, and the oil light.</summary>
    public IReadOnlyList<string> Dash => !KeyIsOn || !HasCurrent ? []
        : [.. Lit.Select(l => Sheet.Resets[l].Name).Order(StringComparer.Ordinal), .. OilLight ? ["Oil light"] : Array.Empty<string>()];

    // What the time until then does to heat, charge and bearings.
    private Vehicle Aged(DateTimeOffset at, List<Harm> harms)
    {
        var passes = at - Now;
        var by = Runs ? Physics.WarmsBy : (Sheet.CoolsIn > TimeSpan.Zero ? Sheet.CoolsIn : Physics.CoolsIn) / Physics.CoolingTimes;
        var stays = (decimal)Math.Exp(-passes / by);
        var goal = Runs ? Physics.Warm : 0;
        var dry = Runs ? (PressureFrom is { } from && from < at ? from : at) - Now : TimeSpan.Zero;
        if (dry > Physics.FilmCarries)
            harms.Add(new(HarmKind.RunDry, "Engine", FormattableString.Invariant($"no oil pressure for {dry.TotalSeconds:0} s")));
        return this with
        {
            Now = at,
            Warmth = Math.Round(goal + (Warmth - goal) * stays, 6),
            Charge = Runs ? Math.Min(1, Charge + Physics.ChargesByHour * (decimal)passes.TotalHours) : Charge,
            RanDryFor = RanDryFor + (dry > TimeSpan.Zero ? dry : TimeSpan.Zero),
            Tyres = Tyres.ToDictionary(t => t.Key, t => Faults.Contains(new SlowPuncture(t.Key))
                ? Less(t.Value, Quantity<Pressure>.Of(Physics.NailLetsOut * (decimal)passes.TotalHours, Pressure.Bar)) : t.Value),
        };
    }

    // Why nothing turns over; null when it does.
    private Answer? WithoutCurrent(string what) => HasCurrent ? null : Cannot(what, "there is no current");

    // Why the starter does not turn it over; null when it does.
    private Answer? WithoutTurning() => Runs ? Cannot("Engine", "it runs already")
        : WithoutCurrent("Engine") ?? (Charge >= Physics.CrankNeeds ? null
            : new(this with { KeyIsOn = true, Charge = Math.Max(0, Charge - Physics.CrankTakes) },
                [new(HarmKind.OutOfReach, "Engine", "it turns slowly and does not catch")]));

    private Answer Start()
    {
        if (WithoutTurning() is { } not)
            return not;
        var (fluids, draws) = (Fluids, Quantity<Volume>.Zero);
        foreach (var system in Sheet.Fluids.Values.Where(f => f.Pumped))
        {
            // The pump fills filter and galleries from the sump.
            var now = fluids[system.Id];
            draws = FilterOf(Sheet, system) - now.Filter;
            fluids = fluids.SetItem(system.Id, now with { Inside = now.Inside - draws, Filter = now.Filter + draws });
        }
        var next = this with { Runs = true, KeyIsOn = true, Fluids = fluids, Charge = Charge - Physics.CrankTakes };
        Harm[] harms = [.. next.WhileRunning()];
        var fills = TimeSpan.FromSeconds((double)(draws.In(Volume.Litre) / Physics.PumpBrings));
        return new(next with { PressureFrom = harms.Any(h => h.Kind == HarmKind.RunDry) ? null : Now + fills }, harms);
    }

    private Answer Crank(TimeSpan lasts)
    {
        if (lasts <= TimeSpan.Zero)
            throw new ArgumentOutOfRangeException(nameof(lasts), lasts, "Cranking takes a time.");
        if (WithoutTurning() is { } not)
            return not;
        List<Harm> harms = [.. Unprimed.Select(p => new Harm(HarmKind.CrankedUnprimed, Sheet.Parts[p].Name, "it cranks on air"))];
        if (lasts > Physics.StarterBears)
            harms.Add(new(HarmKind.StarterBurnt, "Starter",
                FormattableString.Invariant($"worked for {lasts.TotalSeconds:0} s: it smells")));
        var fluids = Fluids;
        var brings = Quantity<Volume>.Of((decimal)lasts.TotalSeconds * Physics.PumpBrings * Physics.CrankPumps, Volume.Litre);
        foreach (var system in Sheet.Fluids.Values.Where(f => f.Pumped))
        {
            var now = fluids[system.Id];
            var room = FilterOf(Sheet, system) - now.Filter;
            var draws = new[] { brings, room, now.Inside }.Min();
            fluids = fluids.SetItem(system.Id, now with { Inside = now.Inside - draws, Filter = now.Filter + draws });
            if (now.Inside + now.Filter <= Physics.Film && lasts > Physics.FilmCarries)
                harms.Add(new(HarmKind.RunDry, system.Name, "the pump draws air"));
        }
        var takes = Physics.CrankTakes * (decimal)(lasts / Physics.CatchesIn);
        return new(this with { KeyIsOn = true, Fluids = fluids, Charge = Math.Max(0, Charge - takes) }, harms);
    }

    private Answer Stop() => Well(this with { Runs = false, KeyIsOn = false, PressureFrom = null });

    private Answer RunWarm()
    {
        var started = Start();
        return started.Vehicle.Runs && !Runs ? new(started.Vehicle.Stop().Vehicle with { Warmth = Physics.Warm }, started.Harms) : started;
    }

    private Answer PutOut(ResetId what)
    {
        if (WithoutCurrent(Known(Sheet.Resets, what).Name) is { } dead)
            return dead;
        var fails = new ResetFailsOnce(what);
        return Well(Faults.Contains(fails) ? this with { Faults = Faults.Remove(fails) } : this with { Lit = Lit.Remove(what) });
    }

    // A pump that the key runs needs current; a hand primer and a suction hose do not.
    private Answer Prime(PartId what) => (Sheet.Steps.Values.Any(s => s.Kind == "prime" && s.What == what && s.Place == Place.Cab)
        ? WithoutCurrent("Fuel pump") : null) ?? Well(this with { Unprimed = Unprimed.Remove(what) });
}
