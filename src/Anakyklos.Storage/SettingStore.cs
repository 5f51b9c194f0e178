using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Filling;
using Anakyklos.Core.Tightening;
using Anakyklos.Core.Quantities;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>What the workshop has set for itself.</summary>
/// <param name="Name">The workshop's name.</param>
/// <param name="School">How high it fills; null for each sheet's own target.</param>
/// <param name="Wrenches">Its torque wrenches.</param>
public sealed record WorkshopSettings(string Name, TargetSchool? School, IReadOnlyList<WrenchEntry> Wrenches)
{
    /// <summary>Before anything was set.</summary>
    public static WorkshopSettings Unset { get; } = new("Workshop", null, []);
}

/// <summary>A torque wrench as it is stored; the unit of its lowest setting is its scale.</summary>
/// <param name="Name">What is painted on it.</param>
/// <param name="Low">Lowest setting.</param>
/// <param name="High">Highest setting.</param>
/// <param name="Step">Graduation.</param>
public sealed record WrenchEntry(string Name, Typed<Torque> Low, Typed<Torque> High, Typed<Torque> Step)
{
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
        var json = connection.QuerySingleOrDefault<string>("select value from setting where name = @Key", new { Key });
        return json is null ? WorkshopSettings.Unset : JsonSerializer.Deserialize<WorkshopSettings>(json, CardJson.Options)!;
    }

    /// <summary>Replaces the settings.</summary>
    public Task<int> Write(WorkshopSettings settings) => database.Writes.Run(scope => scope.Connection.Execute(
        "insert into setting (name, value) values (@Key, @json) on conflict do update set value = @json", new { Key, json = JsonSerializer.Serialize(settings, CardJson.Options) }));
}
