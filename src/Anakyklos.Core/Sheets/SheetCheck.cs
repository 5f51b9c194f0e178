using System.Text.RegularExpressions;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Sheets;

/// <summary>Finds what is wrong between the values of a sheet: references, circles, implausible values.</summary>
internal static partial class SheetCheck
{
    internal static IEnumerable<(string Path, string Text)> Run(ModelSheet sheet) =>
        Jobs(sheet).Concat(OwnIds(sheet)).Concat(SharedIds(sheet)).Concat(References(sheet)).Concat(Circles(sheet)).Concat(Torques(sheet))
            .Concat(Amounts(sheet)).Concat(Reservoirs(sheet)).Concat(Intervals(sheet));

    // Every job is tried with every other before a sheet is taken in.
    private const int MostJobs = 40;

    private static IEnumerable<(string, string)> Jobs(ModelSheet s) =>
        s.Jobs.Count == 0 ? [("jobs", "There is no job in this sheet. Write one: what is done to the vehicle, and how often.")]
        : s.Jobs.Count > MostJobs ? [("jobs", $"These are {s.Jobs.Count} jobs; {MostJobs} is the most for one model.")] : [];

    private static IEnumerable<(string, string)> Intervals(ModelSheet s)
    {
        foreach (var rule in s.Intervals.Values)
        {
            foreach (var (name, interval) in new[] { ("normal", rule.Normal), ("harsh", rule.Harsh), ("upper", rule.Upper) })
                if (interval?.Every is { } every && every < Quantity<Distance>.Of(10, Distance.Kilometre))
                    yield return ($"intervals.{rule.Id}.{name}.distance", $"{every} is no interval. It should be 10 km at least.");
            if (rule.Harsh.Every > rule.Normal.Every || rule.Harsh.Months > rule.Normal.Months || rule.Harsh.Hours > rule.Normal.Hours)
                yield return ($"intervals.{rule.Id}.harsh", "In harsh use it is longer than in normal use. Are the two exchanged?");
        }
    }

    // A step names what it works on by its id alone, so one id is one thing.
    private static IEnumerable<(string, string)> SharedIds(ModelSheet s)
    {
        (string Table, IEnumerable<ThingId> Ids)[] tables = [("access", s.Access.Keys.Select(a => (ThingId)a)),
            ("fluids", s.Fluids.Keys.Select(f => (ThingId)f)), ("fasteners", s.Fasteners.Keys.Select(f => (ThingId)f)),
            ("parts", s.Parts.Keys.Select(p => (ThingId)p))];
        return tables.SelectMany(t => t.Ids.Select(id => (t.Table, Id: id))).GroupBy(x => x.Id).Where(g => g.Count() > 1)
            .SelectMany(g => g.Skip(1)
                .Select(x => ($"{x.Table}.{x.Id}",
                $"“{x.Id}” stands in another table ({g.First().Table}) as well. Give one of them another id.")));
    }

    // One reservoir feeds all wheels of a fluid, and holds as much whichever is bled.
    private static IEnumerable<(string, string)> Reservoirs(ModelSheet s) => s.Steps.Values.Where(x => x.Spec is BleedSpec)
        .GroupBy(x => ((BleedSpec)x.Spec!).Fluid)
        .SelectMany(g => g.Where(x => ((BleedSpec)x.Spec!).Reservoir != ((BleedSpec)g.First().Spec!).Reservoir)
            .Select(x => ($"steps.{x.Id}.bleed.reservoir",
                $"“{g.First().Id}” says that the reservoir holds {((BleedSpec)g.First().Spec!).Reservoir.Print(Volume.Litre)}. "
                + "It is one.")));

    // What is kept beside a sheet never takes the place of what stands in it.
    private static IEnumerable<(string, string)> OwnIds(ModelSheet s) => s.Jobs.Keys.Select(j => ("jobs", j.Text))
        .Concat(s.Steps.Keys.Select(k => ("steps", k.Text))).Concat(s.Intervals.Keys.Select(i => ("intervals", i.Text)))
        .Where(x => x.Item2.StartsWith(OwnList.Mark, StringComparison.Ordinal))
        .Select(x => ($"{x.Item1}.{x.Item2}", $"“{x.Item2}” begins with “{OwnList.Mark}”, as lists do that are kept beside a sheet."));

    private static IEnumerable<(string, string)> Cautions(string path, IEnumerable<string> keys) =>
        keys.Where(k => !Caution.ByKey.ContainsKey(k))
            .Select(k => (path, $"There is no caution “{k}”. Known: {string.Join(", ", Caution.ByKey.Keys)}."));

    private static IEnumerable<(string, string)> References(ModelSheet s)
    {
        static IEnumerable<(string, string)> Unknown<TId>(string path, IEnumerable<TId> ids, Func<TId, bool> known, string what) =>
            ids.Where(id => $"{id}".Length > 0 && !known(id)).Select(id => (path, $"There is no {what} “{id}” in this sheet."));

        foreach (var a in s.Access.Values)
            foreach (var e in Unknown($"access.{a.Id}.needs", a.Needs, s.Access.ContainsKey, "access")
                .Concat(Cautions($"access.{a.Id}.cautions", a.Cautions)))
                yield return e;
        foreach (var f in s.Fluids.Values)
            foreach (var g in f.Climate)
                if (!f.Grades.Value.Contains(g.Grade))
                    yield return ($"fluids.{f.Id}.climate", $"“{g.Grade}” is not one of its grades ({string.Join(", ", f.Grades.Value)}).");
                else if (g.From is { } from && g.To is { } to && from.CompareTo(to) >= 0)
                    yield return ($"fluids.{f.Id}.climate", $"{g.Grade} is allowed from {from} to {to}: the first must be the colder.");
        foreach (var f in s.Fluids.Values)
            foreach (var e in Unknown($"fluids.{f.Id}.through", f.Through, s.Access.ContainsKey, "access"))
                yield return e;
        foreach (var p in s.Parts.Values)
            foreach (var e in Unknown($"parts.{p.Id}.needs", p.Needs, s.Access.ContainsKey, "access")
                .Concat(Unknown($"parts.{p.Id}.secures", [p.Secures ?? default], s.Fasteners.ContainsKey, "fastener")))
                yield return e;
        foreach (var f in s.Fasteners.Values)
        {
            var path = $"fasteners.{f.Id}";
            foreach (var e in Unknown($"{path}.seal", [f.Seal ?? default], s.Parts.ContainsKey, "part")
                .Concat(Unknown($"{path}.holds", f.Holds, s.Parts.ContainsKey, "part"))
                .Concat(Unknown($"{path}.needs", f.Needs, s.Access.ContainsKey, "access"))
                .Concat(Unknown($"{path}.drains", [f.Drains ?? default], s.Fluids.ContainsKey, "fluid"))
                .Concat(Unknown($"{path}.fills", [f.Fills ?? default], s.Fluids.ContainsKey, "fluid"))
                .Concat(Unknown($"{path}.system", [f.System ?? default], s.Fluids.ContainsKey, "fluid"))
                .Concat(Cautions($"{path}.cautions", f.Cautions)))
                yield return e;
            if (f.Seal is { } seal && s.Parts.TryGetValue(seal, out var part) && !part.IsSeal)
                yield return ($"{path}.seal", $"“{seal}” does not say how often it is reusable. Give it reusableTimes, 0 for once.");
        }
        foreach (var step in s.Steps.Values)
        {
            var path = $"steps.{step.Id}";
            foreach (var e in Unknown($"{path}.awaits", step.Awaits, id => s.Steps.TryGetValue(id, out var w) && w.Wait is not null,
                "step with a wait")
                .Concat(Unknown($"{path}.map", [step.Map], s.Maps.ContainsKey, "map"))
                .Concat(Unknown($"{path}.needs", step.Needs, id => s.Access.ContainsKey(id) || s.Fasteners.ContainsKey(id),
                    "access or fastener"))
                .Concat(Unknown($"{path}.inspect.slackens", [(step.Spec as InspectSpec)?.Slackens ?? default], s.Fasteners.ContainsKey,
                    "fastener"))
                .Concat(Cautions($"{path}.cautions", step.Cautions))
                .Concat(Target(s, step, path)))
                yield return e;
        }
        foreach (var m in s.Maps.Values)
            foreach (var e in Unknown($"maps.{m.Id}.points", m.Points.SelectMany(p => new[] { p.For, p.NotFor }),
                id => s.Names(id) || s.Steps.ContainsKey(id.Text) || id == VehicleMap.LiftingPoints,
                "access, fastener, fluid, part or step")
                .Concat(Unknown($"maps.{m.Id}.belts", m.Belts.Select(b => b.For), s.Parts.ContainsKey, "part"))
                .Concat(m.Belts.Where(b => b.Pulleys.Count < 2)
                    .Select(b => ($"maps.{m.Id}.belts", "A belt runs over two pulleys or more.")))
                .Concat(m.Belts.Where(b => b.Clash is not null)
                    .Select(b =>
                    ($"maps.{m.Id}.belts",
                    $"The pulleys “{b.Clash!.Value.Item1.Name}” and “{b.Clash.Value.Item2.Name}” touch: no belt can run between them."))))
                yield return e;
        foreach (var e in Unknown("dash.counts", [s.Dash.Counts], s.Jobs.ContainsKey, "job")
            .Concat(Unknown("dash.messages", s.Dash.Messages.SelectMany(m => m.Jobs), s.Jobs.ContainsKey, "job"))
            .Concat(s.Dash.Messages.GroupBy(m => PartNumber.Bare(m.Code)).Where(g => g.Count() > 1)
                .Select(g => ("dash.messages", $"The code “{g.First().Code}” is there more than once."))))
            yield return e;
        foreach (var j in s.Jobs.Values)
            foreach (var e in Unknown($"jobs.{j.Id}.steps", j.Steps, s.Steps.ContainsKey, "step")
                .Concat(Unknown($"jobs.{j.Id}.parts", j.Parts, s.Parts.ContainsKey, "part"))
                .Concat(Unknown($"jobs.{j.Id}.interval", [j.Interval], s.Intervals.ContainsKey, "interval"))
                .Concat(Unknown($"jobs.{j.Id}.worksOn", j.WorksOn, s.Names, "access, fluid, fastener or part"))
                .Concat(Unknown($"jobs.{j.Id}.resets", j.Resets, s.Resets.ContainsKey, "reset"))
                .Concat(Unknown<JobId>($"jobs.{j.Id}.follows", j.Follows is { } before ? [before] : [], s.Jobs.ContainsKey, "job"))
                .Concat(Followed(s, j)).Concat(Counted(s, j)))
                yield return e;
    }

    private static IEnumerable<(string, string)> Followed(ModelSheet s, Job job)
    {
        if (job.Follows is not { } before || !s.Jobs.TryGetValue(before, out var first))
            yield break;
        if (first.Follows is not null)
            yield return ($"jobs.{job.Id}.follows", $"“{first.Name}” follows another job itself.");
        if (s.Intervals.TryGetValue(job.Interval, out var rule) && (rule.Once || rule.EveryTime > 1))
            yield return ($"jobs.{job.Id}.interval", "What follows a job is due after each time, not once in a life or every second time.");
    }

    private static IEnumerable<(string, string)> Counted(ModelSheet s, Job job)
    {
        if (!s.Intervals.TryGetValue(job.Interval, out var rule) || rule.Of is not { } of)
            yield break;
        var path = $"intervals.{rule.Id}.of";
        if (!s.Jobs.TryGetValue(of, out var counted))
            yield return (path, $"There is no job “{of}”.");
        else if (of == job.Id || counted.Follows is not null
            || (s.Intervals.TryGetValue(counted.Interval, out var its) && (its.Of is not null || its.Once)))
            yield return (path, $"“{counted.Name}” has to be another job that is due by its own interval, again and again.");
        if (rule.EveryTime < 2 || rule.Once)
            yield return (path, "Only what is done every second time or less often counts the times of another job.");
    }

    private static IEnumerable<(string, string)> Target(ModelSheet s, SheetStep step, string path)
    {
        if (StepKinds.Knows(step.Kind) && StepKinds.Of(step.Kind).Wants(s, step) is { } wanted)
            yield return ($"{path}.what", $"A step of kind {step.Kind} works on {wanted}, not on “{step.What}”.");
        if (step.Traits.Engine == EngineUse.Stops && step.Wait is null)
            yield return (path, "A step that settles needs a wait.");
    }

    private static IEnumerable<(string, string)> Circles(ModelSheet s)
    {
        foreach (var start in s.Access.Values)
        {
            var seen = new HashSet<AccessId>();
            var next = new Queue<AccessId>(start.Needs);
            while (next.TryDequeue(out var id))
                if (seen.Add(id) && s.Access.TryGetValue(id, out var a))
                    foreach (var n in a.Needs)
                        next.Enqueue(n);
            if (seen.Contains(start.Id))
                yield return ($"access.{start.Id}.needs", $"{start.Name} can only be reached through itself.");
        }
    }

    // A plug seals on a face that grows with the square of its diameter; drain plugs come out near 0.195 N·m per mm² of thread diameter
    // squared
    // (38 N·m at M14). A screw is limited by its core: T = k·d·F with friction k = 0.2 and F at 70 % of an 8.8 bolt's proof load, 0.056 d³.
    // Both are rules of thumb, used only to catch slips of a factor.
    private static IEnumerable<(string, string)> Torques(ModelSheet s)
    {
        foreach (var f in s.Fasteners.Values)
        {
            if (f.Tightening.Value is not ToTorque to || f.Thread.Length == 0)
                continue;
            var path = $"fasteners.{f.Id}.torque";
            if (ThreadShape().Match(f.Thread) is not { Success: true } m)
            {
                yield return ($"fasteners.{f.Id}.thread", $"“{f.Thread}” is not a metric thread such as M14x1.5.");
                continue;
            }
            var d = double.Parse(m.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture);
            var plug = f.Seal is not null || f.Drains is not null || f.Fills is not null;
            var usual = plug ? 0.195 * d * d : 0.056 * d * d * d;
            var ratio = (double)to.Target.In(Torque.NewtonMetre) / usual;
            var thing = $"an M{m.Groups[1].Value} {(plug ? "plug" : "screw")} takes";
            if (ratio > 3)
                yield return (path, $"{to.Target} is {Times(ratio)} what {thing}. Check the number and its unit.");
            else if (ratio < 1.0 / 6)
                yield return (path, $"{to.Target} is less than a sixth of what {thing}. Check the number and its unit.");
        }
    }

    private static string Times(double ratio)
    {
        string[] words = ["", "", "", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];
        var whole = (int)Math.Round(ratio);
        return whole < words.Length ? $"{words[whole]} times" : $"{whole} times";
    }

    private static IEnumerable<(string, string)> Amounts(ModelSheet s)
    {
        foreach (var f in s.Fluids.Values)
        {
            var path = $"fluids.{f.Id}";
            var book = f.Amount.Value;
            if (book <= Quantity<Volume>.Zero || book > Quantity<Volume>.Of(100, Volume.Litre))
                yield return ($"{path}.amount", $"{book} is not an amount for one filling. It should be above 0 and at most 100 L.");
            if (f.BetweenMarks is null && f.Tolerance.Value > book * 0.25m)
                yield return ($"{path}.tolerance", $"{f.Tolerance.Value} is more than a quarter of {book}.");
            // Petrol is the lightest that flows in a vehicle, coolant and brake fluid are the heaviest.
            if (f.LitreWeighs?.Value is { } litre
                && (litre < Quantity<Mass>.Of(0.65m, Mass.Kilogram) || litre > Quantity<Mass>.Of(1.3m, Mass.Kilogram)))
                yield return ($"{path}.litreWeighs", $"{litre} is not what a litre of it weighs. It should be from 0.65 kg to 1.30 kg.");
            if (f.AfterStrip?.Value is { } dry && (dry <= book || dry > book * 2))
                yield return ($"{path}.afterStrip",
                    $"{dry} after a full strip does not go with {book} otherwise: it should be more, and at most twice as much.");
            if (f.Rinse?.Value is { } rinse && (rinse <= Quantity<Volume>.Zero || rinse > book * 0.1m))
                yield return ($"{path}.rinse",
                    $"{rinse} to rinse with does not go with {book}: it should be above 0 and at most a tenth of it.");
            if (f.Rinse is not null && s.Fasteners.Values.All(x => x.Drains != f.Id))
                yield return ($"{path}.rinse", "Nothing drains it, so nothing can be poured through.");
            if (f.MayUse?.Value is { } use && (use <= Quantity<Volume>.Zero || use > book))
                yield return ($"{path}.mayUse", $"{use} in 1,000 km is no use that can be borne: it should be above 0 and at most {book}.");
            if (f.Rod?.Value is { } rod && (rod.High <= Quantity<Length>.Zero || rod.High >= rod.Low))
                yield return ($"{path}.rod", $"The upper mark at {rod.High} must lie above the lower one at {rod.Low} below the filler.");
            if (f.BetweenMarks?.Value is not { } between)
                continue;
            if (between <= Quantity<Volume>.Zero || between > book * 0.5m)
                yield return ($"{path}.betweenMarks",
                    $"{between} between the marks does not go with {book} in all: it should be above 0 and at most half of it.");
            if (f.AtTopMark?.Value is { } top && (top < book - between || top > book + between))
                yield return ($"{path}.atTopMark",
                    $"{top} at the top mark does not go with {book} in all: the book amount should stand near the marks.");
            var first = new DipstickFill(book, between, f.Tolerance.Value, f.Target, AtTop: f.AtTopMark?.Value).FirstPour;
            if (f.SafeToStart?.Value is { } safe && (safe <= Quantity<Volume>.Zero || safe > first))
                yield return ($"{path}.safeToStart",
                    $"{safe} cannot be the safe amount: the first pour brings {first}, which must be enough to start.");
            if (f.Tolerance.Value > between)
                yield return ($"{path}.tolerance", $"{f.Tolerance.Value} is more than lies between the marks ({between}).");
        }
        foreach (var part in s.Parts.Values)
            if (part.Prefill?.Value is { } prefill)
            {
                if (s.FluidIn(part.Id) is not { } oil)
                    yield return ($"parts.{part.Id}.prefill",
                        "Nothing that holds this part keeps a fluid in (“system”), so none goes into it.");
                else if (prefill <= Quantity<Volume>.Zero || prefill > oil.Amount.Value * 0.25m)
                    yield return ($"parts.{part.Id}.prefill",
                        $"{prefill} in it does not go with {oil.Amount.Value} of {Words.Low(oil.Name)} in all: it should be above 0 and at "
                        + "most a quarter of it.");
            }
    }

    [GeneratedRegex(@"^M([0-9]{1,2}(?:\.[0-9])?)(?:\s?[x×]\s?[0-9](?:\.[0-9]{1,2})?)?$")]
    private static partial Regex ThreadShape();
}
