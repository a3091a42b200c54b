import type { MouseEvent } from "react";
import { FacePicture } from "~/pictures/shown";
import { pictureIn } from "~core/book";
import { isRecord } from "~core/shape";
import { at, changed, type Path } from "./edit";
import type { Editing } from "./fields";
import { pictureListOf } from "./new-picture";

/** Height by width of a face that is only drawn. */
const DRAWN = 0.7;
/** So near, in hundredths, a tap is on the place that is there. */
const NEAR = 4;

/** Where the bolts of a group sit: tapped on the face, or on a picture of it; tapped again a place is taken away. */
export function Places({ path, document, change }: Editing & { path: Path }) {
  const known = at(document, [...path, "places"]);
  const places = (Array.isArray(known) ? (known as unknown[]) : []).filter(isRecord);
  const id = at(document, [...path, "picture"]);
  const picture = pictureIn(pictureListOf(document), typeof id === "string" ? id : undefined);
  const ratio = picture?.ratio ?? DRAWN;
  const tap = (event: MouseEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const part = (from: number, all: number): number =>
      Math.round(100 * Math.min(1, Math.max(0, from / all)));
    const [x, y] = [part(event.clientX - box.left, box.width), part(event.clientY - box.top, box.height)];
    const near = places.findIndex((one) => {
      const [a, b] = pointOf(one);
      return Math.hypot(a - x, (b - y) * ratio) < NEAR;
    });
    const next = near >= 0 ? places.filter((_, i) => i !== near) : [...places, { at: [x, y] }];
    change(changed(document, [...path, "places"], next.length > 0 ? next : undefined));
  };
  return (
    <figure className="mb-3 max-w-lg">
      <figcaption className="stamp mb-1">
        Tap each place {picture ? "on the picture" : "on the face"}; tap it again to take it away
      </figcaption>
      <svg
        viewBox={`0 0 100 ${100 * ratio}`}
        className="border-base-300 block w-full cursor-crosshair rounded border-2"
        role="img"
        aria-label={`${places.length} places`}
        data-places={places.length}
        onClick={tap}
      >
        <rect width="100" height={100 * ratio} className="fill-case" />
        {picture && <FacePicture picture={picture} wide={100} />}
        {places.map((one, i) => {
          const [x, y] = pointOf(one);
          return (
            <g key={i}>
              <circle cx={x} cy={y * ratio} r="3.4" className="fill-paper stroke-ink" strokeWidth="0.5" />
              <text x={x} y={y * ratio + 1.3} fontSize="3.8" fontWeight="700" textAnchor="middle">
                {i + 1}
              </text>
            </g>
          );
        })}
      </svg>
    </figure>
  );
}

const pointOf = ({ at: point }: Readonly<Record<string, unknown>>): [number, number] => {
  const [x, y] = Array.isArray(point) ? (point as unknown[]) : [];
  return [typeof x === "number" ? x : 50, typeof y === "number" ? y : 50];
};
