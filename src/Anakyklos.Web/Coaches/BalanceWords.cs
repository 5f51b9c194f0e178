using Anakyklos.Core.Balance;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Looks;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Web.Hosting;

namespace Anakyklos.Web.Coaches;

/// <summary>A level that can be read long before its step's turn.</summary>
/// <param name="Panel">The panel in which it is asked for.</param>
/// <param name="Command">The word of the command.</param>
/// <param name="Step">The step at which it is noted.</param>
/// <param name="Fluid">The fluid.</param>
public sealed record LookAhead(string Panel, string Command, SheetStep Step, FluidSystem Fluid);

/// <summary>What the balance of a fluid says, and where at the lift it is told and asked for.</summary>
public static class BalanceWords
{
    /// <summary>What was used, as a sentence without a full stop.</summary>
    /// <param name="use">The use.</param>
    /// <param name="volume">The viewer's unit.</param>
    /// <param name="distance">The viewer's unit.</param>
    public static string Of(FluidUse use, Unit<Volume> volume, Unit<Distance> distance)
    {
        var what = use.Used < Quantity<Volume>.Zero ? $"{(Quantity<Volume>.Zero - use.Used).Print(volume)} more than was filled"
            : $"{use.Used.Print(volume)} used";
        var topped = use.ToppedUp > Quantity<Volume>.Zero ? $", {use.ToppedUp.Print(volume)} of it topped up" : "";
        var rate = use.PerThousand is { } r && r > Quantity<Volume>.Zero ? $": {r.Print(volume)} in 1000 km" : "";
        return $"{what} in {OdometerText.Of(use.Over, distance)}{topped}{rate}{(use.ByGauge ? "" : ", as it came out")}";
    }

    /// <summary>Offers to dip what is let out later, where somebody stands at its gauge, and tells what was found.</summary>
    internal static void Tell(LiftScene scene, Viewer viewer, DateOnly today)
    {
        var (card, step) = (scene.Card, scene.Step);
        foreach (var fluid in card.FluidsDrained.Where(f => JobCard.IsReadFromOutside(f) && IsAt(card, step, f)))
            if (card.Fluid(fluid.Id).Found is { } found)
                scene.Facts.Insert(0, new("Dipped", card.UseOf(fluid, today) is { } use
                    ? $"{found}; {Of(use, viewer.VolumeUnits[0], viewer.DistanceUnit)}" : $"{found}"));
        foreach (var said in (card.Opened.SampledBefore ?? []).Where(s => s.Leads > LookOutcome.CarryOn))
            if (card.FluidsDrained.FirstOrDefault(f => f.Id == said.Fluid) is { } drained && IsAt(card, step, drained))
                scene.Facts.Insert(0, new("Laboratory", $"{said.Says}, {said.Day:d MMM yyyy}"));
        if (scene is { IsDone: false, Main: not null, InTheWay.Count: 0 } && card.ToDip is { } drain
            && IsAt(card, step, DrainedBy(card, drain)))
            scene.Others.Add(new("Dip it first", "dip", "r", true));
    }

    /// <summary>Offers to read what was poured before the first run on it, where somebody closes what it was poured through or is about to
    /// start.</summary>
    internal static void OfferToReadBeforeRun(LiftScene scene)
    {
        var step = scene.Step;
        if (scene is { IsDone: false, Main: not null, InTheWay.Count: 0 } && scene.Card.ToReadBeforeRun is { } level
            && (step.Traits.Engine == EngineUse.Starts
                || (step.Traits.Closes && scene.Card.Sheet.Fluids[level.What].Through.Any(a => step.What == a))))
            scene.Others.Add(new("Read it first", "early", "r", true));
    }

    /// <summary>Offers to pour a little through before the plug goes in, where somebody stands at the plug.</summary>
    internal static void OfferToRinse(LiftScene scene, DateTimeOffset now)
    {
        var step = scene.Step;
        if (scene is { IsDone: false, Main: not null, InTheWay.Count: 0 } && scene.Card.ToRinse(now) is { } drain
            && scene.Card.Sheet.Fasteners[drain.What] is var plug
            && (step.What == plug.Id || step.What == plug.Seal || step.Needs.Contains(plug.Id)))
            scene.Others.Add(new("Pour a little through", "rinse", "l", true));
    }

    /// <summary>Offers to measure in its pan what came out: before it is filled again, and before the pan is emptied.</summary>
    internal static void OfferToMeasure(LiftScene scene, DateTimeOffset now)
    {
        var step = scene.Step;
        if (scene is { IsDone: false, Main: not null, InTheWay.Count: 0 } && scene.Card.ToMeasure(now) is { } drain
            && (step.Traits.EmptiesPans || (step.Traits.Fills && step.What == DrainedBy(scene.Card, drain).Id)))
            scene.Others.Add(new("Measure the old oil", "came", "m", true));
    }

    /// <summary>What can be dipped before it is let out; null when nothing can.</summary>
    public static LookAhead? BeforeDrain(JobCard card) =>
        card.ToDip is { } drain ? new("dip", "dip", drain, DrainedBy(card, drain)) : null;

    /// <summary>What can be read before the first run on it; null when nothing can.</summary>
    public static LookAhead? BeforeRun(JobCard card) =>
        card.ToReadBeforeRun is { } level ? new("early", "gaugeBeforeRun", level, card.Sheet.Fluids[level.What]) : null;

    /// <summary>The fluid that a step lets out.</summary>
    public static FluidSystem DrainedBy(JobCard card, SheetStep drain) => card.Sheet.Fluids[card.Sheet.Fasteners[drain.What].Drains!.Value];

    // Before the engine is run warm, where the stick is pulled or the cap opened, and at the plug.
    private static bool IsAt(JobCard card, SheetStep step, FluidSystem fluid) => step.Traits.Engine == EngineUse.Warms
        || (step.Traits.Opens && (fluid.Through.Any(a => step.What == a)
            || card.Sheet.Fasteners.GetValueOrDefault(step.What)?.Drains == fluid.Id));
}
