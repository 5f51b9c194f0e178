using System.Text.Json;
using Anakyklos.Core.Cards;
using Anakyklos.Core.Workshop;
using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage;

/// <summary>The workshop's settings.</summary>
public sealed class SettingStore(WorkshopDatabase database)
{
    private const string Key = "workshop";

    /// <summary>The settings as they are.</summary>
    /// <returns>The settings, or the usual ones where none were written.</returns>
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

    /// <summary>The key in the addresses of the workshop's calendars; null before there is one.</summary>
    public string? CalendarKey()
    {
        using var connection = database.Connect();
        return connection.QuerySingleOrDefault<string>("select value from setting where name = 'calendar-key'");
    }

    /// <summary>Keeps a key for the calendars.</summary>
    /// <param name="key">The key.</param>
    /// <param name="replace">Whether it takes the place of one that is there.</param>
    /// <returns>The key that holds.</returns>
    public Task<string> SetCalendarKey(string key, bool replace) => database.Writes.Run(scope => scope.Connection.QuerySingle<string>("""
        insert into setting (name, value) values ('calendar-key', @key)
        on conflict do update set value = case when @replace then @key else value end returning value
        """, new { key, replace }));

    /// <summary>Replaces the settings as a whole.</summary>
    public Task<bool> Write(WorkshopSettings settings) => Change(_ => settings);

    /// <summary>Changes the settings as they are at the moment of writing: two who change different things both have their way.</summary>
    /// <param name="change">What becomes of them; null where they do not allow it any more, and then nothing is written.</param>
    /// <returns>Whether they were changed.</returns>
    public Task<bool> Change(Func<WorkshopSettings, WorkshopSettings?> change) => database.Writes.Run(scope =>
    {
        if (change(Read(scope.Connection)) is not { } settings)
            return false;
        Write(scope.Connection, settings);
        return true;
    });

    internal static void Write(SqliteConnection connection, WorkshopSettings settings) => connection.Execute(
        "insert into setting (name, value) values (@Key, @json) on conflict do update set value = @json",
        new { Key, json = JsonSerializer.Serialize(settings, CardJson.Options) });
}
