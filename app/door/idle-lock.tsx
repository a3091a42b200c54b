import { useEffect, useRef, useState, type SubmitEvent } from "react";
import { useRevalidator } from "react-router";
import { ask } from "~/look/ask";
import { Choice } from "~/look/field";
import { outbox } from "~/outbox/outbox";
import type { Staff } from "~store/staff";
import { useLocked } from "./idle";
import { PinField } from "./pin-field";

/** Over a bench that was left: the page stays as it is, with all that was typed, and asks who is there. */
export function IdleLock({ staff, minutes }: { staff: Staff; minutes: number }) {
  const [locked, open] = useLocked(minutes);
  const { revalidate } = useRevalidator();
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const here = dialog.current;
    if (locked && here && !here.open) {
      here.showModal();
      // The one who was here has only to type.
      focusPin(here);
    }
    if (locked || !here?.open) return;
    here.close();
    caretBack();
  }, [locked]);
  return (
    <dialog
      ref={dialog}
      aria-label="Who is at the bench?"
      className="bg-neutral text-neutral-content m-0 h-dvh max-h-none w-full max-w-none"
      // Escape opens nothing.
      onCancel={(event) => event.preventDefault()}
      onClose={() => locked && dialog.current?.showModal()}
    >
      {locked && (
        <WhoIsThere
          staff={staff}
          onThere={() => {
            open();
            void revalidate();
            void outbox.flush();
          }}
        />
      )}
    </dialog>
  );
}

const focusPin = (within: ParentNode | null): void =>
  within?.querySelector<HTMLInputElement>("[name=pin]")?.focus();

/** The browser gives the focus back to where it was and not the caret: what is typed then would go nowhere. */
function caretBack(): void {
  const { activeElement: at } = document;
  if (!(at instanceof HTMLElement)) return;
  at.blur();
  at.focus();
}

function WhoIsThere({ staff, onThere }: { staff: Staff; onThere: () => void }) {
  const [everyone, setEveryone] = useState<readonly Staff[]>([staff]);
  const [who, setWho] = useState(staff.id);
  const [pin, setPin] = useState("");
  const [problem, setProblem] = useState("");
  const [busy, setBusy] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    void ask<{ staff: Staff[] }>("/unlock").then((told) => told && setEveryone(told.staff));
  }, []);
  const submit = async (event: SubmitEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    const body = new URLSearchParams({ staff: who, pin });
    const answer = await fetch("/unlock", { method: "POST", body }).catch(() => null);
    setBusy(false);
    setPin("");
    if (answer?.ok) return onThere();
    const told = (await answer?.json().catch(() => null)) as { problems?: Record<string, string> } | null;
    setProblem(
      told?.problems?.pin ??
        told?.problems?.staff ??
        "The server is away. Nothing on this page is lost; try again when it answers.",
    );
  };
  return (
    <form ref={form} onSubmit={(event) => void submit(event)} className="mx-auto max-w-xl p-10">
      <div className="plate text-base-content p-8">
        <h1 className="mb-4 text-3xl font-bold">Who is at the bench?</h1>
        <p className="mb-4 text-lg">Everything on the page is as it was left.</p>
        <Choice
          label="Name"
          name="staff"
          size="text-xl"
          searched
          value={who}
          onChange={(id) => {
            setWho(id);
            focusPin(form.current);
          }}
          options={everyone.map(({ id, name }) => ({ value: id, words: name }))}
        />
        <PinField value={pin} onChange={setPin} problem={problem} />
        <button className="btn btn-primary btn-lg touch mt-3 w-full text-xl" disabled={busy}>
          Go on
        </button>
      </div>
    </form>
  );
}
