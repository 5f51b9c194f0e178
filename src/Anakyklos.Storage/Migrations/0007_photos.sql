-- Pictures that go with what was seen: made smaller and written anew when they come in, so that nothing but the picture is kept.
create table photo (
    id text primary key, -- SHA-256 of the content
    card_id integer not null references card (id),
    width integer not null,
    height integer not null,
    at text not null,
    person_id text not null,
    content blob not null -- JPEG
) strict, without rowid;

create index photo_by_card on photo (card_id);
