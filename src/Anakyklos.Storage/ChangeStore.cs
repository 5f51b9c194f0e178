using System.Text.Json;
using System.Text.Json.Nodes;
using Dapper;

namespace Anakyklos.Storage;

/// <summary>A change of the workshop, as other programs are told of it.</summary>
/// <param name="Id">Its place: each is greater than those before; some are left out.</param>
/// <param name="At">When it was written.</param>
/// <param name="By">The id of who did it; empty for the program by itself.</param>
/// <param name="What">What changed, such as <c>vehicle</c>, <c>odometer</c>, <c>part</c>; <c>event</c> for the newest event of a
/// card.</param>
/// <param name="Key">What names it.</param>
/// <param name="Now">How it is now, without large texts and secrets; null where it was removed.</param>
public sealed record WorkshopChange(long Id, DateTimeOffset At, string By, string What, JsonElement Key, JsonObject? Now);

/// <summary>Everything that happened in the workshop, in its order, for programs that follow it. It is read off the journal.</summary>
public sealed class ChangeStore(WorkshopDatabase database)
{
    /// <summary>So many are read at once, at most.</summary>
    public const int Most = 1000;

    /// <summary>What is told. A table that nobody thought of is not.</summary>
    public static IReadOnlyList<string> Told { get; } =
    [
        "event", "card", "vehicle", "odometer", "odometer_exchange", "vehicle_change", "former_plate", "done_job", "own_rule",
        "vehicle_report", "vehicle_needed", "planned_trip", "dash_told", "visit", "visit_dropped", "recommendation_answer",
        "part", "container", "tool", "pan", "reservation", "movement", "drum", "drum_entry", "oil_book",
        "sheet", "sheet_turn", "own_list", "ruling", "sample", "photo", "brought_record", "label_job",
        "device", "device_reading", "calibration", "person", "person_hours",
    ];

    /// <summary>What is not told: secrets, what is written blind, what is practised only, and what keeps the program itself in
    /// order.</summary>
    public static IReadOnlyList<string> Untold { get; } =
    [
        "SchemaVersions", "setting", "session", "token", "pin_attempt", "trail", "command", "form_sent", "journal", "found_entry",
        "draft", "draft_value", "draft_look", "practice_run", "practice_entry", "own_lesson",
    ];

    private static readonly string[] Left = ["pin_hash", "key_hash", "content", "svg", "units", "look", "seen_at", "clock_off_s"];

    /// <summary>What happened after a place.</summary>
    /// <param name="since">The place; 0 for the beginning.</param>
    /// <param name="most">So many at most, 1 to <see cref="Most"/>.</param>
    /// <returns>The changes, the oldest first, and the place up to which was read: to go on from, also where nothing was told.</returns>
    public (IReadOnlyList<WorkshopChange> Changes, long Until) Since(long since, int most)
    {
        using var connection = database.Connect();
        var rows = connection.Query<(long Id, string At, string By, string What, string Key, string? Row)>("""
            select id, at, person_id, item, key, row from journal where id > @since and hash <> x'' order by id limit @most
            """, new { since, most = Math.Clamp(most, 1, Most) }).ToList();
        return ([.. rows.Where(r => Told.Contains(r.What)).Select(r => new WorkshopChange(r.Id, CardStore.Time(r.At), r.By, r.What,
            JsonDocument.Parse(r.Key).RootElement, Now(r.Row)))], rows.Count > 0 ? rows[^1].Id : since);
    }

    private static JsonObject? Now(string? row)
    {
        if (row is null || JsonNode.Parse(row) is not JsonObject now)
            return null;
        foreach (var secret in Left)
            now.Remove(secret);
        return now;
    }
}
