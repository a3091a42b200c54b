import { Plus, Trash2 } from "lucide-react";
import { isRecord } from "~core/shape";
import { TrainDrawing } from "~/look/train-drawing";
import { trainLines } from "~/look/train-lines";
import { at, changed, pathText, type Path } from "./edit";
import { Options, Pick, Rows, Text, type Editing } from "./fields";
import { membersOf, SECTIONS, type FieldOf, type Option, type Section, type SectionName } from "./sections";

/** The fields of one entry, as its section has them; what it holds for, where that can be said. */
export function SectionFields({ section, path, ...editing }: Editing & { section: SectionName; path: Path }) {
  const { fields, rows, isHeld = true }: Section = SECTIONS[section];
  const kind = at(editing.document, [...path, "kind"]);
  const isAsked = (one: FieldOf): boolean => !one.of || (typeof kind === "string" && one.of.includes(kind));
  return (
    <>
      {TRAIN.has(section) && <TrainDrawing lines={trainLines(editing.document, path)} />}
      <div className="grid grid-cols-2 gap-x-3">
        {fields.filter(isAsked).map((one) => (
          <div key={one.label} className={one.wide ? "col-span-2" : ""}>
            <OneField field={one} path={path} {...editing} />
          </div>
        ))}
      </div>
      {rows && <Rows label={rows.label} path={[...path, ...rows.keys]} columns={rows.columns} {...editing} />}
      {section === "traits" && <Values path={[...path, "values"]} {...editing} />}
      {section === "ranges" && <Solved path={path} {...editing} />}
      {section === "gearSets" && <OfTrain {...editing} />}
      {isHeld && <HeldFor path={path} {...editing} />}
    </>
  );
}

/** The members there are, and which of them are driven, drive and stand still. */
function OfTrain(editing: Editing) {
  const members = membersOf(editing.document);
  const part = (label: string, key: string) => (
    <Pick label={label} path={["train", key]} options={members} {...editing} />
  );
  return (
    <section aria-label="Members" className="border-base-300 mt-3 border-t pt-3">
      <Text label="Members of the train, with / between" path={["members"]} words {...editing} />
      <div className="grid grid-cols-3 gap-3">
        {part("Input", "input")}
        {part("Output", "output")}
        {part("Never turns", "held")}
      </div>
    </section>
  );
}

/** What the train is drawn beside, as it is typed. */
const TRAIN: ReadonlySet<SectionName> = new Set(["ranges", "gearSets", "elements"]);

function OneField({
  field: { label, keys, as },
  path,
  ...editing
}: Editing & { field: FieldOf; path: Path }) {
  const place = [...path, ...keys];
  if (as === "text") return <Text label={label} path={place} {...editing} />;
  if (as === "count") return <Text label={label} path={place} number {...editing} />;
  if (as === "decimal") return <Text label={label} path={place} number="decimal" {...editing} />;
  if (as === "words") return <Text label={label} path={place} words {...editing} />;
  if (as === "flag") return <Tick label={label} path={place} {...editing} />;
  if ("one" in as) return <Pick label={label} path={place} options={as.one(editing.document)} {...editing} />;
  if ("two" in as) return <Two label={label} path={place} options={as.two(editing.document)} {...editing} />;
  if ("toothed" in as)
    return <Two label={label} path={place} options={as.toothed(editing.document)} toothed {...editing} />;
  return <Many label={label} path={place} options={as.many(editing.document)} {...editing} />;
}

function Tick({ label, path, document, change }: Editing & { label: string; path: Path }) {
  return (
    <label className="touch mb-3 flex items-center gap-3 pt-5">
      <input
        type="checkbox"
        className="checkbox"
        checked={at(document, path) === true}
        onChange={({ currentTarget: { checked } }) =>
          change(changed(document, path, checked ? true : undefined))
        }
      />
      {label}
    </label>
  );
}

/** Two values that belong together, kept as a pair: two of what there is, or one with its teeth. */
function Two({
  label,
  path,
  options,
  toothed = false,
  document,
  problems,
  change,
}: Editing & { label: string; path: Path; options: readonly Option[]; toothed?: boolean }) {
  const known = at(document, path);
  const pair: unknown[] = Array.isArray(known) ? (known as unknown[]) : [];
  const set = (place: 0 | 1, value: unknown): void => {
    const next: unknown[] = [pair[0] ?? "", pair[1] ?? (toothed ? 0 : "")];
    next[place] = value;
    change(changed(document, path, next.every((one) => one === "" || one === 0) ? undefined : next));
  };
  const wrong = problems.find((one) => one.path.startsWith(pathText(path)));
  const picked = (place: 0 | 1) => (
    <select
      className="select touch w-full"
      aria-label={`${label}, ${place === 0 ? "the first" : "the second"}`}
      value={typeof pair[place] === "string" ? pair[place] : ""}
      onChange={({ currentTarget: { value } }) => set(place, value)}
    >
      <Options options={options} />
    </select>
  );
  return (
    <fieldset className="mb-3" aria-label={label}>
      <legend className="stamp mb-1">{label}</legend>
      <div className={`grid gap-2 ${toothed ? "grid-cols-[1fr_6rem]" : "grid-cols-2"}`}>
        {picked(0)}
        {toothed ? (
          <input
            className="input touch w-full"
            inputMode="numeric"
            aria-label={`${label}: teeth`}
            value={typeof pair[1] === "number" && pair[1] > 0 ? String(pair[1]) : ""}
            onChange={({ currentTarget: { value } }) =>
              set(1, /^\d{1,3}$/.test(value.trim()) ? Number(value) : 0)
            }
          />
        ) : (
          picked(1)
        )}
      </div>
      {wrong && <p className="text-error text-sm font-semibold">{wrong.message}</p>}
    </fieldset>
  );
}

const idsAt = (document: unknown, path: Path): string[] => {
  const known = at(document, path);
  if (typeof known === "string") return [known];
  return Array.isArray(known)
    ? (known as unknown[]).filter((one): one is string => typeof one === "string")
    : [];
};

/** Several of what there is: those picked stand first; without any the key is left out. */
function Many({
  label,
  path,
  options,
  document,
  problems,
  change,
  needed = false,
}: Editing & { label: string; path: Path; options: readonly Option[]; needed?: boolean }) {
  const picked = idsAt(document, path);
  const set = (ids: readonly string[]): void =>
    change(changed(document, path, ids.length > 0 || needed ? ids : undefined));
  if (options.length === 0 && picked.length === 0) return null;
  const wrong = problems.find((one) => one.path.startsWith(path.join(".")));
  return (
    <fieldset className="mb-3" aria-label={label}>
      <legend className="stamp mb-1">{label}</legend>
      <div className="flex flex-wrap items-center gap-2">
        {picked.map((id) => (
          <button
            key={id}
            type="button"
            className="btn btn-secondary touch"
            onClick={() => set(picked.filter((one) => one !== id))}
          >
            {options.find(({ value }) => value === id)?.words ?? id}
            <Trash2 size={16} aria-label="take out" />
          </button>
        ))}
        <select
          className="select touch w-56"
          aria-label={`Add to ${label}`}
          value=""
          onChange={({ currentTarget: { value } }) => value !== "" && set([...picked, value])}
        >
          <option value="">add …</option>
          {options
            .filter(({ value }) => !picked.includes(value))
            .map(({ value, words }) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
        </select>
      </div>
      {wrong && <p className="text-error text-sm font-semibold">{wrong.message}</p>}
    </fieldset>
  );
}

/** For which versions and which depths of work an entry holds: picked, and for all where nothing is. */
export function HeldFor({ path, ...editing }: Editing & { path: Path }) {
  const { document, change } = editing;
  const traits = at(document, ["traits"]);
  const depths = idsAt(document, ["depths"]);
  const versions = (Array.isArray(traits) ? (traits as unknown[]) : []).filter(isRecord);
  if (versions.length === 0 && depths.length < 2) return null;
  const when = at(document, [...path, "when"]);
  const set = (trait: string, values: readonly string[]): void => {
    const next = { ...(isRecord(when) ? when : {}) };
    if (values.length === 0) delete next[trait];
    else next[trait] = values.length === 1 ? values[0] : values;
    change(changed(document, [...path, "when"], Object.keys(next).length > 0 ? next : undefined));
  };
  return (
    <section aria-label="Only for" className="border-base-300 mt-3 border-t pt-3">
      <h3 className="stamp mb-1">Only for: without a tick for all</h3>
      {versions.map(({ id, name, values }) => {
        const trait = String(id);
        const picked = idsAt(document, [...path, "when", trait]);
        return (
          <Ticks
            key={trait}
            label={typeof name === "string" ? name : trait}
            options={Object.entries(isRecord(values) ? values : {}).map(([value, told]) => ({
              value,
              words: isRecord(told) && typeof told.name === "string" ? told.name : value,
            }))}
            picked={picked}
            onPick={(next) => set(trait, next)}
          />
        );
      })}
      {depths.length > 1 && (
        <Ticks
          label="Depth of work"
          options={depths.map((value) => ({ value, words: value }))}
          picked={idsAt(document, [...path, "depth"])}
          onPick={(next) => change(changed(document, [...path, "depth"], next.length > 0 ? next : undefined))}
        />
      )}
    </section>
  );
}

function Ticks({
  label,
  options,
  picked,
  onPick,
}: {
  label: string;
  options: readonly Option[];
  picked: readonly string[];
  onPick: (picked: string[]) => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-x-4" role="group" aria-label={label}>
      <span className="quiet w-36">{label}</span>
      {options.map(({ value, words }) => (
        <label key={value} className="touch flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={picked.includes(value)}
            onChange={({ currentTarget: { checked } }) =>
              onPick(checked ? [...picked, value] : picked.filter((one) => one !== value))
            }
          />
          {words}
        </label>
      ))}
    </div>
  );
}

/** What versions there are, and how each is told. */
function Values({ path, ...editing }: Editing & { path: Path }) {
  const { document, change } = editing;
  const known = at(document, path);
  const values = Object.keys(isRecord(known) ? known : {});
  const fresh = (): string => {
    let n = values.length + 1;
    while (values.includes(`version-${n}`)) n++;
    return `version-${n}`;
  };
  return (
    <div>
      {values.map((value) => (
        <div key={value} className="grid grid-cols-[8rem_1fr_2fr_auto] items-end gap-3">
          <span className="mb-5 font-mono">{value}</span>
          <Text label="Name" path={[...path, value, "name"]} {...editing} />
          <Text label="How it is told" path={[...path, value, "tell"]} {...editing} />
          <button
            type="button"
            className="btn btn-ghost touch mb-3"
            aria-label={`Take out ${value}`}
            onClick={() => change(changed(document, [...path, value], undefined))}
          >
            <Trash2 size={20} aria-hidden="true" />
          </button>
        </div>
      ))}
      <button
        type="button"
        className="btn touch"
        onClick={() => change(changed(document, [...path, fresh()], { name: "", tell: "" }))}
      >
        <Plus size={20} aria-hidden="true" /> Version
      </button>
    </div>
  );
}

/** What the tooth counts make of a range as it is typed, beside what is listed. */
function Solved({ path, document, solved = {} }: Editing & { path: Path }) {
  const id = at(document, [...path, "id"]);
  const said = typeof id === "string" && Object.hasOwn(solved, id) ? solved[id] : undefined;
  return (
    <p className="border-accent mt-1 border-l-4 pl-3 text-lg" role="status" data-solved={said ?? ""}>
      {said ?? "Nothing can be solved of it yet."}
    </p>
  );
}
