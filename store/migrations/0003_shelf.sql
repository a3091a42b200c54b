-- Up Migration

-- What the shop keeps of a part: where it lies and what a new one costs.
create table shelf_part (
  part text primary key,
  name text not null,
  bin text not null,
  price_cents integer constraint price_not_negative check (price_cents >= 0),
  order_days integer constraint days_not_negative check (order_days >= 0)
);

-- A single piece that was measured, such as a ring that came out of a unit.
create table piece (
  id uuid primary key,
  part text not null references shelf_part (part),
  measured_nm bigint not null constraint piece_has_thickness check (measured_nm > 0)
);

-- The ledger. Never changed; what lies on the shelf is the sum of it.
create table movement (
  id uuid primary key,
  part text not null references shelf_part (part),
  piece uuid references piece (id),
  quantity integer not null constraint movement_moves check (quantity <> 0),
  why text not null,
  job uuid references job (id),
  by_name text not null,
  at timestamptz not null default clock_timestamp()
);
create index movement_by_part on movement (part, at desc);
create index movement_by_job on movement (job);

-- The sum, kept beside the ledger in the same transaction: its row lock and its check decide who gets the last one.
create table stock (
  part text not null references shelf_part (part),
  piece uuid references piece (id),
  on_hand integer not null constraint stock_not_negative check (on_hand >= 0),
  constraint stock_once unique nulls not distinct (part, piece),
  constraint stock_piece_is_one check (piece is null or on_hand <= 1)
);

create function movement_into_stock() returns trigger language plpgsql as $$
begin
  -- Not an upsert: a row proposed with a negative sum would fail the check before the conflict is seen.
  update stock set on_hand = on_hand + new.quantity
    where part = new.part and piece is not distinct from new.piece;
  if not found then
    insert into stock (part, piece, on_hand) values (new.part, new.piece, new.quantity)
      on conflict on constraint stock_once do update set on_hand = stock.on_hand + excluded.on_hand;
  end if;
  return new;
end $$;
create trigger movement_into_stock after insert on movement for each row execute function movement_into_stock();

create function movement_is_kept() returns trigger language plpgsql as $$
begin
  raise exception 'movements are never changed or taken away' using errcode = 'integrity_constraint_violation';
end $$;
create trigger movement_is_kept before update or delete on movement for each row execute function movement_is_kept();
