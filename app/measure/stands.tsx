import { Mark, type MarkName } from "~/look/mark";
import type { PhaseFigure, Standing } from "~core/measure";

const MARKS: Readonly<Partial<Record<Standing, MarkName>>> = {
  "too close": "too close",
  creeping: "creeping",
  "too few": "too few",
  "conditions not said": "too few",
  inside: "inside",
  "not stated": "not stated",
  said: "signed",
};
const WORDS: Readonly<Record<Standing, string>> = {
  outside: "outside",
  "too close": "too close to call",
  creeping: "still creeping",
  "too few": "read again",
  "conditions not said": "conditions not said",
  said: "said",
  inside: "inside",
  "not stated": "no limit known",
  "not yet": "",
};

/** Where nothing is measured there is no limit to be inside of. */
const ORDER: Readonly<Partial<Record<Standing, string>>> = { inside: "in order", outside: "not in order" };

/** How a figure stands: its text, a mark and a word, how many readings, and who read it. */
export function Stands({
  figure: { text, standing, verdict, readings, wrongOrder, by },
  wanted,
}: {
  figure: PhaseFigure;
  wanted: number;
}) {
  if (standing === "not yet") return <span className="quiet">{wanted > 1 ? `${wanted} readings` : "–"}</span>;
  const side = verdict?.kind === "outside" ? verdict.side : "loose";
  const mark = standing === "outside" ? side : MARKS[standing];
  const tone =
    standing === "outside"
      ? "text-error"
      : standing === "inside"
        ? "text-success"
        : standing === "too close"
          ? "text-warning"
          : "";
  return (
    <span className="flex items-center gap-2 leading-tight">
      {mark && <Mark name={mark} size={24} />}
      <span>
        <b className="text-lg whitespace-nowrap">{text}</b>
        <span className="flex flex-wrap gap-x-2 text-sm whitespace-nowrap">
          <span className={`font-bold ${tone}`}>
            {/\d/.test(text) ? WORDS[standing] : (ORDER[standing] ?? WORDS[standing])}
          </span>
          <span className="quiet">
            {[readings.length > 1 ? `${readings.length}` : "", by].filter(Boolean).join(" · ")}
          </span>
        </span>
        {wrongOrder.length > 0 && (
          <span className="text-error block text-sm font-bold" data-wrong-order>
            {wrongOrder.join(", ")}: wrong order
          </span>
        )}
      </span>
    </span>
  );
}
