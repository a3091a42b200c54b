-- Up Migration

-- A revision of a book never changes; jobs are pinned to one.
create table book (
  id uuid primary key,
  unit text not null,
  revision integer not null,
  -- sha256 of the canonical document: the same book imported from elsewhere is found again
  digest text not null constraint book_digest_once unique,
  -- json, not jsonb: the order in which a book lists its entries is what people see
  document json not null,
  added timestamptz not null default now(),
  constraint book_revision_once unique (unit, revision)
);

create sequence job_number start 1001;

create table job (
  id uuid primary key,
  number bigint not null default nextval('job_number') constraint job_number_once unique,
  book uuid not null references book (id),
  opened timestamptz not null default now(),
  -- the number it had in the Yard Key it was imported from
  origin text
);

create table fact (
  seq bigint generated always as identity primary key,
  id uuid not null constraint fact_id_once unique,
  job uuid not null references job (id),
  kind text not null,
  by_staff uuid references staff (id),
  by_name text not null,
  -- when it was said, by the clock of whoever said it
  at timestamptz not null,
  stored timestamptz not null default clock_timestamp(),
  replaces uuid,
  body jsonb not null constraint fact_body_is_object check (jsonb_typeof(body) = 'object'),
  constraint fact_kind_in_body check (body ->> 'kind' = kind),
  constraint fact_of_job unique (job, id),
  constraint fact_replaces_same_job foreign key (job, replaces) references fact (job, id)
);
create index fact_by_job on fact (job, seq);
-- Two builders who fit the same place at the same moment: the second is refused.
create unique index fact_fitting_once on fact (job, (body ->> 'chain'), ((body ->> 'fit')::integer))
  where kind = 'fitting' and replaces is null;

-- Facts are only added.
create function fact_is_kept() returns trigger language plpgsql as $$
begin
  raise exception 'facts are never changed or taken away' using errcode = 'integrity_constraint_violation';
end $$;
create trigger fact_is_kept before update or delete on fact for each row execute function fact_is_kept();

-- What a list shows of a job. Derived: can be thrown away and made again from the facts. `card` is brought up to date when a
-- list is read and `seq` is behind; `open` and `holder` are set with the fact that changes them, since lists select by them.
create table job_card (
  job uuid primary key references job (id),
  number bigint not null,
  open boolean not null default true,
  holder text,
  seq bigint not null default 0,
  card jsonb not null default '{}'
);
create index job_card_open on job_card (number desc) where open;
create index job_card_closed on job_card (number desc) where not open;
create index job_card_held on job_card (holder, number desc) where open;
