using System.Diagnostics;

namespace Anakyklos.Mutants;

/// <summary>One process's share of the bends: every case once as it should be, then each bend against the cases that pass it, the quickest
/// first.</summary>
internal sealed class Shard(Bent bent, IReadOnlyList<Case> cases, TextWriter report)
{
    private const int Stack = 16 << 20;
    private readonly List<(Case Case, TimeSpan Took, HashSet<int> Passes)> _known = [];
    private readonly HashSet<int> _atLoad = [];

    /// <summary>Runs each case of a share as the rules are written and writes what it takes and which bends it passes. One that fails so,
    /// or takes longer than it may, is said and left out.</summary>
    internal void Survey(TimeSpan longest, int share, int of)
    {
        bent.HoldNone();
        foreach (var known in cases.Where((_, at) => at % of == share))
        {
            string? said = null;
            var watch = Stopwatch.StartNew();
            OnThread(() => said = known.Run(), Timeout.InfiniteTimeSpan);
            var took = watch.Elapsed;
            // The first of a class makes what the class keeps for all.
            if (said is null && took > longest && took < longest * 10)
            {
                watch.Restart();
                OnThread(() => said = known.Run(), Timeout.InfiniteTimeSpan);
                took = watch.Elapsed;
            }
            if (said is not null || took > longest)
            {
                Console.Error.WriteLine($"left out: {known.Name}: {said?.Split('\n')[0] ?? $"takes {took.TotalMilliseconds:0} ms"}");
                continue;
            }
            var (always, atLoad) = bent.PassedBy(() => OnThread(() => known.Run(), Timeout.InfiniteTimeSpan));
            report.WriteLine($"{known.Name}\t{took.Ticks}\t{string.Join(' ', always)}\t{string.Join(' ', atLoad)}");
            report.Flush();
        }
    }

    /// <summary>Takes what was surveyed, and runs each case once, so that what the tests keep for later was made by the rules as they are
    /// written.</summary>
    internal void Learn(IEnumerable<string> surveyed)
    {
        var named = cases.ToDictionary(known => known.Name);
        bent.HoldNone();
        foreach (var line in surveyed.Select(line => line.Split('\t')))
        {
            HashSet<int> atLoad = [.. line[3].Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(int.Parse)];
            HashSet<int> passes = [.. line[2].Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(int.Parse), .. atLoad];
            _atLoad.UnionWith(atLoad);
            _known.Add((named[line[0]], TimeSpan.FromTicks(long.Parse(line[1])), passes));
            OnThread(() => named[line[0]].Run(), Timeout.InfiniteTimeSpan);
        }
        _known.Sort((one, other) => one.Took.CompareTo(other.Took));
    }

    /// <summary>Tries the bends in turn and writes one line each. Returns false when a case hangs for good: the process is of no more use
    /// then.</summary>
    internal bool Try(IEnumerable<Mutant> mutants)
    {
        foreach (var mutant in mutants)
        {
            Write(mutant, "began", "");
            var passing = _known.Where(known => known.Passes.Contains(mutant.Id)).ToList();
            if (passing.Count == 0)
            {
                Write(mutant, "unreached", "");
                continue;
            }
            var (verdict, by, sound) = Against(mutant, passing);
            Write(mutant, verdict == "survived" && _atLoad.Contains(mutant.Id) ? "loaded" : verdict, by);
            if (!sound)
            {
                return false;
            }
        }
        return true;
    }

    /// <summary>Tries one bend from the start of the process, so that it holds while the types are loaded.</summary>
    internal void TryFromStart(Mutant mutant, IEnumerable<string> surveyed)
    {
        var named = cases.ToDictionary(known => known.Name);
        bent.Hold(mutant.Id);
        Write(mutant, "began", "");
        foreach (var name in surveyed.Select(line => line.Split('\t')).OrderBy(line => long.Parse(line[1])).Select(line => line[0]))
        {
            string? said = null;
            if (!OnThread(() => said = named[name].Run(), TimeSpan.FromMinutes(1)) || said is not null)
            {
                Write(mutant, "killed", name);
                return;
            }
        }
        Write(mutant, "survived", "");
    }

    private (string Verdict, string By, bool Sound) Against(Mutant mutant, List<(Case Case, TimeSpan Took, HashSet<int> Passes)> passing)
    {
        foreach (var (known, took, _) in passing)
        {
            string? said = null;
            bent.Hold(mutant.Id);
            var ended = OnThread(() => said = known.Run(), TimeSpan.FromSeconds(5) + took * 20, out var thread);
            bent.HoldNone();
            if (!ended)
            {
                // A loop that only the bend keeps going ends by itself now.
                return ("timeout", known.Name, thread.Join(TimeSpan.FromSeconds(5)));
            }
            if (said is not null)
            {
                return ("killed", known.Name, true);
            }
        }
        return ("survived", "", true);
    }

    private void Write(Mutant mutant, string verdict, string by)
    {
        report.WriteLine($"{mutant.Id}\t{verdict}\t{by}");
        report.Flush();
    }

    private static bool OnThread(Action action, TimeSpan limit) => OnThread(action, limit, out _);

    private static bool OnThread(Action action, TimeSpan limit, out Thread thread)
    {
        thread = new Thread(() => action(), Stack) { IsBackground = true };
        thread.Start();
        return thread.Join(limit);
    }
}
