import { useDialog } from "~/look/use-dialog";
import { SayForm } from "~/say/say-form";
import { useJobView } from "~/view/view";
import { wouldOpen, type Build, type BuildStep } from "~core/build";

interface UndoProps {
  one: BuildStep;
  build: Build;
}

/** A step taken back: what it lays open is shown before it is confirmed. */
export function Undo({ one, build }: UndoProps) {
  const { dialog, drawn, show, close } = useDialog();
  return (
    <>
      <button type="button" className="btn touch" onClick={show}>
        Not done after all …
      </button>
      <dialog
        ref={dialog}
        className="plate text-base-content m-auto max-w-2xl p-6"
        aria-label={`Take back: ${one.step.name}`}
      >
        {drawn && <TakeBack one={one} build={build} close={close} />}
      </dialog>
    </>
  );
}

function TakeBack({ one: { step }, build, close }: UndoProps & { close: () => void }) {
  const { applied } = useJobView();
  const opens = wouldOpen(applied, build, step.id);
  return (
    <>
      <h2 className="text-2xl font-bold">Take back: {step.name}</h2>
      {opens.length === 0 ? (
        <p className="mt-2 text-lg">Nothing else hangs on it. What was answered in it is asked again.</p>
      ) : (
        <>
          <p className="mt-2 text-lg">
            This opens {opens.length === 1 ? "one more step" : `${opens.length} more steps`} again. Their
            answers, readings, torques and times count no longer:
          </p>
          <ul className="my-2 list-disc pl-6 text-lg" data-opens={opens.length}>
            {opens.map((other) => (
              <li key={other.step.id}>{other.step.name}</li>
            ))}
          </ul>
        </>
      )}
      <div className="mt-4 flex flex-wrap gap-3">
        <SayForm kind="step" fixed={{ step: step.id, did: "undone" }} onSaid={close}>
          {() => (
            <button className="btn btn-error touch">
              {opens.length === 0 ? "Take it back" : `Take it back and open ${opens.length} more`}
            </button>
          )}
        </SayForm>
        <form method="dialog">
          <button className="btn touch">Leave it done</button>
        </form>
      </div>
    </>
  );
}
