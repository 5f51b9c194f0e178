-- Samples for the laboratory: taken on a card, sent, answered. What was measured is kept as it came.
create table sample (
    code text primary key,
    card_id integer not null references card (id),
    seq integer not null,
    plate text not null,
    model text not null,
    fluid text not null,
    fluid_name text not null,
    grades text not null, -- with a line break between them
    jobs text not null, -- ids of the jobs that change this fluid, with a space around each
    taken_at text not null,
    km text not null,
    on_oil_km text, -- how far it ran on that oil; null where nobody knows
    sent_at text,
    result text, -- the laboratory's values as JSON
    result_day text,
    leads text not null default '', -- what follows from it, once it was judged
    says text not null default '',
    answered_at text,
    seen_by text,
    check ((result is null) = (answered_at is null))
) strict, without rowid;

create index sample_by_plate on sample (plate, taken_at);
