import type { RouterContextProvider } from "react-router";
import { proveSecret, type SignIn, type Staff } from "~store/staff";
import { address, services } from "./context";
import { readForm, typedIn, type FormProblems } from "./form";
import { field, uuid, words } from "~core/shape";
import { LEADS } from "~core/fact";
import { secret } from "./secret";

/** A lead's name under something, with their reason. */
export interface Signature {
  /** Made with the form: the same signature sent twice is one. */
  id: string;
  reason: string;
  lead: Staff;
}

/**
 * Reads a lead's signature from a form: name, reason and PIN. The PIN is tried as at the door, so guessing here gains nothing.
 *
 * @param why what is said where there is no reason.
 */
export async function readSignature(
  context: Readonly<RouterContextProvider>,
  request: Request,
  why: string,
): Promise<{ ok: true; signature: Signature } | ({ ok: false; status: 400 | 403 } & FormProblems)> {
  const form = readForm(signatureOf(why), await typedIn(request));
  if ("problems" in form) return { ok: false, status: 400, ...form };
  const { pool, log } = context.get(services);
  const { id, reason, lead, pin } = form.values;
  const refuse = (problems: Record<string, string>, status: 400 | 403) =>
    ({ ok: false, status, problems, typed: { reason, lead } }) as const;
  const proof = await proveSecret(pool, lead, pin, context.get(address));
  if (!proof.ok) {
    log.warn({ lead, why: proof.why }, "signature refused");
    return refuse({ pin: notProven(proof, "That is not this lead’s PIN.") }, 400);
  }
  if (!LEADS.includes(proof.staff.role)) return refuse({ lead: "Only a lead may sign." }, 403);
  return { ok: true, signature: { id, reason, lead: proof.staff } };
}

/** How a try that proved nothing is answered. */
export const STATUS = { wrong: 400, wait: 429, busy: 503 } as const;

/** What is said where a secret was not proven. */
export function notProven(proof: Exclude<SignIn, { ok: true }>, wrong: string): string {
  switch (proof.why) {
    case "wrong":
      return wrong;
    case "wait":
      return `Too many tries. Wait ${proof.seconds} second${proof.seconds === 1 ? "" : "s"}, or ask a lead.`;
    case "busy":
      return "Many are signing in at this moment. Try again.";
  }
}

const signatureOf = (why: string) => ({
  id: field(uuid),
  reason: field(words(2, 500), why),
  lead: field(uuid, "Choose the lead who signs."),
  pin: field(secret, "The lead’s PIN is the signature.", { asTyped: true }),
});
