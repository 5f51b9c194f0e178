-- Readings know the card that was opened with them, and whether somebody looked twice.
alter table odometer add column card_id integer references card (id);
alter table odometer add column looked_twice integer not null default 0 check (looked_twice in (0, 1));
update odometer set card_id = (select id from card where card.plate = odometer.plate
    and abs(julianday(card.opened_at) - julianday(odometer.at)) < 1.0 / 1440 order by id limit 1);
create index odometer_card on odometer (card_id) where card_id is not null;

-- An odometer that was exchanged: what the old one showed at last, and the new one at first.
create table odometer_exchange (
    plate text not null references vehicle (plate),
    at text not null,
    was_km text not null,
    shows_km text not null,
    primary key (plate, at)
) strict, without rowid;

-- Until now a lower reading with a reason began a new count.
insert into odometer_exchange (plate, at, was_km, shows_km)
select plate, at, before, km from (select plate, at, km, reason,
    lag(km) over (partition by plate order by at) as before from odometer) where reason <> '' and before is not null;

-- What was changed of what is known of a vehicle: nothing is overwritten without a trace.
create table vehicle_change (
    id integer primary key,
    plate text not null references vehicle (plate),
    at text not null,
    person_id text not null references person (id),
    what text not null, -- field, or reading, exchange, elsewhere
    subject text not null default '', -- of a reading its time, of a job done elsewhere its id and day
    was text not null,
    now text not null,
    reason text not null
) strict;
create index vehicle_change_plate on vehicle_change (plate);

-- Plates that vehicles had before.
create table former_plate (
    plate text primary key,
    now text not null references vehicle (plate)
) strict, without rowid;
create index former_plate_now on former_plate (now);

-- Where and by whom a job was done elsewhere, in words; empty where it was done here.
alter table done_job add column elsewhere text not null default '';
create index done_job_card on done_job (card_id) where card_id is not null;

-- Which vehicles have changed in what makes them due, in the order of their last change: what was worked out of the others still holds.
create table vehicle_touched (
    plate text primary key, -- empty: all of them
    seq integer not null
) strict, without rowid;
create index vehicle_touched_seq on vehicle_touched (seq);
create trigger vehicle_insert_touches after insert on vehicle begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger vehicle_update_touches after update on vehicle begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger vehicle_plate_touches after update of plate on vehicle when old.plate <> new.plate begin
    insert into vehicle_touched (plate, seq) values (old.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger vehicle_delete_touches after delete on vehicle begin
    insert into vehicle_touched (plate, seq) values (old.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger odometer_insert_touches after insert on odometer begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger odometer_update_touches after update on odometer begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger odometer_delete_touches after delete on odometer begin
    insert into vehicle_touched (plate, seq) values (old.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger odometer_exchange_insert_touches after insert on odometer_exchange begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger odometer_exchange_update_touches after update on odometer_exchange begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger odometer_exchange_delete_touches after delete on odometer_exchange begin
    insert into vehicle_touched (plate, seq) values (old.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger done_job_insert_touches after insert on done_job begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger done_job_update_touches after update on done_job begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger done_job_delete_touches after delete on done_job begin
    insert into vehicle_touched (plate, seq) values (old.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger own_rule_insert_touches after insert on own_rule begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger own_rule_update_touches after update on own_rule begin
    insert into vehicle_touched (plate, seq) values (new.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger own_rule_delete_touches after delete on own_rule begin
    insert into vehicle_touched (plate, seq) values (old.plate, coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger sheet_insert_touches after insert on sheet begin
    insert into vehicle_touched (plate, seq) values ('', coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger sheet_update_touches after update on sheet begin
    insert into vehicle_touched (plate, seq) values ('', coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger own_list_insert_touches after insert on own_list begin
    insert into vehicle_touched (plate, seq) values ('', coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;
create trigger own_list_update_touches after update on own_list begin
    insert into vehicle_touched (plate, seq) values ('', coalesce((select max(seq) from vehicle_touched), 0) + 1)
        on conflict (plate) do update set seq = excluded.seq;
end;

-- The cards that were signed last.
create index card_signed on card (signed_at) where signed_at is not null;

-- The same of the parts of the stores, so that a long list is not read anew for each press.
create table part_touched (
    bare text primary key,
    seq integer not null
) strict, without rowid;
create index part_touched_seq on part_touched (seq);
create trigger part_insert_touches after insert on part begin
    insert into part_touched (bare, seq) values (new.bare, coalesce((select max(seq) from part_touched), 0) + 1)
        on conflict (bare) do update set seq = excluded.seq;
end;
create trigger part_update_touches after update on part begin
    insert into part_touched (bare, seq) values (new.bare, coalesce((select max(seq) from part_touched), 0) + 1)
        on conflict (bare) do update set seq = excluded.seq;
end;
create trigger part_delete_touches after delete on part begin
    insert into part_touched (bare, seq) values (old.bare, coalesce((select max(seq) from part_touched), 0) + 1)
        on conflict (bare) do update set seq = excluded.seq;
end;
