-- Up Migration

-- What the units of closed jobs came with and left with, figure by figure. Derived: it can be thrown away and made again from the facts; it is
-- made where somebody asks for it.
create table left_with (
  job uuid primary key references job (id),
  figures jsonb not null check (jsonb_typeof(figures) = 'array')
);
create index job_by_book on job (book, number desc);
