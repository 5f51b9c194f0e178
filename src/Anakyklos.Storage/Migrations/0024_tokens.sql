-- With what programs come in, in the name of a person, for some of what that person may do.
create table token (
    id text not null primary key,
    name text not null,
    person_id text not null references person (id),
    scopes text not null, -- words with blanks between them
    key_hash text not null unique, -- SHA-256 of what the program sends
    made_at text not null,
    made_by text not null references person (id),
    ended_at text
) strict, without rowid;
