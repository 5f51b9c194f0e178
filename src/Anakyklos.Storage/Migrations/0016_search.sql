-- Whatever can be looked for, one entry a thing, kept up by whoever writes that thing; and its words.
create table found_entry (
    id integer primary key,
    kind text not null, -- vehicle, card, part, batch, finding, person, sample
    key text not null,
    plate text not null default '',
    at text not null default '',
    title text not null,
    words text not null,
    bare text not null default '', -- numbers and plates without what stands between their letters
    unique (kind, key)
) strict;
create index found_entry_plate on found_entry (plate);

create virtual table found using fts5 (kind, title, words, bare, content = 'found_entry', content_rowid = 'id',
    tokenize = 'unicode61 remove_diacritics 2', prefix = '2 3 4');
create trigger found_entry_insert after insert on found_entry begin
    insert into found (rowid, kind, title, words, bare) values (new.id, new.kind, new.title, new.words, new.bare);
end;
create trigger found_entry_delete after delete on found_entry begin
    insert into found (found, rowid, kind, title, words, bare) values ('delete', old.id, old.kind, old.title, old.words, old.bare);
end;
create trigger found_entry_update after update of kind, title, words, bare on found_entry begin
    insert into found (found, rowid, kind, title, words, bare) values ('delete', old.id, old.kind, old.title, old.words, old.bare);
    insert into found (rowid, kind, title, words, bare) values (new.id, new.kind, new.title, new.words, new.bare);
end;

create view found_vehicle as
select plate as key, plate || ' ' || task as title,
    year || ' ' || replace(sheet_id, '-', ' ')
        || coalesce((select ' ' || group_concat(plate, ' ') from former_plate where now = vehicle.plate), '') as words,
    replace(replace(upper(plate), '-', ''), ' ', '') || coalesce((select ' ' || group_concat(replace(upper(plate), '-', ''), ' ')
        from former_plate where now = vehicle.plate), '') as bare
from vehicle;
create view found_part as
select bare as key, number || ' ' || name as title, superseded_by || ' ' || replace(equivalents, ';', ' ') as words,
    bare || ' ' || replace(upper(replace(replace(superseded_by || ';' || equivalents, '-', ''), ' ', '')), ';', ' ') as bare from part;
create view found_batch as
select cast(id as text) as key, batch || ' ' || product as title, 'no. ' || id as words,
    upper(replace(replace(batch, '-', ''), ' ', '')) as bare from container;

-- What of a card's events is looked for: the words that somebody typed, and what was fitted and poured.
create view found_event as
select card_id, seq, at, json_extract(body, '$.event') as event, case json_extract(body, '$.event')
    when 'FindingNoted' then json_extract(body, '$.text')
    when 'WordLeft' then json_extract(body, '$.text')
    when 'DeviationTaken' then json_extract(body, '$.what') || ': ' || json_extract(body, '$.reason')
    when 'JobDropped' then json_extract(body, '$.name') || ' not done: ' || json_extract(body, '$.reason')
    when 'StopDecided' then json_extract(body, '$.words')
    when 'CarriedMended' then json_extract(body, '$.words')
    when 'WaitCut' then json_extract(body, '$.reason')
    when 'StepPutAside' then json_extract(body, '$.reason')
    when 'Amended' then json_extract(body, '$.name') || ': ' || json_extract(body, '$.words')
    when 'VoidAsked' then json_extract(body, '$.reason')
    when 'PartAwaited' then 'Waits for ' || json_extract(body, '$.name') || ' ' || json_extract(body, '$.number')
    when 'LeakFound' then 'Leak at ' || replace(json_extract(body, '$.fastener'), '-', ' ')
    end as words
from event;

create trigger found_of_event after insert on event
when new.seq > 1 and json_extract(new.body, '$.event') in ('FindingNoted', 'WordLeft', 'DeviationTaken', 'JobDropped', 'StopDecided',
    'CarriedMended', 'WaitCut', 'StepPutAside', 'Amended', 'VoidAsked', 'PartAwaited', 'LeakFound') begin
    insert into found_entry (kind, key, plate, at, title, words)
    select 'finding', new.card_id || '.' || new.seq, coalesce((select plate from card where id = new.card_id), ''), new.at, words, ''
    from found_event where card_id = new.card_id and seq = new.seq and words is not null
    on conflict (kind, key) do nothing;
end;
create trigger found_of_card after insert on event when new.seq = 1 begin
    insert into found_entry (kind, key, plate, at, title, words, bare)
    select 'card', cast(new.card_id as text), json_extract(new.body, '$.plate'), new.at,
        new.card_id || ' ' || json_extract(new.body, '$.plate'),
        replace(replace(replace(replace(json_extract(new.body, '$.jobs'), '-', ' '), '"', ''), '[', ''), ',', ' ') || ' '
            || new.person_name,
        replace(upper(json_extract(new.body, '$.plate')), '-', '')
    on conflict (kind, key) do nothing;
end;
-- Who signed is found with the card.
create trigger found_of_signed after insert on event when new.body like '{"event":"Signed"%' begin
    update found_entry set words = words || ' ' || new.person_name where kind = 'card' and key = cast(new.card_id as text)
        and instr(words, new.person_name) = 0;
end;
create trigger found_of_vehicle_insert after insert on vehicle begin
    insert into found_entry (kind, key, plate, title, words, bare)
    select 'vehicle', key, key, title, words, bare from found_vehicle where key = new.plate
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words, bare = excluded.bare;
end;
create trigger found_of_part_insert after insert on part begin
    insert into found_entry (kind, key, plate, title, words, bare)
    select 'part', key, '', title, words, bare from found_part where key = new.bare
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words, bare = excluded.bare;
end;
create trigger found_of_container_insert after insert on container begin
    insert into found_entry (kind, key, plate, title, words, bare)
    select 'batch', key, '', title, words, bare from found_batch where key = cast(new.id as text)
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words, bare = excluded.bare;
end;
create trigger found_of_person_insert after insert on person begin
    insert into found_entry (kind, key, title, words) values ('person', new.id, new.name, new.role)
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words;
end;
create trigger found_of_vehicle_update after update on vehicle begin
    delete from found_entry where kind = 'vehicle' and key = old.plate and old.plate <> new.plate;
    insert into found_entry (kind, key, plate, title, words, bare)
    select 'vehicle', key, key, title, words, bare from found_vehicle where key = new.plate
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words, bare = excluded.bare;
end;
create trigger found_of_part_update after update of number, name, superseded_by, equivalents on part begin
    insert into found_entry (kind, key, plate, title, words, bare)
    select 'part', key, '', title, words, bare from found_part where key = new.bare
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words, bare = excluded.bare;
end;
create trigger found_of_container_update after update of batch, product on container begin
    insert into found_entry (kind, key, plate, title, words, bare)
    select 'batch', key, '', title, words, bare from found_batch where key = cast(new.id as text)
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words, bare = excluded.bare;
end;
create trigger found_of_person_update after update of name on person begin
    insert into found_entry (kind, key, title, words) values ('person', new.id, new.name, new.role)
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words;
end;
create trigger found_of_former_plate after insert on former_plate begin
    insert into found_entry (kind, key, plate, title, words, bare)
    select 'vehicle', key, key, title, words, bare from found_vehicle where key = new.now
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words, bare = excluded.bare;
end;

insert into found_entry (kind, key, plate, title, words, bare) select 'vehicle', key, key, title, words, bare from found_vehicle;
insert into found_entry (kind, key, title, words, bare) select 'part', key, title, words, bare from found_part;
insert into found_entry (kind, key, title, words, bare) select 'batch', key, title, words, bare from found_batch;
insert into found_entry (kind, key, title, words) select 'person', id, name, role from person;
insert into found_entry (kind, key, plate, at, title, words, bare)
select 'card', cast(id as text), card.plate, card.opened_at, id || ' ' || card.plate,
    replace(replace(replace(replace(json_extract(event.body, '$.jobs'), '-', ' '), '"', ''), '[', ''), ',', ' ') || ' '
        || (select group_concat(person_name, ' ') from (select distinct person_name from event e where e.card_id = card.id
            and (e.seq = 1 or e.body like '{"event":"Signed"%'))),
    replace(upper(card.plate), '-', '')
from card join event on event.card_id = card.id and event.seq = 1;
insert into found_entry (kind, key, plate, at, title, words)
select 'finding', card_id || '.' || seq, plate, at, words, '' from found_event join card on card.id = card_id where seq > 1
    and words is not null;

-- Where a part or what was in a container went.
create index movement_by_item on movement (item, id);
