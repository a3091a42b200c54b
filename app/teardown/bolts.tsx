import { NextTime } from "~/next-time/soon";
import { pictureIn, type FastenerGroup } from "~core/book";
import { useJobView } from "~/view/view";
import { FaceMap } from "~/look/face-map";
import { useSay } from "~/say/use-say";
import { lengthText } from "~core/quantity";

/** The places of a fastener group as they lie on the face: touched when they are out. */
export function Bolts({
  group,
  out,
  keyed,
}: {
  group: FastenerGroup;
  out: readonly number[];
  /** Whether it is the one the key takes out. */
  keyed: boolean;
}) {
  const { applied, job, unit } = useJobView();
  const say = useSay();
  const tell = (places: number[]): void =>
    say({ kind: "out", group: group.id, places: [...places].sort((a, b) => a - b) });
  const toggle = (place: number): void =>
    tell(out.includes(place) ? out.filter((one) => one !== place) : [...out, place]);
  const all = out.length >= group.count;
  const lengths = new Set(group.places.map(({ length }) => length ?? group.length));
  return (
    <section
      className="border-base-300 grid items-start gap-x-4 border-t py-2 sm:grid-cols-[minmax(0,1fr)_22rem]"
      aria-label={group.name}
      data-bolts={group.id}
    >
      <div>
        <div className="flex flex-wrap items-center gap-3">
          <b className="text-lg">{group.name}</b>
          <span className={`figure text-2xl ${all ? "text-success" : ""}`} data-out={out.length}>
            {out.length} of {group.count} out
          </span>
          <span className="grow" />
          {!job.closed && (
            <button
              type="button"
              className={`btn touch ${all ? "" : "btn-secondary"}`}
              onClick={() => tell(all ? [] : group.places.map((_, i) => i))}
            >
              {all ? "Put them back" : `All ${group.count} out`} {keyed && <kbd className="key">f</kbd>}
            </button>
          )}
        </div>
        <p className="quiet text-sm">
          {group.size}
          {group.length !== undefined && `, ${lengthText(group.length, unit)}`}
          {lengths.size > 1 && `, ${lengths.size} lengths: every bolt back to its own place`}
          {group.oneTime && ". New ones go in"}
          {group.note && `. ${group.note}`}
        </p>
        {group.carries && <p className="font-semibold">Carries: {group.carries}</p>}
        <NextTime key={group.id} of={group.id} />
      </div>
      <FaceMap
        group={group}
        picture={pictureIn(applied.present, group.picture)}
        isOn={(place) => out.includes(place)}
        isFull={(place) => !out.includes(place)}
        isDashed={(place) => out.includes(place)}
        words={(place) => {
          const length = group.places[place]?.length;
          return length === undefined ? "" : `, ${lengthText(length, unit)}`;
        }}
        onTouch={job.closed ? undefined : toggle}
      />
    </section>
  );
}
