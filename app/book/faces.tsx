import { FacePicture } from "~/pictures/shown";
import { pictureIn, shownIn, type FastenerGroup, type ShownPicture } from "~core/book";
import { lengthText } from "~core/quantity";
import { useBookView } from "./book";

const WIDE = 420;
const HIGH = 320;
/** Where places lie on the drawn face; on a picture of it, right up to its edge. */
const placed =
  (picture: ShownPicture | null) =>
  ([x, y]: readonly [number, number]): [number, number] =>
    picture
      ? [(x / 100) * WIDE, (y / 100) * WIDE * picture.ratio]
      : [24 + (x / 100) * (WIDE - 48), 24 + (y / 100) * (HIGH - 48)];

/** The face with its places, numbered in the order they are tightened. */
export function FastenerMap({
  group,
  order,
  unit,
  many,
  picture = null,
}: {
  group: FastenerGroup;
  /** The face itself, where the book has a picture of it. */
  picture?: ShownPicture | null;
  order: readonly number[];
  unit: "mm" | "in";
  many: boolean;
}) {
  const px = placed(picture);
  const high = picture ? WIDE * picture.ratio : HIGH;
  const path = order.map((i) => px(group.places[i]?.at ?? [50, 50]));
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${high}`}
      className="max-h-[70vh] w-full"
      role="img"
      aria-label={`${group.name}: ${group.count} places, ${group.pattern ? `tightened ${group.pattern}` : "order not known"}`}
    >
      {picture ? (
        <FacePicture picture={picture} wide={WIDE} />
      ) : group.pattern === "star" ? (
        <ellipse
          className="fill-case stroke-soft"
          strokeWidth="1.5"
          cx={WIDE / 2}
          cy={HIGH / 2}
          rx={WIDE / 2 - 4}
          ry={HIGH / 2 - 4}
        />
      ) : (
        <PlainFace />
      )}
      {group.pattern !== undefined && group.pattern !== "any order" && (
        <path
          className="stroke-blue fill-none"
          strokeWidth="1.2"
          strokeDasharray="4 5"
          opacity="0.7"
          d={`M${path.map((p) => p.join(" ")).join("L")}`}
        />
      )}
      {order.map((i, n) => {
        const placed = group.places[i];
        if (!placed) return null;
        const [x, y] = px(placed.at);
        return (
          <g key={i}>
            <circle
              className={placed.unreached ? "fill-paper stroke-ink" : "fill-steel stroke-ink"}
              strokeDasharray={placed.unreached ? "4 3" : undefined}
              strokeWidth="1.5"
              cx={x}
              cy={y}
              r="16"
            />
            <text x={x} y={y + 6} textAnchor="middle" fontSize="17" fontWeight="700">
              {n + 1}
            </text>
            {many && placed.length !== undefined && (
              <text x={x} y={y + 31} textAnchor="middle" fontSize="13">
                {lengthText(placed.length, unit)}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

/** Where check balls lie in this version, and where air goes in. */
export function Faces() {
  const { applied, unit } = useBookView();
  const { checkBalls = [], airChecks = [] } = applied.present;
  return (
    <div className="mt-3 grid grid-cols-2 items-start gap-3">
      {checkBalls.length > 0 && (
        <section className="plate p-5" id="balls-all">
          <h2 className="mb-2 text-xl font-bold">Check balls: {checkBalls.length} in this version</h2>
          {[...new Set(checkBalls.map(({ picture }) => picture))].map((picture) => (
            <BallsOn key={picture ?? ""} picture={picture} />
          ))}
          <ol className="mt-2 grid grid-cols-2 gap-x-4">
            {checkBalls.map(({ id, name, size, material }, i) => (
              <li key={id}>
                <b>{i + 1}</b> {name ?? id.replaceAll("-", " ")}, {lengthText(size, unit)} {material}
              </li>
            ))}
          </ol>
        </section>
      )}
      {airChecks.length > 0 && (
        <section className="plate p-5">
          <h2 className="mb-2 text-xl font-bold">Air checks</h2>
          <p className="mb-2">
            Regulate the air, keep hands off the piston’s path, hold the piston, eye protection.
          </p>
          <table className="w-full">
            <tbody>
              {airChecks.map(({ element, port, pressure, expect, hiss }) => (
                <tr
                  key={element}
                  id={`air-${element}`}
                  className="border-base-300 border-t align-top target:outline-3"
                >
                  <th scope="row" className="py-1.5 pr-3 text-left text-lg">
                    {element.toUpperCase()}
                  </th>
                  <td className="py-1.5">
                    {port}: {expect}
                    {hiss && <span className="quiet block text-sm">belongs there: {hiss}</span>}
                  </td>
                  <td className="figure py-1.5 text-right whitespace-nowrap">{shownIn(pressure, unit)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </div>
  );
}

const PlainFace = () => (
  <rect
    className="fill-case stroke-soft"
    strokeWidth="1.5"
    x="4"
    y="4"
    width={WIDE - 8}
    height={HIGH - 8}
    rx="14"
  />
);

/** The balls that lie on one picture of a plate, or on the drawn face; they are counted over all of them. */
function BallsOn({ picture }: { picture: string | undefined }) {
  const { present } = useBookView().applied;
  const plate = pictureIn(present, picture);
  const px = placed(plate);
  const all = (present.checkBalls ?? []).map((ball, i) => ({ ball, n: i + 1 }));
  const here = all.filter(({ ball }) => ball.picture === picture);
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${plate ? WIDE * plate.ratio : HIGH}`}
      className="w-full"
      role="img"
      aria-label={`${here.length} check balls in their places`}
    >
      {plate ? <FacePicture picture={plate} wide={WIDE} /> : <PlainFace />}
      {here.map(({ ball: { id, at, material }, n }) => {
        const [x, y] = px(at);
        return (
          <g key={id}>
            <circle
              className={`${material === "steel" ? "fill-steel" : "fill-brass"} stroke-ink`}
              strokeWidth="1.5"
              cx={x}
              cy={y}
              r="13"
            />
            <text x={x} y={y + 5} textAnchor="middle" fontSize="15" fontWeight="700">
              {n}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
