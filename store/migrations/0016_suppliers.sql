-- Up Migration

-- What is to be done later, kept here by pg-boss 10: its tables as it makes them itself (getConstructionPlans), made by the owner since the web
-- processes make none.
CREATE SCHEMA IF NOT EXISTS pgboss
  ;

    CREATE TYPE pgboss.job_state AS ENUM (
      'created',
      'retry',
      'active',
      'completed',
      'cancelled',
      'failed'
    )
  ;

    CREATE TABLE pgboss.version (
      version int primary key,
      maintained_on timestamp with time zone,
      cron_on timestamp with time zone,
      monitored_on timestamp with time zone
    )
  ;

    CREATE TABLE pgboss.queue (
      name text,
      policy text,
      retry_limit int,
      retry_delay int,
      retry_backoff bool,
      expire_seconds int,
      retention_minutes int,
      dead_letter text REFERENCES pgboss.queue (name),
      partition_name text,
      created_on timestamp with time zone not null default now(),
      updated_on timestamp with time zone not null default now(),
      PRIMARY KEY (name)
    )
  ;

    CREATE TABLE pgboss.schedule (
      name text REFERENCES pgboss.queue ON DELETE CASCADE,
      cron text not null,
      timezone text,
      data jsonb,
      options jsonb,
      created_on timestamp with time zone not null default now(),
      updated_on timestamp with time zone not null default now(),
      PRIMARY KEY (name)
    )
  ;

    CREATE TABLE pgboss.subscription (
      event text not null,
      name text not null REFERENCES pgboss.queue ON DELETE CASCADE,
      created_on timestamp with time zone not null default now(),
      updated_on timestamp with time zone not null default now(),
      PRIMARY KEY(event, name)
    )
  ;

    CREATE TABLE pgboss.job (
      id uuid not null default gen_random_uuid(),
      name text not null,
      priority integer not null default(0),
      data jsonb,
      state pgboss.job_state not null default('created'),
      retry_limit integer not null default(2),
      retry_count integer not null default(0),
      retry_delay integer not null default(0),
      retry_backoff boolean not null default false,
      start_after timestamp with time zone not null default now(),
      started_on timestamp with time zone,
      singleton_key text,
      singleton_on timestamp without time zone,
      expire_in interval not null default interval '15 minutes',
      created_on timestamp with time zone not null default now(),
      completed_on timestamp with time zone,
      keep_until timestamp with time zone NOT NULL default now() + interval '14 days',
      output jsonb,
      dead_letter text,
      policy text
    ) PARTITION BY LIST (name)
  ;
ALTER TABLE pgboss.job ADD PRIMARY KEY (name, id);
CREATE TABLE pgboss.archive (LIKE pgboss.job);
ALTER TABLE pgboss.archive ADD PRIMARY KEY (name, id);
ALTER TABLE pgboss.archive ADD archived_on timestamptz NOT NULL DEFAULT now();
CREATE INDEX archive_i1 ON pgboss.archive(archived_on);

    CREATE FUNCTION pgboss.create_queue(queue_name text, options json)
    RETURNS VOID AS
    $$
    DECLARE
      table_name varchar := 'j' || encode(sha224(queue_name::bytea), 'hex');
      queue_created_on timestamptz;
    BEGIN

      WITH q as (
      INSERT INTO pgboss.queue (
        name,
        policy,
        retry_limit,
        retry_delay,
        retry_backoff,
        expire_seconds,
        retention_minutes,
        dead_letter,
        partition_name
      )
      VALUES (
        queue_name,
        options->>'policy',
        (options->>'retryLimit')::int,
        (options->>'retryDelay')::int,
        (options->>'retryBackoff')::bool,
        (options->>'expireInSeconds')::int,
        (options->>'retentionMinutes')::int,
        options->>'deadLetter',
        table_name
      )
      ON CONFLICT DO NOTHING
      RETURNING created_on
      )
      SELECT created_on into queue_created_on from q;

      IF queue_created_on IS NULL THEN
        RETURN;
      END IF;

      EXECUTE format('CREATE TABLE pgboss.%I (LIKE pgboss.job INCLUDING DEFAULTS)', table_name);

      EXECUTE format('ALTER TABLE pgboss.%1$I ADD PRIMARY KEY (name, id)', table_name);
      EXECUTE format('ALTER TABLE pgboss.%1$I ADD CONSTRAINT q_fkey FOREIGN KEY (name) REFERENCES pgboss.queue (name) ON DELETE RESTRICT DEFERRABLE INITIALLY DEFERRED', table_name);
      EXECUTE format('ALTER TABLE pgboss.%1$I ADD CONSTRAINT dlq_fkey FOREIGN KEY (dead_letter) REFERENCES pgboss.queue (name) ON DELETE RESTRICT DEFERRABLE INITIALLY DEFERRED', table_name);
      EXECUTE format('CREATE UNIQUE INDEX %1$s_i1 ON pgboss.%1$I (name, COALESCE(singleton_key, '''')) WHERE state = ''created'' AND policy = ''short''', table_name);
      EXECUTE format('CREATE UNIQUE INDEX %1$s_i2 ON pgboss.%1$I (name, COALESCE(singleton_key, '''')) WHERE state = ''active'' AND policy = ''singleton''', table_name);
      EXECUTE format('CREATE UNIQUE INDEX %1$s_i3 ON pgboss.%1$I (name, state, COALESCE(singleton_key, '''')) WHERE state <= ''active'' AND policy = ''stately''', table_name);
      EXECUTE format('CREATE UNIQUE INDEX %1$s_i4 ON pgboss.%1$I (name, singleton_on, COALESCE(singleton_key, '''')) WHERE state <> ''cancelled'' AND singleton_on IS NOT NULL', table_name);
      EXECUTE format('CREATE INDEX %1$s_i5 ON pgboss.%1$I (name, start_after) INCLUDE (priority, created_on, id) WHERE state < ''active''', table_name);

      EXECUTE format('ALTER TABLE pgboss.%I ADD CONSTRAINT cjc CHECK (name=%L)', table_name, queue_name);
      EXECUTE format('ALTER TABLE pgboss.job ATTACH PARTITION pgboss.%I FOR VALUES IN (%L)', table_name, queue_name);
    END;
    $$
    LANGUAGE plpgsql;
  ;

    CREATE FUNCTION pgboss.delete_queue(queue_name text)
    RETURNS VOID AS
    $$
    DECLARE
      table_name varchar;
    BEGIN
      WITH deleted as (
        DELETE FROM pgboss.queue
        WHERE name = queue_name
        RETURNING partition_name
      )
      SELECT partition_name from deleted INTO table_name;

      EXECUTE format('DROP TABLE IF EXISTS pgboss.%I', table_name);
    END;
    $$
    LANGUAGE plpgsql;
  ;
INSERT INTO pgboss.version(version) VALUES ('24');

-- Orders and what is said of them, to suppliers with a computer. Tried again until the supplier answers: an order is never given up by itself.
select pgboss.create_queue('supplier', '{"policy": "standard", "retryLimit": 10000000, "retryDelay": 20, "retryBackoff": false, "expireInSeconds": 20, "retentionMinutes": 5256000}'::json);

-- What moved last, whichever part it was: what is to be counted again.
create index movement_by_time on movement (at desc);

-- What became of an order at a supplier with a computer, one word after the other: the last one holds.
create table purchase_word (
  id uuid primary key,
  purchase uuid not null references purchase (id),
  what text not null constraint word_is_known check (what in ('waiting', 'failing', 'taken', 'refused')),
  -- Why; of one that was taken the supplier’s own number.
  note text not null default '',
  at timestamptz not null default clock_timestamp()
);
create index word_by_purchase on purchase_word (purchase, at desc);
-- An order is taken, or refused, once.
create unique index purchase_answered_once on purchase_word (purchase) where what in ('taken', 'refused');
create trigger purchase_word_is_kept before update or delete on purchase_word for each row execute function order_is_kept();

-- What a supplier says of a line later: by when the rest should be here, how many were sent off.
create table purchase_news (
  id uuid primary key,
  line uuid not null references purchase_line (id),
  due date,
  sent integer not null default 0 constraint news_not_negative check (sent >= 0),
  at timestamptz not null default clock_timestamp()
);
create index news_by_line on purchase_news (line, at desc);
create trigger purchase_news_is_kept before update or delete on purchase_news for each row execute function order_is_kept();

-- Beside what is open: when it should be here by the last that was said, and how many of it are on the road.
alter table purchase_open add column due date, add column sent integer not null default 0;
update purchase_open o set due = l.due from purchase_line l where l.id = o.line;

create or replace function line_opens() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  insert into purchase_open (line, pieces, due) values (new.id, new.pieces, new.due);
  return new;
end $$;

create function news_of_line() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  update purchase_open set due = coalesce(new.due, due), sent = new.sent where line = new.line;
  return new;
end $$;
create trigger news_of_line after insert on purchase_news for each row execute function news_of_line();

-- What could not be cancelled any more comes after all.
alter table purchase_event drop constraint event_is_known;
alter table purchase_event add constraint event_is_known check (what in ('arrived', 'wrong', 'cancelled', 'comes after all'));

create or replace function event_closes() returns trigger language plpgsql security definer set search_path = public, pg_temp as $$
begin
  -- A wrong piece goes back: it is still wanted, and is still to come.
  if new.what = 'comes after all' then
    update purchase_open set pieces = pieces + new.pieces where line = new.line;
  elsif new.what <> 'wrong' then
    update purchase_open set pieces = pieces - new.pieces where line = new.line;
  end if;
  return new;
end $$;
