import { useState, type KeyboardEvent, type PointerEvent } from "react";
import { useSay } from "~/say/use-say";
import type { Photo } from "~core/fact";

type Point = readonly [x: number, y: number];
type Shape = "arrow" | "circle";

const WHOLE = 1000;
const STEP = 20;
const kept = (value: number): number => Math.max(0, Math.min(WHOLE, Math.round(value)));

/** A picture to draw on: drag from the tail to the tip, or from the middle to the rim; with keys, arrows and Enter. */
export function MarkUp({
  photo,
  source,
  marks,
  closed,
  alt,
}: {
  photo: string;
  source: string;
  marks: Photo["marks"];
  closed: boolean;
  alt: string;
}) {
  const say = useSay();
  const [shape, setShape] = useState<Shape>("arrow");
  const [size, setSize] = useState<Point>([4, 3]);
  const [begun, setBegun] = useState<Point | null>(null);
  const [at, setAt] = useState<Point>([WHOLE / 2, WHOLE / 2]);
  const [keyed, setKeyed] = useState(false);
  const end = (from: Point, to: Point): void => {
    setBegun(null);
    // A touch without a drag is a slip of the finger.
    if (Math.hypot(to[0] - from[0], to[1] - from[1]) >= STEP)
      say({ kind: "photo-mark", photo, shape, from, to, there: true });
  };
  const pointOf = (event: PointerEvent<SVGSVGElement>): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return [
      kept(((event.clientX - box.left) / box.width) * WHOLE),
      kept(((event.clientY - box.top) / box.height) * WHOLE),
    ];
  };
  const onKey = (event: KeyboardEvent): void => {
    const by = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] }[
      event.key
    ];
    if (by) {
      event.preventDefault();
      setKeyed(true);
      setAt([kept(at[0] + (by[0] ?? 0)), kept(at[1] + (by[1] ?? 0))]);
    } else if (event.key === "Enter") {
      event.preventDefault();
      setKeyed(true);
      if (begun) end(begun, at);
      else setBegun(at);
    } else if (event.key === "Escape") setBegun(null);
  };
  return (
    <div>
      {!closed && (
        <div role="radiogroup" aria-label="What to draw" className="mb-2 flex items-center gap-2">
          {(["arrow", "circle"] as const).map((one) => (
            <button
              key={one}
              type="button"
              role="radio"
              aria-checked={shape === one}
              className={`btn touch ${shape === one ? "btn-primary" : ""}`}
              onClick={() => setShape(one)}
            >
              {one}
            </button>
          ))}
          <span className="quiet text-sm">
            {shape === "arrow" ? "drag from tail to tip" : "drag from the middle outwards"}; by keys: arrows,
            Enter
          </span>
        </div>
      )}
      <div className="relative inline-block max-w-full">
        <img
          src={source}
          alt={alt || "Photo"}
          className="block max-h-[66vh] max-w-full rounded"
          draggable={false}
          onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) =>
            setSize([naturalWidth, naturalHeight])
          }
        />
        <svg
          viewBox={`0 0 ${size[0]} ${size[1]}`}
          className={`absolute inset-0 size-full touch-none ${closed ? "" : "cursor-crosshair"}`}
          role="application"
          aria-label={`Draw a ${shape}: arrow keys move, Enter begins and ends`}
          tabIndex={closed ? -1 : 0}
          data-mark-up
          onKeyDown={closed ? undefined : onKey}
          onPointerDown={(event) => {
            if (closed) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            setKeyed(false);
            setAt(pointOf(event));
            setBegun(pointOf(event));
          }}
          onPointerMove={(event) => begun && !keyed && setAt(pointOf(event))}
          onPointerUp={(event) => begun && !keyed && end(begun, pointOf(event))}
          onPointerCancel={() => setBegun(null)}
        >
          {marks.map(({ id, body }) => (
            <MarkShape key={id} {...body} size={size} />
          ))}
          {begun && <MarkShape shape={shape} from={begun} to={at} size={size} />}
          {keyed && (
            <circle
              cx={(at[0] / WHOLE) * size[0]}
              cy={(at[1] / WHOLE) * size[1]}
              r={size[0] / 90}
              className="stroke-blue fill-paper"
              strokeWidth={size[0] / 250}
            />
          )}
        </svg>
      </div>
    </div>
  );
}

/** One arrow or circle in the picture's own pixels, with a pale edge so that it shows on dark and bright metal alike. */
function MarkShape({
  shape,
  from,
  to,
  size: [width, height],
}: {
  shape: Shape;
  from: Point;
  to: Point;
  size: Point;
}) {
  const [x1, y1, x2, y2] = [
    ...[(from[0] / WHOLE) * width, (from[1] / WHOLE) * height],
    ...[(to[0] / WHOLE) * width, (to[1] / WHOLE) * height],
  ] as [number, number, number, number];
  const thick = Math.max(width, height) / 160;
  const length = Math.hypot(x2 - x1, y2 - y1);
  const [ux, uy] = length > 0 ? [(x2 - x1) / length, (y2 - y1) / length] : [1, 0];
  const head = thick * 5;
  const barb = (side: number): string =>
    `M${x2} ${y2} L${x2 - head * (ux * 0.9 - side * uy * 0.5)} ${y2 - head * (uy * 0.9 + side * ux * 0.5)}`;
  const path = shape === "arrow" ? `M${x1} ${y1} L${x2} ${y2} ${barb(1)} ${barb(-1)}` : null;
  return (
    <g fill="none" strokeLinecap="round" data-mark={shape}>
      {[thick * 2.2, thick].map((stroke, i) => {
        const look = { className: i === 0 ? "stroke-paper" : "stroke-bad", strokeWidth: stroke };
        return path ? (
          <path key={stroke} d={path} {...look} />
        ) : (
          <circle key={stroke} cx={x1} cy={y1} r={length} {...look} />
        );
      })}
    </g>
  );
}
