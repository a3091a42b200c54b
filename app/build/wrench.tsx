import { isInReach, wrenchesOf, type Tool } from "~core/book";
import { useState, type FormEvent } from "react";
import { askBench } from "~/gauge/bench";
import { useFiguresFindTheirField, useKeys } from "~/look/use-keys";
import { useArm, WrenchArm } from "~/look/wrench-arm";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import { pullOf, type Face } from "~core/build";
import { baseOf, measureText, parseMeasure, toNumber, type Measure } from "~core/quantity";
import { torqueReached, type Round } from "~core/torque";
import { useSerialWrench } from "./use-serial-wrench";

type Kind = "typed" | "serial" | "simulated";

const KEPT = "wrench";
const AWAY = "The simulated wrench does not answer; type what yours says.";

/** What the wrench says of the place that is next: typed, by a wrench that types, or pulled by the bench’s simulated one. */
export function Wrench({
  wanted,
  face: { group, said },
  round,
  place,
}: {
  wanted: Measure<"torque">;
  face: Face;
  round: Round;
  place: number;
}) {
  const { applied, number, unit } = useJobView();
  const say = useSay();
  const [problem, setProblem] = useState("");
  const [empty, setEmpty] = useState(false);
  const [kind, setKind] = useState<Kind>(() => {
    const kept = typeof localStorage === "undefined" ? null : localStorage.getItem(KEPT);
    return kept === "simulated" || kept === "serial" ? kept : "typed";
  });
  const simulated = kind === "simulated";
  const held = useArm(unit);
  useFiguresFindTheirField();
  const tell = (given: Measure<"torque">): void => {
    // With an extension in line more reaches the fastener than the wrench reads.
    const read = held.arm ? torqueReached(given, held.arm.length, held.arm.extension) : given;
    const text = measureText(read);
    const did = pullOf(group, round, applied.house, text) === "in" ? "tight" : "loose";
    say({ kind: "tightened", group: group.id, round: round.id, places: [place], did, read: text });
  };
  const typed = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const field = event.currentTarget.elements.namedItem("read") as HTMLInputElement;
    const parsed = parseMeasure(field.value, "torque", wanted.unit);
    setProblem(parsed.ok ? "" : `${parsed.problem}; ${parsed.remedy}`);
    if (!parsed.ok) return;
    tell(parsed.measure);
    field.value = "";
  };
  const pull = async (): Promise<void> => {
    setProblem("");
    const pulled = await askBench<{ torque: number } | { problem: string }>("pull", {
      bench: String(number),
      torque: toNumber(baseOf(held.setting(wanted))),
      ...(empty ? { charge: true } : {}),
    });
    if (!pulled) return setProblem(AWAY);
    setEmpty("problem" in pulled);
    if ("problem" in pulled) return setProblem(`The wrench says nothing: ${pulled.problem}.`);
    const read = parseMeasure(`${pulled.torque} N·m`, "torque");
    if (read.ok) tell(read.measure);
  };
  const line = useSerialWrench(wanted.unit, tell, setProblem);
  useKeys(simulated ? { p: () => void pull() } : {});
  const last = said(round.id, place)?.body;
  const was = last && pullOf(group, round, applied.house, last.read);
  return (
    <div className="mt-2">
      {last?.read !== undefined && was !== "in" && (
        <p role="alert" className="text-error text-xl font-semibold" data-pull={was}>
          {was === "short"
            ? `Stopped at ${last.read}: pull it again.`
            : `Went to ${last.read}: loosen it, look at its thread, and tighten it again.`}
        </p>
      )}
      <form className="flex flex-wrap items-center gap-2" onSubmit={typed} noValidate>
        <label className="flex items-center gap-2">
          Wrench says
          <input
            name="read"
            data-awaits
            autoComplete="off"
            inputMode="decimal"
            className={`input touch w-28 text-xl ${problem ? "input-error" : ""}`}
            placeholder={wanted.unit}
            aria-invalid={problem ? true : undefined}
          />
        </label>
        <select
          className="select touch w-40"
          aria-label="Which wrench"
          value={kind}
          onChange={({ target: { value } }) => {
            localStorage.setItem(KEPT, value);
            line.letGo();
            setKind(value as Kind);
          }}
        >
          <option value="typed">typed, or types</option>
          <option value="serial">serial line</option>
          <option value="simulated">simulated</option>
        </select>
        {kind === "serial" && (
          <button
            type="button"
            className="btn touch"
            data-listening={line.listening}
            onClick={line.listening ? line.letGo : () => void line.connect()}
          >
            {line.listening ? "Let it go" : "Connect …"}
          </button>
        )}
        {simulated && (
          <button type="button" className="btn touch" onClick={() => void pull()}>
            {empty ? "Charge and pull" : "Pull"} <kbd className="key">p</kbd>
          </button>
        )}
        {problem && (
          <p role="alert" className="text-error w-full font-semibold">
            {problem}
          </p>
        )}
      </form>
      <WrenchArm torque={wanted} unit={unit} held={held} />
      <Reaches setting={held.setting(wanted)} tools={applied.present.tools ?? []} />
    </div>
  );
}

/** Which of the unit’s wrenches can be set to it, with the extension that is in line. */
function Reaches({ setting, tools }: { setting: Measure<"torque">; tools: readonly Tool[] }) {
  const all = wrenchesOf(tools);
  if (all.length === 0) return null;
  const fit = all.filter((tool) => isInReach(tool, setting));
  return (
    <p
      className={`mt-1 ${fit.length === 0 ? "text-error font-semibold" : "quiet"}`}
      role={fit.length === 0 ? "alert" : undefined}
      data-reaches={fit.length}
    >
      {fit.length > 0
        ? `In reach of: ${fit.map(({ name }) => name).join(", ")}`
        : `No wrench here reaches ${measureText(setting)}: ${all.map(({ name }) => name).join(", ")}.`}
    </p>
  );
}
