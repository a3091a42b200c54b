import { ScanLine } from "lucide-react";
import { useEffect, useRef, useState, type FormEvent } from "react";
import { useNavigate } from "react-router";
import { watch } from "./camera";
import { codeIn } from "./code";
import { useDialog } from "~/look/use-dialog";
import { heard } from "./heard";
import { Wedge } from "./wedge";

/** Scanners that type, wherever one is on the page: a label's code opens what it belongs to and leaves no trace in a field. */
function useWedge(open: (code: string) => void): void {
  // Kept beyond the effect: what the scanner has typed so far outlives the page being drawn anew.
  const [wedge] = useState(() => new Wedge());
  const filled = useRef<{ field: HTMLInputElement | HTMLTextAreaElement; value: string } | null>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const field = event.target;
      const begins = wedge.length === 0;
      const isField = field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement;
      const value = isField ? field.value : "";
      const code = wedge.key(event.key, event.timeStamp);
      if (wedge.length === 1 || begins) filled.current = isField ? { field, value } : null;
      if (!code) return;
      event.preventDefault();
      event.stopPropagation();
      const before = filled.current;
      if (before) {
        before.field.value = before.value;
        before.field.dispatchEvent(new Event("input", { bubbles: true }));
      }
      open(code);
    };
    document.addEventListener("keydown", onKey, true);
    return () => document.removeEventListener("keydown", onKey, true);
  });
}

/** Opens what a label belongs to: by camera, by hand, or with a scanner that types. */
export function ScanButton() {
  const navigate = useNavigate();
  const { dialog, drawn, show, close: shut } = useDialog();
  const video = useRef<HTMLVideoElement>(null);
  const stop = useRef<(() => void) | null>(null);
  const [problem, setProblem] = useState("");
  const close = (): void => {
    stop.current?.();
    stop.current = null;
    shut();
  };
  const open = (code: string): void => {
    close();
    if (heard(code)) return;
    void navigate(`/scan/${code}`);
  };
  useWedge(open);
  const look = async (): Promise<void> => {
    setProblem("");
    show();
    const element = video.current;
    if (!element) return;
    try {
      const off = await watch(element, (text) => {
        const code = codeIn(text);
        if (code) open(code);
      });
      stop.current?.();
      stop.current = off;
      if (!dialog.current?.open) close();
    } catch {
      setProblem(
        "No camera to be had here: over the network it needs the https address. Type the code instead.",
      );
    }
  };
  const typed = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const given = new FormData(event.currentTarget).get("code");
    const code = typeof given === "string" ? codeIn(given.toUpperCase()) : null;
    if (code) open(code);
    else setProblem("That is no label’s code: it begins with YK- and the job’s number.");
  };
  return (
    <>
      <button
        type="button"
        className="touch grid place-items-center"
        aria-label="Scan a label"
        onClick={() => void look()}
      >
        <ScanLine size={22} />
      </button>
      <dialog
        ref={dialog}
        className="plate text-base-content m-auto w-[34rem] p-5"
        aria-label="Scan a label"
        onClose={close}
      >
        {drawn && (
          <>
            <h2 className="mb-2 text-xl font-bold">Hold the label before the camera</h2>
            <video
              ref={video}
              muted
              playsInline
              className="bg-neutral aspect-video w-full rounded"
              aria-label="What the camera sees"
            />
            <form onSubmit={typed} className="mt-3 flex items-end gap-3">
              <div className="grow">
                <label htmlFor="scan-code" className="stamp mb-1 block">
                  Or its code
                </label>
                <input
                  id="scan-code"
                  name="code"
                  className="input touch w-full text-lg"
                  autoComplete="off"
                  placeholder="YK-1030"
                />
              </div>
              <button className="btn btn-primary touch">Open</button>
              <button type="button" className="btn touch" onClick={close}>
                Back
              </button>
            </form>
            {problem && (
              <p role="alert" className="text-error mt-2 font-semibold">
                {problem}
              </p>
            )}
          </>
        )}
      </dialog>
    </>
  );
}
