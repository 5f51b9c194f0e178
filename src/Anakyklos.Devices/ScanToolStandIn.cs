using System.Text.Json.Nodes;
using Anakyklos.Core.Quantities;
using Anakyklos.Core.Sheets;
using Anakyklos.Simulation;

namespace Anakyklos.Devices;

/// <summary>What the diagnostic socket of a vehicle gives.</summary>
/// <param name="Plate">The vehicle.</param>
/// <param name="Identity">What it says that it is.</param>
/// <param name="Odometer">What its odometer shows.</param>
/// <param name="Code">The message code on its dash; empty for none.</param>
/// <param name="Left">Distance left by its counter; null where it has none.</param>
/// <param name="OilLife">Oil life left in percent; null where it has none.</param>
/// <param name="Hours">Running hours; null where it counts none.</param>
public sealed record Socket(string Plate, string Identity, Typed<Distance> Odometer, string Code, Typed<Distance>? Left, int? OilLife,
    int? Hours);

/// <summary>
/// A stand-in for a scan tool. It is plugged into a vehicle, reads it, and puts its indicator out move by move where the vehicle's ritual
/// wants a tool. Its plug can be loose, and another vehicle can be chosen on it.
/// </summary>
/// <param name="name">What is painted on it.</param>
public sealed class ScanToolStandIn(string name) : SendingStandIn(name)
{
    /// <summary>What it shows while it finds no vehicle.</summary>
    public const string NoLink = "NO LINK";

    private readonly List<(Guid Id, JsonObject Line)> _lines = [];
    private readonly Lock _lock = new();
    private (VehicleBehind Behind, ResetRitual Ritual)? _answers;

    /// <summary>The vehicle that it is plugged into; null for none.</summary>
    public string? On { get; private set; }

    /// <summary>What that says that it is; empty while it finds none.</summary>
    public string Identity { get; private set; } = "";

    /// <summary>Whether its plug is not home.</summary>
    public bool IsLoose { get; set; }

    /// <summary>What it shows.</summary>
    public string Shows { get; private set; } = "";

    /// <summary>What it has not been answered yet, as it will send it.</summary>
    public int Waiting
    {
        get
        {
            lock (_lock)
                return _lines.Count;
        }
    }

    /// <summary>Plugs it into a vehicle.</summary>
    /// <param name="into">Its socket.</param>
    /// <param name="at">The vehicle and its ritual, where that wants a scan tool; else null.</param>
    /// <param name="now">By the workshop's clock.</param>
    public void Plug(Socket into, (VehicleBehind Behind, ResetRitual Ritual)? at, DateTimeOffset now)
    {
        (On, Identity) = (into.Plate, IsLoose ? "" : into.Identity);
        Shows = IsLoose ? NoLink : "LINK";
        if (at is var (behind, ritual))
            Work(behind, ritual, DashControl.Plug, "", IsLoose ? DashTrouble.NoLink : DashTrouble.None, now);
    }

    /// <summary>Pulls its plug; what it was doing is half done.</summary>
    /// <param name="now">By the workshop's clock.</param>
    public void Unplug(DateTimeOffset now)
    {
        if (_answers is var (behind, ritual))
            Work(behind, ritual, DashControl.Plug, "", DashTrouble.None, now);
        (On, Identity) = (null, "");
        Shows = "";
    }

    /// <summary>Reads the vehicle that it is plugged into; what it read goes to its memory.</summary>
    /// <param name="from">Its socket.</param>
    /// <param name="now">By the workshop's clock.</param>
    /// <returns>Whether there was anything to read.</returns>
    public bool Read(Socket from, DateTimeOffset now)
    {
        if (On != from.Plate || Identity.Length == 0)
        {
            Shows = NoLink;
            return false;
        }
        var line = new JsonObject { ["report"] = $"{Guid.NewGuid()}", ["at"] = At(now), ["vehicle"] = from.Identity };
        line["odometer"] = from.Odometer.Value.In(from.Odometer.Unit);
        line["unit"] = from.Odometer.Unit.Symbol;
        if (from.Code.Length > 0)
            line["code"] = from.Code;
        if (from.Left is { } left)
            line["left"] = left.Value.In(from.Odometer.Unit);
        if (from.OilLife is { } life)
            line["oilLife"] = life;
        if (from.Hours is { } hours)
            line["hours"] = hours;
        Keep(line, "report");
        Shows = OdometerText.Of(from.Odometer.Value, from.Odometer.Unit);
        return true;
    }

    /// <summary>Presses something on it at a vehicle whose ritual wants a scan tool. What it shows goes to its memory once it shows
    /// it.</summary>
    /// <param name="behind">The vehicle.</param>
    /// <param name="ritual">How its indicator is put out.</param>
    /// <param name="control">What is pressed: a choice, or the button.</param>
    /// <param name="typed">What is typed in; empty for nothing.</param>
    /// <param name="trouble">What is wrong with it, such as another vehicle chosen.</param>
    /// <param name="now">By the workshop's clock.</param>
    public void Work(VehicleBehind behind, ResetRitual ritual, DashControl control, string typed, DashTrouble trouble, DateTimeOffset now)
    {
        if (On is null || (Identity.Length == 0 && trouble != DashTrouble.NoLink))
        {
            Shows = NoLink;
            return;
        }
        _answers = null;
        behind.Do(new WorksDash(ritual.Id, control, TimeSpan.Zero, typed, trouble), now);
        _answers = (behind, ritual);
        Settle(now);
    }

    /// <summary>Once the vehicle has answered, the tool shows it and has it to send.</summary>
    /// <param name="now">By the workshop's clock.</param>
    public void Settle(DateTimeOffset now)
    {
        if (_answers is not var (behind, ritual))
            return;
        Shows = behind.AsOf(now).ShowsOf(ritual.Id);
        if (Shows == DashStands.Busy)
            return;
        _answers = null;
        var line = new JsonObject { ["message"] = $"{Guid.NewGuid()}", ["at"] = At(now), ["shows"] = Shows };
        if (Identity.Length > 0)
            line["vehicle"] = Identity;
        Keep(line, "message");
    }

    /// <inheritdoc/>
    protected override IReadOnlyList<JsonObject> More(DateTimeOffset now)
    {
        Settle(now);
        lock (_lock)
            return [.. _lines.Select(l => (JsonObject)l.Line.DeepClone())];
    }

    /// <inheritdoc/>
    protected override void Heard(IReadOnlySet<Guid> had)
    {
        lock (_lock)
            _lines.RemoveAll(l => had.Contains(l.Id));
    }

    private string At(DateTimeOffset now) => (now + ClockOff).ToString("O");

    private void Keep(JsonObject line, string id)
    {
        lock (_lock)
            _lines.Add((Guid.Parse((string)line[id]!), line));
    }
}
