-- What became of findings graded "plan it": done, or declined by whom and why. The newest on a finding holds.
create table recommendation_answer (
    id integer primary key,
    card_id integer not null references card (id),
    seq integer not null,
    declined integer not null check (declined in (0, 1)),
    who text not null,
    words text not null,
    person_id text not null references person (id),
    at text not null
) strict;
create index recommendation_answer_card on recommendation_answer (card_id);
