import type { FastenerGroup } from "~core/book";
import { useJobView } from "~/view/view";
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
  const { job, unit } = useJobView();
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
      </div>
      <svg
        viewBox="-8 -8 116 86"
        className="block w-full"
        role="group"
        aria-label={`Places of ${group.name}`}
      >
        <rect
          x="-7.5"
          y="-7.5"
          width="115"
          height="85"
          rx="9"
          className="fill-case stroke-soft"
          strokeWidth="0.5"
        />
        {group.places.map(({ at, unreached, length }, i) => {
          const isOut = out.includes(i);
          return (
            <g
              key={i}
              role="checkbox"
              aria-checked={isOut}
              aria-label={`Place ${i + 1}${length === undefined ? "" : `, ${lengthText(length, unit)}`}${unreached ? ", hard to reach" : ""}`}
              tabIndex={job.closed ? -1 : 0}
              className="cursor-pointer"
              onClick={() => !job.closed && toggle(i)}
              onKeyDown={(event) => {
                if (event.key !== " " && event.key !== "Enter") return;
                event.preventDefault();
                toggle(i);
              }}
            >
              <circle
                cx={at[0]}
                cy={at[1] * 0.7}
                r="6.9"
                className={isOut ? "fill-paper stroke-soft" : "fill-blue stroke-ink"}
                strokeWidth="0.6"
                strokeDasharray={isOut ? "1.6 1.2" : undefined}
              />
              <text
                x={at[0]}
                y={at[1] * 0.7 + 2.1}
                textAnchor="middle"
                fontSize="6"
                className={isOut ? "" : "text-on-blue"}
              >
                {i + 1}
              </text>
            </g>
          );
        })}
      </svg>
    </section>
  );
}
