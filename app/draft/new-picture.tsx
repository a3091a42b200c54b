import { ImagePlus } from "lucide-react";
import { useState } from "react";
import type { BookPicture } from "~core/book";
import { codeFor, isRecord } from "~core/shape";
import { at, changed } from "./edit";
import type { Editing } from "./fields";

/** The pictures of a document that is being changed, as far as they are whole. */
export function pictureListOf(document: unknown): { pictures: BookPicture[] } {
  const known = at(document, ["pictures"]);
  return {
    pictures: (Array.isArray(known) ? (known as unknown[]) : []).filter(
      (one): one is BookPicture =>
        isRecord(one) && typeof one.digest === "string" && typeof one.width === "number",
    ),
  };
}

/** Takes a picture in: a drawing of a tool, a face with its bolts. It is kept at once, and the draft says its name. */
export function NewPicture({ change }: Pick<Editing, "change">) {
  const [problem, setProblem] = useState("");
  const [busy, setBusy] = useState(false);
  const take = async (file: File | undefined): Promise<void> => {
    if (!file) return;
    setBusy(true);
    setProblem("");
    try {
      const answer = await fetch("/pictures/new", { method: "POST", body: file });
      const told = (await answer.json()) as { problem?: string; digest?: string };
      if (!answer.ok || told.digest === undefined) {
        setProblem(told.problem ?? "It could not be taken in.");
        return;
      }
      const name = file.name.replace(/\.[^.]+$/, "");
      // What was typed meanwhile stays.
      change((now: unknown) => withPicture(now, name, told));
    } catch {
      setProblem("The shop’s server is away: take it in again in a moment.");
    } finally {
      setBusy(false);
    }
  };
  return (
    <li>
      <label className={`btn touch mt-2 w-full ${busy ? "btn-disabled" : ""}`}>
        <ImagePlus size={20} aria-hidden="true" /> {busy ? "Taking it in …" : "Take a picture in"}
        <input
          type="file"
          accept="image/*"
          className="sr-only"
          disabled={busy}
          onChange={({ currentTarget }) => void take(currentTarget.files?.[0])}
        />
      </label>
      {problem && (
        <p role="alert" className="text-error mt-1 font-semibold">
          {problem}
        </p>
      )}
    </li>
  );
}

/** A document with one picture more, under an id that none of its pictures has. */
function withPicture(document: unknown, name: string, kept: object): unknown {
  const known = at(document, ["pictures"]);
  const all: unknown[] = Array.isArray(known) ? (known as unknown[]) : [];
  const taken = new Set(all.map((one) => (isRecord(one) ? one.id : undefined)));
  const base = codeFor(name) || "picture";
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  return changed(document, ["pictures"], [...all, { id, name, ...kept }]);
}
