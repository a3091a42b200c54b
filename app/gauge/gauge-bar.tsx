import { Cable, Gauge, Keyboard } from "lucide-react";
import { useCallback, useEffect, useRef, useState } from "react";
import { useJobAt } from "~/view/view";
import { useKeys } from "~/look/use-keys";
import { nm } from "~core/quantity";
import { BAUD, browserPort, serialSource } from "./serial";
import { simulatedSource } from "./simulated";
import { toldText, typeInto, type Source, type Told } from "./source";

/** The ways a figure gets into a field without being written down first. */
const KINDS = {
  typed: { words: "Typed, or a gauge that types", icon: Keyboard },
  simulated: { words: "Simulated gauge", icon: Gauge },
  serial: { words: "Serial gauge", icon: Cable },
} as const;
type Kind = keyof typeof KINDS;
const KEPT = "gauge";

/** The fields a gauge can feed say what they wait for. */
const FIELD = "input[data-nominal]";

/** The gauge in hand: which kind it is, what it says into the field last touched, and what is wrong with it. */
function useGauge(only?: Exclude<Kind, "typed">) {
  const { number, unit } = useJobAt();
  const [kind, setKind] = useState<Kind>("typed");
  const [listening, setListening] = useState(false);
  const [problem, setProblem] = useState("");
  const hand = useRef<HTMLInputElement | null>(null);
  const stop = useRef<(() => Promise<void>) | null>(null);
  useEffect(() => {
    const kept = localStorage.getItem(KEPT);
    if (kept && kept in KINDS && (!only || kept === only)) queueMicrotask(() => setKind(kept as Kind));
    const remember = ({ target }: FocusEvent): void => {
      if (target instanceof HTMLInputElement && target.matches(FIELD)) hand.current = target;
    };
    document.addEventListener("focusin", remember);
    return () => {
      document.removeEventListener("focusin", remember);
      void stop.current?.();
    };
  }, [only]);
  /** The field last touched; else the first one in sight. */
  const field = (): HTMLInputElement | null =>
    hand.current?.isConnected
      ? hand.current
      : ([...document.querySelectorAll<HTMLInputElement>(FIELD)].find((one) => one.checkVisibility()) ??
        null);
  const hear = useCallback(
    (told: Told): void => {
      const to = field();
      if (to) typeInto(to, toldText(told, unit));
    },
    [unit],
  );
  const take = async (source: Source): Promise<void> => {
    const to = field();
    setProblem("");
    if (!to) return setProblem("Nothing on this page waits for a length.");
    const { what = "", gauge = "", nominal = "" } = to.dataset;
    try {
      const told = await source.ask?.({ what: `${number} ${what}`, gauge, nominal: nm(Number(nominal)) });
      if (told) typeInto(to, toldText(told, unit));
    } catch (error) {
      setProblem(error instanceof Error && error.message.includes("gauge") ? error.message : AWAY);
    }
  };
  const connect = async (): Promise<void> => {
    setProblem("");
    const port = browserPort();
    if (!port)
      return setProblem("This browser reads no serial gauge; one that types works in every browser.");
    try {
      stop.current = await serialSource(port, BAUD, unit).open(hear, (why) => {
        setProblem(why);
        setListening(false);
      });
      setListening(true);
    } catch {
      setProblem("No gauge was connected. Plug it in, connect again and choose its port.");
    }
  };
  const disconnect = (): void => {
    void stop.current?.();
    stop.current = null;
    setListening(false);
  };
  const simulated = (): void => void take(simulatedSource(`${number}`));
  useKeys(kind === "simulated" ? { t: simulated } : {});
  useKeyInFigure(kind === "simulated" ? simulated : null);
  const pick = (other: Kind): void => {
    disconnect();
    setProblem("");
    localStorage.setItem(KEPT, other);
    setKind(other);
  };
  return { kind, pick, listening, problem, connect, disconnect, simulated };
}

/**
 * Which gauge feeds the fields of a page. Whatever sends the reading, it goes into the field in hand as typing does, with Enter after it, and is
 * judged there.
 *
 * @param only where the page has a place of its own for the others.
 */
export function GaugeBar({ only }: { only?: Exclude<Kind, "typed"> }) {
  const { kind, pick, listening, problem, connect, disconnect, simulated } = useGauge(only);
  const Icon = KINDS[kind].icon;
  return (
    <div className="flex flex-wrap items-center gap-2" data-gauge={kind} data-listening={listening}>
      <label className="flex items-center gap-2">
        <Icon size={22} aria-hidden="true" />
        <span className="sr-only">Gauge</span>
        <select className="select touch" value={kind} onChange={({ target }) => pick(target.value as Kind)}>
          {Object.entries(KINDS)
            .filter(([id]) => !only || id === "typed" || id === only)
            .map(([id, { words }]) => (
              <option key={id} value={id}>
                {words}
              </option>
            ))}
        </select>
      </label>
      {kind === "simulated" && (
        <button
          type="button"
          className="btn btn-secondary touch"
          // The field in hand stays the one that is fed.
          onPointerDown={(event) => event.preventDefault()}
          onClick={simulated}
        >
          Take <kbd className="key">t</kbd>
        </button>
      )}
      {kind === "serial" && (
        <button
          type="button"
          className="btn btn-secondary touch"
          onClick={listening ? disconnect : () => void connect()}
        >
          {listening ? "Let it go" : "Connect …"}
        </button>
      )}
      {kind === "serial" && listening && (
        <b role="status">Listening: each reading goes into the field in hand.</b>
      )}
      {problem && (
        <p role="alert" className="text-error font-semibold">
          {problem}
        </p>
      )}
    </div>
  );
}

/** In a field that waits for a figure `t` is no letter of it either: it takes a reading where a gauge can be asked. */
function useKeyInFigure(take: (() => void) | null): void {
  const onKey = useRef<(() => void) | null>(null);
  useEffect(() => {
    onKey.current = take;
  });
  useEffect(() => {
    const heard = (event: globalThis.KeyboardEvent): void => {
      const { target } = event;
      const inFigure = target instanceof HTMLInputElement && target.matches(FIELD);
      if (event.key !== "t" || !inFigure || event.ctrlKey || event.metaKey || event.altKey) return;
      // Without a gauge to ask it is a letter like any other.
      if (!onKey.current) return;
      event.preventDefault();
      onKey.current();
    };
    document.addEventListener("keydown", heard);
    return () => document.removeEventListener("keydown", heard);
  }, []);
}

const AWAY = "The simulated gauge does not answer; type the figure.";
