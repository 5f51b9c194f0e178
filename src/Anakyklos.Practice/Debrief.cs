using System.Collections.Immutable;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Coaches.Draining;
using Anakyklos.Core.Coaches.Filling;
using Anakyklos.Core.Coaches.Inspecting;
using Anakyklos.Core.Coaches.Resetting;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Torques;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;

namespace Anakyklos.Practice;

/// <summary>What became of something that was to be noticed.</summary>
/// <param name="Notice">What.</param>
/// <param name="ShownAt">When it could have been seen first; null where the work never came so far.</param>
/// <param name="SeenAt">When somebody saw or felt it; null where nobody did.</param>
/// <param name="IsTold">Whether the card was told, where it must be.</param>
public sealed record Noticed(ToNotice Notice, DateTimeOffset? ShownAt, DateTimeOffset? SeenAt, bool IsTold)
{
    /// <summary>Whether nothing of it is missing.</summary>
    public bool IsWell => SeenAt is not null && IsTold;
}

/// <summary>A harm, and since when it could have been seen coming.</summary>
/// <param name="At">When it happened.</param>
/// <param name="Harm">What.</param>
/// <param name="Since">Since when what led to it could be seen; null where nothing was to be seen.</param>
public sealed record Harmed(DateTimeOffset At, Harm Harm, DateTimeOffset? Since)
{
    /// <summary>What was wrong and what came of it, without the thing.</summary>
    public string Says => Harm.Kind switch
    {
        HarmKind.Leak => $"{Harm.Says}, and it leaks",
        HarmKind.DrivenOpen => $"{Harm.Says}, and the vehicle was driven",
        HarmKind.LeftInBay or HarmKind.WrongPart or HarmKind.BeltThrown => $"{Harm.Says}, and the engine ran",
        _ => Harm.Says,
    };
}

/// <summary>A look back on a run: what was harmed, missed, claimed, stopped and measured, and what could be done better.</summary>
/// <param name="Harms">What was harmed, oldest first; the same thing once.</param>
/// <param name="Noticed">What was to be noticed.</param>
/// <param name="Claims">What the card was told and was not so.</param>
/// <param name="Stopped">Where a gate stopped somebody.</param>
/// <param name="Readings">What was read and measured, in its order; what came out the same again stands once.</param>
/// <param name="Took">From the first thing that happened to the last.</param>
/// <param name="Planned">What the plan of the card had taken.</param>
/// <param name="Order">The steps in the order in which they were done.</param>
/// <param name="Best">The steps in their best order.</param>
/// <param name="IsEnded">Whether the card is signed.</param>
/// <param name="IsPassed">Whether the lesson is done well.</param>
/// <param name="Better">At most three things to do better, the gravest first.</param>
public sealed record Debrief(IReadOnlyList<Harmed> Harms, IReadOnlyList<Noticed> Noticed, IReadOnlyList<FalseClaim> Claims,
    IReadOnlyList<GateStopped> Stopped, IReadOnlyList<string> Readings, TimeSpan Took, TimeSpan Planned, IReadOnlyList<SheetStep> Order,
    IReadOnlyList<SheetStep> Best, bool IsEnded, bool IsPassed, IReadOnlyList<string> Better)
{
    private const int MostBetter = 3;

    /// <summary>Looks back.</summary>
    /// <param name="run">A run, ended or not.</param>
    public static Debrief Of(PracticeRun run)
    {
        var (shown, claims, seen) = (new Dictionary<ThingId, DateTimeOffset>(), new List<FalseClaim>(), new HashSet<(HarmKind, string)>());
        foreach (var (before, entry) in run.Moments())
        {
            foreach (var notice in run.Lesson.Notice.Where(n => !shown.ContainsKey(n.What) && Shows(before.Vehicle, n.What)))
                shown[notice.What] = entry.At;
            if (entry is not CardTold told || Practice.Claims.Of(before.Card, told.Said, before) is not { } claim)
                continue;
            var same = claims.FindIndex(c => (c.Step, c.Sort) == (claim.Step, claim.Sort));
            if (same < 0)
                claims.Add(claim);
            else
                claims[same] = claim with { At = claims[same].At };
        }
        IReadOnlyList<Noticed> noticed = [.. run.Lesson.Notice.Select(n => new Noticed(n, shown.GetValueOrDefault(n.What) is var at
            && at == default ? null : at, run.Known.TryGetValue(n.What, out var known) ? known : null, !n.ToCard || Told(run, n.What)))];
        IReadOnlyList<Harmed> harms = [.. run.Harms.Where(h => seen.Add((h.Harm.Kind, h.Harm.What))).Select(h => new Harmed(h.At, h.Harm,
            shown.Values.Where(s => s <= h.At).Select(s => (DateTimeOffset?)s).Min()))];
        var done = run.Log.OfType<CardTold>().SelectMany(t => t.Said.Event.Frozen?.Effects ?? []).OfType<StepEnds>().Select(e => e.Step)
            .Distinct().Select(run.Card.Step).OfType<SheetStep>().ToList();
        var begun = run.Start.Card;
        var plan = begun.PlanFrom(run.Card.History[0].At);
        var isPassed = run.Card.Signature is not null && claims.Count == 0 && noticed.All(n => n.IsWell)
            && harms.All(h => !run.Lesson.Never.Contains(h.Harm.Kind));
        return new(harms, noticed, claims, [.. run.Log.OfType<GateStopped>()], [.. Read(run)],
            (run.Log.IsEmpty ? run.Card.History[0].At : run.Log[^1].At) - run.Card.History[0].At, plan.Total, done, [.. begun.Steps],
            run.Card.Signature is not null, isPassed, [.. ToBetter(run, harms, noticed, claims).Take(MostBetter)]);
    }

    // What is hidden shows itself only where and when it can; what is felt, once somebody can lay a hand on it.
    private static bool Shows(Vehicle vehicle, ThingId what) => vehicle.SeenOf(what) is not null
        || vehicle.Sheet.Fasteners.TryGetValue(what, out var fastener) && fastener.Needs.All(vehicle.IsOff)
            && (vehicle.Stuck.Contains(fastener.Id) || vehicle.Joints[fastener.Id] is { IsIn: true, IsTight: false, IsStripped: true })
        || vehicle.Faults.OfType<MisreadStick>().Any(m => m.What.Text == what.Text)
        || what.Text.Contains('/')
        || vehicle.Sheet.Resets.ContainsKey(what) && vehicle.Display.Reset == (ResetId)what && vehicle.Lit.Contains(what)
            && vehicle.Display.Shows.Length > 0;

    // A finding, a look answered otherwise than usual, or a job given up, after it was seen.
    private static bool Told(PracticeRun run, ThingId what) => run.Known.TryGetValue(what, out var seen) && run.Log.OfType<CardTold>()
        .Any(t => t.At >= seen && t.Said.Event is FindingNoted or JobDropped or DeviationTaken or LeakFound or ResetFailed
            or PointInspected { Outcome: not PointOutcome.Good });

    private static IEnumerable<string> Read(PracticeRun run) => run.Log.OfType<HandDid>().Where(d => d.Sees is not null
        && (d.Choice.EndsWith("/read", StringComparison.Ordinal) || d.Choice.EndsWith("/measure", StringComparison.Ordinal)
            || d.Choice.Contains("/tighten", StringComparison.Ordinal))).Select(d => $"{Words.Capital(d.Words)}: {d.Sees!.Says}")
        .GroupBy(r => r).Select(r => r.Count() == 1 ? r.Key : $"{r.Key} ({r.Count()} times)");

    private static IEnumerable<string> ToBetter(PracticeRun run, IReadOnlyList<Harmed> harms, IReadOnlyList<Noticed> noticed,
        IReadOnlyList<FalseClaim> claims)
    {
        foreach (var h in harms.OrderByDescending(h => run.Lesson.Never.Contains(h.Harm.Kind)))
            yield return $"{h.Harm.What}: {h.Says}.";
        foreach (var n in noticed.Where(n => n.SeenAt is null))
            yield return n.ShownAt is null ? $"The work never came so far that it showed: {Words.Low(n.Notice.Says)}."
                : $"Nobody looked where it was to be seen: {Words.Low(n.Notice.Says)}.";
        foreach (var n in noticed.Where(n => n is { SeenAt: not null, IsTold: false }))
            yield return $"It was seen, and the card does not know: {Words.Low(n.Notice.Says)}.";
        foreach (var alike in claims.GroupBy(c => c.How).OrderByDescending(g => g.Max(c => c.Weight)))
            yield return alike.Count() == 1 ? $"The card was told what was not so. {alike.First().Says}."
                : $"The card was told what was not so, {alike.Count()} times. {alike.First().Says}.";
        if (run.Card.Signature is null)
            yield return "The ring is not closed: the card is not signed.";
    }
}

/// <summary>A run told again, thing by thing.</summary>
public static class Retelling
{
    /// <summary>How the bay stood before each thing that happened.</summary>
    /// <param name="run">The run.</param>
    public static IEnumerable<(PracticeRun Before, PracticeEntry Entry)> Moments(this PracticeRun run)
    {
        var before = run.Start;
        foreach (var entry in run.Log)
        {
            yield return (before, entry);
            before = before.Again(entry);
        }
    }

    /// <summary>What happened once happens again.</summary>
    /// <param name="before">How the bay stood before it.</param>
    /// <param name="entry">What happened.</param>
    public static PracticeRun Again(this PracticeRun before, PracticeEntry entry) => entry switch
    {
        HandDid { Choice: PracticeRun.Waiting } waited => before.Wait(waited.By, waited.At - before.Now),
        HandDid did => before.Do(did.By, did.Choice, did.Typed, did.At).Run,
        CardTold told => before.Hearing(told),
        GateStopped stopped => before.Hearing(stopped),
        _ => throw new ArgumentException($"Nobody has said how {entry.GetType().Name} is told again.", nameof(entry)),
    };
}
