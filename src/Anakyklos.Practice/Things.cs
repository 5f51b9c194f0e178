using System.Globalization;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;
using Anakyklos.Simulation;
using static Anakyklos.Practice.Reach;

namespace Anakyklos.Practice;

/// <summary>What is taken off, undone, held against each other, fitted and tightened.</summary>
internal static class Things
{
    internal static IEnumerable<InReach> Accesses(AtHand at) => at.Sheet.Access.Values
        .Where(a => at.Reaches(a.Place) && IsFree(at, a.Needs)).Select(a => Access(at, a));

    internal static IEnumerable<InReach> Fasteners(AtHand at) => at.Sheet.Fasteners.Values
        .Where(f => at.Reaches(f.Place) && IsFree(at, f.Needs)).Select(f => Fastener(at, f));

    internal static IEnumerable<InReach> Parts(AtHand at) => at.Sheet.Parts.Values
        .Where(p => Holder(at.Sheet, p.Id) is null && at.Reaches(p.Place) && IsFree(at, p.Needs))
        .Select(p => new InReach($"part:{p.Id}", p.Name, "", [.. PutIn(at, $"part:{p.Id}", p), .. Compare(at, $"part:{p.Id}", p)]));

    /// <summary>A belt is looked along once it is tensioned.</summary>
    internal static IEnumerable<InReach> Belts(AtHand at) => at.Sheet.Maps.Values.SelectMany(m => m.Belts).Select(b => b.For).Distinct()
        .Select(b => at.Sheet.Parts[b]).Where(p => at.Reaches(p.Place) && !p.Needs.Any(at.Vehicle.IsOff))
        .Select(p => new InReach($"belt:{p.Id}", p.Name, "on", [.. Belt(at, p)]));

    private static bool IsFree(AtHand at, IEnumerable<AccessId> needs) => needs.All(at.Vehicle.IsOff);

    private static InReach Access(AtHand at, Access a)
    {
        var (id, off, low) = ($"access:{a.Id}", at.Vehicle.IsOff(a.Id), Words.Low(a.Name));
        if (a.HoldsVehicle)
            return new(id, a.Name, off ? "in place" : "not in place", [off
                ? Do($"{id}/away", "Take it away", ChoiceKind.Hand, $"takes away: {low}", new TakesAway(a.Id))
                : Do($"{id}/set", "Set it", ChoiceKind.Hand, $"sets: {low}", new Sets(a.Id))]);
        if (!off)
            return new(id, a.Name, "on", [Do($"{id}/off", "Take it off", ChoiceKind.Hand, $"takes off: {low}", new TakesOff(a.Id))]);
        var on = Do($"{id}/on", a.Count > 0 ? $"Put it back, all {a.Count} {a.CountOf}" : "Put it back", ChoiceKind.Hand,
            $"puts back: {low}", new PutsOn(a.Id));
        return new(id, a.Name, "off", a.Count == 0 ? [on] : [on, new($"{id}/on-some", $"Put it back with fewer {a.CountOf}",
            ChoiceKind.Hand, TypedAs.Count)
        {
            Does = typed => Figures.Count(typed, a.Count) is var (n, problem) && n is { } count
                ? (new Deed($"puts back: {low}, {count} of {a.Count} {a.CountOf}", [new PutsOn(a.Id, count)]), "") : (null, problem),
        }]);
    }

    private static InReach Fastener(AtHand at, Fastener f)
    {
        var (id, joint) = ($"fastener:{f.Id}", at.Vehicle.Joints[f.Id]);
        return new(id, f.Name, joint.IsIn ? f.Count > 1 ? $"{f.Count}, in" : "in" : f.Count > 1 ? $"{f.Count}, out" : "out",
            [.. joint.IsIn ? WhileIn(at, id, f) : WhileOut(at, id, f)]);
    }

    private static IEnumerable<Choice> WhileIn(AtHand at, string id, Fastener f)
    {
        var (low, joint, known) = (Words.Low(f.Name), at.Vehicle.Joints[f.Id], at.Known.Contains(f.Id));
        foreach (var tighten in Tighten(at, id, f))
            yield return tighten;
        yield return Feel($"{id}/undo", f.Count > 1 ? "Undo them all" : "Undo it", $"undoes: {low}", new Undoes(f.Id),
            v => Sight.Of(v.Stuck.Contains(f.Id), f.Id, "It does not move.", "It comes."));
        yield return Feel($"{id}/slacken", "Slacken it only", $"slackens: {low}", new Loosens(f.Id),
            v => Sight.Of(v.Stuck.Contains(f.Id), f.Id, "It does not move.", "It gives, and stays in."));
        yield return Look($"{id}/look", "Look at it", $"looks at: {low}", v => v.LeakAt(f.Id) is var (grade, _)
            && (v.Runs || v.EngineHeat.In(TemperatureScale.Celsius) > ShowsAbove) ? new($"It {Leaks(grade)}.", f.Id)
                : Sight.Well("It is dry."));
        yield return Look($"{id}/feel", "Try it with a spanner", $"tries with a spanner: {low}", v => v.Stuck.Contains(f.Id)
            ? new("It does not move.", f.Id) : v.Joints[f.Id] switch
            {
                { IsTight: true } => Sight.Well("It is tight."),
                { IsStripped: true } => new("It turns on and on.", f.Id),
                _ => new("It is loose.", f.Id),
            });
        if (known && at.Vehicle.Stuck.Contains(f.Id))
            yield return Do($"{id}/free", "Free it: heat, oil and time", ChoiceKind.Hand, $"frees: {low}", new Frees(f.Id));
        if (known && joint.IsStripped)
            yield return Do($"{id}/mend", "Make its thread good", ChoiceKind.Hand, $"makes the thread good: {low}", new MendsThread(f.Id));
        if (f.SealsWith is not null)
            yield return Do($"{id}/renew", "Take it down again, new seal", ChoiceKind.Hand, $"renews the seal: {low}",
                new RenewsSeal(f.Id));
        foreach (var strokes in Flows.Strokes(at, id, f))
            yield return strokes;
    }

    private static IEnumerable<Choice> WhileOut(AtHand at, string id, Fastener f)
    {
        var low = Words.Low(f.Name);
        yield return Look($"{id}/look", "Look at it closely", $"looks closely at: {low}", v =>
            Sight.Of(v.Faults.Contains(new Slivers(f.Id)), f.Id, "Slivers hang on its magnet.",
                "Its thread is clean, a little grey paste on it."));
        if (f.Seal is not null)
            yield return Look($"{id}/face", "Wipe and look at its face", $"looks at the face of: {low}", v =>
                Sight.Of(v.Faults.Contains(new OldRingStays(f.Id)), f.Id, "The old ring is still there.", "It is clean and bare."));
        if (at.Known.Contains(f.Id) && at.Vehicle.Faults.Contains(new OldRingStays(f.Id)))
            yield return Do($"{id}/pick", "Hook the old ring out", ChoiceKind.Hand, $"picks the old ring off: {low}", new PicksOff(f.Id));
        foreach (var part in f.Holds.Concat(f.Seal is { } seal ? [seal] : Array.Empty<PartId>()).Distinct().Select(p => at.Sheet.Parts[p]))
            foreach (var choice in PutIn(at, $"{id}/{part.Id}", part).Concat(Compare(at, $"{id}/{part.Id}", part))
                .Concat(Flows.Prefill(at, $"{id}/{part.Id}", part)))
                yield return choice;
        if (at.Vehicle.Joints[f.Id].IsStripped && at.Known.Contains(f.Id))
            yield return Do($"{id}/mend", "Make its thread good", ChoiceKind.Hand, $"makes the thread good: {low}", new MendsThread(f.Id));
        yield return Do($"{id}/run-in", "Run it in by hand", ChoiceKind.Hand, $"runs in by hand: {low}", new RunsIn(f.Id));
        foreach (var tighten in Tighten(at, id, f))
            yield return tighten;
        foreach (var other in Flows.WhileOut(at, id, f))
            yield return other;
    }

    private static IEnumerable<Choice> Tighten(AtHand at, string id, Fastener f)
    {
        var low = Words.Low(f.Name);
        int[] places = f.Count > 1 || f.Tightening.Value is InStages ? [.. Enumerable.Range(1, f.Count)] : [0];
        foreach (var place in places)
        {
            var (which, end) = (place > 0 && f.Count > 1 ? $" no. {place}" : "", place > 0 ? $"-{place}" : "");
            yield return Feel($"{id}/as-usual{end}",
                f.LastTorque is null ? $"Tighten it{which}" : $"Tighten{which} by feel, without a wrench",
                $"tightens{(f.LastTorque is null ? "" : " by feel")}: {low}{which}",
                new Tightens(f.Id, f.LastTorque is { } spec ? spec.Low * ByWrist : null, place), v => Turned(v, f));
            if (f.LastTorque is null)
                continue;
            // What is turned further by degrees after its torque is done as the sheet says.
            if (f.Tightening.Value is InStages)
                yield return Feel($"{id}/stages{end}", $"Tighten{which} in its stages", $"tightens in stages: {low}{which}",
                    new Tightens(f.Id, null, place), v => Turned(v, f));
            if (at.Wrench is { } wrench)
                yield return new($"{id}/tighten{end}", $"Tighten{which} with {wrench.Name}, set to", ChoiceKind.Hand, TypedAs.Setting)
                {
                    Does = typed => Figures.Setting(typed, wrench) is var (torque, problem) && torque is { } to
                        ? (new Deed($"tightens: {low}{which}, {wrench.Name} set to {typed.Trim()}", [new Tightens(f.Id, to, place)])
                        {
                            Sees = v => Turned(v, f) is { Wrong.IsEmpty: false } wrong ? wrong : Sight.Well("It clicks."),
                        }, "") : (null, problem),
                };
        }
    }

    // Below this a joint that leaks shows nothing: what stands in it is cold and thick.
    private const decimal ShowsAbove = 30;

    // What a practised wrist gives without a wrench, as a share of the least that is right: not enough to be sure of.
    private const decimal ByWrist = 0.8m;

    private static Sight Turned(Vehicle vehicle, Fastener f) =>
        Sight.Of(vehicle.Joints[f.Id].IsStripped, f.Id, "It turns on and on.", "It is home.");

    private static IEnumerable<Choice> PutIn(AtHand at, string id, Part part)
    {
        var low = Words.Low(part.Name);
        yield return Do($"{id}/new", $"Put the new {low} in", ChoiceKind.Hand, $"puts in, new: {low}", new Fits(part.Id));
        yield return Do($"{id}/old", $"Put the old {low} back in", ChoiceKind.Hand, $"puts in, the old one: {low}",
            new Fits(part.Id, true));
        if (at.Known.Contains(part.Id) && at.Vehicle.Faults.Contains(new WrongInBox(part.Id)))
            yield return Do($"{id}/right-one", $"Fetch the right {low}", ChoiceKind.Hand, $"fetches the right one: {low}",
                new FetchesRight(part.Id));
    }

    private static IEnumerable<Choice> Compare(AtHand at, string id, Part part)
    {
        if (part.IsSeal || at.Sheet.Maps.Values.Any(m => m.Belts.Any(b => b.For == part.Id)))
            yield break;
        yield return Look($"{id}/compare", $"Hold old and new {Words.Low(part.Name)} side by side", $"holds old and new side by side: "
            + Words.Low(part.Name), v => Sight.Of(v.Faults.Contains(new WrongInBox(part.Id)), part.Id,
                "The new one is half the size of the old one.", "Same height, same ends, same hole."));
    }

    private static IEnumerable<Choice> Belt(AtHand at, Part part)
    {
        yield return Look($"part:{part.Id}/along", "Look along it", $"looks along: {Words.Low(part.Name)}", v =>
            v.SeenOf(part.Id) is { } seen ? new($"{Words.Capital(seen)}.", part.Id) : Sight.Well("Every rib sits in its groove."));
        if (at.Known.Contains(part.Id))
            yield return Do($"part:{part.Id}/seat", "Seat it in its grooves", ChoiceKind.Hand, $"seats: {Words.Low(part.Name)}",
                new SeatsBelt(part.Id));
    }

    internal static Fastener? Holder(ModelSheet sheet, PartId part) =>
        sheet.Fasteners.Values.FirstOrDefault(f => f.Seal == part || f.Holds.Contains(part));

    private static string Leaks(LeakGrade grade) => grade switch
    {
        LeakGrade.Weep => "sweats",
        LeakGrade.Drip => "drips",
        _ => "runs",
    };
}
