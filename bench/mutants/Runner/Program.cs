// Bends of the core's rules against its own tests, in few processes in place of one a bend: a bend costs the cases that pass it, no more.
// mutants BIN REPORT OUT [LONGEST]          runs all, two processes side by side, and prints what survived
// mutants BIN REPORT OUT LONGEST I N survey one process's share of finding out which case passes which bends
// mutants BIN REPORT OUT LONGEST I N        one process's share of trying
// mutants BIN REPORT OUT at-load ID         one bend from the start of a process
using System.Diagnostics;
using System.Globalization;
using System.Runtime.Loader;
using Anakyklos.Mutants;

var (bin, reportPath, folder) = (Path.GetFullPath(args[0]), args[1], args[2]);
var longest = args.Length > 3 && int.TryParse(args[3], out var milliseconds) ? milliseconds : 1500;
const int Processes = 2;
Directory.CreateDirectory(folder);
var mutants = Mutant.ReadReport(reportPath);

if (args.Length == 7)
{
    using var surveyed = new StreamWriter(Path.Combine(folder, args[4] + ".survey"));
    Loaded(surveyed).Survey(TimeSpan.FromMilliseconds(longest), Whole(args[4]), Whole(args[5]));
    surveyed.Flush();
    Environment.Exit(0);
}
if (args.Length == 6)
{
    return Share(Whole(args[4]), Whole(args[5]));
}
if (args.Length == 5)
{
    using var one = Open($"at-load-{args[4]}");
    var fromStart = Loaded(one);
    fromStart.TryFromStart(mutants.Single(mutant => mutant.Id == Whole(args[4])), Surveyed());
    Environment.Exit(0);
}

await Task.WhenAll(Enumerable.Range(0, Processes).Select(share => UntilDone($"{longest} {share} {Processes} survey")));
await Task.WhenAll(Enumerable.Range(0, Processes).Select(share => UntilDone($"{longest} {share} {Processes}")));
// What was passed only while a type was loaded, which happens once a process, is tried in a process of its own.
await Parallel.ForEachAsync(
    Verdicts().Where(verdict => verdict.Value is "loaded" or "unreached").Select(verdict => verdict.Key).ToList(),
    new ParallelOptions { MaxDegreeOfParallelism = Processes },
    async (id, _) => await UntilDone($"at-load {id}"));
Print(Verdicts());
return 0;

static int Whole(string number) => int.Parse(number, CultureInfo.InvariantCulture);

int Share(int share, int of)
{
    var tried = Verdicts();
    var left = mutants.Where(mutant => mutant.Id % of == share && !tried.ContainsKey(mutant.Id)).ToList();
    // What began and did not end took the process with it.
    var fallen = Begun().Where(id => !tried.ContainsKey(id) && id % of == share).ToList();
    using var report = Open($"share-{share}");
    foreach (var id in fallen)
    {
        report.WriteLine($"{id}\tkilled\tthe process fell");
    }
    left.RemoveAll(mutant => fallen.Contains(mutant.Id));
    var shard = Loaded(report);
    shard.Learn(Surveyed());
    var sound = shard.Try(left);
    report.Flush();
    Environment.Exit(sound ? 0 : 3);
    return 0;
}

Shard Loaded(TextWriter report)
{
    AppContext.SetData("APP_CONTEXT_BASE_DIRECTORY", bin + "/");
    AssemblyLoadContext.Default.Resolving += (context, name) =>
        Path.Combine(bin, name.Name + ".dll") is var path && File.Exists(path) ? context.LoadFromAssemblyPath(path) : null;
    var tests = AssemblyLoadContext.Default.LoadFromAssemblyPath(Path.Combine(bin, "Anakyklos.Core.Tests.dll"));
    var core = AssemblyLoadContext.Default.LoadFromAssemblyPath(Path.Combine(bin, "Anakyklos.Core.dll"));
    var bent = Bent.In(core) ?? throw new InvalidOperationException($"{bin} holds no bent core.");
    // Plans and whole walks take seconds a case and say little about a single rule that the quick classes do not say.
    string[] slow =
    [
        "OrderingTests", "PlanningProperties", "OrderOfWorkTests", "WalkTests", "ReplanningTests", "ComposerTests", "SchemaTests",
        "GateProperties", "RobustnessProperties", "NeverStuckTests",
    ];
    return new Shard(bent, Case.Of(tests, name => !slow.Contains(name)), report);
}

IEnumerable<string> Surveyed() => Directory.GetFiles(folder, "*.survey").SelectMany(File.ReadLines);

StreamWriter Open(string name) => new(Path.Combine(folder, name + ".tsv"), append: true);

// A process that fell or hung is started again for what it left.
async Task UntilDone(string share)
{
    for (var (code, fallen) = (1, 0); code != 0; fallen++)
    {
        if (fallen == (share.EndsWith("survey", StringComparison.Ordinal) ? 1 : 200))
        {
            throw new InvalidOperationException($"It falls again and again: {share}");
        }
        var start = new ProcessStartInfo(Environment.ProcessPath!, $"\"{bin}\" \"{reportPath}\" \"{folder}\" {share}");
        start.Environment["DOTNET_GCHeapHardLimit"] = "0x100000000";
        start.Environment["DOTNET_TieredPGO"] = "0";
        using var process = Process.Start(start)!;
        await process.WaitForExitAsync();
        code = share.StartsWith("at-load", StringComparison.Ordinal) ? 0 : process.ExitCode;
    }
}

IEnumerable<string[]> Lines() =>
    Directory.GetFiles(folder, "*.tsv").Order().SelectMany(File.ReadLines).Select(line => line.Split('\t')).Where(line => line.Length == 3);

HashSet<int> Begun() => [.. Lines().Where(line => line[1] == "began").Select(line => Whole(line[0]))];

Dictionary<int, string> Verdicts()
{
    var found = new Dictionary<int, string>();
    foreach (var line in Lines().Where(line => line[1] != "began").OrderBy(line => line[1] is "loaded" or "unreached" ? 0 : 1))
    {
        found[Whole(line[0])] = line[1];
    }
    return found;
}

void Print(Dictionary<int, string> verdicts)
{
    foreach (var room in mutants.GroupBy(mutant => mutant.Room))
    {
        var noticed = room.Count(mutant => verdicts.GetValueOrDefault(mutant.Id) is "killed" or "timeout");
        var share = (100.0 * noticed / room.Count()).ToString("0.0", CultureInfo.InvariantCulture);
        Console.WriteLine($"== {room.Key}: {noticed} of {room.Count()} noticed, {share} %");
    }
    foreach (var mutant in mutants.Where(mutant => verdicts.GetValueOrDefault(mutant.Id) is not ("killed" or "timeout")))
    {
        var (verdict, instead) = (verdicts.GetValueOrDefault(mutant.Id), mutant.Instead.ReplaceLineEndings(" "));
        Console.WriteLine($"{mutant.File}:{mutant.Line}\t{mutant.Id}\t{verdict}\t{mutant.Kind}\t{instead}");
    }
}
