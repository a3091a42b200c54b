import type { Drawn } from "~core/inspect";

/** A drawn example of a kind of wear: a plate’s face or edge, the wear in ink. */
export function WearDrawing({ drawn }: { drawn: Drawn }) {
  return (
    <svg viewBox="0 0 64 40" className="h-11 w-[4.4rem] shrink-0" aria-hidden="true">
      {PICTURES[drawn]}
    </svg>
  );
}

const face = (
  <path className="fill-case stroke-soft" strokeWidth="1.5" d="M4 34a28 28 0 0 1 56 0H46a14 14 0 0 0-28 0z" />
);
const bar = (
  <rect className="fill-case stroke-soft" strokeWidth="1.5" x="4" y="13" width="56" height="14" rx="1.5" />
);

const PICTURES: Readonly<Record<Drawn, React.ReactNode>> = {
  spots: (
    <>
      {face}
      <circle className="fill-ink" cx="13" cy="24" r="3.4" />
      <circle className="fill-ink" cx="24" cy="13" r="4" />
      <circle className="fill-ink" cx="41" cy="14" r="3.2" />
      <circle className="fill-ink" cx="52" cy="25" r="3.8" />
    </>
  ),
  scores: (
    <>
      {face}
      <path
        className="stroke-ink fill-none"
        strokeWidth="1.8"
        d="M9 34a23 23 0 0 1 46 0M12.500 34a19.500 19.500 0 0 1 39 0M15 34a17 17 0 0 1 34 0"
      />
    </>
  ),
  crack: (
    <>
      {bar}
      <path className="stroke-bad fill-none" strokeWidth="2.6" d="M27 11l4 6-3 4 6 8" />
    </>
  ),
  "worn face": (
    <>
      {face}
      <path className="fill-ink" d="M18 12l8-5 6 3 8-3 5 5-6 5-7-2-9 4z" />
    </>
  ),
  burnt: (
    <>
      <path className="fill-ink" d="M4 34a28 28 0 0 1 56 0H46a14 14 0 0 0-28 0z" />
      <path
        className="stroke-paper fill-none"
        strokeWidth="1.4"
        strokeDasharray="2 3"
        d="M11 32a21 21 0 0 1 42 0"
      />
    </>
  ),
  glazed: (
    <>
      {face}
      <path
        className="stroke-ink fill-none"
        strokeWidth="1.500"
        d="M13 22l5 4M20 14l4 5M31 10v6M42 13l-3 5M50 21l-5 4"
        opacity="0.35"
      />
      <path
        className="stroke-ink fill-none"
        strokeWidth="3"
        strokeLinecap="round"
        d="M12 30a20 20 0 0 1 9-14M25 13.500a20 20 0 0 1 5-1.300"
      />
    </>
  ),
  loose: (
    <>
      <circle className="fill-case stroke-soft" strokeWidth="1.5" cx="28" cy="20" r="13" />
      <circle className="fill-none stroke-ink" strokeWidth="2" strokeDasharray="3 3" cx="36" cy="20" r="13" />
      <path className="stroke-ink fill-none" strokeWidth="2" d="M52 20h9m-3-3 3 3-3 3" />
    </>
  ),
  bent: (
    <>
      <path className="stroke-soft" strokeWidth="1.5" d="M3 31h58" />
      <path className="stroke-ink fill-none" strokeWidth="4" d="M5 27q27-20 54 0" />
    </>
  ),
  pits: (
    <>
      {bar}
      <path
        className="fill-ink"
        d="M14 15l4 2-2 4-4-2zM27 19l5-2 2 4-5 2zM43 15l5 1-1 5-4-1zM36 23l3-1 1 3h-4zM20 23l3 1-2 2z"
      />
    </>
  ),
  lip: (
    <>
      <path className="fill-case stroke-soft" strokeWidth="1.5" d="M6 8h20v24H6z" />
      <path className="stroke-ink fill-none" strokeWidth="3" d="M26 12q20 2 22 10" />
      <path className="stroke-bad fill-none" strokeWidth="3" d="M48 22v8" />
      <path className="stroke-soft" strokeWidth="1.5" d="M56 5v30" />
    </>
  ),
  blocked: (
    <>
      <path className="fill-case stroke-soft" strokeWidth="1.5" d="M4 8h56v8H40v8H24v-8H4zM24 32h16v4H24z" />
      <path className="fill-ink" d="M25 17h14v13l-5-2-4 3-5-2z" />
    </>
  ),
};
