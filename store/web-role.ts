import { createHmac } from "node:crypto";
import pg from "pg";
import { Servers, sqlState, writtenTo } from "./database";

/**
 * The account the web processes work under: it reads all, adds to all, and changes only what is no record. It is named after the owner's, since
 * shops of several owners may share a server.
 */
const roleOf = (owner: string): string => `${owner}_web`;
const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/** What may be changed, by column: everything else is only added to. */
const CHANGED: Readonly<Record<string, readonly string[]>> = {
  staff: ["secret", "active"],
  session: ["ended", "seen", "locked"],
  job_card: ["open", "holder", "seq", "card", "made"],
  book: ["offered"],
  reservation: ["ended", "ended_why"],
  // Whoever ends a draft holds its row meanwhile.
  draft: ["id"],
  health: ["at"],
  here: ["person", "seen"],
};

const INSUFFICIENT_PRIVILEGE = "42501";
const DUPLICATE_OBJECT = "42710";
const UNIQUE_VIOLATION = "23505";

/**
 * Makes the account of the web processes where it is not there yet, with what it may do in this database; several may do so at once. Its password
 * comes from the owner's, so that nothing more is kept: whoever knows the one may know the other, and not the other way round.
 *
 * @param databaseUrl of whoever owns the database, after `migrate`.
 * @returns the database's address for the web processes; the owner's own where that account may make none, or has no password to begin with.
 */
export async function webDatabase(databaseUrl: string): Promise<string> {
  const owners = new URL(databaseUrl);
  const owner = decodeURIComponent(owners.username);
  if (owners.password === "" || owner === "") return databaseUrl;
  const role = roleOf(owner);
  const password = createHmac("sha256", decodeURIComponent(owners.password))
    .update(`web processes of ${owner}`)
    .digest("base64url");
  const webs = Object.assign(new URL(databaseUrl), { username: encodeURIComponent(role), password }).href;
  const client = new pg.Client({ connectionString: databaseUrl });
  await client.connect();
  try {
    if (!(await answers(webs))) await make(client, quoted(role), password, () => answers(webs));
    await client.query("begin");
    await client.query("select pg_advisory_xact_lock(hashtext('yard-key web role'))");
    for (const grant of grantsTo(quoted(role))) await client.query(grant);
    await client.query("commit");
    return webs;
  } catch (error) {
    if (sqlState(error) === INSUFFICIENT_PRIVILEGE) return databaseUrl;
    throw error;
  } finally {
    await client.end();
  }
}

/** The same account on all servers of a database: standbys have what the one that is written to has. */
export async function webDatabases(urls: string): Promise<string> {
  const owners = await writtenTo(urls);
  const { username, password } = new URL(await webDatabase(owners));
  return new Servers(urls).all
    .map((url) => Object.assign(new URL(url), { username, password }).href)
    .join(" ");
}

const grantsTo = (role: string): string[] => [
  `grant usage on schema public to ${role}`,
  `grant select, insert on all tables in schema public to ${role}`,
  `revoke insert on migration from ${role}`,
  `grant usage on all sequences in schema public to ${role}`,
  // What is to be done later is no record: it is changed and taken away once it is done.
  `grant usage on schema pgboss to ${role}`,
  `grant select, insert, update, delete on all tables in schema pgboss to ${role}`,
  ...Object.entries(CHANGED).map(
    ([table, columns]) => `grant update (${columns.join(", ")}) on ${table} to ${role}`,
  ),
];

async function make(
  client: pg.Client,
  role: string,
  password: string,
  isMade: () => Promise<boolean>,
): Promise<void> {
  // Letters, digits, - and _ only: it needs no quoting.
  const how = `login nosuperuser nocreatedb nocreaterole noreplication password '${password}'`;
  try {
    await client.query(`create role ${role} ${how}`);
  } catch (error) {
    if (![DUPLICATE_OBJECT, UNIQUE_VIOLATION].includes(sqlState(error) ?? "")) throw error;
    // Somebody has just made it, with the same password; or it is from before the owner's was changed.
    if (!(await isMade())) await client.query(`alter role ${role} ${how}`);
  }
}

/** Whether an account is there and has this password. */
async function answers(url: string): Promise<boolean> {
  const client = new pg.Client({ connectionString: url });
  client.on("error", () => {});
  try {
    await client.connect();
    await client.end();
    return true;
  } catch {
    return false;
  }
}
