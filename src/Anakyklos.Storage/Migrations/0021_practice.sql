-- Runs of the practice bay, apart from the cards of real vehicles; what happened in each is told again from what was kept of it.
create table practice_run (
    id integer primary key,
    lesson_id text not null,
    lesson text not null,
    sheet_id text not null,
    sheet_revision integer not null,
    person_id text not null references person (id),
    second_id text references person (id),
    began_at text not null,
    opened text not null,
    ended_at text,
    passed integer check (passed in (0, 1)),
    foreign key (sheet_id, sheet_revision) references sheet (id, revision)
) strict;
create index practice_run_person on practice_run (person_id);
create table practice_entry (
    run_id integer not null references practice_run (id),
    seq integer not null,
    at text not null,
    person_id text not null,
    person_name text not null,
    person_role text not null,
    kind text not null,
    body text not null,
    primary key (run_id, seq)
) strict, without rowid;
-- Lessons that a workshop wrote itself.
create table own_lesson (
    id text primary key,
    lesson text not null,
    person_id text not null references person (id),
    at text not null
) strict, without rowid;
