using System.Text.Json;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Sheets;

namespace Anakyklos.Practice;

/// <summary>Writes a lesson as the file that <see cref="Lesson.Read"/> reads.</summary>
public static class LessonFile
{
    private static readonly JsonSerializerOptions Indented = new(CardJson.Options) { WriteIndented = true };

    /// <summary>The file's text.</summary>
    /// <param name="lesson">The lesson.</param>
    public static string Write(Lesson lesson)
    {
        var file = new JsonObject
        {
            ["format"] = Lesson.Format,
            ["id"] = lesson.Id.Text,
            ["name"] = lesson.Name,
            ["road"] = lesson.Road,
            ["stage"] = lesson.Stage,
            ["story"] = lesson.Story,
            ["sheet"] = lesson.Sheet.Text,
            ["jobs"] = new JsonArray([.. lesson.Jobs.Select(j => JsonValue.Create(j.Text))]),
            ["hot"] = lesson.Hot,
        };
        if (lesson.People != 1)
            file["people"] = lesson.People;
        file["faults"] = Each(lesson.Faults, f => LessonFault.Write(f).Select(m => KeyValuePair.Create(m.Name,
            (JsonNode?)JsonSerializer.SerializeToNode(m.Value))));
        file["notice"] = Each(lesson.Notice, n => [new("what", n.What.Text), new("says", n.Says), new("toCard", n.ToCard)]);
        file["never"] = JsonSerializer.SerializeToNode(lesson.Never, CardJson.Options);
        if (lesson.Wrenches.Count > 0)
            file["wrenches"] = Each(lesson.Wrenches, w => [new("name", w.Name), new("scale", w.Scale.Symbol)]);
        if (lesson.Pan is { } pan)
            file["pan"] = $"{pan}";
        if (lesson.Worn.Count > 0)
            file["worn"] = Each(lesson.Worn, w => [new("step", w.Step.Text), new("point", w.Point), new("reads", w.Reads)]);
        file["right"] = lesson.Right;
        if (lesson.Words.Count > 0)
            file[OtherTongues.Member] = new JsonObject(lesson.Words.Select(l => KeyValuePair.Create(l.Key, (JsonNode?)Each(l.Value,
                w => [new("text", w.Key), new("said", w.Value)]))));
        return file.ToJsonString(Indented) + "\n";
    }

    private static JsonArray Each<T>(IEnumerable<T> things, Func<T, IEnumerable<KeyValuePair<string, JsonNode?>>> members) =>
        [.. things.Select(t => new JsonObject(members(t)))];
}
