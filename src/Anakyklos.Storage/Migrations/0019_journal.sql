-- Every change of a row is told once more here, in a chain: what it became (no row: it was removed), who changed it, and when. What is a
-- fact of a card follows from its events and has only its newest event here. The triggers that fill it are laid by the program for every
-- table there is.
create table journal (
    id integer primary key,
    at text not null default '',
    person_id text not null default '', -- empty: the program by itself
    item text not null, -- the table; "event" for the newest event of a card
    key text not null, -- JSON array
    row text, -- JSON object; null once it was removed
    hash blob not null default x'', -- SHA-256 over the entry before and this one
    mac blob not null default x'' -- HMAC-SHA-256 over the hash, with a key that is not in this file
) strict;
create trigger journal_is_not_changed before update on journal when old.hash <> x'' begin
    select raise(abort, 'the journal is never changed');
end;
create trigger journal_is_not_removed before delete on journal begin select raise(abort, 'the journal is never shortened'); end;

-- Which vehicles and parts changed is read from the journal from now on.
drop trigger vehicle_insert_touches;
drop trigger vehicle_update_touches;
drop trigger vehicle_plate_touches;
drop trigger vehicle_delete_touches;
drop trigger odometer_insert_touches;
drop trigger odometer_update_touches;
drop trigger odometer_delete_touches;
drop trigger odometer_exchange_insert_touches;
drop trigger odometer_exchange_update_touches;
drop trigger odometer_exchange_delete_touches;
drop trigger done_job_insert_touches;
drop trigger done_job_update_touches;
drop trigger done_job_delete_touches;
drop trigger own_rule_insert_touches;
drop trigger own_rule_update_touches;
drop trigger own_rule_delete_touches;
drop trigger sheet_insert_touches;
drop trigger sheet_update_touches;
drop trigger own_list_insert_touches;
drop trigger own_list_update_touches;
drop trigger part_insert_touches;
drop trigger part_update_touches;
drop trigger part_delete_touches;
drop table vehicle_touched;
drop table part_touched;
create index journal_of_vehicles on journal (id)
    where item in ('vehicle', 'odometer', 'odometer_exchange', 'done_job', 'own_rule', 'sheet', 'own_list');
create index journal_of_stores on journal (id) where item in ('part', 'container', 'reservation');

-- What happened beside what is kept: who signed in, what was brought in, taken out, put back.
create table trail (
    id integer primary key,
    at text not null,
    person_id text not null, -- empty: nobody, or the program by itself
    what text not null,
    words text not null
) strict;

-- Forms that were sent: the same one, letter by letter, is carried out once.
create table form_sent (
    fingerprint text primary key, -- SHA-256 of who sent what where
    at text not null,
    done integer not null check (done in (0, 1)) -- 0: nobody knows how it ended
) strict, without rowid;
