using System.Text.Json;

namespace Anakyklos.Mutants;

/// <summary>One place where a rule can be bent, as the report of what bent it names the place.</summary>
/// <param name="Id">The number by which the bent assembly knows it.</param>
/// <param name="File">Path of the source below the core.</param>
/// <param name="Line">Line in that file, from 1.</param>
/// <param name="Kind">What kind of bend it is.</param>
/// <param name="Instead">What stands there when it is bent.</param>
internal sealed record Mutant(int Id, string File, int Line, string Kind, string Instead)
{
    /// <summary>Every bend of a report that compiles and is not ignored, in the order of the ids.</summary>
    internal static List<Mutant> ReadReport(string path)
    {
        using var report = JsonDocument.Parse(System.IO.File.ReadAllText(path));
        var mutants = new List<Mutant>();
        foreach (var file in report.RootElement.GetProperty("files").EnumerateObject())
        {
            foreach (var bend in file.Value.GetProperty("mutants").EnumerateArray())
            {
                if (bend.GetProperty("status").GetString() is "Ignored" or "CompileError")
                {
                    continue;
                }
                mutants.Add(new(
                    int.Parse(bend.GetProperty("id").GetString()!),
                    Below(file.Name),
                    bend.GetProperty("location").GetProperty("start").GetProperty("line").GetInt32(),
                    bend.GetProperty("mutatorName").GetString()!,
                    bend.TryGetProperty("replacement", out var instead) ? instead.GetString()! : ""));
            }
        }
        return [.. mutants.OrderBy(mutant => mutant.Id)];
    }

    /// <summary>The room in which it stands: the first folder below the core.</summary>
    internal string Room => File.Split('/')[0];

    private static string Below(string path)
    {
        const string Core = "Anakyklos.Core/";
        var start = path.LastIndexOf(Core, StringComparison.Ordinal);
        return start < 0 ? path : path[(start + Core.Length)..];
    }
}
