-- Up Migration

-- Nobody was at the bench for a while: the session answers nothing until somebody says who is there.
alter table session add column locked timestamptz;

-- Written now and then: whoever asks whether the shop is well learns whether anything can be stored.
create table health (
  one boolean primary key default true constraint health_is_one check (one),
  at timestamptz not null default now()
);
insert into health default values;

-- The sum of a shelf is the ledger's doing alone: whoever may add to the ledger need not be able to change it.
alter function movement_into_stock() security definer set search_path = public, pg_temp;
