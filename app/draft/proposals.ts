import { data } from "react-router";
import { services } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { mustBe } from "~/server/session";
import type { KeptPicture } from "~core/learn";
import { field, oneOf, whole, words } from "~core/shape";
import { jobIdByNumber } from "~store/jobs";
import { keepPhoto } from "~store/pictures";
import { leaveProposal, saidNextTime } from "~store/proposals";
import type { Route } from "./+types/proposals";

const asked = {
  intent: field(oneOf("take", "leave")),
  job: field(whole(1, Number.MAX_SAFE_INTEGER)),
  lesson: field(words(1, 40)),
};

/** What becomes of one: its picture, where it has one, is kept for the book. */
export interface Decided {
  job: number;
  lesson: string;
  is: "take" | "leave";
  picture: KeptPicture | null;
}

/** A lead takes what a job found out over into a draft, for which its picture is kept; or leaves it. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const by = mustBe(context, "lead", "owner");
  const { pool } = context.get(services);
  const form = readForm(asked, await typedIn(request));
  if ("problems" in form) return data(null, { status: 400 });
  const { intent, job: number, lesson } = form.values;
  const job = await jobIdByNumber(pool, number);
  const said = (await saidNextTime(pool, params.unit)).find(
    (one) => one.job === number && one.fact.body.lesson === lesson,
  );
  if (!job || !said) return data(null, { status: 404 });
  if (intent === "leave") {
    await leaveProposal(pool, { job, lesson, by: by.name });
    return data<Decided>({ job: number, lesson, is: "leave", picture: null });
  }
  const { photo } = said.fact.body;
  const picture = photo === undefined ? null : await keepPhoto(pool, job, photo);
  return data<Decided>({ job: number, lesson, is: "take", picture });
};

export const loader = (): Response => new Response("Only for deciding.", { status: 405 });
