import type { Line } from "~core/procedure";

const SIGNS = {
  met: { sign: "✓", tone: "text-success", words: "so" },
  unmet: { sign: "✕", tone: "text-error", words: "not so" },
  unknown: { sign: "?", tone: "quiet", words: "not read" },
} as const;

/** What must be so, each as it is now. */
export const Lines = ({ lines }: { lines: readonly Line[] }) =>
  lines.length === 0 ? null : (
    <ul className="mt-2 flex flex-wrap gap-x-6 gap-y-1 text-xl" aria-label="What must be so">
      {lines.map(({ of, wanted, now, is }, i) => (
        <li key={`${of} ${i}`} data-gate={of} data-is={is} className="flex items-center gap-2">
          <b className={SIGNS[is].tone} aria-hidden="true">
            {SIGNS[is].sign}
          </b>
          <span className="first-letter:uppercase">{wanted}</span>
          {now && is === "unmet" && <span className="text-error font-semibold">is {now}</span>}
          <span className="sr-only">, {SIGNS[is].words}</span>
        </li>
      ))}
    </ul>
  );
