-- Up Migration

-- What a supplier asks for a part, as its list said on a day. Added to, never changed: the last word on a part holds.
create table price (
  id bigint generated always as identity primary key,
  part text not null constraint price_has_part check (part <> ''),
  cents integer not null constraint price_not_negative check (cents >= 0),
  days integer constraint price_days_not_negative check (days >= 0),
  supplier text not null constraint price_has_supplier check (supplier <> ''),
  by_name text not null,
  at timestamptz not null default clock_timestamp()
);
create index price_by_part on price (part, id desc);

create function price_is_kept() returns trigger language plpgsql as $$
begin
  raise exception 'prices are never changed or taken away' using errcode = 'integrity_constraint_violation';
end $$;
create trigger price_is_kept before update or delete on price for each row execute function price_is_kept();
