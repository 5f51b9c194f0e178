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

-- A person is found by the role that they have now.
drop trigger found_of_person_update;
create trigger found_of_person_update after update of name, role on person begin
    insert into found_entry (kind, key, title, words) values ('person', new.id, new.name, new.role)
    on conflict (kind, key) do update set title = excluded.title, words = excluded.words;
end;
