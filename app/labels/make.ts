import { unitName } from "~core/book";
import { whenIn } from "~/door/when";
import type { JobContext } from "~/server/job-context";
import { buildOf, subAssembliesOf } from "~core/build";
import { houseOf } from "~core/measure";
import { codeOf, targetOf, type Target } from "~/scan/code";
import type { Label } from "./labels-pdf";

/** The labels asked for, by their codes; what this job does not have is left out. */
export function labelsOf(
  { record, job, applied, house }: JobContext,
  codes: readonly string[],
  origin: string,
): Label[] {
  const { present } = applied;
  const vehicle = job.booking?.body.vehicle ?? "";
  const name = unitName(record.book.unit);
  const words = (target: Target): [title: string, ...lines: string[]] | null => {
    if (target.job !== record.number) return null;
    if (target.kind === "case") return [`Job ${record.number}`, vehicle, name];
    if (target.kind === "place") {
      const place = job.places.find(({ body }) => body.place === target.place)?.body;
      return place ? [place.name, `${place.sort}, job ${record.number}`, vehicle] : null;
    }
    if (target.kind === "sub") {
      const subs = subAssembliesOf(buildOf(job, applied, houseOf(job, house), Date.now()));
      const sub = subs.find(({ id }) => id === target.sub);
      // Of what is not together, or was opened again, there is nothing to say on a label.
      if (!sub?.isBuilt) return null;
      const built = `${sub.by.join(", ")}, ${whenIn(house.timeZone).day(sub.at)}, job ${record.number}`;
      return [sub.name, ...sub.proven, built];
    }
    const part = present.parts.find(({ id }) => id === target.part);
    return part ? [part.name, `${part.number}, job ${record.number}`, name] : null;
  };
  return codes.flatMap((given): Label[] => {
    const target = targetOf(given);
    const said = target && words(target);
    if (!target || !said) return [];
    const code = codeOf(target);
    const [title, ...lines] = said;
    return [{ code, url: `${origin}/scan/${code}`, title, lines: lines.filter((line) => line !== "") }];
  });
}

/** The address this shop's pages are reached at, as the asking browser knows it. */
export function originOf(request: Request): string {
  const { protocol, host } = new URL(request.url);
  return `${protocol}//${request.headers.get("host") ?? host}`;
}
