-- Up Migration

-- Some things are sold several at a time: the price is of the pack.
alter table price add column pack integer not null default 1 constraint price_pack_is_some check (pack >= 1);
-- What one supplier said last of a part.
create index price_by_supplier on price (part, supplier, id desc);
