-- Up Migration

-- An order to one supplier. Never changed: what became of it is said in events of its lines.
create table purchase (
  id uuid primary key,
  number bigint generated always as identity (start with 501) unique,
  supplier text not null constraint purchase_has_supplier check (supplier <> ''),
  by_name text not null,
  at timestamptz not null default clock_timestamp()
);

create table purchase_line (
  id uuid primary key,
  purchase uuid not null references purchase (id),
  -- For whom it is bought; for the shelf where it is null.
  job uuid references job (id),
  part text not null,
  name text not null,
  pieces integer not null constraint line_has_pieces check (pieces >= 1),
  -- Of all of them together.
  cents integer not null constraint line_price_not_negative check (cents >= 0),
  -- When it should be here; null where the supplier does not say.
  due date,
  -- What lies in the box, where it is a kit: [{number, name, count}] of one.
  contents jsonb,
  -- The seats it was chosen for, where it is a selective: it goes to the shelf and is put aside for them.
  seats text[]
);
create index line_by_purchase on purchase_line (purchase);
create index line_by_job on purchase_line (job) where job is not null;

-- What came of a line, piece by piece: here, wrong and sent back, or not wanted any more.
create table purchase_event (
  id uuid primary key,
  line uuid not null references purchase_line (id),
  what text not null constraint event_is_known check (what in ('arrived', 'wrong', 'cancelled')),
  pieces integer not null constraint event_has_pieces check (pieces >= 1),
  note text not null default '',
  by_name text not null,
  at timestamptz not null default clock_timestamp()
);
create index event_by_line on purchase_event (line);

-- What is still to come of each line, kept beside its events: who comes second with more than is left is refused by its check.
create table purchase_open (
  line uuid primary key references purchase_line (id),
  pieces integer not null constraint no_more_than_was_ordered check (pieces >= 0)
);
create index open_lines on purchase_open (line) where pieces > 0;

create function line_opens() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  insert into purchase_open (line, pieces) values (new.id, new.pieces);
  return new;
end $$;
create trigger line_opens after insert on purchase_line for each row execute function line_opens();

create function event_closes() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  -- A wrong piece goes back: it is still wanted, and is still to come.
  if new.what <> 'wrong' then
    update purchase_open set pieces = pieces - new.pieces where line = new.line;
  end if;
  return new;
end $$;
create trigger event_closes after insert on purchase_event for each row execute function event_closes();

-- What lies ready for one job: bought for it or taken from the shelf, less what went back there. The sum of it, as on the shelf.
create table box_movement (
  id uuid primary key,
  job uuid not null references job (id),
  part text not null,
  name text not null,
  quantity integer not null constraint box_movement_moves check (quantity <> 0),
  why text not null constraint box_why_is_known check (why in ('bought', 'from the shelf', 'to the shelf')),
  line uuid references purchase_line (id),
  by_name text not null,
  at timestamptz not null default clock_timestamp()
);
create index box_by_job on box_movement (job, part);

create function order_is_kept() returns trigger language plpgsql as $$
begin
  raise exception 'orders and what came of them are never changed or taken away' using errcode = 'integrity_constraint_violation';
end $$;
create trigger purchase_is_kept before update or delete on purchase for each row execute function order_is_kept();
create trigger purchase_line_is_kept before update or delete on purchase_line for each row execute function order_is_kept();
create trigger purchase_event_is_kept before update or delete on purchase_event for each row execute function order_is_kept();
create trigger box_movement_is_kept before update or delete on box_movement for each row execute function order_is_kept();
