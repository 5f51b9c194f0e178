using Anakyklos.Core.Wording;

namespace Anakyklos.Core.Authoring;

/// <summary>Things of a sheet that belong together at the vehicle.</summary>
/// <param name="Title">What holds them together: a fluid's name, or the name of a table.</param>
/// <param name="Things">Their paths.</param>
public sealed record SheetGroup(string Title, IReadOnlyList<string> Things)
{
    /// <summary>All things of a sheet: each fluid with what drains, fills and seals it, then what is opened, then the rest.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="title">The name of a table.</param>
    public static IReadOnlyList<SheetGroup> Of(SheetText sheet, Func<string, string> title)
    {
        var taken = new HashSet<string>(StringComparer.Ordinal);
        var groups = new List<SheetGroup>();
        foreach (var fluid in sheet.Names("fluids"))
        {
            List<string> things = [$"fluids.{fluid}"];
            foreach (var fastener in sheet.Names("fasteners").Select(f => $"fasteners.{f}").Where(f =>
                new[] { "drains", "fills", "system" }.Any(use => sheet.Said($"{f}.{use}") == fluid)))
            {
                things.Add(fastener);
                things.AddRange(AmountText.Lines($"{sheet.Said($"{fastener}.seal")}\n{CitedValue.Typed(sheet, $"{fastener}.holds")}")
                    .Select(p => $"parts.{p}").Where(sheet.Has));
            }
            groups.Add(new(Name(sheet, $"fluids.{fluid}"), [.. things.Where(taken.Add)]));
        }
        foreach (var table in SheetShape.Tables)
            groups.Add(new(title(table.Name), [.. sheet.Names(table.Name).Select(id => $"{table.Name}.{id}").Where(taken.Add)]));
        return [.. groups.Where(g => g.Things.Count > 0)];
    }

    /// <summary>The name of a thing; an interval is called by how often it is, with the jobs that go by it; what has no name, by its id
    /// in words.</summary>
    /// <param name="sheet">The sheet.</param>
    /// <param name="path">Its path.</param>
    public static string Name(SheetText sheet, string path) => sheet.Said($"{path}.name") is { Length: > 0 } name ? name
        : sheet.Said($"{path}.title") is { Length: > 0 } title ? title
        : Every(sheet, path) is { Length: > 0 } every ? every
        : Words.Capital(path[(path.IndexOf('.', StringComparison.Ordinal) + 1)..].Replace('-', ' '));

    private static string Every(SheetText sheet, string path)
    {
        if (path.Split('.') is not ["intervals", var id])
            return "";
        var (far, months, hours) = (sheet.Said($"{path}.normal.distance"), sheet.Said($"{path}.normal.months"),
            sheet.Said($"{path}.normal.hours"));
        string[] said = [far, months.Length > 0 ? $"{months} months" : "", hours.Length > 0 ? $"{hours} h" : ""];
        var often = string.Join(" or ", said.Where(s => s.Length > 0));
        var jobs = string.Join(", ", sheet.Names("jobs").Select(j => $"jobs.{j}").Where(j => sheet.Said($"{j}.interval") == id)
            .Select(j => sheet.Said($"{j}.name")).Where(n => n.Length > 0));
        return often.Length == 0 ? "" : $"{often}: {(jobs.Length > 0 ? jobs : Words.Capital(id.Replace('-', ' ')))}";
    }
}
