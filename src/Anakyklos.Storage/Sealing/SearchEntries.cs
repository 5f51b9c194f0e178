using Dapper;
using Microsoft.Data.Sqlite;

namespace Anakyklos.Storage.Sealing;

/// <summary>What can be looked for follows from everything else: it is derived again and compared, or made anew.</summary>
internal static class SearchEntries
{
    // The same as the triggers that keep it up write, thing by thing.
    private const string Derived = """
        select 'vehicle' as kind, key, key as plate, '' as at, title, words, bare from found_vehicle
        union all select 'part', key, '', '', title, words, bare from found_part
        union all select 'batch', key, '', '', title, words, bare from found_batch
        union all select 'person', id, '', '', name, role, '' from person
        union all select 'card', cast(card_id as text), plate, at, card_id || ' ' || plate,
            jobs || coalesce((select group_concat(' ' || person_name, '') from (select distinct person_name from event s
                where s.card_id = opened.card_id and s.body like '{"event":"Signed"%' and instr(opened.jobs, s.person_name) = 0)), ''),
            replace(upper(plate), '-', '')
        from (select card_id, at, json_extract(body, '$.plate') as plate,
            replace(replace(replace(replace(json_extract(body, '$.jobs'), '-', ' '), '"', ''), '[', ''), ',', ' ') || ' '
                || person_name as jobs
            from event where seq = 1) opened
        union all select 'finding', card_id || '.' || seq, '', at, words, '', '' from found_event where seq > 1 and words is not null
        """;

    /// <summary>Compares. Under which plate a finding or a card stands is the plate that the vehicle had then or has now.</summary>
    internal static void Check(SqliteConnection connection, Faults faults)
    {
        var wrong = connection.Query<(string Kind, string Key, int There, int Derived)>($"""
            with derived as materialized ({Derived})
            select coalesce(d.kind, e.kind), coalesce(d.key, e.key), e.kind is not null, d.kind is not null
            from derived d full join found_entry e on e.kind = d.kind and e.key = d.key
            where e.kind is null or d.kind is null or e.title <> d.title or e.words <> d.words or e.bare <> d.bare
                or e.at not in (d.at, '') or e.at = '' and d.at <> '' or e.plate <> d.plate and not (d.kind in ('card', 'finding')
                    and e.plate in (select plate from card where id = cast(d.key as integer)
                        union select json_extract(body, '$.plate') from event where card_id = cast(d.key as integer) and seq = 1))
            order by 1, 2
            """);
        faults.Add(wrong.Select(w => $"What is looked for: {w.Kind} {w.Key} "
            + (w.There == 0 ? "is missing." : w.Derived == 0 ? "is there, and there is no such thing." : "does not say what it should.")));
        if (connection.ExecuteScalar<long>("""
            select (select count(*) from found_entry where id not in (select id from found_docsize))
                + (select count(*) from found_docsize where id not in (select id from found_entry))
            """) is var lost and > 0)
            faults.Add($"What is looked for: {lost} entries and their words do not belong together.");
    }

    /// <summary>Makes all of it anew in a file that has none.</summary>
    internal static void Make(SqliteConnection connection) => connection.Execute($"""
        insert into found_entry (kind, key, plate, at, title, words, bare)
        select kind, key, case when kind = 'finding' then coalesce((select plate from card where id = cast(d.key as integer)), '')
            else plate end, at, title, words, bare from ({Derived}) d;
        insert into found (found) values ('rebuild');
        """);
}
