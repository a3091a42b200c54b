import { Choice, Select } from "~/look/field";
import { ORIGINS, originWords } from "~core/book";
import { UNITS } from "./read-by-hand";

type Typed = Readonly<Record<string, string | undefined>>;

/** Whose the figures of a form are. */
export const FiguresFrom = ({ typed }: { typed: Typed }) => (
  <Select
    label="Figures from"
    name="from"
    value={typed.from}
    options={[
      { value: "", words: "not said" },
      ...ORIGINS.map((value) => ({ value, words: originWords(value) })),
    ]}
  />
);

/** What bare figures of a form are in. */
export const BareFigures = ({ typed }: { typed: Typed }) => (
  <Select
    label="Bare figures are"
    name="unit"
    value={typed.unit}
    options={Object.entries(UNITS).map(([value, words]) => ({ value, words }))}
  />
);

export const Family = ({ typed, problem }: { typed: Typed; problem: string | undefined }) => (
  <Choice
    label="Family"
    name="family"
    value={typed.family ?? "automatic"}
    {...(problem ? { problem } : {})}
    options={[
      { value: "automatic", words: "Automatic" },
      { value: "cvt", words: "CVT" },
      { value: "dual-clutch", words: "Dual-clutch" },
    ]}
  />
);
