-- Up Migration

-- Who let a revision out, and what for. Null for one that was imported or came with the demo.
alter table book add column published_by text, add column note text;
create index book_by_unit on book (unit, revision desc);

-- Work on a book between two revisions. Every save is kept; the newest is the draft.
create table draft (
  id uuid primary key,
  unit text not null,
  -- the revision it was begun from; null for a book begun as a copy of another unit's
  based_on uuid references book (id),
  begun_by text not null,
  begun timestamptz not null default now()
);
create index draft_by_unit on draft (unit);

create table draft_save (
  draft uuid not null references draft (id),
  -- who saves says which version was seen; two who saw the same cannot both be next
  version integer not null constraint draft_version_from_one check (version >= 1),
  document json not null,
  by_name text not null,
  at timestamptz not null default clock_timestamp(),
  primary key (draft, version)
);

-- A draft ends once: published as a revision, or put away.
create table draft_end (
  draft uuid primary key references draft (id),
  book uuid references book (id),
  by_name text not null,
  at timestamptz not null default clock_timestamp()
);

-- The shop's own limits and torques beside the book's. The newest of an entry holds; one without a value takes it back.
create table house_value (
  seq bigint generated always as identity primary key,
  unit text not null,
  kind text not null constraint house_value_kind check (kind in ('chain', 'fastener')),
  entry text not null,
  value jsonb constraint house_value_is_object check (jsonb_typeof(value) = 'object'),
  reason text not null constraint house_value_has_reason check (length(btrim(reason)) >= 3),
  by_name text not null,
  at timestamptz not null default clock_timestamp()
);
create index house_value_by_unit on house_value (unit, kind, entry, seq desc);

-- Which of the tools a book names the shop has. The newest of a tool holds.
create table tool_owned (
  seq bigint generated always as identity primary key,
  unit text not null,
  tool text not null,
  owned boolean not null,
  by_name text not null,
  at timestamptz not null default clock_timestamp()
);
create index tool_owned_by_unit on tool_owned (unit, tool, seq desc);
