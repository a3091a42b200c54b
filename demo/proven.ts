import type { Applied, Gate, Procedure } from "../core/book";
import type { FactBody, Job, Told } from "../core/fact";
import { measureText } from "../core/quantity";
import { DRIVES, driveAsks, relearnsOf } from "../core/prove";
import type { PartState } from "../core/inspect";

/** A vehicle that is as a gate and a window want it. */
function asWanted(gate: Gate | undefined, window: Procedure["window"]): Told {
  const { fluid, revs, ...rest } = gate ?? {};
  const warm = window?.from ?? fluid?.from ?? fluid?.to;
  return {
    ...rest,
    ...(warm ? { fluid: measureText(warm) } : {}),
    ...(revs ? { revs: measureText(revs.from) } : {}),
  };
}

/** A procedure run through by one person; between what is said lies as long as it is to be held. */
export function runThrough(procedure: Procedure): FactBody[] {
  const of = { kind: "procedure", procedure: procedure.id, as: "both", note: "" } as const;
  return [
    { ...of, did: "begun", turn: "", senses: asWanted(procedure.begin, undefined) },
    ...procedure.turns.flatMap(({ id, gate, hold, window }): FactBody[] => {
      const senses = asWanted(gate, window ? procedure.window : undefined);
      const done: FactBody = { ...of, did: "done", turn: id, senses };
      return hold ? [{ ...of, did: "held", turn: id, senses }, done] : [done];
    }),
  ];
}

/** A unit proven in its vehicle as a careful shop does it: everything seen to, filled, learned, driven twice. */
export function proven(job: Job, applied: Applied, states: readonly PartState[]): FactBody[] {
  const { scoped } = applied;
  const asks = driveAsks(job, applied);
  const drivers = ["Mira K.", "Runa S."];
  return [
    ...(scoped.proofs ?? []).map(({ id, codes }): FactBody =>
      codes
        ? { kind: "codes-read", proof: id, when: "first", codes: [] }
        : { kind: "proof", proof: id, said: "yes", note: "" },
    ),
    ...(scoped.procedures ?? []).flatMap(runThrough),
    ...relearnsOf(job, applied, states).flatMap(({ relearn, calls }): FactBody[] =>
      calls.length > 0
        ? [{ kind: "relearned", relearn: relearn.id, outcome: "done", before: "", after: "", note: "" }]
        : [],
    ),
    ...(scoped.drives ? Array.from({ length: DRIVES }, (_, i) => i + 1) : []).flatMap((drive): FactBody[] => [
      ...(["cured", "fine"] as const).flatMap((said): FactBody[] => {
        const of = asks.filter(({ brought }) => brought === (said === "cured")).map((one) => one.of);
        return of.length > 0 ? [{ kind: "driven", drive, of, said, note: "" }] : [];
      }),
      {
        kind: "drive",
        drive,
        driver: drivers[drive - 1] ?? "",
        // The second one goes far enough to be driven on the same day.
        distance: drive === 1 ? "20 km" : "110 km",
        is: "right",
        note: "",
      },
    ]),
  ];
}
