import { data, redirect } from "react-router";
import { jobContext } from "~/server/job-context";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { mustBe } from "~/server/session";
import { learn, learnedOf, type KeptPicture } from "~core/learn";
import { field, uuid } from "~core/shape";
import { bookById, revisionsOf } from "~store/books";
import { beginDraft } from "~store/drafts";
import { keepPhoto } from "~store/pictures";
import type { Route } from "./+types/learn";

const asked = { id: field(uuid) };

/** What this job did by hand becomes a draft of its unit’s book, upon the newest revision there is. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const by = mustBe(context, "lead", "owner");
  const form = readForm(asked, await typedIn(request));
  if ("problems" in form) return data(form, { status: 400 });
  const { pool } = context.get(services);
  const { job, record } = await jobContext(context, params.number);
  const unit = record.book.unit.id;
  const newest = (await revisionsOf(pool, unit))[0];
  if (!newest) throw new Response("There is no such book here.", { status: 404 });
  const { document } = await bookById(pool, newest.id);
  const learned = learnedOf(job);
  // One after another: a picture is some hundred kilobytes.
  const pictures = new Map<string, KeptPicture>();
  for (const { photo } of learned.acts) {
    const kept = photo === undefined || pictures.has(photo) ? null : await keepPhoto(pool, record.id, photo);
    if (photo !== undefined && kept) pictures.set(photo, kept);
  }
  const taught = learn(document, learned, record.number, pictures);
  const { id } = form.values;
  await beginDraft(pool, { id, unit, basedOn: newest.id, document: taught.document, by: by.name });
  return redirect(`/drafts/${id}`);
};

export const loader = (): Response => new Response("Only for making it.", { status: 405 });
