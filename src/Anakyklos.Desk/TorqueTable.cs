using System.Text.Json.Nodes;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Wording;
using Anakyklos.Desk.Files;

namespace Anakyklos.Desk;

/// <summary>A row of a table of torques.</summary>
/// <param name="Row">Its row, from 1.</param>
/// <param name="Name">The fastener.</param>
/// <param name="Typed">Its fields by their paths below the fastener.</param>
public sealed record TorqueRow(int Row, string Name, IReadOnlyDictionary<string, string> Typed);

/// <summary>Takes a table of torques, as it is copied from a manual or a spreadsheet, into a sheet: a fastener a row.</summary>
public sealed class TorqueTable(SheetDesk desk)
{
    /// <summary>The columns; of the first six each has to be there.</summary>
    public static readonly IReadOnlyList<string> Columns = ["name", "drive", "material", "torque", "source", "page", "thread", "low",
        "high"];

    private const int Needed = 6;

    private static readonly (string Column, string Path)[] Paths = [("drive", "drive"), ("material", "material"), ("torque", "torque.is"),
        ("source", "torque.from"), ("page", "torque.at"), ("thread", "thread"), ("low", "torque.low"), ("high", "torque.high")];

    /// <summary>Takes a table in: what has the name of a fastener that is there is written over, everything else is new.</summary>
    /// <param name="draft">The draft.</param>
    /// <param name="by">Who.</param>
    /// <param name="csv">Rows below their headings, with commas, semicolons or tabs between.</param>
    /// <returns>How many rows were taken, or everything that is wrong, and then nothing is.</returns>
    public async Task<(int Rows, IReadOnlyList<Refusal> Wrong)> TakeIn(long draft, Person by, string csv)
    {
        var (rows, errors) = CsvTable.Read(csv, [.. Columns.Take(Needed)], line => new TorqueRow(line.Row, line.Text("name"),
            Paths.Select(p => (p.Path, Cell: Columns.Take(Needed).Contains(p.Column) ? line.Text(p.Column) : line.Text(p.Column, false)))
                .Where(c => c.Cell.Length > 0).ToDictionary(c => c.Path, c => c.Cell)));
        if (errors.Count > 0)
            return (0, InField(errors));
        List<Refusal> wrong = [];
        var refused = await desk.Write(draft, by, now =>
        {
            var sheet = now.Text;
            foreach (var row in rows)
            {
                var there = sheet.Names("fasteners").FirstOrDefault(id => sheet.Said($"fasteners.{id}.name") == row.Name);
                if (Source(sheet, row.Typed["torque.from"]) is not { } source)
                {
                    wrong.Add(Refusal.At(row.Row, "source",
                        $"There is no source “{row.Typed["torque.from"]}”. Add it to the sheet first."));
                    continue;
                }
                var path = $"fasteners.{there ?? SheetIds.For(row.Name, i => SheetShape.Tables.Any(t => sheet.Has($"{t.Name}.{i}")))}";
                if (there is null)
                    sheet = sheet.With(path, new JsonObject { ["name"] = row.Name });
                var (written, not) = SheetForm.Apply(sheet, path, p => p == $"{path}.torque.from" ? source
                    : p.Length > path.Length ? row.Typed.GetValueOrDefault(p[(path.Length + 1)..]) : null);
                sheet = written;
                wrong.AddRange(not.Select(n => Refusal.At(row.Row, n.Field ?? "", n.What)));
            }
            return (sheet, InField(wrong));
        });
        return refused.Count > 0 ? (0, refused) : (rows.Count, []);
    }

    private static IReadOnlyList<Refusal> InField(IReadOnlyList<Refusal> wrong) => [.. wrong.Take(20).Select(w =>
        new Refusal($"Row {w.Line}{(string.IsNullOrEmpty(w.Field) ? "" : $", {w.Field}")}: {w.What}", Field: "torques"))];

    // By its id, or by its title.
    private static string? Source(SheetText sheet, string said) => sheet.Names("sources").FirstOrDefault(id => id == said
        || string.Equals(sheet.Said($"sources.{id}.title"), said, StringComparison.OrdinalIgnoreCase));
}
