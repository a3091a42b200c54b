import { Plus, Trash2 } from "lucide-react";
import { useState } from "react";
import { ORIGINS, originWords, pictureIn } from "~core/book";
import { BookPicture } from "~/pictures/shown";
import { NewPicture, pictureListOf } from "./new-picture";
import { Places } from "./places";
import { at, changed, pathText, type Path } from "./edit";
import { Ordered } from "./entry-order";
import { Pick, Rows, Text, type Editing, type Entry } from "./fields";
import { HeldFor, SectionFields } from "./section-fields";
import { SECTIONS, type SectionName } from "./sections";

/** What kinds of entry have a form, and how one that is new begins. */
export const FORMS = {
  chains: { words: "Chains and specs", fresh: null },
  packs: { words: "Packs", fresh: null },
  series: {
    words: "Series",
    fresh: {
      id: "new-series",
      name: "new series",
      kind: "shim",
      tolerance: "0.01 mm",
      sizes: [{ mark: "1", size: "1.00 mm", part: "NEW-1" }],
    },
  },
  fasteners: {
    words: "Fasteners",
    fresh: {
      id: "new-bolts",
      name: "New bolts",
      count: 1,
      size: "M6",
      length: "20 mm",
      places: [{ at: [50, 50] }],
      torque: "9 N·m",
    },
  },
  ...SECTIONS,
  pictures: { words: "Pictures", fresh: null },
} as const;
export type FormName = keyof typeof FORMS;

const picturesOf = (document: unknown): { value: string; words: string }[] =>
  entriesOf(document, "pictures").map(({ id, name }) => ({ value: String(id), words: String(name) }));

const entriesOf = (document: unknown, section: FormName): Entry[] =>
  (at(document, [section]) as Entry[] | undefined) ?? [];

/** A list of entries of one kind, and the form of the one that is picked. */
export function SectionForm({ section, ...editing }: Editing & { section: FormName }) {
  const entries = entriesOf(editing.document, section);
  const [picked, setPicked] = useState(0);
  const { fresh } = FORMS[section];
  const nameOf = (entry: Entry): string =>
    section === "packs"
      ? `${String(entry.element).toUpperCase()} ${String(entry.name)}`
      : String(entry.name ?? entry.text ?? entry.id);
  const path: Path = [section, Math.min(picked, entries.length - 1)];
  const isOrdered = "isOrdered" in FORMS[section];
  const move = (from: number, to: number): void => {
    const next = entries.filter((_, i) => i !== from);
    const moved = entries[from];
    if (!moved) return;
    next.splice(to, 0, moved);
    editing.change(changed(editing.document, [section], next));
    setPicked(to);
  };
  const entry = (i: number) => (
    <button
      type="button"
      aria-pressed={i === path[1]}
      className={`touch w-full px-2 text-left ${i === path[1] ? "bg-base-200 border-primary border-l-4" : ""}`}
      onClick={() => setPicked(i)}
    >
      {nameOf(entries[i] ?? {})}
      {troubled(i) && <b className="text-error"> !</b>}
    </button>
  );
  const troubled = (i: number): boolean =>
    editing.problems.some((p) => p.path.startsWith(`${section}[${i}]`));
  return (
    <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,8fr)] items-start gap-3">
      <ul className="plate max-h-[70vh] overflow-y-auto p-2">
        {isOrdered ? (
          <Ordered many={entries.length} onMove={move}>
            {entry}
          </Ordered>
        ) : (
          entries.map((_, i) => <li key={i}>{entry(i)}</li>)
        )}
        {section === "pictures" && <NewPicture change={editing.change} />}
        {fresh && (
          <li>
            <button
              type="button"
              className="btn touch mt-2 w-full"
              onClick={() => {
                editing.change(changed(editing.document, [section], [...entries, fresh]));
                setPicked(entries.length);
              }}
            >
              <Plus size={20} aria-hidden="true" /> Add
            </button>
          </li>
        )}
      </ul>
      {entries.length > 0 && (
        <section
          className="plate p-5"
          key={pathText(path)}
          aria-label={nameOf(entries[Number(path[1])] ?? {})}
        >
          <Fields section={section} path={path} {...editing} />
          {fresh && (
            <button
              type="button"
              className="btn touch mt-3"
              onClick={() => {
                editing.change(changed(editing.document, path, undefined));
                setPicked(0);
              }}
            >
              <Trash2 size={20} aria-hidden="true" /> Take it out
            </button>
          )}
        </section>
      )}
    </div>
  );
}

function Fields({ section, path, ...editing }: Editing & { section: FormName; path: Path }) {
  const text = (label: string, ...keys: (string | number)[]) => (
    <Text key={label} label={label} path={[...path, ...keys]} {...editing} />
  );
  if (Object.hasOwn(SECTIONS, section))
    return <SectionFields section={section as SectionName} path={path} {...editing} />;
  switch (section as Exclude<FormName, SectionName>) {
    case "chains": {
      const spec = at(editing.document, [...path, "spec"]);
      const specs: Path[] = Array.isArray(spec) ? spec.map((_, i) => ["spec", i]) : [["spec"]];
      return (
        <>
          {text("Name", "name")}
          {specs.map((one) => {
            const when = at(editing.document, [...path, ...one, "when"]);
            return (
              <div key={pathText(one)}>
                {when !== undefined && <p className="stamp quiet">when {JSON.stringify(when)}</p>}
                <div className="grid grid-cols-4 gap-3">
                  {text("Min", ...one, "min")}
                  {text("Max", ...one, "max")}
                  {text("Target", ...one, "target")}
                  {text("Last checked", ...one, "checked")}
                </div>
                <Pick
                  label="Whose figure it is"
                  path={[...path, ...one, "from"]}
                  options={ORIGINS.map((value) => ({ value, words: originWords(value) }))}
                  {...editing}
                />
              </div>
            );
          })}
          <div className="grid grid-cols-4 gap-3">
            {text("Soaking", "soaking", "amount")}
            {text("± soaking", "soaking", "within")}
            {text("Bedding-in", "bedding", "amount")}
            {text("± bedding-in", "bedding", "within")}
          </div>
          {text("How it is read", "read", "how")}
        </>
      );
    }
    case "packs":
      return (
        <>
          {text("Name", "name")}
          <Rows
            label="From the piston outwards"
            path={[...path, "stack"]}
            columns={["role", "part", "thickness", "count", "lies"]}
            {...editing}
          />
        </>
      );
    case "series":
      return (
        <>
          <div className="grid grid-cols-3 gap-3">
            {text("Id", "id")}
            {text("Name", "name")}
            {text("Tolerance", "tolerance")}
          </div>
          <Rows
            label="Sizes, thin to thick"
            path={[...path, "sizes"]}
            columns={["mark", "size", "part"]}
            {...editing}
          />
        </>
      );
    case "fasteners":
      return (
        <>
          <div className="grid grid-cols-2 gap-3">
            {text("Id", "id")}
            {text("Name", "name")}
          </div>
          <div className="grid grid-cols-3 gap-3">
            <Text label="Count" path={[...path, "count"]} number {...editing} />
            {text("Size", "size")}
            {text("Length", "length")}
            {text("Torque", "torque")}
            {text("Then turned by", "angle")}
            {text("Pattern", "pattern")}
            {text("Thread", "thread")}
            {text("Carries", "carries")}
          </div>
          {text("Note", "note")}
          <div className="grid grid-cols-3 gap-3">
            <Pick
              label="Whose torque it is"
              path={[...path, "from"]}
              options={ORIGINS.map((value) => ({ value, words: originWords(value) }))}
              {...editing}
            />
            {text("Last checked", "checked")}
            <Pick
              label="Picture of the face"
              path={[...path, "picture"]}
              options={picturesOf(editing.document)}
              {...editing}
            />
          </div>
          <Places path={path} {...editing} />
          <Rows label="Places" path={[...path, "places"]} columns={["at", "length"]} {...editing} />
          <HeldFor path={path} {...editing} />
        </>
      );
    case "pictures":
      return (
        <>
          {text("Name", "name")}
          <BookPicture
            picture={pictureIn(
              pictureListOf(editing.document),
              at(editing.document, [...path, "id"]) as string,
            )}
          />
          <button
            type="button"
            className="btn touch mt-3 flex"
            onClick={() => editing.change(changed(editing.document, path, undefined))}
          >
            <Trash2 size={20} aria-hidden="true" /> Take it out
          </button>
        </>
      );
  }
}
