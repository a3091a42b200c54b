import type { ReactNode } from "react";
import type { Drawn } from "~core/book";

/** How far wear has gone, as drawn: 1 is a trace, 3 is beyond use. */
export type Degree = 1 | 2 | 3;

/** A drawn example of a kind of wear at one degree: a plate’s face, a shaft, an edge, the wear in ink. */
export function WearDrawing({ drawn, degree = 2 }: { drawn: Drawn; degree?: Degree }) {
  return (
    <svg viewBox="0 0 64 40" className="h-9 w-[3.6rem] shrink-0" aria-hidden="true">
      {PICTURES[drawn](degree)}
    </svg>
  );
}

const FACE = "M4 34a28 28 0 0 1 56 0H46a14 14 0 0 0-28 0z";
const face = <path className="fill-case stroke-soft" strokeWidth="1.5" d={FACE} />;
const bar = (
  <rect className="fill-case stroke-soft" strokeWidth="1.5" x="4" y="13" width="56" height="14" rx="1.5" />
);
/** What is drawn at each degree. */
const by = <T,>(degree: Degree, trace: T, worn: T, beyond: T): T =>
  degree === 1 ? trace : degree === 2 ? worn : beyond;
/** The first few of a list, more at each degree. */
const upTo = <T,>(list: readonly T[], ...counts: [number, number, number]) => {
  return (degree: Degree): readonly T[] => list.slice(0, by(degree, ...counts));
};

const SPOTS = upTo(
  [
    [13, 24, 3],
    [41, 13, 3],
    [24, 13, 4],
    [52, 25, 4],
    [32, 9, 3.4],
    [9, 32, 3.2],
    [55, 32, 3.2],
    [18, 18, 3],
    [47, 18, 3],
  ] as const,
  2,
  5,
  9,
);
const RINGS = upTo(
  [
    "M12.500 34a19.500 19.500 0 0 1 39 0",
    "M9 34a23 23 0 0 1 46 0",
    "M15.500 34a16.500 16.500 0 0 1 33 0",
    "M6.500 34a25.500 25.500 0 0 1 51 0",
  ],
  1,
  2,
  4,
);
const GONE = upTo(
  [
    "M24 9l7-3 5 3-2 5-7 1z",
    "M8 27l4-6 5 2-1 6-5 3z",
    "M45 12l6 4 2 6-5 2-6-6z",
    "M38 7l6 2-1 5-5 0z",
    "M50 29l6-3 2 6-7 1z",
    "M15 15l5-4 3 4-5 4z",
  ],
  1,
  3,
  6,
);
const PITS = upTo(
  [
    "M14 15l4 2-2 4-4-2z",
    "M43 15l5 1-1 5-4-1z",
    "M27 19l5-2 2 4-5 2z",
    "M36 23l3-1 1 3h-4z",
    "M20 22l3 1-2 3-3-1z",
    "M8 22l4-1 1 4-4 0z",
    "M51 20l5 1-1 4-4-1z",
    "M22 14l4 1-1 3-4-1z",
    "M36 15l4 0 0 3-4 0z",
  ],
  2,
  5,
  9,
);

const PICTURES: Readonly<Record<Drawn, (degree: Degree) => ReactNode>> = {
  spots: (degree) => (
    <>
      {face}
      {SPOTS(degree).map(([x, y, r]) => (
        <circle key={x} className="fill-ink" cx={x} cy={y} r={r} />
      ))}
    </>
  ),
  scores: (degree) => (
    <>
      {face}
      <path className="stroke-ink fill-none" strokeWidth={1 + degree * 0.4} d={RINGS(degree).join("")} />
    </>
  ),
  crack: (degree) => (
    <>
      {bar}
      {degree === 3 && <path className="fill-paper stroke-bad" strokeWidth="2" d="M24 10l5 9 7 3 5-12z" />}
      <path
        className="stroke-bad fill-none"
        strokeWidth={degree === 1 ? 1.4 : 2.6}
        d={degree === 1 ? "M29 13l3 4-2 3" : "M27 11l4 6-3 4 6 8"}
      />
    </>
  ),
  "worn face": (degree) => (
    <>
      {face}
      {GONE(degree).map((d) => (
        <path key={d} className="fill-ink" d={d} />
      ))}
    </>
  ),
  burnt: (degree) => (
    <>
      {face}
      {degree === 1 && <path className="fill-ink" opacity="0.35" d={FACE} />}
      {degree === 2 && <path className="fill-ink" d="M4 34a28 28 0 0 1 56 0h-6a22 22 0 0 0-44 0z" />}
      {degree === 3 && (
        <>
          <path className="fill-ink" d={FACE} />
          <path
            className="stroke-paper fill-none"
            strokeWidth="1.8"
            strokeDasharray="2 3"
            d="M11 33a21 21 0 0 1 42 0"
          />
        </>
      )}
    </>
  ),
  glazed: (degree) => (
    <>
      {face}
      <path
        className="stroke-ink fill-none"
        strokeWidth={1.5 + degree}
        strokeLinecap="round"
        d={by(
          degree,
          "M25 13a20 20 0 0 1 7-1.500",
          "M12 30a20 20 0 0 1 9-14M25 13a20 20 0 0 1 9-1.500",
          "M11 32a21 21 0 0 1 42 0",
        )}
      />
    </>
  ),
  loose: (degree) => (
    <>
      <circle className="fill-case stroke-soft" strokeWidth="1.5" cx="22" cy="20" r="13" />
      <circle
        className="fill-none stroke-ink"
        strokeWidth="2"
        strokeDasharray="3 3"
        cx={22 + by(degree, 3, 8, 18)}
        cy="20"
        r="13"
      />
      <path className="stroke-ink fill-none" strokeWidth="2" d="M54 34h8m-3-3 3 3-3 3" />
    </>
  ),
  bent: (degree) => (
    <>
      <path className="stroke-soft" strokeWidth="1.5" d="M3 33h58" />
      <path
        className="stroke-ink fill-none"
        strokeWidth="4"
        d={`M5 30q27${by(degree, " -8", "-22", "-44")} 54 0`}
      />
    </>
  ),
  pits: (degree) => (
    <>
      {bar}
      <path className="fill-ink" d={PITS(degree).join("")} />
    </>
  ),
  lip: (degree) => (
    <>
      <path className="fill-case stroke-soft" strokeWidth="1.5" d="M6 8h20v24H6z" />
      <path className="stroke-soft" strokeWidth="1.5" d="M56 5v30" />
      <path
        className="stroke-ink fill-none"
        strokeWidth="3"
        d={by(degree, "M26 12q22 2 29 12", "M26 12q20 2 22 14", "M26 12q14 1 16 8")}
      />
      {degree === 3 && <path className="stroke-bad" strokeWidth="3" d="M42 24v8" />}
    </>
  ),
  squared: (degree) => (
    <>
      <path className="stroke-soft fill-none" strokeWidth="1.5" d="M6 8v26h48V8" />
      <rect
        className="fill-ink"
        x={by(degree, 20, 18, 16)}
        y={by(degree, 15, 18, 21)}
        width={by(degree, 20, 24, 28)}
        height={by(degree, 19, 16, 13)}
        rx={by(degree, 9, 6, 2)}
      />
      {degree === 3 && <path className="stroke-bad" strokeWidth="2" strokeDasharray="3 2" d="M12 19h36" />}
    </>
  ),
  blocked: (degree) => (
    <>
      <path className="fill-case stroke-soft" strokeWidth="1.5" d="M4 8h56v8H40v8H24v-8H4zM24 32h16v4H24z" />
      <path
        className="fill-ink"
        d={by(degree, "M25 17h4v13l-4-1z", "M25 17h9l-2 13-3-2-4 2z", "M25 17h14v13l-5-2-4 3-5-2z")}
      />
    </>
  ),
  step: (degree) => (
    <>
      <path
        className="fill-case stroke-soft"
        strokeWidth="1.5"
        d={`M4 10h18v${degree * 2}h20v-${degree * 2}h18v20h-18v-${degree * 2}h-20v${degree * 2}h-18z`}
      />
      <path
        className="stroke-ink fill-none"
        strokeWidth="2.2"
        d={`M22 ${9 + degree * 2}h20M22 ${31 - degree * 2}h20`}
      />
      <path className="stroke-soft" strokeDasharray="6 2 1 2" d="M1 20h62" />
    </>
  ),
  notch: (degree) => (
    <>
      <path
        className="fill-case stroke-ink"
        strokeWidth="1.8"
        d={`M4 34v-24h12v8l-${degree} 2 ${degree} 2v8h12v-8l${degree} -2 -${degree} -2v-8h12v8l-${degree} 2 ${degree} 2v8h12v-8l${degree} -2 -${degree} -2v-8h8v24z`}
      />
    </>
  ),
  rounded: (degree) => {
    const r = by(degree, 2, 6, 11);
    const tooth = (x: number): string =>
      `V${12 + r}q0-${r} ${Math.min(r, 7)}-${r}h${14 - 2 * Math.min(r, 7)}q${Math.min(r, 7)} 0 ${Math.min(r, 7)} ${r}V30H${x + 22}`;
    return (
      <path className="fill-case stroke-ink" strokeWidth="1.8" d={`M2 36V30H6${tooth(6)}${tooth(28)}V36z`} />
    );
  },
  weak: (degree) => {
    const top = by(degree, 9, 14, 20);
    const turn = (34 - top) / 5;
    const coil = (from: number, pitch: number): string =>
      `M${from} 34${Array.from({ length: 5 }, (_, i) => `l${i % 2 ? -18 : 18}-${pitch}`).join("")}`;
    return (
      <>
        <path className="stroke-soft fill-none" strokeWidth="2" d={coil(8, 5.8)} />
        <path className="stroke-ink fill-none" strokeWidth="2.6" d={coil(38, turn)} />
        <path className="stroke-bad" strokeWidth="1.5" strokeDasharray="2 2" d="M4 5h56" />
      </>
    );
  },
  leak: (degree) => (
    <>
      <path className="fill-case stroke-soft" strokeWidth="1.5" d="M4 4h56v10H4z" />
      {[32, 18, 46].slice(0, degree).map((x, i) => (
        <path
          key={x}
          className="fill-ink"
          d={`M${x} ${15 + i * 2}q6 ${4 + degree * 3} 0 ${9 + degree * 3}q-6-${5} 0-${9 + degree * 3}z`}
        />
      ))}
    </>
  ),
  off: (degree) => (
    <>
      <path className="stroke-soft fill-none" strokeWidth="3" d="M8 32a24 24 0 0 1 48 0" />
      <path className="stroke-good fill-none" strokeWidth="5" d="M20 11.200a24 24 0 0 1 24 0" />
      <path className="stroke-ink" strokeWidth="2.6" d={`M32 32L${by(degree, "45 14", "53 22", "55 31")}`} />
      <circle className="fill-ink" cx="32" cy="32" r="3" />
    </>
  ),
};
