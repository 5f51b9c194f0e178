-- Lists of inspections that somebody made from the maker's book, kept with a model beside its sheet. A card keeps its own copy.
create table own_list (
    sheet_id text not null,
    id text not null,
    changed integer not null, -- counts up with every change, from 1
    content text not null, -- JSON; empty once it was removed, so that its id is not given out again
    at text not null,
    person_id text not null,
    primary key (sheet_id, id)
) strict, without rowid;
