using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Laboratory;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Wording;

namespace Anakyklos.Desk.Files;

/// <summary>What goes to a laboratory and what comes back, as open files: a request is JSON, a result JSON or comma-separated.</summary>
public static class LabFiles
{
    /// <summary>The format of a request.</summary>
    public const string Request = "anakyklos/oil-sample/1";

    /// <summary>The format of results.</summary>
    public const string Results = "anakyklos/oil-results/1";

    private const int LongestRemark = 400;

    /// <summary>A request, as the laboratory gets it.</summary>
    /// <param name="sample">The sample.</param>
    /// <returns>JSON, indented.</returns>
    public static string Write(OilSample sample) => JsonSerializer.Serialize(new
    {
        format = Request,
        code = sample.Code,
        plate = sample.Plate,
        model = sample.Model,
        fluid = sample.FluidName,
        grades = sample.Grades,
        taken = sample.TakenAt.ToString("yyyy-MM-ddTHH:mm:sszzz", CultureInfo.InvariantCulture),
        odometer = $"{sample.Odometer.In(Distance.Kilometre):0} km",
        onOil = sample.OnOil is { } far ? $"{far.In(Distance.Kilometre):0} km" : null,
        wanted = Enum.GetValues<Analyte>().Select(a => new { name = Name(a), unit = LabRules.Unit(a) }),
    }, new JsonSerializerOptions(CardJson.Options) { WriteIndented = true });

    /// <summary>Results as a file, as <see cref="Read"/> takes them.</summary>
    /// <param name="results">The results.</param>
    public static string Write(IEnumerable<OilResult> results) => JsonSerializer.Serialize(new
    {
        format = Results,
        results = results.Select(r => new
        {
            code = r.Code,
            day = r.Day.ToString("O", CultureInfo.InvariantCulture),
            values = r.Values.OrderBy(v => v.Key).ToDictionary(v => Name(v.Key), v => v.Value),
            remark = r.Remark.Length > 0 ? r.Remark : null,
        }),
    }, new JsonSerializerOptions(CardJson.Options) { WriteIndented = true });

    /// <summary>Reads results, from JSON or from a table with the columns code, day and one for each value.</summary>
    /// <param name="text">The file's text.</param>
    /// <param name="today">A report of a later day is wrong.</param>
    /// <returns>Every result, or every error with its place.</returns>
    public static (IReadOnlyList<OilResult> Read, IReadOnlyList<Refusal> Wrong) Read(string text, DateOnly today)
    {
        var typed = text.TrimStart('\uFEFF').TrimStart();
        var (results, wrong) = typed.StartsWith('{') || typed.StartsWith('[') ? FromJson(typed, today) : FromTable(typed, today);
        return wrong.Count > 0 ? ([], wrong)
            : results.GroupBy(r => r.Code).FirstOrDefault(g => g.Count() > 1) is { } twice
                ? ([], [new($"{twice.Key} is there {twice.Count()} times.", "Send one result for each sample.")]) : (results, []);
    }

    private static (IReadOnlyList<OilResult> Read, IReadOnlyList<Refusal> Wrong) FromTable(string text, DateOnly today)
    {
        var analytes = Enum.GetValues<Analyte>();
        return CsvTable.Read(text, ["code", "day"], line =>
        {
            var code = line.Text("code");
            if (code.Length > 0 && SampleCode.Read(code) is null)
                line.Wrong("code", $"“{code}” is not the code of a sample: its last letter does not go with it.");
            var day = line.Read("day", t => Day(t, today)) ?? default;
            var values = new Dictionary<Analyte, decimal>();
            foreach (var analyte in analytes)
                if (line.Read(Name(analyte), t => Value(analyte, t), false) is { } value)
                    values[analyte] = value;
            if (values.Count == 0)
                line.Wrong("", $"Nothing was measured. The columns are {string.Join(", ", analytes.Select(Name))}.");
            return new OilResult(SampleCode.Read(code) ?? "", day, values, line.Text("remark", false));
        });
    }

    private static (IReadOnlyList<OilResult> Read, IReadOnlyList<Refusal> Wrong) FromJson(string text, DateOnly today)
    {
        JsonNode? root;
        try
        {
            root = JsonNode.Parse(text, documentOptions: new() { MaxDepth = 8 });
        }
        catch (JsonException e)
        {
            return ([], [Refusal.At((int)(e.LineNumber ?? 0) + 1, "", "The file ends in the middle, or is not JSON from here on.")]);
        }
        if (root is not JsonObject file || Text(file, "format") != Results || file["results"] is not JsonArray list)
            return ([], [new($"This is not a file of results.", $"It names its format, “{Results}”, and lists the “results”.")]);
        if (list.Count is 0 or > CsvTable.MostRows)
            return ([], [new($"There are {list.Count} results in it.", $"Send 1 to {CsvTable.MostRows} at once.")]);
        var (results, wrong) = (new List<OilResult>(), new List<Refusal>());
        foreach (var (node, i) in list.Select((n, i) => (n, i)))
            if (Result(node as JsonObject ?? [], $"results[{i}]", today, wrong) is { } result)
                results.Add(result);
        return (results, wrong);
    }

    private static OilResult? Result(JsonObject node, string path, DateOnly today, List<Refusal> wrong)
    {
        var before = wrong.Count;
        var code = SampleCode.Read(Text(node, "code"));
        if (code is null)
            wrong.Add(new($"“{Short(Text(node, "code"))}” is not the code of a sample.", "Look at the label.", Field: $"{path}.code"));
        var (day, problem) = Day(Text(node, "day"), today);
        if (day is null)
            wrong.Add(new(problem, Field: $"{path}.day"));
        var values = new Dictionary<Analyte, decimal>();
        foreach (var (name, value) in node["values"] as JsonObject ?? [])
        {
            var field = $"{path}.values.{Short(name)}";
            if (Enum.GetValues<Analyte>().Where(a => Name(a) == name).ToArray() is not [var analyte])
            {
                wrong.Add(new($"“{Short(name)}” is not measured here.", "Leave it out.", Field: field));
                continue;
            }
            var (number, why) = Value(analyte, value?.ToString() ?? "");
            if (number is { } measured)
                values[analyte] = measured;
            else
                wrong.Add(new(why, Field: field));
        }
        if (values.Count == 0 && wrong.Count == before)
            wrong.Add(new("Nothing was measured.", "Name at least one value.", Field: $"{path}.values"));
        var remark = Text(node, "remark");
        if (remark.Length > LongestRemark)
            wrong.Add(new($"The remark is {remark.Length} characters long.", $"Keep it to {LongestRemark}.", Field: $"{path}.remark"));
        return wrong.Count > before ? null : new(code!, day!.Value, values, remark);
    }

    /// <summary>A value's name in a file.</summary>
    /// <param name="analyte">What.</param>
    public static string Name(Analyte analyte) => JsonNamingPolicy.CamelCase.ConvertName($"{analyte}");

    private static (decimal? Value, string Problem) Value(Analyte analyte, string text) =>
        decimal.TryParse(text.Trim(), NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture,
            out var v) && v >= 0 && v <= LabRules.Most(analyte) ? (v, "")
            : (null, $"“{Short(text)}” cannot be. Write a number from 0 to {LabRules.Most(analyte):0}, in {LabRules.Unit(analyte)}.");

    private static (DateOnly? Value, string Problem) Day(string text, DateOnly today) =>
        DateOnly.TryParseExact(text.Trim(), "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            ? day <= today && day > today.AddYears(-5) ? (day, "") : (null, $"{day:yyyy-MM-dd} cannot be the day of a report.")
            : (null, $"“{Short(text)}” is not a day. Write it as {today:yyyy-MM-dd}.");

    private static string Text(JsonObject node, string name) =>
        node[name] is JsonValue value && value.TryGetValue<string>(out var text) ? text : "";

    private static string Short(string text) => text.Length > 40 ? text[..40] + "…" : text;
}
