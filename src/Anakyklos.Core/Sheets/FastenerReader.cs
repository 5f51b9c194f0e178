using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;

namespace Anakyklos.Core.Sheets;

/// <summary>Reads what a sheet says of a fastener: how it is tightened, and where each of several sits.</summary>
internal static class FastenerReader
{
    private const int MostPlaces = 99;

    // Wider than this no wrench would be set by it.
    private const int Widest = 3;

    internal static Fastener Read(FastenerId id, SheetCursor c)
    {
        var group = c.Part("group", ReadGroup, required: false);
        var count = c.Whole("count", 1, MostPlaces, group?.Places.Count ?? 1, required: false);
        if (group is not null && count != group.Places.Count)
            c.Complain("count", $"The group has {group.Places.Count} places, not {count}.");
        return new()
        {
            Id = id,
            Name = c.Text("name"),
            Thread = c.Text("thread", false),
            Material = c.Text("material"),
            Drive = c.Text("drive"),
            Tightening = c.Sourced("torque", ReadTightening),
            Seal = c.Id<PartId>("seal"),
            Holds = c.Ids<PartId>("holds"),
            TooMuch = c.Word<OverTorqueRule>("tooMuch"),
            Drains = c.Id<FluidId>("drains"),
            Fills = c.Id<FluidId>("fills"),
            System = c.Id<FluidId>("system") ?? c.Id<FluidId>("drains"),
            RunsOut = c.Duration("runsOut", false) ?? TimeSpan.Zero,
            Place = c.Word("place", Place.Below, required: false),
            Lift = c.Has("lift") ? c.Word<LiftNeed>("lift") : null,
            Takes = c.Duration("takes", false) ?? TimeSpan.FromMinutes(2),
            Count = count,
            Order = c.Text("order", false),
            Group = group,
            CrowFoot = c.Part("crowFoot", f => new CrowFoot(f.Amount<Length>("length"), f.Whole("degrees", 0, 180)), required: false),
            Notes = c.List("notes", n => new StepNote(n.Text("label"), n.Text("text"))),
            Warning = c.Text("warning", false),
            Cautions = c.Texts("cautions"),
            Cold = c.Flag("cold"),
            Drips = c.Flag("drips"),
            HoldsBack = c.Flag("holdsBack"),
            Carries = c.Flag("carries"),
            Needs = c.Ids<AccessId>("needs"),
        };
    }

    private static FastenerGroup ReadGroup(SheetCursor c)
    {
        var order = c.Word<TighteningOrder>("order");
        var wheels = c.Texts("at");
        var circle = c.Has("circle") ? c.Whole("circle", 2, MostPlaces, 2) : 0;
        var listed = c.List("places", p => (X: p.Whole("x", 0, 100), Y: p.Whole("y", 0, 100)), required: circle == 0);
        if (circle > 0 && listed.Count > 0)
            c.Complain("circle", "Give either a circle or the places.");
        if (wheels.Count * Math.Max(circle, listed.Count) > MostPlaces)
            c.Complain("at", $"{MostPlaces} places are the most.");
        IReadOnlyList<FastenerPlace> one = circle > 0 ? [.. FastenerGroup.Circle(circle)]
            : [.. listed.Select((p, i) => new FastenerPlace(i + 1, p.X, p.Y))];
        if (listed.Distinct().Count() < listed.Count)
            c.Complain("places", "Two of them sit at the same place.");
        if (wheels.Distinct().Count() < wheels.Count)
            c.Complain("at", "One of them is named twice.");
        IReadOnlyList<int> passes = c.Has("passes") ? c.Wholes("passes", 0, 100) : [100];
        if (passes.Count == 0 || passes[^1] != 100 || passes.Zip(passes.Skip(1)).Any(p => p.First >= p.Second))
        {
            c.Complain("passes", "Write shares in percent that rise to 100, such as [30, 60, 100]; 0 first means all in by hand.");
            passes = [100];
        }
        var last = c.Wholes("lastOut", 1, MostPlaces);
        if (last.Any(n => n > one.Count))
            c.Complain("lastOut", "There is no fastener of that number.");
        // A group that could not be read has a place, so that reading goes on.
        return FastenerGroup.Of(order, one.Count > 0 ? one : [new(1, 50, 50)], wheels, passes, !c.Flag("oneByOne"), last);
    }

    private static TighteningSpec ReadTightening(SheetCursor c)
    {
        if (c.Has("byHand"))
            return new ByHand(c.Text("byHand"));
        if (c.Has("turnAfterContact"))
            return new TurnAfterContact(c.Whole("turnAfterContact", 1, 720) / 360m);
        return c.Has("stages") ? ReadStages(c) : ReadTorque(c);
    }

    private static TighteningSpec ReadStages(SheetCursor c)
    {
        var stages = c.List("stages", s => s.Has("turn") ? new TurnFurther(s.Whole("turn", 1, 720)) : (TighteningSpec)ReadTorque(s), true);
        if (stages.Count < 2 || stages[0] is not ToTorque)
            c.Complain("stages", "Write two stages at least, the first of them a torque.");
        for (var i = 1; i < stages.Count; i++)
            if (stages[i] is ToTorque { Target: var target } && stages.Take(i).OfType<ToTorque>().LastOrDefault() is { } before
                && target <= before.Target)
                c.Complain("stages", $"{target} is not more than {before.Target} in the stage before it.");
        return new InStages(stages);
    }

    private static ToTorque ReadTorque(SheetCursor c)
    {
        var (low, high) = (c.Amount<Torque>("low"), c.Amount<Torque>("high"));
        if (high > TorqueWrench.Strongest)
            c.Complain("high", $"{high} is more than any joint of a vehicle takes. Check the number and its unit.");
        else if (high > low * Widest)
            c.Complain("high", $"{high} is more than {Widest} times {low}: nobody could set a wrench by that. Check the numbers.");
        if (!c.Has("is"))
        {
            if (low >= high || low <= Quantity<Torque>.Zero)
                c.Complain("low", $"A range goes up from above zero: {low} to {high} does not.");
            return new((low + high) / 2, low, high, IsRange: true);
        }
        var target = c.Amount<Torque>("is");
        if (!(low <= target && target <= high))
            c.Complain("is", $"{target} does not lie between low ({low}) and high ({high}).");
        return new(target, low, high);
    }
}
