using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Oils;
using Anakyklos.Core.Stores;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Quantities;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>What the workshop has set for itself.</summary>
/// <param name="Name">The workshop's name.</param>
/// <param name="School">How high it fills; null for each sheet's own target.</param>
/// <param name="Wrenches">Its torque wrenches.</param>
/// <param name="Coldest">Lowest outdoor temperature of the place, in °C; null when oils are not to be checked for it.</param>
/// <param name="Hottest">Highest outdoor temperature, in °C.</param>
public sealed record WorkshopSettings(string Name, TargetSchool? School, IReadOnlyList<WrenchEntry> Wrenches, int? Coldest = null,
    int? Hottest = null)
{
    /// <summary>Before anything was set.</summary>
    public static WorkshopSettings Unset { get; } = new("Workshop", null, []);

    /// <summary>The weather that oils must bear, or null when it is not set.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public Climate? Climate => Coldest is { } low && Hottest is { } high
        ? new(Temperature.Of(low, TemperatureScale.Celsius), Temperature.Of(high, TemperatureScale.Celsius)) : null;
}

/// <summary>A torque wrench as it is stored; the unit of its lowest setting is its scale.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Low">Lowest setting.</param>
/// <param name="High">Highest setting.</param>
/// <param name="Step">Graduation.</param>
/// <param name="Accuracy">Of the reading, in percent either way.</param>
/// <param name="CalibrationDue">The last day on which it may be used; null when that is not kept.</param>
public sealed record WrenchEntry(string Name, Typed<Torque> Low, Typed<Torque> High, Typed<Torque> Step, decimal Accuracy = 4,
    DateOnly? CalibrationDue = null)
{
    /// <summary>As the crib knows it; without a date it counts as calibrated.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public CribWrench InCrib => new(Wrench, Accuracy, CalibrationDue ?? DateOnly.MaxValue);

    /// <summary>As the core knows it.</summary>
    public TorqueWrench Wrench => new(Name, Low.Value, High.Value, Step.Value, Low.Unit);
}

/// <summary>The workshop's settings.</summary>
public sealed class SettingStore(WorkshopDatabase database)
{
    private const string Key = "workshop";

    /// <summary>The settings as they are.</summary>
    public WorkshopSettings Read()
    {
        using var connection = database.Connect();
        return Read(connection);
    }

    internal static WorkshopSettings Read(SqliteConnection connection)
    {
        var json = connection.QuerySingleOrDefault<string>("select value from setting where name = @Key", new { Key });
        return json is null ? WorkshopSettings.Unset : JsonSerializer.Deserialize<WorkshopSettings>(json, CardJson.Options)!;
    }

    /// <summary>Replaces the settings.</summary>
    public Task<int> Write(WorkshopSettings settings) => database.Writes.Run(scope => scope.Connection.Execute(
        "insert into setting (name, value) values (@Key, @json) on conflict do update set value = @json",
            new { Key, json = JsonSerializer.Serialize(settings, CardJson.Options) }));
}
