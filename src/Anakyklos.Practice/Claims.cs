using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Wording;
using Anakyklos.Devices;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>Something that the card was told and that was not so.</summary>
/// <param name="At">When it was told.</param>
/// <param name="By">Who told it.</param>
/// <param name="Step">The step.</param>
/// <param name="Says">What the card was told, and how it was.</param>
public sealed record FalseClaim(DateTimeOffset At, string By, StepId Step, string Says);

/// <summary>Holds what the card was told against what hands had done by then.</summary>
internal static class Claims
{
    // A hundredth of a litre is what runs down a can.
    private static readonly Quantity<Volume> Drops = Quantity<Volume>.Of(0.06m, Volume.Litre);

    /// <summary>What of an event was not so when it was told; null where all of it was.</summary>
    /// <param name="card">The card before the event.</param>
    /// <param name="said">The event.</param>
    /// <param name="before">The run before the event.</param>
    internal static FalseClaim? Of(JobCard card, Recorded said, PracticeRun before)
    {
        if (said.Event is not IStepEvent e || card.Step(e.Step) is not { } step)
            return null;
        var vehicle = before.Vehicle.Until(said.At < before.Vehicle.Now ? before.Vehicle.Now : said.At).Vehicle;
        var hands = HandsOf.Event(card, said, vehicle);
        // What is opened and shut again for it is as it was.
        var between = hands.OfType<TakesOff>().Select(h => h.What).Intersect(hands.OfType<PutsOn>().Select(h => h.What)).ToHashSet();
        foreach (var claimed in hands.Where(h => h is not TakesOff { What: var off } || !between.Contains(off))
            .Where(h => h is not PutsOn { What: var on } || !between.Contains(on)))
            if (NotSo(claimed, vehicle, before) is { } how)
                return new(said.At, said.By.Name, step.Id, $"“{step.Title}”: {how}");
        if (Read(said.Event, step, vehicle, before.Lesson) is { } read)
            return new(said.At, said.By.Name, step.Id, $"“{step.Title}”: {read}");
        return said.Event is StepDone && LookedAt(step) is { } what && !Looked(before, what, card)
            ? new(said.At, said.By.Name, step.Id, $"“{step.Title}”: nobody had looked") : null;
    }

    // What was read off: a level, a pan, a point that is worn.
    private static string? Read(CardEvent said, SheetStep step, Vehicle vehicle, Lesson lesson) => said switch
    {
        GaugeRead e when Math.Abs(e.Level.Fraction - vehicle.LevelOf(step.What)) > ReadTo =>
            FormattableString.Invariant($"it stood at {vehicle.LevelOf(step.What) * 100:0} % of the way between the marks"),
        Measured when vehicle.Pans.Values.FirstOrDefault(p => p.In.ContainsKey(step.What)) is { In.Count: > 1 } =>
            "another fluid had run into the same pan",
        PointInspected e when lesson.Worn.FirstOrDefault(w => w.Step == step.Id && w.Point == e.Point) is { } worn
            && e.Outcome == PointOutcome.Good => $"it is {Measures.Told(step, worn)}",
        _ => null,
    };

    // As a share of the way between the marks: a finger's breadth on a stick.
    private const decimal ReadTo = 0.15m;

    private static string? NotSo(Happening claimed, Vehicle vehicle, PracticeRun run) => claimed switch
    {
        TakesOff h when !vehicle.IsOff(h.What) => $"{Low(vehicle.Sheet.Access[h.What].Name)} was still on",
        PutsOn h when vehicle.IsOff(h.What) => $"{Low(vehicle.Sheet.Access[h.What].Name)} was still off",
        Sets h when !vehicle.IsOff(h.What) => $"{Low(vehicle.Sheet.Access[h.What].Name)} was not in place",
        TakesAway h when vehicle.IsOff(h.What) => $"{Low(vehicle.Sheet.Access[h.What].Name)} was still in place",
        Undoes h when vehicle.Joints[h.What].IsIn => $"{Low(vehicle.Sheet.Fasteners[h.What].Name)} was still in",
        Tightens h when Loose(h, vehicle) is { } how => $"{Low(vehicle.Sheet.Fasteners[h.What].Name)} {how}",
        Fits h when !IsIn(h, vehicle) => $"{Low(vehicle.Sheet.Parts[h.What].Name)} {(h.Old ? "was not back in" : "was not a new one")}",
        Primes h when vehicle.Unprimed.Contains(h.What) => $"{Low(vehicle.Sheet.Parts[h.What].Name)} held no fuel",
        Raises when !vehicle.IsUp => "the vehicle stood on its wheels",
        Lowers when vehicle.IsUp => "the vehicle was up",
        SetsArms when !vehicle.ArmsSeen && !vehicle.IsUp => "nobody had looked at the lifting points",
        ClearsBelow when vehicle.PanUnder.Count > 0 => "the pan still stood below",
        ClearsAbove when vehicle.LiesAbove =>
            $"{string.Join(", ", vehicle.Lies.Where(l => l.Value == Place.Top).Select(l => l.Key))} lay there",
        Starts when !vehicle.Runs => "the engine did not run",
        Stops when vehicle.Runs => "the engine still ran",
        PutsOut h when vehicle.Lit.Contains(h.What) => "the indicator was still lit",
        Pours h when Poured(h, run) is { } how => how,
        _ => null,
    };

    private static string? Loose(Tightens claimed, Vehicle vehicle)
    {
        var joint = vehicle.Joints[claimed.What];
        if (!joint.IsIn)
            return "was out";
        var screw = claimed.Place > 0 && !joint.Screws.IsEmpty ? joint.Screws.GetValueOrDefault(claimed.Place) : null;
        var (torque, isTight) = screw is null ? (joint.Torque, joint.IsTight) : (screw.Torque, screw.IsTight);
        if (claimed.To is not { } to)
            return isTight ? null : "was loose";
        return torque is not { } really ? "was loose"
            : Math.Abs(really.In(Torque.NewtonMetre) - to.In(Torque.NewtonMetre)) > to.In(Torque.NewtonMetre) * Reads ? $"stood at {really}"
            : null;
    }

    // So far a wrench and whoever reads it may be off, as a share.
    private const decimal Reads = 0.04m;

    private static bool IsIn(Fits claimed, Vehicle vehicle) => Things.Holder(vehicle.Sheet, claimed.What) is not { } holder
        || (holder.Seal == claimed.What
            ? vehicle.Joints[holder.Id].Seals is [.., var last] && (claimed.Old || last.Squeezed == 0)
            : vehicle.Joints[holder.Id].Holds.Contains(claimed.What));

    // What went in since the card was told last that something did.
    private static string? Poured(Pours claimed, PracticeRun run)
    {
        var told = run.Log.OfType<CardTold>().Where(t => t.Said.Event is Poured p && run.Card.Step(p.Step)?.What == claimed.What)
            .Aggregate(Quantity<Volume>.Zero, (sum, t) => sum + ((Poured)t.Said.Event).Amount.Value);
        var went = run.Log.OfType<HandDid>().Where(d => d.Choice == $"fluid:{claimed.What}/pour")
            .Aggregate(Quantity<Volume>.Zero, (sum, d) => sum + Figures.Volume(d.Typed).Volume!.Value);
        return told + claimed.Amount > went + Drops ? $"{told + claimed.Amount} was told, {went} went in" : null;
    }

    // What a step asks to be looked at, that a press says was.
    private static ThingId? LookedAt(SheetStep step) => step.Traits.LooksAtJoints || step.Kind == "compare" ? step.What : (ThingId?)null;

    private static bool Looked(PracticeRun run, ThingId what, JobCard card) => run.Log.OfType<HandDid>().Any(d => d.Sees is not null
        && (what.IsEmpty || d.Choice.Contains(what.Text, StringComparison.Ordinal)
            || card.JointsOpened.Any(j => d.Choice.Contains(j.Id.Text, StringComparison.Ordinal))));

    private static string Low(string name) => Words.Low(name);
}
