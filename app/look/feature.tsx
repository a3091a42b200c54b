import type { Feature } from "~core/book";

interface Props {
  shows: Feature;
  className?: string;
}

/** What a part is told by, cut through and drawn as it lies with "up" on top. */
const SHAPES: Readonly<Record<Feature["as"], React.ReactNode>> = {
  // The lip opens towards the dots: what it holds back.
  lip: (
    <>
      <path className="fill-steel stroke-ink" d="M14 30h36v10H14z" />
      <path className="stroke-ink fill-none" strokeWidth="4" d="M30 30C30 20 24 16 18 10" />
      {[
        [34, 10],
        [42, 16],
        [38, 22],
        [48, 8],
        [50, 22],
      ].map(([x, y]) => (
        <circle key={`${x}`} className="fill-blue" cx={x} cy={y} r="2" />
      ))}
    </>
  ),
  bevel: <path className="fill-steel stroke-ink" d="M8 38V22l10-10h28l10 10v16z" />,
  chamfer: <path className="fill-steel stroke-ink" d="M8 38V18l6-6h36l6 6v20z" />,
  step: <path className="fill-steel stroke-ink" d="M8 38V24h12V12h36v26z" />,
  dish: <path className="fill-steel stroke-ink" d="M4 36L20 16h24l16 20-4 4-14-18H22L8 40z" />,
  wave: <path className="stroke-ink fill-none" strokeWidth="5" d="M4 26q8-14 16 0t16 0 16 0 8-8" />,
  flat: (
    <>
      <path className="fill-steel stroke-ink" d="M8 36V16h48v20q-24 8-48 0z" />
      <path className="stroke-blue" strokeWidth="3" d="M8 15h48" />
    </>
  ),
  joint: (
    <path className="stroke-ink fill-none" strokeWidth="5" d="M28 10A17 17 0 1 0 36 10M28 6v10M36 6v10" />
  ),
  notch: <path className="fill-steel stroke-ink" d="M8 38V14h18l6 9 6-9h18v24z" />,
  mark: (
    <>
      <path className="fill-steel stroke-ink" d="M8 38V14h48v24z" />
      <path className="stroke-blue fill-none" strokeWidth="4" d="M32 34V20M25 26l7-7 7 7" />
    </>
  ),
  print: (
    <>
      <path className="fill-paper stroke-ink" d="M8 34l12-18h36L44 34z" />
      <path className="stroke-ink" strokeWidth="2" d="M24 22h22M20 28h22" />
    </>
  ),
  "small end": <path className="fill-steel stroke-ink" d="M8 40L20 10h24l12 30z" />,
  race: (
    <>
      <path className="fill-steel stroke-ink" d="M8 12h48v7H8z" />
      {[16, 32, 48].map((x) => (
        <circle key={x} className="fill-paper stroke-ink" cx={x} cy="27" r="7" />
      ))}
    </>
  ),
  retainer: (
    <>
      <path className="fill-steel stroke-ink" d="M6 10h52v6H6z" />
      <path
        className="stroke-ink fill-none"
        strokeWidth="2.5"
        d="M14 18l10 4-10 5 10 5-10 5 10 4M50 18l-10 4 10 5-10 5 10 5-10 4"
      />
    </>
  ),
  tabs: <path className="fill-steel stroke-ink" d="M6 20h8v-8h8v8h20v-8h8v8h8v12H6z" />,
  land: <path className="fill-steel stroke-ink" d="M20 8h24v20H36v4h8v10H20V32h8v-4h-8z" />,
  "oil groove": (
    <>
      <path className="fill-steel stroke-ink" d="M8 10h48v30H8z" />
      <path className="stroke-ink fill-none" strokeWidth="3" d="M32 14v22" />
    </>
  ),
};

/** How far it is turned from how it is drawn. */
const TURNS = {
  up: "",
  down: "rotate(180 32 24)",
  out: "rotate(90 32 24)",
  in: "rotate(-90 32 24)",
} as const;

/** What is looked for on a part that goes in, and where it is turned to; the words beside it say the same. */
export function FeatureDrawing({ shows: { as, to }, className = "h-12 w-16" }: Props) {
  return (
    <svg viewBox="0 0 64 48" className={`shrink-0 ${className}`} aria-hidden="true" data-shows={as}>
      <g strokeWidth="1.5" transform={TURNS[to ?? "up"] || undefined}>
        {SHAPES[as]}
      </g>
    </svg>
  );
}
