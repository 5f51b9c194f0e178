-- Records that other workshops wrote and this one verified; the file as it came.
create table brought_record (
    hash text primary key,
    workshop text not null,
    card integer not null,
    plate text not null,
    signed_at text not null,
    brought_at text not null,
    person_id text not null references person (id),
    content text not null
) strict;
create index brought_record_plate on brought_record (plate);
