-- What becomes of a sheet: one in use is offered at intake; one for the practice bay is made up, and known there only.
alter table sheet add column state text not null default 'in use' check (state in ('draft', 'in use', 'withdrawn', 'practice'));

-- Below how many pieces a part is ordered though no card wants it; and where it lies.
alter table part add column minimum integer not null default 0 check (minimum >= 0);
alter table part add column place text not null default '';
alter table container add column place text not null default '';

-- Why something was counted otherwise, such as a can that was scrapped.
alter table movement add column reason text not null default '';

-- A vehicle that is gone is named where something was done to it, and asked for no more.
alter table vehicle add column gone_at text;

-- Each calibration of a wrench or a meter, and how far off it was found to be before it was set right.
create table calibration (
    device text not null,
    day text not null,
    off_percent text not null,
    until text not null,
    person_id text not null references person (id),
    at text not null,
    primary key (device, at)
) strict, without rowid;
