-- What the lead ruled on values where the sources of a sheet disagree; the newest on a value holds.
create table ruling (
    id integer primary key,
    sheet_id text not null,
    value text not null,
    of text not null,
    holds text not null,
    others text not null,
    reason text not null,
    person_id text not null references person (id),
    person_name text not null,
    at text not null
) strict;
create index ruling_sheet on ruling (sheet_id);
