import { PackDrawing } from "~/choose/pack-drawing";
import { FeatureDrawing } from "~/look/feature";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { partNameIn } from "~core/book";
import type { Asked, Build, BuildStep } from "~core/build";
import { IN_UNIT } from "~core/fact";
import { isPackSheet } from "~core/measure";
import { plateGroups, plates } from "~core/pack";
import { Large, useGo } from "./large";

/** A pack put together plate by plate, as it is drawn: a group with one touch, one by one, or whichever is touched. */
export function PlatesTurn({ turn, one, build }: { turn: Asked; one: BuildStep; build: Build }) {
  const { applied, unit, sheets } = useJobView();
  const say = useSay();
  const own = one.plates.find(({ element }) => element === turn.subject);
  const pack = applied.packs.find((each) => each.pack.element === turn.subject);
  const there = turn.fact?.body.kind === "plates" ? turn.fact.body.in : 0;
  const list = own?.list ?? [];
  const group = plateGroups(list).find(({ to }) => to > there);
  const tell = (upTo: number): void => {
    say({ kind: "plates", step: one.step.id, element: turn.subject, in: upTo });
    if (upTo < list.length) return;
    const parts = [...new Set(list.map(({ part }) => part))];
    const fresh = one.asked.filter(
      ({ kind, subject, answer, waits }) =>
        kind === "part" && answer === "open" && !waits && parts.includes(subject),
    );
    if (fresh.length > 0) say({ kind: "renewed", parts: fresh.map(({ subject }) => subject), there: true });
    const out = parts.filter((id) => build.bench.isOff(id));
    if (out.length > 0) say({ kind: "lies", things: out, place: IN_UNIT });
  };
  const all = (): void => tell(group?.to ?? there);
  useGo(all, { o: () => tell(there + 1) });
  const next = list[there];
  if (!own || !pack || !group || !next) return null;
  const many = group.to - there;
  const kinds = [
    ...new Set(list.slice(there, group.to).map(({ part }) => partNameIn(applied.present, part))),
  ];
  const entry = pack.stack.find(({ part, role }) => part === next.part && role === next.role);
  const fit = one.step.fit?.find(({ part }) => part === next.part);
  const shows = entry?.shows ?? fit?.shows;
  const how = [entry?.lies, fit?.round, fit?.lube, fit?.with && `with ${fit.with}`].filter(Boolean);
  const sheet = sheets.filter(isPackSheet).find(({ applied: { chain } }) => chain.id === pack.chain.id);
  // Places of the drawing: the plates of the whole pack, of which this step puts in its own.
  const drawn = plates(pack.stack);
  const places = drawn.flatMap((plate, i) =>
    plate.role !== "piston" && one.step.parts?.includes(plate.part) === true ? [i] : [],
  );
  return (
    <>
      <span className="stamp quiet">
        {turn.subject.toUpperCase()}, {turn.words}
        {pack.pack.from && `; from ${pack.pack.from}`}
      </span>
      <Large>
        {kinds.length === 1
          ? `${many > 1 ? `${many} × ` : ""}${kinds[0] ?? ""}`
          : `${many} plates by turns: ${kinds.join(", ")}`}
      </Large>
      {kinds.length > 1 && <p className="text-2xl">First: {partNameIn(applied.present, next.part)}</p>}
      {how.length > 0 && (
        <p className="flex items-center gap-3 text-2xl">
          {shows && <FeatureDrawing shows={shows} />}
          {[...new Set(how)].join(" · ")}
        </p>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <button type="button" className="btn btn-primary btn-lg touch grow text-xl" onClick={all}>
          {many === 1 ? "It is in" : `All ${many} are in`} <kbd className="key">d</kbd>
        </button>
        {many > 1 && (
          <button type="button" className="btn btn-lg touch text-xl" onClick={() => tell(there + 1)}>
            One <kbd className="key">o</kbd>
          </button>
        )}
        {there > 0 && (
          <button type="button" className="btn btn-lg touch text-xl" onClick={() => tell(there - 1)}>
            One out again
          </button>
        )}
      </div>
      {sheet && (
        <div className="mt-1">
          <PackDrawing
            sheet={sheet}
            gap={null}
            sameIn
            unit={unit}
            stands={(i) => {
              const at = places.indexOf(i);
              if (at < 0) return i < (places[0] ?? 0) ? "in" : "later";
              return at < there ? "in" : at < group.to ? "next" : "later";
            }}
            onTouch={(i) => {
              const at = places.indexOf(i);
              if (at >= 0) tell(at < there ? at : at + 1);
            }}
          />
        </div>
      )}
    </>
  );
}
