import { useState, type MouseEvent } from "react";
import { usePictures } from "~/photos/source";
import { OfferedPictures } from "~/photos/offered";
import { useJobView } from "~/view/view";

type Point = readonly [number, number];
const WHOLE = 1000;

/** Where bolts or balls sat: tapped on a picture of the face. A second tap on the same place takes it away. */
export function Tapped({
  photo,
  at,
  onPhoto,
  onTap,
}: {
  photo: string | undefined;
  at: readonly Point[];
  onPhoto: (photo: string | undefined) => void;
  onTap: (at: Point[]) => void;
}) {
  const { number } = useJobView();
  const source = usePictures(number);
  const [size, setSize] = useState<Point>([1600, 1200]);
  const tap = (event: MouseEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const on = (from: number, all: number): number =>
      Math.round(Math.min(1, Math.max(0, from / all)) * WHOLE);
    const point: Point = [on(event.clientX - box.left, box.width), on(event.clientY - box.top, box.height)];
    const near = at.findIndex(([x, y]) => Math.hypot(x - point[0], y - point[1]) < 25);
    onTap(near >= 0 ? at.filter((_, i) => i !== near) : [...at, point]);
  };
  return (
    <div>
      <OfferedPictures photo={photo} onPhoto={onPhoto} />
      {photo && (
        <div className="relative inline-block max-w-full">
          <img
            src={source(photo, "large")}
            alt="Tap where they sat"
            className="block max-h-[46vh] max-w-full rounded"
            onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) =>
              setSize([naturalWidth, naturalHeight])
            }
          />
          <svg
            viewBox={`0 0 ${size[0]} ${size[1]}`}
            className="absolute inset-0 size-full cursor-crosshair"
            aria-label={`${at.length} places tapped`}
            data-tapped={at.length}
            onClick={tap}
          >
            {at.map(([x, y], i) => (
              <g key={i}>
                <circle
                  cx={(x / WHOLE) * size[0]}
                  cy={(y / WHOLE) * size[1]}
                  r={size[0] / 45}
                  className="fill-paper stroke-blue"
                  strokeWidth={size[0] / 220}
                />
                <text
                  x={(x / WHOLE) * size[0]}
                  y={(y / WHOLE) * size[1] + size[0] / 110}
                  fontSize={size[0] / 36}
                  fontWeight="700"
                  textAnchor="middle"
                >
                  {i + 1}
                </text>
              </g>
            ))}
          </svg>
        </div>
      )}
      {photo && <p className="quiet text-sm">Tap each place; tap it again to take it away.</p>}
    </div>
  );
}
