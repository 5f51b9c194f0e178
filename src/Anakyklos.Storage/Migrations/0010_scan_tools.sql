-- What a vehicle tells a scan tool that it is; empty while no tool has read it.
alter table vehicle add column identity text not null default '';
create unique index vehicle_by_identity on vehicle (identity) where identity <> '';

-- What scan tools read out of vehicles, once for each id that the tool gave it.
create table vehicle_report (
    device_id text not null references device (id),
    id text not null,
    said_bay text not null,
    identity text not null check (identity <> ''),
    at text not null, -- when it was read, put right by what the tool's clock was off
    received_at text not null,
    odometer_km text not null,
    odometer_unit text not null, -- as the dash shows it
    code text not null,
    left_km text,
    left_unit text not null default '',
    oil_life integer check (oil_life between 0 and 100),
    hours integer,
    primary key (device_id, id)
) strict, without rowid;

create index vehicle_report_by_time on vehicle_report (at);
