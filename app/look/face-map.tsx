import { FacePicture } from "~/pictures/shown";
import type { ShownPicture } from "~core/book";

/** Height by width of a face that is only drawn. */
const DRAWN = 0.7;

/** What has places on a face: fasteners, check balls, a port. */
export interface OnFace {
  name: string;
  places: readonly { at: readonly [number, number]; unreached?: boolean | undefined }[];
}

/** Places as they lie on the face, each to be touched. */
export function FaceMap({
  group,
  isOn,
  isFull,
  isDashed,
  words,
  sign = (place) => String(place + 1),
  next = null,
  picture = null,
  onTouch,
}: {
  group: OnFace;
  /** The face itself, where the book has a picture of it: the places are on that. */
  picture?: ShownPicture | null;
  /** Whether a place is ticked. */
  isOn: (place: number) => boolean;
  /** Whether it is drawn with a bolt in it. */
  isFull: (place: number) => boolean;
  isDashed: (place: number) => boolean;
  /** What is said of it besides its number, for whoever does not see the face. */
  words: (place: number) => string;
  sign?: (place: number) => string;
  /** The place that is next, lit. */
  next?: number | null;
  onTouch?: (place: number) => void;
}) {
  const ratio = picture?.ratio ?? DRAWN;
  return (
    <svg
      viewBox={`-8 -8 116 ${100 * ratio + 16}`}
      className="block max-h-[70vh] w-full"
      role="group"
      aria-label={`Places of ${group.name}`}
    >
      <rect
        x="-7.5"
        y="-7.5"
        width="115"
        height={100 * ratio + 15}
        rx="9"
        className="fill-case stroke-soft"
        strokeWidth="0.5"
      />
      {picture && <FacePicture picture={picture} wide={100} />}
      {group.places.map(({ at: [x, y], unreached }, i) => (
        <g
          key={i}
          role="checkbox"
          aria-checked={isOn(i)}
          aria-label={`Place ${i + 1}${words(i)}${unreached ? ", hard to reach" : ""}`}
          tabIndex={onTouch ? 0 : -1}
          className={onTouch ? "cursor-pointer" : ""}
          data-place={i + 1}
          onClick={() => onTouch?.(i)}
          onKeyDown={(event) => {
            if (!onTouch || (event.key !== " " && event.key !== "Enter")) return;
            event.preventDefault();
            onTouch(i);
          }}
        >
          {i === next && (
            <circle cx={x} cy={y * ratio} r="9.2" className="stroke-primary fill-none" strokeWidth="1.8" />
          )}
          <circle
            cx={x}
            cy={y * ratio}
            r="6.9"
            className={`${isFull(i) ? "fill-blue" : "fill-paper"} ${isDashed(i) ? "stroke-soft" : "stroke-ink"}`}
            strokeWidth="0.6"
            strokeDasharray={isDashed(i) ? "1.6 1.2" : undefined}
          />
          <text
            x={x}
            y={y * ratio + 2.1}
            textAnchor="middle"
            fontSize="6"
            className={isFull(i) ? "text-on-blue" : ""}
          >
            {sign(i)}
          </text>
        </g>
      ))}
    </svg>
  );
}
