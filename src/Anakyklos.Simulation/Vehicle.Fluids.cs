using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Simulation;

/// <summary>What flows.</summary>
public sealed partial record Vehicle
{
    /// <summary>Where a gauge shows the fluid: 0 is the bottom mark, 1 the top mark.</summary>
    /// <param name="fluid">A fluid with marks.</param>
    /// <returns>The place as a share of the way between the marks; what the sheet gives for the top mark, or its amount, with a full filter
    /// stands at 1.</returns>
    /// <exception cref="ArgumentException">It has no marks.</exception>
    public decimal LevelOf(FluidId fluid)
    {
        var system = Known(Sheet.Fluids, fluid);
        var between = system.BetweenMarks?.Value ?? throw new ArgumentException($"{system.Name} has no marks.", nameof(fluid));
        return 1 - ((system.AtTopMark ?? system.Amount).Value - FilterOf(Sheet, system) - Fluids[fluid].Inside) / between;
    }

    /// <summary>What somebody who dips it reads: where it stands, unless the stick is misread.</summary>
    /// <param name="fluid">A fluid with marks.</param>
    /// <exception cref="ArgumentException">It has no marks.</exception>
    public decimal ReadsAs(FluidId fluid) =>
        LevelOf(fluid) + Faults.OfType<MisreadStick>().Where(m => m.What == fluid).Sum(m => m.By);

    // What stands in filter and galleries of a system that is pumped through a filter which can be taken out.
    private static Quantity<Volume> FilterOf(ModelSheet sheet, FluidSystem system) =>
        system.Pumped && sheet.Fasteners.Values.Any(f => f.System == system.Id && f.Holds.Count > 0)
            ? system.Amount.Value * Physics.InFilter : Quantity<Volume>.Zero;

    private static Contents Full(ModelSheet sheet, FluidSystem system) => new(system.Amount.Value - FilterOf(sheet, system),
        FilterOf(sheet, system), Quantity<Volume>.Zero, Quantity<Volume>.Zero, Quantity<Volume>.Zero);

    // Out of a can comes what is in it, if it stands where one pours.
    private Answer PourFrom(Can can, FluidSystem system, Pours hand)
    {
        if (hand.By.Length > 0 && Sheet.Stands == Stand.Lift && People.GetValueOrDefault(hand.By, Place.Side) is var stands
            && stands != can.Stands)
            return Cannot(hand.Can, $"it stands at the {can.Stands}, and {hand.By} is at the {stands}");
        if (can.Left < hand.Amount)
            return Cannot(hand.Can, $"only {can.Left} is in it");
        var poured = Pour(system, hand.Amount);
        if (poured.Harms.Any(h => h.Kind == HarmKind.OutOfReach))
            return poured;
        var next = poured.Vehicle with { Cans = Cans.SetItem(hand.Can, can with { Left = can.Left - hand.Amount }) };
        return new(next, can.Of == system.Id ? poured.Harms
            : [.. poured.Harms, new(HarmKind.WrongOil, system.Name, $"it came from the can of {Sheet.Fluids[can.Of].Name}")]);
    }

    // It goes in above and runs out below in its own time; where no plug is out it stays, and is more than anybody knows of.
    private Answer RunThrough(FluidSystem system, Quantity<Volume> amount)
    {
        var now = Fluids[system.Id];
        return Well(this with { Fluids = Fluids.SetItem(system.Id, now with { Inside = now.Inside + amount }) });
    }

    // What it does not hold runs over.
    private Answer FillPart(FluidSystem system, Quantity<Volume> amount)
    {
        var now = Fluids[system.Id];
        var room = Less(FilterOf(Sheet, system), now.Filter);
        var stays = amount < room ? amount : room;
        var next = this with
        {
            Fluids = Fluids.SetItem(system.Id, now with
            {
                Filter = now.Filter + stays, Poured = now.Poured + stays, Floor = now.Floor + (amount - stays),
            }),
        };
        return amount - stays > Physics.Drops
            ? new(next, [new(HarmKind.OnTheFloor, system.Name, $"{amount - stays} runs over the edge of the filter")]) : new(next, []);
    }

    private Answer Dispense(FluidSystem system, Dispenses hand)
    {
        var poured = Pour(system, hand.Amount);
        return hand.Suits || poured.Harms.Any(h => h.Kind == HarmKind.OutOfReach) ? poured
            : new(poured.Vehicle, [.. poured.Harms, new(HarmKind.WrongOil, system.Name, $"{hand.Product} went in")]);
    }

    private Answer Pour(FluidSystem system, Quantity<Volume> amount)
    {
        // It goes in through any way of its own that is open: a cap, a tube, a plug.
        var ways = system.Through.Select(IsOff).Concat(Sheet.Fasteners.Values.Where(f => f.Fills == system.Id)
            .Select(f => !Joints[f.Id].IsIn)).ToList();
        if (ways.Count > 0 && !ways.Contains(true))
            return Cannot(system.Name, "there is no way in");
        var now = Fluids[system.Id];
        var next = this with
        {
            Fluids = Fluids.SetItem(system.Id, now with { Inside = now.Inside + amount, Poured = now.Poured + amount }),
        };
        if (Brakes.TryGetValue(system.Id, out var brake))
            next = next with { Brakes = Brakes.SetItem(system.Id, brake with { Reservoir = Holds(system.Id) }) };
        List<Harm> harms = [.. Holes(system).Where(f => f.Fills != system.Id)
            .Select(f => new Harm(HarmKind.PouredThrough, system.Name, $"it runs out at the {f.Name}"))];
        if (Faults.Contains(new WrongInCan(system.Id)))
            harms.Add(new(HarmKind.WrongOil, system.Name, "another oil went in"));
        if (Runs && system.Pumped)
            harms.Add(new(HarmKind.OnTheFloor, system.Name, "it spits out of a running engine"));
        // A case that is filled to its hole lets go what is more.
        var over = next.Fluids[system.Id].Inside - system.Amount.Value;
        return system.FillBy == FillBy.Overflow && over > Quantity<Volume>.Zero ? next.Spill(system, over, false, harms) : new(next, harms);
    }

    private Answer DrawOff(FluidSystem system, Quantity<Volume> amount)
    {
        var now = Fluids[system.Id];
        if (amount > now.Inside)
            return Cannot(system.Name, "there is not so much in it");
        now = now with { Inside = now.Inside - amount, Poured = now.Poured - amount };
        return Well(this with { Fluids = Fluids.SetItem(system.Id, now) });
    }

    // Fluid leaves its system for the pan, or for the floor where there is none.
    private Answer Spill(FluidSystem system, Quantity<Volume> amount, bool fromFilter, List<Harm> harms)
    {
        if (amount <= Quantity<Volume>.Zero)
            return new(this, harms);
        var now = Fluids[system.Id];
        now = fromFilter ? now with { Filter = now.Filter - amount } : now with { Inside = now.Inside - amount };
        var name = PanUnder.GetValueOrDefault(system.Id);
        var pan = name is null ? null : Pans[name];
        var free = pan is null ? Quantity<Volume>.Zero : pan.Holds is { } holds ? Less(holds, pan.Filled) : amount;
        var caught = free < amount ? free : amount;
        now = now with { Pan = now.Pan + caught, Floor = now.Floor + (amount - caught) };
        if (amount - caught > Physics.Drops)
            harms.Add(new(HarmKind.OnTheFloor, system.Name, $"{amount - caught} on the floor{(pan is null ? "" : ": the pan is full")}"));
        var filled = pan is null ? Pans : Pans.SetItem(name!, pan with { In = pan.In.SetItem(system.Id,
            pan.In.GetValueOrDefault(system.Id) + caught) });
        return new(this with { Fluids = Fluids.SetItem(system.Id, now), Pans = filled }, harms);
    }

    // What the fluid runs out of by its own weight: its drain plug, or a pan that holds it.
    private IEnumerable<Fastener> Holes(FluidSystem system) => Sheet.Fasteners.Values.Where(f => !Joints[f.Id].IsIn
        && (f.Drains == system.Id || (f.System == system.Id && f.HoldsBack)));

    // Time passes: what is open underneath runs, a steady share of what is left in each moment.
    private Answer RunOut(DateTimeOffset at)
    {
        List<Harm> harms = [];
        var vehicle = Aged(at, harms);
        foreach (var system in Sheet.Fluids.Values)
        {
            if (Holes(system).FirstOrDefault() is not { } hole || Fluids[system.Id].Inside <= Quantity<Volume>.Zero)
                continue;
            var by = hole.RunsOut > TimeSpan.Zero ? hole.RunsOut / Physics.PartsOfRunningOut : Physics.RunsOutBy;
            var stays = (decimal)Math.Exp(-(at - Now) / by);
            var runs = Fluids[system.Id].Inside * (1 - stays);
            vehicle = vehicle.Spill(system, runs, false, harms).Vehicle;
            var left = vehicle.Fluids[system.Id] with { Poured = Quantity<Volume>.Zero };
            vehicle = vehicle with { Fluids = vehicle.Fluids.SetItem(system.Id, left) };
        }
        return new(vehicle, harms);
    }
}
