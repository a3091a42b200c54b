-- Up Migration

-- Who stands where in a procedure that two people run, and when they were last heard of. Nothing of it outlives the procedure.
create unlogged table here (
  job integer not null,
  procedure text not null check (length(procedure) between 1 and 120),
  side text not null check (side in ('seat', 'lift', 'both')),
  person text not null,
  seen timestamptz not null default now(),
  primary key (job, procedure, side)
);
