create table setting (
    name text primary key,
    value text not null
) strict;

create table person (
    id text primary key,
    name text not null unique,
    role text not null check (role in ('technician', 'lead', 'stores', 'viewer')),
    pin_hash text not null,
    units text not null default 'metric' check (units in ('metric', 'us')),
    look text not null default 'device' check (look in ('device', 'day', 'night'))
) strict;

create table pin_attempt (
    person_id text not null references person (id),
    address text not null,
    failures integer not null,
    last_at text not null,
    primary key (person_id, address)
) strict;

create table sheet (
    id text not null,
    revision integer not null,
    content text not null,
    brought_in_at text not null,
    primary key (id, revision)
) strict;

create table vehicle (
    plate text primary key,
    sheet_id text not null,
    task text not null,
    year integer not null,
    harsh_use integer not null check (harsh_use in (0, 1))
) strict;

create table odometer (
    plate text not null references vehicle (plate),
    at text not null,
    km text not null,
    person_id text not null,
    reason text not null,
    primary key (plate, at)
) strict;

create table card (
    id integer primary key,
    plate text not null references vehicle (plate),
    sheet_id text not null,
    sheet_revision integer not null,
    bay text not null,
    opened_at text not null,
    head_seq integer not null,
    head_hash text not null,
    signed_at text,
    foreign key (sheet_id, sheet_revision) references sheet (id, revision)
) strict;

create index card_by_plate on card (plate);
create index card_unsigned on card (id) where signed_at is null;

create table event (
    card_id integer not null references card (id),
    seq integer not null,
    at text not null,
    person_id text not null,
    person_name text not null,
    person_role text not null,
    command_id text not null,
    body text not null,
    hash text not null,
    primary key (card_id, seq)
) strict, without rowid;

create table command (
    id text primary key,
    card_id integer not null references card (id),
    first_seq integer not null,
    last_seq integer not null
) strict, without rowid;

-- What happened is appended and never changed, whoever holds the file open.
create trigger event_is_not_changed before update on event begin select raise(abort, 'events are never changed'); end;
create trigger event_is_not_removed before delete on event begin select raise(abort, 'events are never removed'); end;
