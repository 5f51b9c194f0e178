-- Devices that measure, as the workshop knows them; a key is kept only as what can be compared with it.
create table device (
    id text primary key,
    kind text not null check (kind in ('torque-wrench')),
    bay text not null,
    key_hash text not null unique,
    said_bay text not null default '',
    clock_off_s text not null default '0', -- how far its own clock goes before ours, in seconds
    seen_at text
) strict, without rowid;

-- Every reading that came, once for each id that its device gave it: placed at a step of a card, waiting for a person, or discarded.
create table device_reading (
    device_id text not null references device (id),
    id text not null,
    bay text not null, -- where the workshop had the device when it came
    said_bay text not null,
    number text not null,
    unit text not null,
    at text not null, -- when it was measured, put right by what its clock was off
    received_at text not null,
    state text not null check (state in ('placed', 'waiting', 'discarded')),
    why text not null default '',
    then_do text not null default '',
    card_id integer references card (id),
    seq integer,
    step text not null default '',
    person_id text,
    settled_at text,
    words text not null default '',
    primary key (device_id, id),
    check ((state = 'placed') = (card_id is not null and seq is not null)),
    check ((state = 'discarded') = (words <> ''))
) strict, without rowid;

create index device_reading_by_bay on device_reading (bay, received_at);
