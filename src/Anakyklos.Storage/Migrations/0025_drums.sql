-- A drum that is taken out of use keeps its lines in the book.
alter table drum add column gone_at text;
