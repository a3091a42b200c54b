-- Up Migration

-- A chain had one seat, called after it; now a seat may stand in several chains. What is stored says either.
drop index fact_fitting_once;
create unique index fact_fitting_once
  on fact (job, (coalesce(body ->> 'seat', body ->> 'chain')), ((body ->> 'fit')::integer))
  where kind = 'fitting' and replaces is null;

-- A piece that lies on the shelf and is meant for one job's seat: others do not count on it. It ends when it is fitted or given up.
create table reservation (
  id uuid primary key,
  job uuid not null references job (id),
  seat text not null,
  part text not null references shelf_part (part),
  piece uuid references piece (id),
  by_name text not null,
  at timestamptz not null default clock_timestamp(),
  ended timestamptz,
  ended_why text constraint reservation_end_known check (ended_why in ('fitted', 'given up')),
  constraint reservation_ends_for_a_reason check ((ended is null) = (ended_why is null))
);
create unique index reservation_once on reservation (job, seat) where ended is null;
create index reservation_of_part on reservation (part) where ended is null;

-- A job that is closed needs nothing put aside any more.
create function closed_job_gives_up() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  update reservation set ended = clock_timestamp(), ended_why = 'given up' where job = new.job and ended is null;
  return new;
end $$;
create trigger closed_job_gives_up after insert on fact for each row when (new.kind = 'closed')
  execute function closed_job_gives_up();

-- Every part the shelf knows has a count, be it none: so the lowest are found by an index.
insert into stock (part, piece, on_hand) select part, null, 0 from shelf_part on conflict on constraint stock_once do nothing;
create function shelf_part_is_counted() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  insert into stock (part, piece, on_hand) values (new.part, null, 0) on conflict on constraint stock_once do nothing;
  return new;
end $$;
create trigger shelf_part_is_counted after insert on shelf_part for each row execute function shelf_part_is_counted();
create index stock_lowest on stock (on_hand, part) where piece is null;
create index shelf_part_by_bin on shelf_part (bin, part);
