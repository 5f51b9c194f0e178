using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Readings;
using Anakyklos.Storage;

namespace Anakyklos.Desk;

/// <summary>
/// What devices and the workshop say to each other: lines of JSON, an answer for each line. <c>docs/devices.md</c> describes it with
/// examples. Whatever is not understood is answered in words and changes nothing.
/// </summary>
public sealed class DeviceProtocol(DeviceDesk desk, ScanDesk scans, LabelJobStore labels, CardStore cards)
{
    /// <summary>Longest message, in characters.</summary>
    public const int Longest = 64 * 1024;

    /// <summary>Most lines in one message.</summary>
    public const int MostLines = 200;

    private const int LongestWord = 40;

    /// <summary>Answers a message.</summary>
    /// <param name="key">The device's key; null when none was sent.</param>
    /// <param name="message">Lines of JSON: a hello, then readings.</param>
    /// <returns>Whether the key is known, and an answer for each line that was read.</returns>
    public async Task<(bool IsKnown, string Lines)> Answer(string? key, string message)
    {
        if (key is null || desk.WhoHas(key) is not { } device)
            return (false, Line(Refuse("hello", "Nobody here knows this key. Have the lead take the device in at the bay page.")));
        var lines = message.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        if (message.Length > Longest || lines.Length > MostLines)
            return (true, Line(Refuse("hello", $"Too much at once: at most {MostLines} lines and 64 kB. Nothing of it was kept.")));
        if (lines.Length == 0 || Read(lines[0]) is not { } first || Hello(device, first, out var bay, out var itsNow) is { } wrong)
            return (true, Line(Refuse("hello", Why(lines, device))));
        var off = await desk.Hear(device, bay, itsNow);
        var answers = new List<JsonObject>
        {
            new()
            {
                ["hello"] = device.Id.Text, ["bay"] = device.Bay, ["clockOff"] = Math.Round(off.TotalSeconds, 1), ["says"] = "Heard.",
            },
        };
        foreach (var line in lines.Skip(1))
            answers.Add(await Take(device, bay, off, line));
        return (true, string.Concat(answers.Select(Line)));
    }

    private static string Why(string[] lines, DeviceEntry device) =>
        lines.Length == 0 ? "The message is empty. Begin with a hello."
        : Read(lines[0]) is not { } first ? "The first line is no JSON object. Begin with a hello."
        : Hello(device, first, out _, out _)!;

    // What is wrong with a hello; null when it is one.
    private static string? Hello(DeviceEntry device, JsonElement line, out string bay, out DateTimeOffset itsNow)
    {
        (bay, itsNow) = ("", default);
        if (Text(line, "hello") is not { } name)
            return "The first line is a hello: who it is, its bay, and what its clock says.";
        if (name != device.Id.Text)
            return $"This key belongs to {device.Id}, not to {name}.";
        if (Text(line, "bay") is not { } said)
            return "The hello does not say in which bay it is.";
        bay = said;
        return Time(line, "now") is not { } now ? "The hello does not say what its clock says (“now”, with offset)."
            : (itsNow = now) == default ? "Its clock is not set." : null;
    }

    private async Task<JsonObject> Take(DeviceEntry device, string bay, TimeSpan off, string text)
    {
        if (Read(text) is not { } line)
            return Refuse("", "This line is no JSON object.");
        if (line.TryGetProperty("report", out _))
            return await Report(device, bay, off, line);
        if (line.TryGetProperty("message", out _))
            return await Message(device, bay, off, line);
        if (line.TryGetProperty("print", out _))
            return await Print(device, line);
        if (line.TryGetProperty("printed", out _))
            return await Printed(device, line);
        if (Text(line, "reading") is not { } own || !Guid.TryParse(own, out var id) || id == Guid.Empty)
            return Refuse("", "A reading has an id of its own: a UUID.");
        if (Time(line, "at") is not { } at)
            return Refuse(own, "The reading does not say when it was measured (“at”, with offset).");
        if (!line.TryGetProperty("value", out var value) || value.ValueKind != JsonValueKind.Number
            || !value.TryGetDecimal(out var number))
            return Refuse(own, "The reading has no value that is a number.");
        if (Text(line, "unit") is not { } unit)
            return Refuse(own, "The reading has no unit.");
        int? from = null;
        if (line.TryGetProperty("from", out var container))
        {
            if (container.ValueKind != JsonValueKind.Number || !container.TryGetInt32(out var can) || can < 1)
                return Refuse(own, "“from” is the number on the container that it came out of.");
            from = can;
        }
        if (MeasuredValue.Read(number, unit, from, out var problem) is not { } measured)
            return Refuse(own, problem);
        var (kept, again) = await desk.Take(device, new(id, device.Id, bay, measured, at - off));
        return Became(own, kept, again);
    }

    private async Task<JsonObject> Report(DeviceEntry device, string bay, TimeSpan off, JsonElement line)
    {
        if (Text(line, "report") is not { } own || !Guid.TryParse(own, out var id) || id == Guid.Empty)
            return Refuse("", "A report has an id of its own: a UUID.");
        if (device.Kind != DeviceKind.ScanTool)
            return Refuse(own, $"{device.Id} is no scan tool.");
        if (ScannedLine.Read(line, out var problem) is not { } read)
            return Refuse(own, problem);
        if (Time(line, "at") is not { } at)
            return Refuse(own, "The report does not say when it was read (“at”, with offset).");
        var (kept, again) = await scans.Keep(read.Report(id, device.Id, bay, at - off));
        var answer = new JsonObject { ["report"] = own, ["is"] = "kept" };
        if (again)
            answer["again"] = true;
        if (kept.Plate is { } plate)
            answer["plate"] = plate;
        answer["says"] = kept.Plate is { } known ? $"Kept for the intake of {known}."
            : $"No vehicle here is known as {kept.Report.Identity}: say at intake which one it is.";
        return answer;
    }

    private async Task<JsonObject> Message(DeviceEntry device, string bay, TimeSpan off, JsonElement line)
    {
        if (Text(line, "message") is not { } own || !Guid.TryParse(own, out var id) || id == Guid.Empty)
            return Refuse("", "A message has an id of its own: a UUID.");
        if (Time(line, "at") is not { } at)
            return Refuse(own, "The message does not say when it was shown (“at”, with offset).");
        if (Text(line, "shows") is not { } shows)
            return Refuse(own, $"The message does not say what is shown (“shows”, up to {LongestWord} characters).");
        if (line.TryGetProperty("vehicle", out _) && Text(line, "vehicle") is null)
            return Refuse(own, "“vehicle” is what the vehicle says that it is; leave it out while none is found.");
        var (card, noted, again, not) = await scans.Hear(device, new(id, device.Id, bay, Text(line, "vehicle") ?? "", shows, at - off));
        var answer = new JsonObject { ["message"] = own, ["is"] = card is null ? "not-noted" : "noted" };
        if (again)
            answer["again"] = true;
        if (card is not { } number)
        {
            answer["says"] = $"{not}";
            return answer;
        }
        answer["card"] = number.Value;
        if (noted?.Event is IStepEvent step)
        {
            answer["step"] = step.Step.Text;
            answer["says"] = $"{shows} is noted at “{cards.Find(number)!.TitleOf(step.Step)}”.";
        }
        return answer;
    }

    private async Task<JsonObject> Print(DeviceEntry device, JsonElement line)
    {
        if (device.Kind != DeviceKind.LabelPrinter)
            return Refuse("print", $"{device.Id} is no label printer.");
        if (Text(line, "print") != "next")
            return Refuse("print", "Ask for what is next: {\"print\":\"next\"}.");
        if (!line.TryGetProperty("widthMm", out var width) || width.ValueKind != JsonValueKind.Number
            || !width.TryGetDouble(out var widest) || widest <= 0)
            return Refuse("print", "How wide is the roll (“widthMm”)?");
        return await labels.Next(device.Id, widest) is { } job ? new()
        {
            ["print"] = job.Id.ToString(), ["card"] = job.Card.Value, ["widthMm"] = job.Width, ["lengthMm"] = Math.Round(job.Length, 2),
            ["svg"] = job.Svg,
        } : new() { ["print"] = "nothing", ["says"] = "Nothing is to be printed." };
    }

    private async Task<JsonObject> Printed(DeviceEntry device, JsonElement line)
    {
        if (Text(line, "printed") is not { } own || !Guid.TryParse(own, out var id))
            return Refuse("printed", "Which label? It has the id under which it came.");
        var not = Text(line, "not") ?? "";
        if (line.TryGetProperty("not", out _) && not.Length == 0)
            return Refuse(own, $"“not” says in a few words why it could not be printed, up to {LongestWord} characters.");
        return await labels.Settle(device.Id, id, not)
            ? new() { ["printed"] = own, ["is"] = "noted", ["says"] = not.Length > 0 ? "Whoever sent it is told." : "Thank you." }
            : Refuse(own, $"{device.Id} has no such label.");
    }

    private JsonObject Became(string own, KeptReading kept, bool again)
    {
        var answer = new JsonObject { ["reading"] = own, ["is"] = kept.State.ToString().ToLowerInvariant() };
        if (again)
            answer["again"] = true;
        if (kept.Card is { } number)
        {
            answer["card"] = number.Value;
            answer["step"] = kept.Step.Text;
        }
        answer["says"] = kept switch
        {
            { Card: { } at } => cards.Find(at) is { } card && card.Step(kept.Step) is { } step
                ? $"{kept.Reading.Read} is noted at “{card.TitleOf(step)}”." : $"{kept.Reading.Read} is noted.",
            { State: ReadingState.Discarded } => $"Discarded: {kept.Words}",
            _ => $"Waits in {kept.Reading.Bay}: {kept.Why}",
        };
        return answer;
    }

    private static JsonObject Refuse(string what, string says) => new() { ["refused"] = what, ["says"] = says };

    private static string Line(JsonObject answer) => answer.ToJsonString(CardJson.Options) + "\n";

    private static JsonElement? Read(string line)
    {
        try
        {
            var element = JsonSerializer.Deserialize<JsonElement>(line);
            return element.ValueKind == JsonValueKind.Object ? element : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static string? Text(JsonElement line, string name) =>
        line.TryGetProperty(name, out var value) && value.ValueKind == JsonValueKind.String
            && value.GetString() is { Length: > 0 and <= LongestWord } text ? text : null;

    private static DateTimeOffset? Time(JsonElement line, string name) =>
        Text(line, name) is { } text && text.Contains('T') && (text.EndsWith('Z') || text.LastIndexOfAny(['+', '-']) > 10)
            && DateTimeOffset.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.None, out var at) ? at : null;
}
