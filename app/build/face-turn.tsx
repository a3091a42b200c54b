import { useWhen } from "~/door/when";
import { FaceMap } from "~/look/face-map";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { believed, houseTorque, pictureIn } from "~core/book";
import { roundWords, wantedIn, type Face } from "~core/build";
import type { PlaceDone } from "~core/fact";
import { lengthText } from "~core/quantity";
import { Large, useGo } from "./large";
import { Wrench } from "./wrench";
import { clockWords, useSeconds } from "./use-moment";

/** The face with its places, the next one lit: touched as they are tightened, in their order or any other; none is forgotten. */
export function FaceTurn({ face }: { face: Face }) {
  const { applied, unit } = useJobView();
  const say = useSay();
  const { short } = useWhen();
  const { group, round, next, left, until, said, isUndisturbed } = face;
  const now = useSeconds(until !== null);
  const house = houseTorque(group, applied.house);
  const as = { house: house?.torque, unit };
  const tell = (places: readonly number[], did: PlaceDone): void => {
    if (round && places.length > 0)
      say({ kind: "tightened", group: group.id, round: round.id, places: [...places], did });
  };
  const held = until !== null && now < until;
  const place = next === null ? null : group.places[next];
  useGo(next === null || held ? undefined : () => tell([next], "tight"));
  if (!round || next === null) return null;
  const missing = left.get(round.id) ?? [];
  const did = (i: number): PlaceDone | null => said(round.id, i)?.body.did ?? null;
  const isDone = (i: number): boolean => !missing.includes(i);
  const wanted = wantedIn(group, round, applied.house);
  const length = place?.length ?? group.length;
  return (
    <div className="grid items-start gap-4 sm:grid-cols-[minmax(0,1fr)_minmax(0,22rem)]">
      <div>
        <span className="stamp quiet">
          {group.name}, {group.count - missing.length} of {group.count} in this round
        </span>
        {held ? (
          <Large>
            Waits <span suppressHydrationWarning>{clockWords(until - now)}</span>, then{" "}
            {round.kind === "again" ? "once more" : "full"}
          </Large>
        ) : (
          <Large>
            Place {next + 1}: {roundWords(group, round, as)}
          </Large>
        )}
        <p className="text-xl">
          {[
            isUndisturbed && "nobody undid them",
            group.size,
            length !== undefined && lengthText(length, unit),
            !isUndisturbed &&
              (group.thread === "dry"
                ? "thread dry"
                : (group.thread ?? "what goes on the thread: not known")),
            group.carries,
            group.oneTime && !isUndisturbed && "new ones",
          ]
            .filter(Boolean)
            .join(" · ")}
        </p>
        {house && (
          <p className="font-semibold" data-house-torque>
            House value, not the book’s: {house.reason}
          </p>
        )}
        {!house && believed(group) && (
          <p className="font-semibold" data-believed>
            This torque is {believed(group).slice(2)}.
          </p>
        )}
        {isUndisturbed && did(next) === "moved" && (
          <p className="text-warning font-semibold" data-moved>
            Place {next + 1} moved: tighten it, and hold it once more. Why was it loose?
          </p>
        )}
        {group.note && <p>{group.note}</p>}
        {face.last && (
          <p className="quiet text-sm" data-last-bolt>
            Last: {face.last.body.places.length === 1 ? "place" : "places"}{" "}
            {face.last.body.places.map((one) => one + 1).join(", ")}, {face.last.by}, {short(face.last.at)}
          </p>
        )}
        <ol className="my-2 flex flex-wrap gap-2" aria-label="Rounds">
          {face.rounds.map((each) => (
            <li
              key={each.id}
              className={`rounded border px-2 py-1 text-sm ${each.id === round.id ? "border-primary border-2 font-bold" : "border-base-300 quiet"}`}
              data-round={each.id}
              data-left={left.get(each.id)?.length ?? 0}
            >
              {(left.get(each.id)?.length ?? 0) === 0 && "✓ "}
              {roundWords(group, each, as)}
            </li>
          ))}
        </ol>
        <button
          type="button"
          disabled={held}
          className="btn btn-primary btn-lg touch w-full text-xl"
          onClick={() => tell([next], "tight")}
        >
          Place {next + 1} {isUndisturbed ? "holds" : "is tight"} <kbd className="key">d</kbd>
        </button>
        {wanted && !held && <Wrench wanted={wanted} face={face} round={round} place={next} />}
      </div>
      <div>
        <FaceMap
          group={group}
          picture={pictureIn(applied.present, group.picture)}
          next={next}
          isOn={isDone}
          isFull={isDone}
          isDashed={(i) => group.places[i]?.unreached === true}
          words={(i) =>
            `, ${isDone(i) ? (did(i) === "tight" ? "tight" : "not reached") : i === next ? "next" : "to do"}`
          }
          sign={(i) => (did(i) === "unreached" ? "–" : String(i + 1))}
          onTouch={held ? undefined : (i) => tell([i], did(i) === "tight" ? "loose" : "tight")}
        />
        <div className="mt-2 flex flex-wrap gap-2">
          <button type="button" className="btn touch" disabled={held} onClick={() => tell(missing, "tight")}>
            {missing.length === group.count ? `All ${group.count}` : `The other ${missing.length}`}, in this
            order
          </button>
          {(round.kind === "again" || isUndisturbed) && (
            <button type="button" className="btn touch" disabled={held} onClick={() => tell([next], "moved")}>
              {isUndisturbed ? "It moved" : "It still moved"}
            </button>
          )}
          <button
            type="button"
            className="btn touch"
            disabled={held}
            onClick={() => tell([next], "unreached")}
          >
            Not reached by a wrench
          </button>
        </div>
      </div>
    </div>
  );
}
