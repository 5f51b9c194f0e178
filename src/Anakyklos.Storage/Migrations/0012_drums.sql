-- Drums for what came out of vehicles, and what went into each and was taken away.
create table drum (
    name text primary key,
    waste text not null,
    holds_l text not null,
    pieces integer not null,
    keep_days integer not null
) strict;
create table drum_entry (
    id integer primary key,
    drum text references drum (name), -- null where there was none for it
    at text not null,
    person_id text not null,
    card_id integer,
    seq integer,
    waste text not null,
    name text not null,
    amount_l text not null, -- signed
    pieces integer not null, -- signed
    kind text not null check (kind in ('in', 'back', 'collected')),
    words text not null
) strict;
create index drum_entry_card on drum_entry (card_id);
create index drum_entry_drum on drum_entry (drum);
