import { data, type RouterContextProvider } from "react-router";
import { services } from "~/server/context";
import { readForm } from "~/server/form";
import { leastOf, newSecret, secretWords } from "~/server/secret";
import { field, oneOf, uuid, type Fields } from "~core/shape";
import { LEADS } from "~core/fact";
import { changeAccount, staffById, type Staff } from "~store/staff";

const change = {
  staff: field(uuid, "Choose whose account it is."),
  what: field(oneOf("secret", "switched off", "switched on", "cleared", "sessions ended")),
};

/**
 * Whether somebody may change another’s account. A lead’s PIN is a signature: only an owner, or the lead, gives a lead another one.
 *
 * @returns what stands against it, in words; empty when nothing does.
 */
export function againstChange(by: Staff, of: Staff, what: string): string {
  if (by.id === of.id) return what === "switched off" ? "Nobody switches themselves off." : "";
  if (by.role === "owner" || !LEADS.includes(of.role)) return "";
  return what === "cleared" || what === "sessions ended" ? "" : "That is an owner’s to do.";
}

/** Changes somebody’s account, as a form of the house’s page asks. */
export async function changed(context: Readonly<RouterContextProvider>, typed: Fields, by: Staff) {
  const form = readForm(change, typed);
  if ("problems" in form) return data(form, { status: 400 });
  const { pool, log } = context.get(services);
  const { staff, what } = form.values;
  const refuse = (words: string, status: number) =>
    data({ problems: { [`account-${staff}`]: words }, typed: {} }, { status });
  const person = await staffById(pool, staff);
  if (!person) return refuse("There is nobody of this name.", 404);
  const against = againstChange(by, person, what);
  if (against) return refuse(against, 403);
  if (what === "secret") {
    const least = leastOf(person.role);
    const given = readForm({ secret: field(newSecret(least), secretWords(least), { asTyped: true }) }, typed);
    if ("problems" in given) return refuse(given.problems.secret ?? "", 400);
    await changeAccount(pool, staff, { what, secret: given.values.secret }, by.id);
  } else if ((await changeAccount(pool, staff, { what }, by.id)) === "last one")
    return refuse("This is the last one who may lead: somebody else must be able to first.", 409);
  log.info({ staff, what, by: by.id }, "account changed");
  return data({ problems: {}, typed: {}, done: `account-${staff}` });
}
