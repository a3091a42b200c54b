import type { TrainColumn, TrainLines } from "./train-lines";

const LEFT = 132;
const STEP = 92;
const TOP = 40;
const APART = 46;

/**
 * A gear train as lines: each member is one, from the input at the top to what is held at the bottom; gear sets and elements lie across those
 * they touch.
 */
export function TrainDrawing({ lines: { lines, columns } }: { lines: TrainLines }) {
  if (columns.length === 0)
    return (
      <p className="quiet mb-3">
        Nothing to draw yet: a gear set or an element that joins two members is drawn here.
      </p>
    );
  const wide = LEFT + columns.length * STEP + 12;
  const high = TOP + lines.length * APART;
  const y = (line: number): number => TOP + 22 + line * APART;
  return (
    <div
      className="mb-3 overflow-x-auto"
      tabIndex={0}
      role="group"
      aria-label="Gear train, scrolled sideways"
    >
      <svg
        viewBox={`0 0 ${wide} ${high}`}
        className="h-[34vh] min-h-52 max-w-none"
        role="img"
        aria-label={`Gear train: ${lines.length} members, ${columns.length} gear sets and elements`}
        data-train={columns.map(({ id }) => id).join(" ")}
      >
        {lines.map(({ id, is }, i) => (
          <g key={id}>
            <text x="4" y={y(i) + 5} fontSize="15" fontWeight={is === "between" ? 400 : 700}>
              {id.replaceAll("-", " ").slice(0, 15)}
            </text>
            <line
              x1={LEFT - 8}
              x2={wide - 8}
              y1={y(i)}
              y2={y(i)}
              strokeWidth={is === "between" ? 2.5 : 5}
              strokeDasharray={is === "held" ? "10 5" : undefined}
              className={is === "input" || is === "output" ? "stroke-ink" : "stroke-soft"}
            />
          </g>
        ))}
        {columns.map((column, n) => (
          <Across key={`${column.id} ${n}`} column={column} x={LEFT + n * STEP + STEP / 2} y={y} />
        ))}
      </svg>
    </div>
  );
}

function Across({ column, x, y }: { column: TrainColumn; x: number; y: (line: number) => number }) {
  const { ends, is, isLit, words } = column;
  const at = ends.map(({ line }) => y(line));
  const [top, bottom] = [Math.min(...at), Math.max(...at)];
  const middle = (top + bottom) / 2;
  const isGears = is === "gears" || is === "pulleys";
  return (
    <g className={isLit ? "text-primary" : ""}>
      <text x={x} y={22} textAnchor="middle" fontSize="15" fontWeight="700" className="fill-current">
        {words.slice(0, 11)}
      </text>
      <line
        x1={x}
        x2={x}
        y1={top}
        y2={bottom}
        stroke="currentColor"
        strokeWidth={isLit ? 5 : 2.5}
        strokeDasharray={isGears ? undefined : "1 0"}
      />
      {isGears ? (
        ends.map(({ line, words: teeth }, i) => (
          <g key={i}>
            <circle cx={x} cy={y(line)} r="9" className="fill-steel" stroke="currentColor" strokeWidth="2" />
            <text x={x + 13} y={y(line) - 7} fontSize="12">
              {teeth}
            </text>
          </g>
        ))
      ) : (
        <>
          {is === "one-way" ? (
            <path
              d={`M${x - 12} ${middle - 9} L${x + 12} ${middle - 9} L${x} ${middle + 11} Z`}
              className={isLit ? "fill-current" : "fill-paper"}
              stroke="currentColor"
              strokeWidth="2.5"
            />
          ) : (
            [-7, 0, 7].map((off) => (
              <line
                key={off}
                x1={x - 15}
                x2={x + 15}
                y1={middle + off}
                y2={middle + off}
                stroke="currentColor"
                strokeWidth={isLit ? 5 : 3}
              />
            ))
          )}
          {at.map((end) => (
            <circle key={end} cx={x} cy={end} r="5" className="fill-current" />
          ))}
        </>
      )}
    </g>
  );
}
