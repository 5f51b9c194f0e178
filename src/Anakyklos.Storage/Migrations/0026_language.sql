-- The language that a person is spoken to in; empty for the one that their browser asks for.
alter table person add column language text not null default '' check (language in ('', 'en', 'de'));
