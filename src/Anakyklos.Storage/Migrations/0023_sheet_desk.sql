-- A sheet that is being written. Each change counts its edition up; it ends in use or thrown away.
create table draft (
    id integer primary key,
    sheet_id text not null,
    content text not null,
    edition integer not null check (edition >= 1),
    base integer,
    started_by text not null references person (id),
    started_at text not null,
    changed_by text not null references person (id),
    changed_at text not null,
    ended text not null default '' check (ended in ('', 'in use', 'thrown away'))
) strict;

-- Who wrote a value of a draft; where none is named, whoever began the draft.
create table draft_value (
    draft_id integer not null references draft (id),
    path text not null,
    person_id text not null references person (id),
    at text not null,
    primary key (draft_id, path)
) strict, without rowid;

-- What somebody typed from the source without seeing what the draft says, and what came of it.
create table draft_look (
    id integer primary key,
    draft_id integer not null references draft (id),
    path text not null,
    person_id text not null references person (id),
    at text not null,
    typed text not null,
    outcome text not null check (outcome in ('same', 'other', 'ruled', 'changed'))
) strict;
create index draft_look_by_draft on draft_look (draft_id, path);

-- What became of a revision: put in use, withdrawn, put back in use; by whom, and why.
create table sheet_turn (
    id integer primary key,
    sheet_id text not null,
    revision integer not null,
    turn text not null check (turn in ('in use', 'withdrawn')),
    person_id text not null references person (id),
    reason text not null default '',
    at text not null
) strict;
create index sheet_turn_by_sheet on sheet_turn (sheet_id, revision);
