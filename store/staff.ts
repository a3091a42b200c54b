import { v7 as newId } from "uuid";
import { inTransaction, type Pool, type Queryable } from "./database";
import { LEADS, type Role } from "~core/fact";
import { Busy, hashSecret, secretMatches } from "./secret";

export type { Role };
export interface Staff {
  id: string;
  name: string;
  role: Role;
}

/** Everyone who may sign in, for choosing one's name. */
export async function listStaff(db: Queryable): Promise<Staff[]> {
  const { rows } = await db.query<Staff>({
    name: "staff-list",
    text: "select id, name, role from staff where active order by name",
  });
  return rows;
}

export async function addStaff(
  db: Queryable,
  { name, role, secret }: Omit<Staff, "id"> & { secret: string },
): Promise<string> {
  const id = newId();
  await db.query("insert into staff (id, name, role, secret) values ($1, btrim($2), $3, $4)", [
    id,
    name,
    role,
    await hashSecret(secret),
  ]);
  return id;
}

/** Makes the first lead, and only the first: two people on the first-run page at once leave one account. */
export async function addFirstLead(pool: Pool, name: string, secret: string): Promise<boolean> {
  const hash = await hashSecret(secret);
  return inTransaction(pool, async (db) => {
    await db.query("select pg_advisory_xact_lock(hashtext('yard-key first lead'))");
    const { rowCount } = await db.query(
      "insert into staff (id, name, role, secret) select $1, btrim($2), 'lead', $3 where not exists (select from staff)",
      [newId(), name, hash],
    );
    return rowCount === 1;
  });
}

/** So many wrong tries are free; after each further one the wait doubles, up to the longest. */
export const FREE_TRIES = 4;
const LONGEST_WAIT = 300;
/** So many wrong tries from one address in five minutes, whoever they are for. */
const TRIES_OF_AN_ADDRESS = 60;

/** `busy`: so many are signing in at once that nothing was tried. */
export type SignIn =
  | { ok: true; staff: Staff }
  | { ok: false; why: "wrong" | "busy" }
  | { ok: false; why: "wait"; seconds: number };

interface Tried extends Staff {
  secret: string;
  tries: number;
  since: number | null;
  from_there: number;
}

/** @returns seconds to wait before the next try. A last try that lies ahead of the clock holds nobody: the clock was set right. */
function waitOf({ tries, since, from_there: fromThere }: Tried): number {
  if (fromThere >= TRIES_OF_AN_ADDRESS) return 60;
  if (tries < FREE_TRIES || since === null || since < 0) return 0;
  const wait = Math.min(2 ** (tries - FREE_TRIES + 1), LONGEST_WAIT);
  return Math.max(0, Math.ceil(wait - since));
}

/**
 * Whether a secret is that person's. The try is counted before the slow comparison, so guessing in parallel gains nothing. Tries are counted apart
 * for each address somebody has signed in at, and together for all others: a stranger's tries hold up strangers.
 *
 * @param address where it is tried from.
 */
export async function proveSecret(
  pool: Pool,
  staffId: string,
  secret: string,
  address = "",
): Promise<SignIn> {
  const person = await inTransaction(pool, async (db) => {
    await db.query("select pg_advisory_xact_lock(hashtext($1))", [`sign-in ${staffId}`]);
    // By the clock and not by now(): that is when this transaction began, before it waited for others who tried meanwhile.
    const { rows } = await db.query<Tried>(
      `with own as (select seq, outcome, at, address from sign_in_attempt where staff = $1 and at > now() - interval '30 days'),
            known as (select distinct address from own where outcome = 'right'),
            alike as (select * from own where at > now() - interval '1 day' and (outcome = 'cleared'
                        or case when $2 in (select address from known) then address = $2
                                else address not in (select address from known) end)),
            open as (select * from alike where outcome = 'tried'
                       and seq > coalesce((select max(seq) from alike where outcome <> 'tried'), 0))
       select id, name, role, secret,
              (select count(*)::int from open) as tries,
              (select extract(epoch from clock_timestamp() - at)::float from open order by seq desc limit 1) as since,
              (select count(*)::int from sign_in_attempt a where a.address = $2 and $2 <> '' and a.outcome = 'tried'
                 and a.at between clock_timestamp() - interval '5 minutes' and clock_timestamp()
                 and not exists (select from sign_in_attempt r where r.staff = a.staff and r.address = $2
                                    and r.outcome = 'right' and r.seq > a.seq)) as from_there
         from staff where id = $1 and active`,
      [staffId, address],
    );
    const found = rows[0];
    if (found && waitOf(found) === 0)
      await db.query("insert into sign_in_attempt (staff, outcome, address) values ($1, 'tried', $2)", [
        staffId,
        address,
      ]);
    return found;
  });
  if (!person) return { ok: false, why: "wrong" };
  const seconds = waitOf(person);
  if (seconds > 0) return { ok: false, why: "wait", seconds };
  const matches = await secretMatches(secret, person.secret).catch((error: unknown) => {
    if (error instanceof Busy) return null;
    throw error;
  });
  if (matches === null) return { ok: false, why: "busy" };
  if (!matches) return { ok: false, why: "wrong" };
  await pool.query("insert into sign_in_attempt (staff, outcome, address) values ($1, 'right', $2)", [
    staffId,
    address,
  ]);
  return { ok: true, staff: { id: person.id, name: person.name, role: person.role } };
}

/**
 * @param address where from, which tells sessions apart.
 * @returns the id that goes into the signed cookie.
 */
export async function beginSession(db: Queryable, staffId: string, address = ""): Promise<string> {
  const id = newId();
  await db.query("insert into session (id, staff, address) values ($1, $2, $3)", [id, staffId, address]);
  return id;
}

export async function endSession(db: Queryable, sessionId: string): Promise<void> {
  await db.query("update session set ended = now() where id = $1 and ended is null", [sessionId]);
}

/** Nobody is at the bench: the session answers nothing until whoever comes says who they are. */
export async function lockSession(db: Queryable, sessionId: string): Promise<void> {
  await db.query("update session set locked = now() where id = $1 and ended is null and locked is null", [
    sessionId,
  ]);
}

/** A working day and some; after it one signs in again. */
const SESSION_HOURS = 16;

/** How often it is noted that a session is in use, in minutes. */
const SEEN_EVERY = 5;

/** Who a session belongs to; null when it has ended, expired or never was. */
export async function sessionStaff(db: Queryable, sessionId: string): Promise<Staff | null> {
  const { rows } = await db.query<Staff & { stale: boolean }>({
    name: "session-staff",
    text: `select s.id, s.name, s.role, e.seen < now() - make_interval(mins => ${SEEN_EVERY}) as stale
             from session e join staff s on s.id = e.staff
            where e.id = $1 and e.ended is null and e.locked is null and s.active and e.begun > now() - make_interval(hours => ${SESSION_HOURS})`,
    values: [sessionId],
  });
  const [found] = rows;
  if (!found) return null;
  if (found.stale) await db.query("update session set seen = now() where id = $1", [sessionId]);
  return { id: found.id, name: found.name, role: found.role };
}

/** One of somebody's sessions. */
export interface Session {
  id: string;
  begun: string;
  seen: string;
  address: string;
}

/** The sessions of a person that are not over, the newest first. */
export async function sessionsOf(db: Queryable, staffId: string): Promise<Session[]> {
  const { rows } = await db.query<Omit<Session, "begun" | "seen"> & { begun: Date; seen: Date }>(
    `select id, begun, seen, address from session
      where staff = $1 and ended is null and begun > now() - make_interval(hours => ${SESSION_HOURS}) order by begun desc`,
    [staffId],
  );
  return rows.map(({ begun, seen, ...rest }) => ({
    ...rest,
    begun: begun.toISOString(),
    seen: seen.toISOString(),
  }));
}

/** A person by their id, also one who has left; null when there was never one. */
export async function staffById(db: Queryable, id: string): Promise<Staff | null> {
  const { rows } = await db.query<Staff>({
    name: "staff-by-id",
    text: "select id, name, role from staff where id = $1",
    values: [id],
  });
  return rows[0] ?? null;
}

/** Somebody who is known here, as those who lead see them. */
export interface Account extends Staff {
  active: boolean;
  sessions: number;
  /** Wrong tries since the last right one, of the last day. */
  tries: number;
}

/** Everyone who was ever known, those who may sign in first. */
export async function listAccounts(db: Queryable): Promise<Account[]> {
  const { rows } = await db.query<Account>(
    `select s.id, s.name, s.role, s.active,
            (select count(*)::int from session e where e.staff = s.id and e.ended is null
               and e.begun > now() - make_interval(hours => ${SESSION_HOURS})) as sessions,
            (select count(*)::int from sign_in_attempt a where a.staff = s.id and a.outcome = 'tried' and a.at > now() - interval '1 day'
               and a.seq > coalesce((select max(r.seq) from sign_in_attempt r where r.staff = s.id and r.outcome <> 'tried'), 0)) as tries
       from staff s order by s.active desc, s.name`,
  );
  return rows;
}

type AccountChange = "secret" | "switched off" | "switched on" | "cleared" | "sessions ended";

/** What an account's change is refused for; the rest of what may be changed is the caller's to know. */
export type AccountRefusal = "last one" | "not there";

/**
 * Changes an account and notes who did: another secret, off, on, waiting after wrong tries taken back, sessions ended.
 *
 * @param by whose doing it is.
 * @param keep a session that goes on, where the others end.
 * @returns null when it was done; the last lead or owner is never switched off.
 */
export async function changeAccount(
  pool: Pool,
  staffId: string,
  change: { what: Exclude<AccountChange, "secret"> } | { what: "secret"; secret: string },
  by: string,
  keep = "00000000-0000-0000-0000-000000000000",
): Promise<AccountRefusal | null> {
  const hash = change.what === "secret" ? await hashSecret(change.secret) : "";
  return inTransaction(pool, async (db) => {
    // One after the other: two leads who switch each other off leave one.
    await db.query("select pg_advisory_xact_lock(hashtext('yard-key accounts'))");
    const { rows } = await db.query<{ role: Role; others: number }>(
      `select role, (select count(*)::int from staff o where o.active and o.role in ('lead', 'owner') and o.id <> s.id) as others
         from staff s where id = $1`,
      [staffId],
    );
    const [person] = rows;
    if (!person) return "not there";
    if (change.what === "switched off" && LEADS.includes(person.role) && person.others === 0)
      return "last one";
    if (change.what === "secret")
      await db.query("update staff set secret = $2 where id = $1", [staffId, hash]);
    if (change.what === "switched off" || change.what === "switched on")
      await db.query("update staff set active = $2 where id = $1", [staffId, change.what === "switched on"]);
    if (change.what === "cleared" || change.what === "secret")
      await db.query("insert into sign_in_attempt (staff, outcome) values ($1, 'cleared')", [staffId]);
    // A new secret ends what was begun with the old one.
    if (change.what !== "cleared" && change.what !== "switched on")
      await db.query("update session set ended = now() where staff = $1 and ended is null and id <> $2", [
        staffId,
        keep,
      ]);
    await db.query("insert into account_change (staff, what, by) values ($1, $2, $3)", [
      staffId,
      change.what,
      by,
    ]);
    return null;
  });
}

/** Ends one of a person's own sessions. */
export async function endOwnSession(db: Queryable, staffId: string, sessionId: string): Promise<void> {
  await db.query("update session set ended = now() where id = $1 and staff = $2 and ended is null", [
    sessionId,
    staffId,
  ]);
}
