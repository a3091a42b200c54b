-- Up Migration

-- Where a sign-in is tried from: whoever guesses from elsewhere holds up nobody at the bench they always sign in at.
alter table sign_in_attempt add column address text not null default '';
alter table sign_in_attempt drop constraint attempt_outcome_known;
alter table sign_in_attempt add constraint attempt_outcome_known check (outcome in ('tried', 'right', 'cleared'));
create index sign_in_attempt_by_address on sign_in_attempt (address, at desc);

-- What tells one's sessions apart.
alter table session add column address text not null default '';
alter table session add column seen timestamptz not null default now();
create index session_by_staff on session (staff) where ended is null;

-- Who changed whose account, and how: only added.
create table account_change (
  seq bigint generated always as identity primary key,
  staff uuid not null references staff (id),
  what text not null constraint account_change_known
    check (what in ('added', 'secret', 'switched off', 'switched on', 'cleared', 'sessions ended')),
  by uuid references staff (id),
  at timestamptz not null default now()
);
create index account_change_by_staff on account_change (staff, seq desc);
