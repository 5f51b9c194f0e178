-- A card on which nothing was opened can be made void; it is neither open nor signed then.
alter table card add column voided_at text;

drop index card_unsigned;
create index card_open on card (id) where signed_at is null and voided_at is null;
