-- Labels that were sent to be printed, and what became of each.
create table label_job (
    id text primary key,
    card_id integer not null references card (id),
    at text not null,
    person_id text not null references person (id),
    width_mm real not null,
    length_mm real not null,
    svg text not null,
    state text not null check (state in ('waiting', 'sent', 'printed', 'failed')),
    printer text references device (id),
    words text not null -- what the printer said where it could not
) strict;
create index label_job_open on label_job (state) where state in ('waiting', 'sent');
create index label_job_card on label_job (card_id);
