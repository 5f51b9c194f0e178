using System.Text.Json.Nodes;
using Anakyklos.Core.Quantities;

namespace Anakyklos.Devices;

/// <summary>A reading that lies in the memory of a device until the workshop has answered it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="At">When it was measured, by the clock of the device.</param>
/// <param name="Read">What it read.</param>
public sealed record UnsentReading(Guid Id, DateTimeOffset At, MeasuredValue Read);

/// <summary>
/// What the stand-ins that send have in common: they keep what they could not send, and their clock and their line can be spoilt.
/// </summary>
/// <param name="name">What is painted on it.</param>
public abstract class SendingStandIn(string name)
{
    private readonly List<UnsentReading> _unsent = [];
    private readonly Lock _lock = new();

    /// <summary>What is painted on it.</summary>
    public string Name => name;

    /// <summary>Where it was told that it is.</summary>
    public string Bay { get; set; } = "";

    /// <summary>How far its clock goes before the workshop's.</summary>
    public TimeSpan ClockOff { get; set; }

    /// <summary>Whether its line is cut.</summary>
    public bool IsCut { get; set; }

    /// <summary>What it has not been answered yet, oldest first.</summary>
    public IReadOnlyList<UnsentReading> Unsent
    {
        get
        {
            lock (_lock)
                return [.. _unsent];
        }
    }

    /// <summary>Something was measured: it goes to its memory.</summary>
    /// <param name="read">What.</param>
    /// <param name="now">When, by the workshop's clock.</param>
    protected void Keep(MeasuredValue read, DateTimeOffset now)
    {
        lock (_lock)
            _unsent.Add(new(Guid.NewGuid(), now + ClockOff, read));
    }

    /// <summary>What it would send now: a hello and all that is in its memory.</summary>
    /// <param name="now">By the workshop's clock.</param>
    public string Message(DateTimeOffset now)
    {
        IEnumerable<JsonObject> lines =
        [
            new() { ["hello"] = name, ["bay"] = Bay, ["now"] = (now + ClockOff).ToString("O") },
            .. Unsent.Select(Line), .. More(now),
        ];
        return string.Concat(lines.Select(l => l.ToJsonString() + "\n"));
    }

    /// <summary>Hears the answer: what the workshop has is forgotten, whatever became of it; the rest is sent again.</summary>
    /// <param name="lines">The answer, a line of JSON each.</param>
    public void Hear(string lines)
    {
        List<JsonNode?> answers = [.. lines.Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(l => JsonNode.Parse(l))];
        foreach (var line in answers.OfType<JsonNode>())
            HeardLine(line);
        var had = answers
            .Select(a => (string?)(a?["reading"] ?? a?["report"] ?? a?["message"])).OfType<string>().Select(Guid.Parse).ToHashSet();
        lock (_lock)
            _unsent.RemoveAll(r => had.Contains(r.Id));
        Heard(had);
    }

    /// <summary>What else it has to send.</summary>
    /// <param name="now">By the workshop's clock.</param>
    protected virtual IReadOnlyList<JsonObject> More(DateTimeOffset now) => [];

    /// <summary>What the workshop has.</summary>
    /// <param name="had">The ids that it answered.</param>
    protected virtual void Heard(IReadOnlySet<Guid> had)
    {
    }

    /// <summary>One line that the workshop answered.</summary>
    /// <param name="line">The line.</param>
    protected virtual void HeardLine(JsonNode line)
    {
    }

    private static JsonObject Line(UnsentReading r)
    {
        var line = new JsonObject
        {
            ["reading"] = r.Id.ToString(), ["at"] = r.At.ToString("O"), ["value"] = r.Read.Number, ["unit"] = r.Read.Unit,
        };
        if (r.Read is MeasuredVolume { From: { } from })
            line["from"] = from;
        return line;
    }
}
