-- Who is gone: they are named where they did something, and come in no more.
alter table person add column gone_at text;

-- Where people are signed in: a browser with a session that has ended is asked again.
create table session (
    id text primary key, -- SHA-256 of what the browser has
    person_id text not null references person (id),
    begun_at text not null,
    place text not null, -- the address it was begun from
    ended_at text
) strict, without rowid;

-- What the lead reads of who came in and what was changed.
create index journal_of_trail on journal (id)
    where item in ('person', 'session', 'setting', 'own_rule', 'oil_book', 'sheet', 'own_list', 'ruling', 'device',
        'brought_record', 'trail');
