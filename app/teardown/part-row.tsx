import type { Part } from "~core/book";
import { piecesOf } from "~core/pack";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { MATCH_MARKS, type MatchMark } from "~core/fact";
import { waysOf, wantsMark, type Bench, type Count } from "~core/steps";
import { Counting } from "./counting";
import { placeName } from "./places";

/** A part as it comes off: which way it sat, what tells it from its twin, how many there are. */
export function PartRow({ part, bench, count }: { part: Part; bench: Bench; count?: Count }) {
  const { job, applied } = useJobView();
  const say = useSay();
  const thing = bench.things.get(part.id);
  const sat = thing?.howItSat?.body;
  const tell = (way: string, mark: MatchMark): void =>
    say({ kind: "sat", part: part.id, way, mark, note: sat?.note ?? "" });
  const ways = waysOf(part);
  const pieces = piecesOf(applied.present.packs, part);
  return (
    <li className="border-base-300 border-t py-1.5" data-part={part.id}>
      <div className="flex flex-wrap items-center gap-x-3">
        <span className="grow leading-tight">
          <b className="text-lg">{part.name}</b>
          {count === undefined && pieces > 1 && <b> × {pieces}</b>}
          <span className="quiet block text-sm">
            {part.number}
            {part.apart && <b> · stays whole: {part.apart}</b>}
            {part.oneTime && <b> · never used again</b>}
            {thing && thing.place !== "unit" && ` · ${placeName(job, thing.place)}`}
          </span>
        </span>
        {ways.length > 0 && (
          <span className="flex flex-wrap gap-1" role="group" aria-label={`How ${part.name} sat`}>
            {ways.map((way) => (
              <button
                key={way}
                type="button"
                disabled={job.closed !== null}
                aria-pressed={sat?.way === way}
                className={`btn touch px-3 ${sat?.way === way ? "btn-primary" : ""}`}
                onClick={() => tell(sat?.way === way ? "" : way, sat?.mark ?? "needs-none")}
              >
                {way}
              </button>
            ))}
          </span>
        )}
      </div>
      {wantsMark(part) && (
        <div
          className="flex flex-wrap items-center gap-2 py-1"
          role="group"
          aria-label={`Match mark of ${part.name}`}
        >
          <span className="quiet text-sm">Looks alike from both ends:</span>
          {(["makers-mark", "own-mark"] as const).map((mark) => (
            <button
              key={mark}
              type="button"
              disabled={job.closed !== null}
              aria-pressed={sat?.mark === mark}
              className={`btn touch px-3 ${sat?.mark === mark ? "btn-primary" : ""}`}
              onClick={() => tell(sat?.way ?? "", sat?.mark === mark ? "needs-none" : mark)}
            >
              {mark === "own-mark" ? "own mark made" : MATCH_MARKS.words[mark]}
            </button>
          ))}
        </div>
      )}
      {(part.lookAlikes ?? []).map(({ part: other, tell: what }) => (
        <p key={other} className="text-sm">
          Not the {applied.present.parts.find(({ id }) => id === other)?.name ?? other}: {what}.
        </p>
      ))}
      {count && <Counting one={count} />}
    </li>
  );
}
