-- Where visits stand in the week: fixed by a person, or where the plan had them when somebody last looked and agreed.
create table visit (
    plate text primary key references vehicle (plate),
    day text not null,
    begins integer not null check (begins between 0 and 95), -- quarter hours since midnight
    bay text not null,
    fixed integer not null check (fixed in (0, 1)),
    person_id text not null references person (id),
    at text not null
) strict, without rowid;

-- Vehicles that are not to be brought in before a day, though something asks for it.
create table visit_dropped (
    plate text primary key references vehicle (plate),
    until text not null, -- the first day on which it counts again
    reason text not null,
    person_id text not null references person (id),
    at text not null
) strict, without rowid;

-- When a vehicle cannot be missed, week by week, such as "Mo-Fr 07:30-09:00".
create table vehicle_needed (
    plate text primary key references vehicle (plate),
    times text not null
) strict, without rowid;

-- When a person is there; without an entry it goes by the role.
create table person_hours (
    person_id text primary key references person (id),
    times text not null
) strict, without rowid;

-- The next long trip of a vehicle.
create table planned_trip (
    plate text primary key references vehicle (plate),
    leaves text not null,
    km text not null, -- there and back
    days integer not null,
    person_id text not null references person (id),
    at text not null
) strict, without rowid;

-- What the dash shows, as its driver told before the vehicle came.
create table dash_told (
    plate text primary key references vehicle (plate),
    code text not null,
    person_id text not null references person (id),
    at text not null
) strict, without rowid;

-- Once it is here, its visit has come.
create trigger card_ends_visit after insert on card begin
    delete from visit where plate = new.plate;
    delete from visit_dropped where plate = new.plate;
    delete from dash_told where plate = new.plate;
end;
