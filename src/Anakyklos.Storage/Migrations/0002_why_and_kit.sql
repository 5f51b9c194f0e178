alter table vehicle add column delivered text;
alter table vehicle add column history_unknown integer not null default 0 check (history_unknown in (0, 1));
alter table vehicle add column warranty_until text;
alter table odometer add column hours integer;

create table done_job (
    plate text not null references vehicle (plate),
    job text not null,
    day text not null,
    km text not null,
    hours integer,
    card_id integer references card (id),
    primary key (plate, job, day)
) strict, without rowid;

insert or ignore into done_job (plate, job, day, km, card_id)
select card.plate, job.value, substr(card.signed_at, 1, 10), replace(json_extract(event.body, '$.odometer'), ' km', ''), card.id
from card join event on event.card_id = card.id and event.seq = 1, json_each(event.body, '$.jobs') job
where card.signed_at is not null;

create table own_rule (
    plate text not null, -- empty: the depot's rule, for all vehicles
    job text not null,
    km text,
    months integer,
    hours integer,
    primary key (plate, job),
    check (km is not null or months is not null or hours is not null)
) strict, without rowid;

create table oil_book (
    id integer primary key check (id = 1),
    content text not null
) strict;

create table part (
    bare text primary key,
    number text not null,
    name text not null,
    on_shelf integer not null check (on_shelf >= 0),
    superseded_by text not null default '',
    equivalents text not null default ''
) strict, without rowid;

create table container (
    id integer primary key,
    product text not null,
    size_l text not null,
    left_l text not null,
    scale text not null,
    opened text,
    batch text not null default ''
) strict;

create table tool (
    bare text primary key,
    size text not null,
    place text not null default ''
) strict, without rowid;

create table pan (
    name text primary key,
    holds_l text not null
) strict, without rowid;

create table reservation (
    card_id integer not null references card (id),
    bare text not null,
    count integer not null check (count > 0),
    primary key (card_id, bare)
) strict, without rowid;

create table movement (
    id integer primary key,
    at text not null,
    person_id text not null,
    card_id integer,
    seq integer,
    kind text not null check (kind in ('used', 'returned', 'received', 'counted', 'poured')),
    item text not null, -- bare part number, or container:ID
    name text not null,
    amount text not null -- signed: parts as a number, oil in litres
) strict;

create index movement_by_card on movement (card_id);
