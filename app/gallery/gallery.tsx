import { Axis, type AxisPack } from "~/look/axis";
import { Choice, Field } from "~/look/field";
import { adviceWords, Mark, VerdictMark, type MarkName } from "~/look/mark";
import { Rule } from "~/look/rule";
import { Stack } from "~/look/stack";
import { Dial, GaugeFace, type Needle, type Take } from "~/reading/gauge-dock";
import { services } from "~/server/context";
import type { Station } from "~core/book";
import type { Plate } from "~core/pack";
import { lengthOf, nm } from "~core/quantity";
import { assess, type Spec, type TakenReading } from "~core/reading";
import { target } from "~core/select";
import type { Route } from "./+types/gallery";

/** The whole visual language on one page, for looking at; not there in production. */
export const loader = ({ context }: Route.LoaderArgs) => {
  if (!context.get(services).gallery) throw new Response("The gallery is for development.", { status: 404 });
  return null;
};

export const meta: Route.MetaFunction = () => [{ title: "Gallery · Yard Key" }];

const SPEC: Spec = {
  min: lengthOf("1.05 mm"),
  max: lengthOf("1.40 mm"),
  state: { soak: "soaked", facings: "new" },
};

const reading = (text: string, out = false): TakenReading => ({
  reading: { kind: "single", value: lengthOf(`${text} mm`) },
  state: SPEC.state,
  resolution: nm(10_000),
  leftOut: out,
});
const blades = (passes: string, refuses: string): TakenReading => ({
  ...reading("1"),
  reading: { kind: "bracket", passes: lengthOf(`${passes} mm`), refuses: lengthOf(`${refuses} mm`) },
});

const RUNS: { name: string; readings: TakenReading[] }[] = [
  { name: "nothing read", readings: [] },
  { name: "too few", readings: [reading("1.21"), reading("1.23")] },
  { name: "inside", readings: [reading("1.21"), reading("1.23"), reading("1.22"), reading("1.30", true)] },
  { name: "too close", readings: [reading("1.38"), reading("1.40"), reading("1.37")] },
  { name: "tight", readings: [reading("0.91"), reading("0.93"), reading("0.92")] },
  { name: "loose", readings: [reading("1.52"), reading("1.51"), reading("1.53")] },
  { name: "creeping", readings: [reading("1.10"), reading("1.14"), reading("1.19"), reading("1.22")] },
  {
    name: "settled",
    readings: [
      reading("1.10"),
      reading("1.15"),
      reading("1.22"),
      reading("1.23"),
      reading("1.22"),
      reading("1.21"),
    ],
  },
  { name: "feeler", readings: [blades("1.15", "1.20"), blades("1.20", "1.25")] },
];

const MARKS: MarkName[] = [
  "none",
  "begun",
  "too few",
  "creeping",
  "too close",
  "tight",
  "loose",
  "inside",
  "signed",
  "quiet",
];

const STATIONS: Station[] = [
  { id: "a", name: "converter", kind: "converter", from: 0, to: 14, reach: 96 },
  { id: "b", name: "pump", kind: "pump", from: 17, to: 24, reach: 82 },
  { id: "c", name: "front set", kind: "gear set", from: 26, to: 34, reach: 62 },
  { id: "d", name: "drum", kind: "drum", from: 36, to: 50, reach: 78 },
  { id: "e", name: "brake", kind: "brake", from: 53, to: 64, reach: 92 },
  { id: "f", name: "support", kind: "support", from: 66, to: 70, reach: 88 },
  { id: "g", name: "drum", kind: "drum", from: 72, to: 84, reach: 70 },
  { id: "h", name: "output", kind: "output", from: 88, to: 100, reach: 30 },
];
const PACKS: AxisPack[] = [
  {
    id: "1",
    station: "d",
    name: "D1",
    aka: "low clutch",
    mark: "inside",
    words: "inside",
    quiet: false,
    current: false,
    to: "/",
  },
  {
    id: "2",
    station: "e",
    name: "H1",
    aka: "brake",
    mark: "too close",
    words: "too close to call",
    quiet: false,
    current: true,
    to: "/",
  },
  {
    id: "3",
    station: "g",
    name: "D2",
    aka: "high clutch",
    mark: "quiet",
    words: "out of scope",
    quiet: true,
    current: false,
    to: "/",
  },
];

const plate = (role: Plate["role"], thickness: string): Plate => ({
  role,
  part: role,
  thickness: lengthOf(thickness),
});
const PLATES: Plate[] = [
  plate("waved plate", "1.90 mm"),
  ...[1, 2, 3, 4].flatMap(() => [plate("steel", "1.80 mm"), plate("friction", "1.60 mm")]),
  plate("reaction plate", "4.80 mm"),
];

const DOCKS: { name: string; needle: Needle | null; take: Take }[] = [
  { name: "at rest", needle: { needle: 0, air: false, step: 10_000 }, take: { at: "rest" } },
  {
    name: "lifted",
    needle: { needle: 1_220_000, air: true, step: 10_000 },
    take: { at: "lifted", zero: 0, peak: 1_230_000 },
  },
  {
    name: "back",
    needle: { needle: 40_000, air: false, step: 10_000 },
    take: { at: "back", zero: 0, peak: 1_230_000 },
  },
  { name: "no answer", needle: null, take: { at: "rest" } },
];

export default function Gallery() {
  return (
    <main>
      {(["chalk", "lamp"] as const).map((theme) => (
        <div key={theme} data-theme={theme} className="bg-base-200 text-base-content p-6">
          <h1 className="mb-4 text-3xl font-bold">Yard Key, {theme}</h1>
          <Language theme={theme} />
        </div>
      ))}
    </main>
  );
}

function Language({ theme }: { theme: string }) {
  return (
    <div className="grid gap-4">
      <Marks />
      <Axis stations={STATIONS} packs={PACKS} tall />
      <Verdicts />
      <Drawings />
      <Controls theme={theme} />
      <Table />
    </div>
  );
}

function Marks() {
  return (
    <div className="plate flex flex-wrap gap-6 p-4">
      {MARKS.map((name) => (
        <span key={name} className="flex items-center gap-2">
          <Mark name={name} size={40} /> {name}
        </span>
      ))}
    </div>
  );
}

function Verdicts() {
  return (
    <div className="grid grid-cols-2 gap-4">
      {RUNS.map(({ name, readings }) => {
        const assessment = assess(readings, SPEC, "proven");
        return (
          <section key={name} className="plate p-3">
            <div className="flex items-center justify-between gap-3">
              <VerdictMark verdict={assessment.verdict} unit="mm" />
              <span className="text-sm">{adviceWords(assessment.verdict, "mm")}</span>
            </div>
            <Rule spec={SPEC} target={target(SPEC, "shifting", "middle")} assessment={assessment} unit="mm" />
          </section>
        );
      })}
    </div>
  );
}

function Drawings() {
  return (
    <div className="grid grid-cols-2 gap-4">
      <div className="plate p-3">
        <Stack plates={PLATES} gap={lengthOf("1.22 mm")} ring={lengthOf("1.75 mm")} unit="mm" caption="D1" />
      </div>
      <div className="plate p-3">
        <Stack
          plates={PLATES}
          gap={lengthOf("0.95 mm")}
          ring={lengthOf("2.05 mm")}
          unit="mm"
          caption="with three notches"
          predicted
        />
      </div>
      <div className="plate p-3">
        <Stack plates={PLATES} gap={null} ring={null} unit="in" caption="nothing read, no ring" />
      </div>
      <div className="plate flex items-center gap-6 p-3">
        <Dial value={lengthOf("0.043 in")} unit="in" />
        <p className="figure text-4xl">0123456789</p>
        <p className="text-base">0123456789 15.625 mm</p>
      </div>
      {DOCKS.map(({ name, needle, take }) => (
        <div key={name} className="plate p-3">
          <GaugeFace needle={needle} take={take} unit="mm" onNext={() => {}} />
        </div>
      ))}
    </div>
  );
}

function Controls({ theme }: { theme: string }) {
  return (
    <div className="plate grid grid-cols-3 gap-6 p-4">
      <div>
        <Field label="Field" name={`${theme}-a`} defaultValue="1.09" hint="a hint" />
        <Field
          label="Field with a problem"
          name={`${theme}-b`}
          defaultValue="abc"
          problem="“abc” is not a length; write a number such as 1.09"
        />
      </div>
      <Choice
        label="Choice"
        name={`${theme}-c`}
        value="dry"
        options={[
          { value: "dry", words: "Dry" },
          { value: "soaked", words: "Soaked" },
        ]}
      />
      <div className="flex flex-wrap content-start gap-3">
        <button type="button" className="btn btn-primary touch">
          Primary
        </button>
        <button type="button" className="btn touch">
          Plain
        </button>
        <button type="button" className="btn btn-secondary touch">
          Chosen
        </button>
        <button type="button" className="btn btn-primary touch" disabled>
          Not now
        </button>
        <kbd className="key">Enter</kbd>
      </div>
    </div>
  );
}

function Table() {
  return (
    <div className="plate p-4">
      <table className="w-full">
        <thead>
          <tr className="stamp border-base-content border-b-2 text-left">
            <th className="py-1">Pack</th>
            <th className="py-1">Spec</th>
            <th className="py-1 text-right">As built</th>
          </tr>
        </thead>
        <tbody>
          <tr className="border-base-300 border-b">
            <td className="py-1">D1</td>
            <td className="py-1">1.05 mm to 1.40 mm</td>
            <td className="py-1 text-right">1.22 mm</td>
          </tr>
          <tr>
            <td className="py-1">H1</td>
            <td className="py-1">0.90 mm to 1.30 mm</td>
            <td className="py-1 text-right">0.98 mm</td>
          </tr>
        </tbody>
      </table>
    </div>
  );
}
