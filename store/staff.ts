import { v7 as newId } from "uuid";
import { inTransaction, type Pool, type Queryable } from "./database";
import type { Role } from "~core/fact";
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

/** So many wrong tries in so many minutes, then wait. */
export const TRIES = 5;
export const TRY_MINUTES = 5;

/** `busy`: so many are signing in at once that nothing was tried. */
export type SignIn = { ok: true; staff: Staff } | { ok: false; why: "wrong" | "wait" | "busy" };

/** Whether a secret is that person's. The try is counted before the slow comparison, so guessing in parallel gains nothing. */
export async function proveSecret(pool: Pool, staffId: string, secret: string): Promise<SignIn> {
  const person = await inTransaction(pool, async (db) => {
    await db.query("select pg_advisory_xact_lock(hashtext($1))", [`sign-in ${staffId}`]);
    const { rows } = await db.query<Staff & { secret: string; tries: number }>(
      `select id, name, role, secret,
              (select count(*)::int from sign_in_attempt a
                where a.staff = s.id and a.outcome = 'tried' and a.at > now() - make_interval(mins => $2)
                  and a.at > coalesce((select max(r.at) from sign_in_attempt r where r.staff = s.id and r.outcome = 'right'), '-infinity')
              ) as tries
         from staff s where id = $1 and active`,
      [staffId, TRY_MINUTES],
    );
    const found = rows[0];
    if (found && found.tries < TRIES) {
      await db.query("insert into sign_in_attempt (staff, outcome) values ($1, 'tried')", [staffId]);
    }
    return found;
  });
  if (!person) return { ok: false, why: "wrong" };
  if (person.tries >= TRIES) return { ok: false, why: "wait" };
  const matches = await secretMatches(secret, person.secret).catch((error: unknown) => {
    if (error instanceof Busy) return null;
    throw error;
  });
  if (matches === null) return { ok: false, why: "busy" };
  if (!matches) return { ok: false, why: "wrong" };
  await pool.query("insert into sign_in_attempt (staff, outcome) values ($1, 'right')", [staffId]);
  return { ok: true, staff: { id: person.id, name: person.name, role: person.role } };
}

/** @returns the id that goes into the signed cookie. */
export async function beginSession(db: Queryable, staffId: string): Promise<string> {
  const id = newId();
  await db.query("insert into session (id, staff) values ($1, $2)", [id, staffId]);
  return id;
}

export async function endSession(db: Queryable, sessionId: string): Promise<void> {
  await db.query("update session set ended = now() where id = $1 and ended is null", [sessionId]);
}

/** A working day and some; after it one signs in again. */
const SESSION_HOURS = 16;

/** Who a session belongs to; null when it has ended, expired or never was. */
export async function sessionStaff(db: Queryable, sessionId: string): Promise<Staff | null> {
  const { rows } = await db.query<Staff>({
    name: "session-staff",
    text: `select s.id, s.name, s.role from session e join staff s on s.id = e.staff
            where e.id = $1 and e.ended is null and s.active and e.begun > now() - make_interval(hours => ${SESSION_HOURS})`,
    values: [sessionId],
  });
  return rows[0] ?? null;
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
