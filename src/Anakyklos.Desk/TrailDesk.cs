using System.Text.Json;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>A line of the trail as it is read.</summary>
/// <param name="Id">Its place, to go on from.</param>
/// <param name="At">When, in the workshop's zone.</param>
/// <param name="By">Who; "the program" where nobody did.</param>
/// <param name="Kind">What kind of thing, in a word or two.</param>
/// <param name="Words">What it was.</param>
public sealed record TrailRow(long Id, DateTimeOffset At, string By, string Kind, string Words);

/// <summary>The trail that the lead reads: who came in, which PINs were refused, what was changed of people, settings, rules, oils, sheets
/// and devices, what was brought in, taken out and put back.</summary>
public sealed class TrailDesk(TrailStore trail, PeopleStore people, WorkshopClock clock)
{
    private const int Page = 100;

    // What a person does not read: secrets, and what follows from the rest.
    private static readonly HashSet<string> Secret = ["pin_hash", "key_hash", "calendar-key"];

    private static readonly HashSet<string> Silent = ["content", "brought_in_at", "at", "units", "look", "seen_at", "clock_off_s",
        "said_bay"];

    /// <summary>The newest lines, or those before one.</summary>
    /// <param name="before">The place of the last line that was read; null for the newest.</param>
    /// <returns>The lines, and whether there are more.</returns>
    public (IReadOnlyList<TrailRow> Rows, bool IsMore) Read(long? before)
    {
        var entries = trail.Read(before, Page + 1);
        var names = people.Ever().ToDictionary(p => p.Id.Text, p => p.Name);
        return ([.. entries.Take(Page).Select(e => Row(e, names)).Where(r => r.Words.Length > 0)], entries.Count > Page);
    }

    private TrailRow Row(TrailEntry e, Dictionary<string, string> names)
    {
        var (now, was) = (Fields(e.Now), Fields(e.Was));
        var key = string.Join(" ", Parts(e.Key).Select(k => names.GetValueOrDefault(k, k)));
        var (kind, words) = e.Item switch
        {
            "trail" => (Text(now, "what") is "refused-pin" ? "refused PIN" : Text(now, "what"), Text(now, "words")),
            "session" when now.ContainsKey("ended_at") && Text(now, "ended_at").Length > 0 =>
                ("signed out", $"{Name(Text(now, "person_id"))}, signed in since {Moment(Text(now, "begun_at"))}"),
            "session" => ("signed in", $"{Name(Text(now, "person_id"))} at {Text(now, "place")}"),
            "person" => ("person", e.Was is null ? $"{Text(now, "name")} came in as {Text(now, "role")}"
                : Changes(now, was) is { Length: > 0 } changes ? $"{key}: {changes}" : ""),
            "setting" when key == "calendar-key" => ("setting", "the calendars have a new key"),
            "setting" => ("setting", Changes(Fields(Text(now, "value")), Fields(Text(was, "value")))),
            "own_rule" => ("rule", e.Now is null ? $"the rule for {key} was taken away"
                : $"{key}: {string.Join(", ", new[] { "km", "months", "hours" }.Where(f => Text(now, f).Length > 0)
                    .Select(f => $"{Text(now, f)} {f}"))}"),
            "oil_book" => ("oils", "the oil book was replaced"),
            "sheet" => ("sheet", $"{Text(now, "id")}, revision {Text(now, "revision")}, was brought in"),
            "own_list" => ("list", $"{key} was {(Text(now, "content").Length == 0 ? "removed" : e.Was is null ? "made" : "changed")}"),
            "ruling" => ("ruling", $"{Text(now, "sheet_id")}: {Text(now, "of")} is {Text(now, "holds")}. {Text(now, "reason")}"),
            "device" => ("device", e.Was is null ? $"{key} was taken in, {Text(now, "bay")}"
                : Changes(now, was) is { Length: > 0 } changes ? $"{key}: {changes}" : ""),
            "brought_record" => ("record", $"card {Text(now, "card")} of {Text(now, "workshop")} on {Text(now, "plate")} was brought in"),
            _ => (e.Item, key),
        };
        // Whoever types a PIN wrongly is not known to be that person: the line tells at whose name it was tried.
        var by = kind == "refused PIN" || kind == "signed in" ? "" : e.By;
        return new(e.Id, clock.Local(e.At), kind == "refused PIN" ? Name(PersonOf(now)) : by.Length > 0 ? by
            : kind == "signed in" ? Name(Text(now, "person_id")) : "the program", kind, words);

        string Name(string id) => names.GetValueOrDefault(id, id);

        string Moment(string at) => DateTimeOffset.TryParse(at, System.Globalization.CultureInfo.InvariantCulture, out var t)
            ? clock.Local(t).ToString("d MMM HH:mm") : at;
    }

    private static string PersonOf(Dictionary<string, JsonElement> now) => Text(now, "person_id");

    private static string Changes(Dictionary<string, JsonElement> now, Dictionary<string, JsonElement> was) => string.Join("; ",
        now.Keys.Union(was.Keys).Where(f => !Silent.Contains(f) && Raw(now, f) != Raw(was, f)).Select(f => Secret.Contains(f)
            ? f == "pin_hash" ? "another PIN" : "another key"
            : f == "gone_at" ? Text(now, f).Length > 0 ? "is gone" : "is back"
            : $"{(f == "beforeBrakes" ? "lesson before brakes" : f.Replace('_', ' '))}: {Short(was, f)} → {Short(now, f)}"));

    // What has a name is told by it.
    private static string Short(Dictionary<string, JsonElement> of, string field) =>
        of.TryGetValue(field, out var value) && value.ValueKind == JsonValueKind.Object
            && value.TryGetProperty("name", out var name) ? name.ToString()
        : Raw(of, field) is var raw && raw.Length > 80 ? raw[..79] + "…" : raw.Length == 0 ? "nothing" : raw.Trim('"');

    private static string Raw(Dictionary<string, JsonElement> of, string field) =>
        of.TryGetValue(field, out var value) && value.ValueKind != JsonValueKind.Null ? value.GetRawText() : "";

    private static string Text(Dictionary<string, JsonElement> of, string field) => !of.TryGetValue(field, out var value) ? ""
        : value.ValueKind == JsonValueKind.String ? value.GetString()! : value.ValueKind == JsonValueKind.Null ? "" : value.GetRawText();

    private static Dictionary<string, JsonElement> Fields(string? json)
    {
        if (string.IsNullOrEmpty(json))
            return [];
        try
        {
            using var document = JsonDocument.Parse(json);
            return document.RootElement.ValueKind != JsonValueKind.Object ? []
                : document.RootElement.EnumerateObject().ToDictionary(p => p.Name, p => p.Value.Clone());
        }
        catch (JsonException)
        {
            return [];
        }
    }

    private static IEnumerable<string> Parts(string key)
    {
        using var document = JsonDocument.Parse(key);
        return [.. document.RootElement.EnumerateArray()
            .Select(p => p.ValueKind == JsonValueKind.String ? p.GetString()! : p.GetRawText())];
    }
}
