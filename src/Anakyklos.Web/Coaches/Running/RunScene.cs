using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Running;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Web.Wording;

namespace Anakyklos.Web.Coaches.Running;

/// <summary>The engine is started: why it may be, what makes it run, and the seconds until the oil light is out. One that does not fire is
/// left to rest for as long as its starter wants.</summary>
public sealed class RunScene : WorkScene
{
    private const string Here = "~/Coaches/Running/";

    /// <inheritdoc/>
    public override IReadOnlyList<string> Kinds => ["run"];

    /// <inheritdoc/>
    public override void Draw(LiftScene scene, Looker to)
    {
        var starting = Starting.Of(scene.Card, scene.Step);
        (scene.Number, scene.Unit) = ("", "");
        if (scene.IsDone)
            return;
        if (starting.CaughtAt is not null)
        {
            scene.Pictures = new(Middle: Here + "_Light.cshtml", Facts: 3);
            scene.Offer("Oil light is out", "lightOut");
            scene.Others.Add(new("Still on: switched off", "lightStays", "x"));
            foreach (var stays in starting.Spec.Stays)
                scene.Facts.Add(new(stays.Name, $"may stay on {stays.For}"));
            return;
        }
        if (starting.Untried)
        {
            scene.Pictures = new(Middle: Here + "_LightStayed.cshtml", Facts: 1);
            scene.Sends = ("found", "Looked at: it may be started");
            return;
        }
        scene.Pictures = new(Middle: Here + "_Start.cshtml", Facts: 3);
        if (starting.Next is { } move)
            scene.Offer(move.Expect.Length > 0 ? $"It shows {move.Expect}" : "Done", "startMove");
        else
            scene.Offer("It runs", "runs");
        if (scene.Card.Sheet.Starter is not { } starter)
            return;
        var cranking = Cranking.Of(scene.Card, scene.Step);
        scene.Others.Add(new("It does not fire", "cranked", "d"));
        scene.Facts.Add(new("Crank",
            $"No longer than {LiftWords.Hold(starter.Longest)} at a time, then {LiftWords.Hold(starter.Rest)} of rest"
            + (cranking.Times == 0 ? "" : $"; {(cranking.Left == 1 ? "one try" : $"{cranking.Left} tries")} left")));
    }

    /// <summary>Why it may start now: what is in, shut, full and clear. Each is so by what this card was told.</summary>
    /// <param name="card">A card on which nothing stands in the way of the start.</param>
    /// <param name="unit">In which volumes are told.</param>
    public static IReadOnlyList<string> MayStart(JobCard card, Unit<Volume> unit)
    {
        var sheet = card.Sheet;
        var shut = card.JointsOpened.Count();
        return
        [
            .. sheet.Fluids.Values.Where(f => f.SafeToStart is not null && card.Fluid(f.Id) is { Pours: > 0 }).Select(f =>
                $"{f.Name}: {card.Fluid(f.Id).Poured.Print(unit)} in, {f.SafeToStart!.Value.Print(unit)} needed"),
            .. shut == 0 ? Array.Empty<string>()
                : [shut == 1 ? "The joint that was open is tight" : shut == 2 ? "Both joints that were open are tight"
                    : $"All {shut} joints that were open are tight"],
            .. card.Steps.Where(s => s.Traits.Primes && card.State(s.Id).Status == StepStatus.Done)
                .Select(s => sheet.Parts.TryGetValue(s.What, out var part) ? $"{part.Name} is primed" : "Primed"),
            .. card.Steps.Any(s => s.Traits.LooksOver && !s.MovesLift && card.State(s.Id).Status == StepStatus.Done)
                ? ["Looked over: nothing lies in there"] : Array.Empty<string>(),
            sheet.Stands == Stand.Lift ? "It stands on its wheels. Nobody under it: look" : "It stands. Nobody at wheel or chain: look",
        ];
    }

    /// <inheritdoc/>
    public override string? Line(JobCard card, CardEvent e) => e switch
    {
        StartMoveMade m => card.StepEver(m.Step) is { } step && StartSpec.Of(step).Moves.ElementAtOrDefault(m.Number - 1) is { } move
            ? move.Do : $"Move {m.Number} of the start",
        EngineCaught => "Engine runs",
        OilLightOut o => o.Timed ? $"Oil light out within {o.After.TotalSeconds:0} s"
            : $"Oil light out in time, said {o.After.TotalSeconds:0} s after the start",
        OilLightStayed s => $"Oil light still on after {s.After.TotalSeconds:0} s; engine off",
        LightLookedInto l => $"Why the oil light stayed on: {l.Found}",
        EngineCranked c => $"Cranked, did not fire; the starter {(c.Cools ? "cools" : "rests")} for {LiftWords.Hold(c.Rests)}"
            + (c.Again.Count == 0 ? "" : $"; again first: {string.Join(", ", c.Again.Select(a => card.TitleOf(a)))}"),
        _ => null,
    };
}
