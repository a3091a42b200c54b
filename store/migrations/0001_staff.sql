-- Up Migration

create table staff (
  id uuid primary key,
  name text not null constraint staff_name_not_empty check (length(btrim(name)) between 1 and 60),
  role text not null constraint staff_role_known check (role in ('builder', 'parts', 'lead', 'owner')),
  -- scrypt parameters, salt and hash in one text; never read by anything but store/staff.ts
  secret text not null,
  active boolean not null default true
);
create unique index staff_name_once on staff (lower(name));

create table session (
  id uuid primary key,
  staff uuid not null references staff (id),
  begun timestamptz not null default now(),
  ended timestamptz
);

-- One row when a sign-in is tried, before the secret is compared, and one when it came right. Counting the tries since the
-- last success limits guessing across every web process.
create table sign_in_attempt (
  seq bigint generated always as identity primary key,
  staff uuid not null references staff (id),
  outcome text not null constraint attempt_outcome_known check (outcome in ('tried', 'right')),
  at timestamptz not null default clock_timestamp()
);
create index sign_in_attempt_by_staff on sign_in_attempt (staff, at desc);

-- House choices and the key that signs cookies: only added, the newest row of a key holds.
create table house_setting (
  seq bigint generated always as identity primary key,
  key text not null,
  value jsonb not null,
  by text not null,
  at timestamptz not null default now()
);
create index house_setting_newest on house_setting (key, seq desc);
