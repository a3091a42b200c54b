import { NextTime } from "~/next-time/soon";
import { useState } from "react";
import { piecesOf } from "~core/pack";
import { Link } from "react-router";
import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";
import { useSay } from "~/say/use-say";
import { TakePhoto } from "~/photos/take";
import { nameIn, type StackEntry } from "~core/book";
import { becomesWord, goodOf, isOfPoint, weakPoints, wearsOf, type PartState } from "~core/inspect";
import { DISPOSITIONS } from "~core/fact";
import { broughtWords } from "~core/needs";
import { OpenQuestion } from "./open-question";
import { TONES } from "./tones";
import { WearRow } from "./wear-row";

/** What its pack says of a plate: what only looks like wear in this unit, and how it lies. */
function OfItsPack({ part }: { part: string }) {
  const { applied } = useJobView();
  const pack = applied.present.packs.find(({ stack }) => stack.some((entry) => entry.part === part));
  const ways = [
    ...new Set(pack?.stack.flatMap((entry) => (entry.part === part && entry.lies ? [entry.lies] : []))),
  ];
  const judged = pack?.stack.some(({ part: of, role }) => of === part && PLATES.includes(role));
  const normal = judged ? (pack?.normal ?? []) : [];
  return (
    <>
      {normal.length > 0 && (
        <p className="text-lg" data-normal>
          <span className="stamp quiet mr-2">Normal here</span>
          {normal.join("; ")}
        </p>
      )}
      {ways.length > 0 && (
        <p>
          <span className="stamp quiet mr-2">Lies</span>
          {ways.join("; ")}
        </p>
      )}
    </>
  );
}
/** The plates whose faces are judged. */
const PLATES: readonly StackEntry["role"][] = ["friction", "steel", "reaction plate", "apply plate"];

/** One part: what good looks like, its kinds of wear with a drawing each, and what becomes of it with the reason. */
export function PartPanel({ state }: { state: PartState }) {
  const view = useJobView();
  const { job, applied } = view;
  const { part, findings, good } = state;
  const [sure, setSure] = useState(true);
  const [pieces, setPieces] = useState<readonly number[]>([]);
  const count = piecesOf(applied.present.packs, part);
  const closed = job.closed !== null;
  const looks = goodOf(part);
  return (
    <section className="plate p-4" aria-label={part.name} data-part-panel={part.id}>
      <div className="flex flex-wrap items-baseline gap-3">
        <h2 className="text-2xl font-bold">{part.name}</h2>
        <span className="quiet">{part.number}</span>
        <span className="grow" />
        {!closed && <TakePhoto of={`part ${part.id}`} view={{ ...view, closed }} small />}
      </div>
      {looks && (
        <p className="text-lg">
          <span className="stamp quiet mr-2">Good is</span>
          {looks}
        </p>
      )}
      <OfItsPack part={part.id} />
      {(part.lookAlikes ?? []).map(({ part: other, tell: what }) => (
        <p key={other}>
          <span className="stamp quiet mr-2">Not the same</span>
          {nameIn(applied.present, other)}: {what}
        </p>
      ))}
      {weakPoints(job, applied)
        .filter(({ point }) => isOfPoint(part.id, point))
        .map(({ point, fact, answer }) => (
          <p key={point.id} data-weak-point={point.id}>
            <span className="stamp quiet mr-2">Known weak point</span>
            {point.name}:{" "}
            {fact ? (
              (answer?.name ?? fact.body.answer)
            ) : (
              <Link className="underline underline-offset-4" to={`/jobs/${view.number}/cause`}>
                to be answered
              </Link>
            )}
          </p>
        ))}
      {part.apart && (
        <p className="font-semibold" data-apart>
          <span className="stamp quiet mr-2">Stays whole</span>
          {part.apart}
        </p>
      )}
      {(part.then ?? []).map(({ part: other, look }) => (
        <p key={other}>
          <span className="stamp quiet mr-2">If it is worn</span>
          look at {nameIn(applied.present, other)}: {look}
        </p>
      ))}
      {!closed && <Which {...{ count, sure, setSure, pieces, setPieces }} />}
      <ul aria-label="Kinds of wear">
        {wearsOf(part).map((wear) => (
          <WearRow
            key={wear}
            part={part.id}
            wear={wear}
            findings={findings.filter(({ body }) => body.wear === wear)}
            pieces={pieces}
            sure={sure}
          />
        ))}
      </ul>
      {wearsOf(part).length === 0 && !good && (
        <p className="quiet">The book names no wear for it: good, or decided below.</p>
      )}
      <OpenQuestion part={part.id} />
      <NextTime key={part.id} of={part.id} />
      <Becomes state={state} closed={closed} />
    </section>
  );
}

/** Whether what is noted next is sure, and of which of several pieces. */
function Which({
  count,
  sure,
  setSure,
  pieces,
  setPieces,
}: {
  count: number;
  sure: boolean;
  setSure: (sure: boolean) => void;
  /** Counted from the piston; none for all of them. */
  pieces: readonly number[];
  setPieces: (pieces: readonly number[]) => void;
}) {
  return (
    <div className="my-2 flex flex-wrap items-center gap-2">
      <button
        type="button"
        aria-pressed={!sure}
        className={`btn touch ${sure ? "" : "btn-secondary"}`}
        onClick={() => setSure(!sure)}
      >
        Only a suspicion
      </button>
      {count > 1 && (
        <span className="flex flex-wrap items-center gap-1" role="group" aria-label="Which of them">
          <button
            type="button"
            aria-pressed={pieces.length === 0}
            className={`btn touch px-3 ${pieces.length === 0 ? "btn-secondary" : ""}`}
            onClick={() => setPieces([])}
          >
            all {count}
          </button>
          {Array.from({ length: Math.min(count, 12) }, (_, i) => i + 1).map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={pieces.includes(one)}
              aria-label={`number ${one} from the piston`}
              className={`btn touch px-3 ${pieces.includes(one) ? "btn-secondary" : ""}`}
              onClick={() =>
                setPieces(pieces.includes(one) ? pieces.filter((each) => each !== one) : [...pieces, one])
              }
            >
              {one}
            </button>
          ))}
        </span>
      )}
    </div>
  );
}

/** What becomes of the part, why, and how somebody decides otherwise. */
function Becomes({
  state: { part, proposed, because, decided, is },
  closed,
}: {
  state: PartState;
  closed: boolean;
}) {
  return (
    <div className="border-base-300 mt-2 border-t-2 pt-2" data-disposition={is ?? ""}>
      <p className="text-xl">
        <span className="stamp quiet mr-2">What becomes of it</span>
        <b className={is ? TONES[is] : ""}>{is ? becomesWord(is, part) : "nothing yet"}</b>
        {decided && (
          <span className="text-base">
            {" "}
            decided by {decided.by}: {decided.body.reason}
            {proposed && proposed !== is && ` (proposed: ${becomesWord(proposed, part)})`}
          </span>
        )}
      </p>
      <ul className="quiet text-sm">
        {because.map(({ rule, words, is: then }) => (
          <li key={`${rule} ${words}`}>
            {becomesWord(then, part)}: {words} <span>({rule})</span>
          </li>
        ))}
      </ul>
      {is === "upgrade" &&
        (part.instead ?? []).map((later) => (
          <p key={later.number}>
            Instead: <b>{later.number}</b>, which brings {broughtWords(later)}
          </p>
        ))}
      {(is === "replace" || is === "upgrade") && <NewOne part={part.id} closed={closed} />}
      {!closed && (
        <details>
          <summary className="touch flex cursor-pointer items-center underline underline-offset-4">
            Decide otherwise
          </summary>
          <SayForm kind="disposition" fixed={{ part: part.id }}>
            {(problems) => (
              <>
                <input
                  name="reason"
                  aria-label="Because"
                  placeholder="because"
                  className="input touch w-full"
                />
                {problems.reason && (
                  <p role="alert" className="text-error font-semibold">
                    {problems.reason}
                  </p>
                )}
                <span className="mt-2 flex flex-wrap gap-2">
                  {DISPOSITIONS.codes.map((one) => (
                    <button key={one} name="is" value={one} className="btn touch">
                      {becomesWord(one, part)}
                    </button>
                  ))}
                </span>
              </>
            )}
          </SayForm>
        </details>
      )}
    </div>
  );
}

/** Whether the new part that goes in instead is in. */
function NewOne({ part, closed }: { part: string; closed: boolean }) {
  const { job } = useJobView();
  const say = useSay();
  const fact = job.renewed.get(part);
  return (
    <p className="my-1 flex items-center gap-3" data-renewed={fact ? "in" : "not yet"}>
      <button
        type="button"
        disabled={closed}
        aria-pressed={fact !== undefined}
        className={`btn touch ${fact ? "btn-primary" : ""}`}
        onClick={() => say({ kind: "renewed", parts: [part], there: fact === undefined })}
      >
        A new one is in
      </button>
      {fact && <span className="quiet">says {fact.by}</span>}
    </p>
  );
}
