using System.Text.Json.Nodes;
using Anakyklos.Core.Authoring;
using Anakyklos.Core.Sheets;
using CsCheck;

namespace Anakyklos.Core.Tests;

/// <summary>The text of a sheet that is written: every byte that was not changed stays.</summary>
public class SheetTextTests
{
    private static readonly IReadOnlyList<string> Files = [.. Directory.GetFiles(AppContext.BaseDirectory, "*-*.json",
        SearchOption.AllDirectories)
        .Select(File.ReadAllText).Where(t => t.Contains(ModelSheet.Format, StringComparison.Ordinal)).Order()];

    private static readonly Gen<JsonNode> Value = Gen.OneOf<JsonNode>(
        Gen.String[Gen.Char["ab \"\\·é€"], 0, 12].Select(t => (JsonNode)JsonValue.Create(t)),
        Gen.Int[0, 999].Select(n => (JsonNode)JsonValue.Create(n)), Gen.Bool.Select(b => (JsonNode)JsonValue.Create(b)),
        Gen.Int[0, 4].Select(n => (JsonNode)new JsonArray([.. Enumerable.Range(0, n).Select(i => JsonValue.Create($"t{i}"))])),
        Gen.Int[0, 4].Select(n => (JsonNode)new JsonObject(Enumerable.Range(0, n)
            .Select(i => KeyValuePair.Create($"n{i}", (JsonNode?)new JsonObject { ["deep"] = new JsonArray(i) })))));

    private static SheetText Of(string text) => SheetText.Read(text, out _)!;

    // An independent reading of a path: through the framework's own nodes.
    private static void Set(JsonNode root, IReadOnlyList<string> names, JsonNode value)
    {
        for (var i = 0; i < names.Count - 1; i++)
            root = root[names[i]] ?? (root[names[i]] = new JsonObject());
        root[names[^1]] = value.DeepClone();
    }

    [Fact]
    public void There_are_sheets_to_try() => Assert.InRange(Files.Count, 7, 20);

    [Fact]
    public void What_is_set_is_there_and_nothing_else_has_changed() =>
        Gen.Select(Gen.Int[0, Files.Count - 1], Gen.Int[0, int.MaxValue], Value, Gen.Bool).Sample((file, chosen, value, isNew) =>
        {
            var sheet = Of(Files[file]);
            var paths = Objects(sheet, "").ToList();
            var at = paths[chosen % paths.Count];
            List<string> names = [.. at.Split('.', StringSplitOptions.RemoveEmptyEntries)];
            names.Add(isNew || sheet.Names(at).Count == 0 ? "brand-new" : sheet.Names(at)[chosen % sheet.Names(at).Count]);
            var written = sheet.With(string.Join('.', names), value);
            var expected = JsonNode.Parse(Files[file])!;
            Set(expected, names, value);
            Assert.True(JsonNode.DeepEquals(expected, JsonNode.Parse(written.ToString())), string.Join('.', names));
            if (isNew && sheet.Names(at).Count > 0)
                Assert.Equal(Files[file], written.Without(string.Join('.', names)).ToString());
            // What stands before and after the change stands there still, letter by letter.
            var (before, after) = (Files[file], written.ToString());
            var head = before.Zip(after).TakeWhile(p => p.First == p.Second).Count();
            var tail = before.Reverse().Zip(after.Reverse()).TakeWhile(p => p.First == p.Second).Count();
            var raw = sheet.Raw(string.Join('.', names)) ?? "";
            Assert.InRange(before.Length - head - tail, -written.Raw(string.Join('.', names))!.Length, raw.Length);
        }, iter: 400);

    // Only paths of plain names: ids and fields.
    private static IEnumerable<string> Objects(SheetText sheet, string path)
    {
        if (sheet.Raw(path)?[0] != '{')
            yield break;
        yield return path;
        foreach (var name in sheet.Names(path).Where(n => !n.Contains('.', StringComparison.Ordinal)))
            foreach (var found in Objects(sheet, path.Length == 0 ? name : $"{path}.{name}"))
                yield return found;
    }

    [Fact]
    public void What_is_taken_out_leaves_no_comma_behind() =>
        Gen.Select(Gen.Int[0, Files.Count - 1], Gen.Int[0, int.MaxValue]).Sample((file, chosen) =>
        {
            var sheet = Of(Files[file]);
            var paths = Objects(sheet, "").Where(p => p.Length > 0).ToList();
            var at = paths[chosen % paths.Count];
            var expected = JsonNode.Parse(Files[file])!;
            var above = at.Split('.')[..^1].Aggregate(expected, (node, name) => node[name]!);
            above.AsObject().Remove(at.Split('.')[^1]);
            Assert.True(JsonNode.DeepEquals(expected, JsonNode.Parse(sheet.Without(at).ToString())), at);
        }, iter: 200);

    [Theory]
    [InlineData("{\n  \"a\": 1\n}", "b", "{\n  \"a\": 1,\n  \"b\": \"x\"\n}")]
    [InlineData("{\"a\": 1}", "b", "{\"a\": 1, \"b\": \"x\"}")]
    [InlineData("{}", "b", "{\n  \"b\": \"x\"\n}")]
    [InlineData("{\r\n  \"a\": 1\r\n}", "b", "{\r\n  \"a\": 1,\r\n  \"b\": \"x\"\r\n}")]
    [InlineData("{\n  \"a\": 1,\n}", "b", "{\n  \"a\": 1,\n  \"b\": \"x\"\n}")]
    [InlineData("{\n  \"a\": {\n    \"c\": 1\n  }\n}", "a.b", "{\n  \"a\": {\n    \"c\": 1,\n    \"b\": \"x\"\n  }\n}")]
    [InlineData("{\"a\": [1, 2]}", "a[2]", "{\"a\": [1, 2, \"x\"]}")]
    [InlineData("{\"a\": [1, 2]}", "a[0]", "{\"a\": [\"x\", 2]}")]
    [InlineData("{\"a\": 1}", "b.c", "{\"a\": 1, \"b\": {\"c\": \"x\"}}")]
    public void A_value_stands_as_those_beside_it_do(string before, string path, string after) =>
        Assert.Equal(after, Of(before).With(path, JsonValue.Create("x")).ToString());

    [Theory]
    [InlineData("{\"a\": 1", 1)]
    [InlineData("{\"a\": 1,\n \"a\": 2}", 2)]
    [InlineData("[]", null)]
    public void What_is_no_sheet_is_told_with_its_line(string text, int? line)
    {
        Assert.Null(SheetText.Read(text, out var wrong));
        Assert.Equal(line, wrong!.Line);
    }

    [Fact]
    public void A_text_of_more_than_a_megabyte_is_not_taken() =>
        Assert.Null(SheetText.Read("{\"a\": \"" + new string('x', SheetText.Most) + "\"}", out _));

    [Fact]
    public void A_new_sheet_lacks_only_what_has_to_be_written()
    {
        var sheet = SheetText.New("pedal-cart-3", "Dunlin", "Cart 3", "ground");
        Assert.DoesNotContain(SheetReader.Read(sheet.ToString()).Errors, e => e.Line is 1 or null);
        Assert.Equal("ground", sheet.Said("stands"));
        Assert.Equal(["sources", "access", "fluids", "fasteners", "parts", "intervals", "steps", "jobs"],
            sheet.Names("").Where(n => sheet.Raw(n) == "{}"));
    }
}
