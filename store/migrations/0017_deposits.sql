-- Up Migration

-- What is paid on top until the old part comes back, each.
alter table price add column deposit integer constraint price_deposit_is_some check (deposit > 0);
