-- Beside torque wrenches, dispensers send what they metered, and out of which container. What may be stored as a kind is checked where it
-- is read and written; a list here would have to be rebuilt with every kind that comes.
create table sender (
    id text primary key,
    kind text not null check (kind <> ''),
    bay text not null,
    key_hash text not null unique,
    said_bay text not null default '',
    clock_off_s text not null default '0', -- how far its own clock goes before ours, in seconds
    seen_at text,
    draws_from integer -- the container of the stores in which a dispenser hangs
) strict, without rowid;

insert into sender (id, kind, bay, key_hash, said_bay, clock_off_s, seen_at)
select id, kind, bay, key_hash, said_bay, clock_off_s, seen_at from device;

create table sent_reading (
    device_id text not null references sender (id),
    id text not null,
    bay text not null, -- where the workshop had the device when it came
    said_bay text not null,
    number text not null,
    unit text not null,
    container integer, -- the container that a volume was said to come out of
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

insert into sent_reading (device_id, id, bay, said_bay, number, unit, at, received_at, state, why, then_do, card_id, seq, step, person_id,
    settled_at, words)
select device_id, id, bay, said_bay, number, unit, at, received_at, state, why, then_do, card_id, seq, step, person_id, settled_at, words
from device_reading;

drop table device_reading;
drop table device;
alter table sender rename to device;
alter table sent_reading rename to device_reading;
create index device_reading_by_bay on device_reading (bay, received_at);
