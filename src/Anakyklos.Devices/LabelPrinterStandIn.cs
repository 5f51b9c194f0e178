using System.Text.Json.Nodes;

namespace Anakyklos.Devices;

/// <summary>A label as it came out of the printer.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Length">How long it is, in mm.</param>
/// <param name="Svg">What is on it.</param>
public sealed record PrintedLabel(Guid Id, double Length, string Svg);

/// <summary>A stand-in for a label printer with a roll of 62 mm. It asks for work, prints while there is paper, and says what became of
/// each label until the workshop has heard it.</summary>
/// <param name="name">What is painted on it.</param>
public sealed class LabelPrinterStandIn(string name) : SendingStandIn(name)
{
    private const double Roll = 8_000;

    /// <summary>How wide its roll is, in mm.</summary>
    public const double Width = 62;

    private readonly Lock _at = new();
    private readonly Dictionary<Guid, string> _unsaid = [];
    private readonly List<PrintedLabel> _labels = [];
    private double _left = Roll;

    /// <summary>What came out of it, the newest first.</summary>
    public IReadOnlyList<PrintedLabel> Labels
    {
        get
        {
            lock (_at)
                return [.. Enumerable.Reverse(_labels)];
        }
    }

    /// <summary>How much paper is left, in mm.</summary>
    public double Left
    {
        get
        {
            lock (_at)
                return _left;
        }
    }

    /// <summary>Somebody takes the roll out, or puts a new one in.</summary>
    /// <param name="isIn">Whether a new roll is in.</param>
    public void Load(bool isIn)
    {
        lock (_at)
            _left = isIn ? Roll : 0;
    }

    /// <inheritdoc/>
    protected override IReadOnlyList<JsonObject> More(DateTimeOffset now)
    {
        lock (_at)
            return [.. _unsaid.Select(u => u.Value.Length > 0 ? new JsonObject { ["printed"] = u.Key.ToString(), ["not"] = u.Value }
                : new JsonObject { ["printed"] = u.Key.ToString() }), new() { ["print"] = "next", ["widthMm"] = Width }];
    }

    /// <inheritdoc/>
    protected override void HeardLine(JsonNode line)
    {
        lock (_at)
        {
            if (line["printed"]?.GetValue<string>() is { } said)
                _unsaid.Remove(Guid.Parse(said));
            else if (line["refused"]?.GetValue<string>() is { } refused && Guid.TryParse(refused, out var gone))
                _unsaid.Remove(gone);
            else if (line["print"]?.GetValue<string>() is { } next && Guid.TryParse(next, out var id) && !_unsaid.ContainsKey(id))
                Print(new(id, line["lengthMm"]!.GetValue<double>(), line["svg"]!.GetValue<string>()));
        }
    }

    // One that came before and was not heard to be printed is not printed twice.
    private void Print(PrintedLabel label)
    {
        if (_labels.All(l => l.Id != label.Id))
        {
            if (label.Length > _left)
            {
                _unsaid[label.Id] = "the roll is at its end";
                return;
            }
            _left -= label.Length;
            _labels.Add(label);
        }
        _unsaid[label.Id] = "";
    }
}
