-- Up Migration

-- Pictures of a job, scaled and without the place they were taken at. The fact that tells of one is in `fact`; here is only what it looks like.
create table photo (
  id uuid primary key,
  job uuid not null references job (id),
  width integer not null constraint photo_wide check (width between 1 and 10000),
  height integer not null constraint photo_high check (height between 1 and 10000),
  -- JPEG; the small one is what lists show
  large bytea not null constraint photo_large_size check (octet_length(large) <= 5000000),
  small bytea not null constraint photo_small_size check (octet_length(small) <= 200000),
  stored timestamptz not null default clock_timestamp()
);
create index photo_by_job on photo (job);
-- Already compressed: no second try.
alter table photo alter column large set storage external, alter column small set storage external;

-- Who sent a fact, when it was not who said it: another builder signed in before the tablet found the server again.
alter table fact add column sent_by uuid references staff (id);

-- Every web process listens and tells the pages that have the job open. The database folds the same message of one transaction into one.
create function fact_is_told() returns trigger language plpgsql as $$
begin
  perform pg_notify('yard_key_fact', new.job::text);
  return null;
end $$;
create trigger fact_is_told after insert on fact for each row execute function fact_is_told();
