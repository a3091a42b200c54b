-- Up Migration

-- Pictures that come with books, by what they are: any number of books and revisions may show the same one.
create table picture (
  digest text primary key check (digest ~ '^[0-9a-f]{64}$'),
  bytes bytea not null,
  stored timestamptz not null default now()
);

-- What jobs found out for next time, found without looking through every fact.
create index fact_next_time on fact (job) where kind = 'next-time';

-- A lead does not take it over.
create table proposal_end (
  job uuid not null references job (id),
  lesson text not null,
  by_name text not null,
  at timestamptz not null default now(),
  primary key (job, lesson)
);
