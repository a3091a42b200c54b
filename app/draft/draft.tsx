import { lazy, Suspense, useEffect, useMemo, useRef, useState } from "react";
import { data, Form, isRouteErrorResponse, redirect, useFetcher } from "react-router";
import { DifferenceList } from "~/book/revisions";
import { useInside } from "~/door/inside";
import { useScripted } from "~/look/use-scripted";
import { services, signedIn } from "~/server/context";
import { readForm, typedIn } from "~/server/form";
import { field, maybeWords, oneOf, whole } from "~core/shape";
import { mustBe } from "~/server/session";
import { difference, differenceText, withoutPictureData, type Problem } from "~core/book";
import { bookById } from "~store/books";
import { keepPictures, wrongPictures } from "~store/pictures";
import { saidNextTime } from "~store/proposals";
import { draftById, publishDraft, putAway, saveDraft } from "~store/drafts";
import type { Route } from "./+types/draft";
import { FORMS, SectionForm, type FormName } from "./forms";
import type { Answer } from "./answer";
import { FromJobs, useProposals } from "./from-jobs";
import { Publish, Trouble } from "./panels";
import { TheirBook } from "./their-book";
import { dropUnsaved, keepUnsaved, readUnsaved } from "./unsaved";
import { LEADS } from "~core/fact";
import { useCheck } from "./use-check";

// The editor is large and most drafts are changed in the forms.
const CodeEditor = lazy(async () => ({ default: (await import("./code-editor")).CodeEditor }));

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `Draft ${loaderData?.draft.unit} · Yard Key` },
];

export const loader = async ({ context, params }: Route.LoaderArgs) => {
  const { pool } = context.get(services);
  const draft = await draftById(pool, params.draft);
  if (!draft) throw new Response("This draft has been published or put away.", { status: 404 });
  const base = draft.basedOn ? (await bookById(pool, draft.basedOn)).document : null;
  // As text: a document is whatever somebody typed, which a page's data has no type for.
  const { document, ...rest } = draft;
  return {
    said: await saidNextTime(pool, draft.unit),
    draft: { ...rest, text: JSON.stringify(document) },
    base: base === null ? null : JSON.stringify(base),
  };
};

/** Typing does not ask the server again: what is typed is this page's until it is saved. */
export const shouldRevalidate = () => false;

const edited = {
  intent: field(oneOf("save", "publish", "away")),
  seen: field(whole(1, Number.MAX_SAFE_INTEGER)),
  // With the pictures of another shop’s book, where something of it was taken over.
  document: field(maybeWords(60_000_000)),
  note: field(maybeWords(300)),
};

export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const by = mustBe(context, "lead", "owner");
  const { pool } = context.get(services);
  const form = readForm(edited, await typedIn(request));
  const refuse = (problem: string, problems: Problem[] = [], status = 400) =>
    data<Answer>({ kind: "refused", problem, problems }, { status });
  if ("problems" in form) return refuse("This could not be read; nothing was changed.");
  const { intent, seen, document: text, note } = form.values;
  const draft = await draftById(pool, params.draft);
  if (!draft) return refuse("This draft has been published or put away by somebody else.", [], 409);
  if (intent === "away") {
    await putAway(pool, draft.id, by.name);
    return redirect("/books");
  }
  if (intent === "publish") {
    if (note.length < 3) return refuse("Say in a few words what this revision is for.");
    const published = await publishDraft(pool, {
      id: draft.id,
      seen,
      note,
      by: context.get(signedIn).staff.name,
    });
    if (published.ok) return redirect(`/books/${draft.unit}/revisions`);
    if (published.why === "problems")
      return refuse("The book still has problems; nothing was published.", published.problems);
    return refuse("Somebody saved this draft since you saw it. Load the page again and look at it.", [], 409);
  }
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch {
    return refuse("The document is not JSON; nothing was saved. Look for a missing comma or quote.");
  }
  const unit = (document as { unit?: { id?: unknown } } | null)?.unit?.id;
  if (unit !== draft.unit)
    return refuse(
      `The unit’s id is ${String(unit)}; this draft is of ${draft.unit}. A copy for another unit begins on its book’s page.`,
    );
  const { document: bare, pictures } = withoutPictureData(document);
  const astray = wrongPictures(pictures);
  if (astray.length > 0) return refuse("A picture of it is broken; nothing was saved.", astray);
  await keepPictures(pool, pictures);
  const saved = await saveDraft(pool, { id: draft.id, seen, document: bare, by: by.name });
  if (saved.ok) return data<Answer>({ kind: "saved", version: saved.version });
  if (!saved.newest) return refuse("This draft has been published or put away by somebody else.", [], 409);
  const { version, savedBy, document: theirs } = saved.newest;
  return data<Answer>(
    { kind: "conflict", version, by: savedBy, theirs: JSON.stringify(theirs) },
    { status: 409 },
  );
};

/** A server that is away takes nothing from what was typed. */
export const clientAction = async ({ serverAction }: Route.ClientActionArgs) => {
  try {
    return await serverAction();
  } catch (error) {
    if (error instanceof Response || isRouteErrorResponse(error)) throw error;
    const problem = "The shop’s server is away. What you typed stays here; save again in a moment.";
    // As a failure: after a success the pages around would be asked for anew, and the server is away.
    return data<Answer>({ kind: "refused", problem, problems: [] }, { status: 503 });
  }
};

export default function DraftPage({ loaderData, actionData }: Route.ComponentProps) {
  const scripted = useScripted();
  const { draft } = loaderData;
  return (
    <main className="mx-auto max-w-[1320px] p-3">
      {scripted ? <Editor key={draft.id} {...loaderData} /> : <Plain {...loaderData} answer={actionData} />}
    </main>
  );
}

type Loaded = Route.ComponentProps["loaderData"];
type Tab = FormName | "document" | "jobs" | "theirs" | "differences";

/** A draft in the editor: the document as it is typed, what is saved of it, what the server said, and what is wrong with it. */
function useDraft(draft: Loaded["draft"]) {
  const [begun] = useState(() => {
    const document = JSON.parse(draft.text) as unknown;
    const left = readUnsaved(draft.id);
    return left && left.text !== draft.text
      ? {
          document: JSON.parse(left.text) as unknown,
          kept: { document, version: left.version },
          restored: true,
        }
      : { document, kept: { document, version: draft.version }, restored: false };
  });
  const [document, setDocument] = useState<unknown>(begun.document);
  const [kept, setKept] = useState(begun.kept);
  const [round, setRound] = useState(0);
  const save = useFetcher<Answer>();
  const checked = useCheck(document);
  const answer = save.state === "idle" ? save.data : undefined;
  const [sent, setSent] = useState<unknown>(null);
  const [settled, setSettled] = useState<Answer | undefined>(undefined);
  if (answer && answer !== settled) {
    setSettled(answer);
    // What was sent is what is saved: typing went on meanwhile.
    if (answer.kind === "saved") setKept({ document: sent, version: answer.version });
  }
  const conflict = answer?.kind === "conflict" && kept.version < answer.version ? answer : null;
  const unsaved = document !== kept.document;
  useKeepUnsaved(draft.id, document, kept.version, unsaved, begun.restored);
  const send = (seen: number): void => {
    setSent(document);
    void save.submit({ intent: "save", seen, document: JSON.stringify(document) }, { method: "post" });
  };
  const takeTheirs = (theirs: unknown): void => {
    if (!conflict) return;
    setDocument(theirs);
    setKept({ document: theirs, version: conflict.version });
    setRound(round + 1);
  };
  return {
    document,
    setDocument,
    /** Counts up when the document is another one than was typed: forms begin anew. */
    round,
    version: kept.version,
    unsaved,
    restored: begun.restored && unsaved,
    checked,
    answer,
    conflict,
    takeTheirs,
    send,
    sending: save.state !== "idle",
  };
}

function Editor({ draft, base, said }: Loaded) {
  const { staff } = useInside();
  const may = LEADS.includes(staff.role);
  const {
    document,
    setDocument,
    round,
    version,
    unsaved,
    restored,
    checked,
    answer,
    conflict,
    takeTheirs,
    send,
    sending,
  } = useDraft(draft);
  const proposals = useProposals(said, document);
  const [tab, setTab] = useState<Tab>("chains");
  const [broken, setBroken] = useState(false);
  const problems = checked?.problems ?? [];
  const differences = useMemo(
    () => (base ? difference(JSON.parse(base) as unknown, document).map(differenceText) : null),
    [base, document],
  );
  const tabs: [Tab, string][] = [
    ...Object.entries(FORMS).map(([name, { words }]): [Tab, string] => [name as FormName, words]),
    ["document", "Whole document"],
    ["jobs", `From jobs${proposals.length > 0 ? ` (${proposals.length})` : ""}`],
    ["theirs", "Another shop’s"],
    ["differences", `Changes${differences ? ` (${differences.length})` : ""}`],
  ];
  return (
    <>
      <header className="mb-2 flex flex-wrap items-center gap-3">
        <h1 className="text-2xl font-bold">Draft of {draft.unit}</h1>
        <span className="quiet">
          save {version}
          {unsaved && <b> · not saved yet</b>}
        </span>
        <span className="grow" />
        <span role="status" className={problems.length > 0 ? "text-error font-semibold" : "font-semibold"}>
          {broken ? "not JSON at the moment" : checkedText(checked)}
        </span>
        <button
          type="button"
          className="btn btn-primary touch"
          disabled={!may || broken || sending || !unsaved}
          onClick={() => send(version)}
        >
          Save
        </button>
      </header>
      {restored && (
        <p role="status" className="border-accent mb-3 border-l-4 pl-3 text-lg">
          What was typed here and not saved is back.
        </p>
      )}
      {conflict && (
        <Conflict
          conflict={conflict}
          document={document}
          takeTheirs={takeTheirs}
          saveMine={() => send(conflict.version)}
        />
      )}
      {answer?.kind === "refused" && (
        <p role="alert" className="text-error mb-3 text-lg font-semibold">
          {answer.problem}
        </p>
      )}
      <Tabs tabs={tabs} tab={tab} broken={broken} onTab={setTab} />
      <div
        className={
          // The same before anything is wrong: what is tapped or typed into must not move away as something is found.
          tab === "differences" ? "" : "grid grid-cols-[minmax(0,3fr)_minmax(0,1fr)] items-start gap-3"
        }
      >
        {tab === "document" ? (
          <Suspense fallback={<p className="plate p-6">Opening the editor …</p>}>
            <CodeEditor
              key={round}
              document={document}
              problems={[...problems, ...(checked?.warnings ?? [])]}
              onChange={(typed) => {
                setBroken(typed === null);
                if (typed !== null) setDocument(typed);
              }}
            />
          </Suspense>
        ) : tab === "jobs" ? (
          <FromJobs unit={draft.unit} open={proposals} document={document} change={setDocument} />
        ) : tab === "theirs" ? (
          <TheirBook document={document} change={setDocument} />
        ) : tab === "differences" ? (
          <Publish
            begunBy={draft.begunBy}
            seen={version}
            may={may}
            ready={!unsaved && problems.length === 0}
            lines={differences}
          />
        ) : (
          <SectionForm
            key={`${tab} ${round}`}
            section={tab}
            document={document}
            problems={problems}
            change={setDocument}
            solved={checked?.solved}
          />
        )}
        {tab !== "differences" && checked && <Trouble problems={problems} warnings={checked.warnings} />}
      </div>
    </>
  );
}

/** What is typed and not saved is kept in the browser, and dropped once it is saved. */
function useKeepUnsaved(
  id: string,
  document: unknown,
  version: number,
  unsaved: boolean,
  restored: boolean,
): void {
  const wrote = useRef(restored);
  useEffect(() => {
    if (!unsaved) {
      // Another tab's unsaved work is not this one's to drop.
      if (wrote.current) dropUnsaved(id);
      wrote.current = false;
      return;
    }
    wrote.current = true;
    const timer = setTimeout(
      () => keepUnsaved(id, { version: version, text: JSON.stringify(document) }),
      300,
    );
    return () => clearTimeout(timer);
  }, [id, document, version, unsaved]);
}

/** The sections of the book, its whole, and what differs from the revision it was begun from. */
function Tabs({
  tabs,
  tab,
  broken,
  onTab,
}: {
  tabs: readonly [Tab, string][];
  tab: Tab;
  /** While the document is no JSON nothing else can be shown. */
  broken: boolean;
  onTab: (tab: Tab) => void;
}) {
  return (
    <nav aria-label="What to change" className="border-base-300 mb-3 flex flex-wrap border-b-2">
      {tabs.map(([name, words]) => (
        <button
          key={name}
          type="button"
          aria-current={tab === name ? "page" : undefined}
          className={`touch -mb-0.5 border-b-4 px-2.5 font-semibold ${tab === name ? "border-primary" : "border-transparent"}`}
          disabled={broken && name !== "document"}
          onClick={() => onTab(name)}
        >
          {words}
        </button>
      ))}
    </nav>
  );
}

const checkedText = (checked: { problems: readonly unknown[] } | null): string => {
  if (checked === null) return "checking …";
  const many = checked.problems.length;
  return many === 0 ? "✓ no problems" : `${many} problem${many > 1 ? "s" : ""}`;
};

/** Somebody else saved meanwhile: what differs, and whose stands. */
function Conflict({
  conflict,
  document,
  takeTheirs,
  saveMine,
}: {
  conflict: Extract<Answer, { kind: "conflict" }>;
  document: unknown;
  takeTheirs: (theirs: unknown) => void;
  saveMine: () => void;
}) {
  const theirs: unknown = JSON.parse(conflict.theirs);
  return (
    <section role="alert" className="plate border-warning mb-3 border-2 p-5">
      <h2 className="text-xl font-bold">
        {conflict.by} saved this draft while you worked. Nothing was overwritten.
      </h2>
      <p className="mb-2">What yours says differently from theirs:</p>
      <DifferenceList lines={difference(theirs, document).map(differenceText)} />
      <div className="mt-3 flex gap-2">
        <button type="button" className="btn touch" onClick={() => takeTheirs(theirs)}>
          Take theirs, drop mine
        </button>
        <button type="button" className="btn btn-secondary touch" onClick={saveMine}>
          Save mine over theirs
        </button>
      </div>
    </section>
  );
}

/** Before the script has loaded: the whole document as text. */
function Plain({ draft, answer }: Loaded & { answer?: Answer }) {
  const version = answer?.kind === "saved" ? answer.version : draft.version;
  return (
    <Form method="post" className="plate p-5">
      <h1 className="mb-2 text-2xl font-bold">Draft of {draft.unit}</h1>
      {answer?.kind === "refused" && (
        <p role="alert" className="text-error font-semibold">
          {answer.problem}
        </p>
      )}
      {answer?.kind === "conflict" && (
        <p role="alert" className="text-error font-semibold">
          {answer.by} saved this draft while you worked; nothing was overwritten. Load the page again to see
          theirs.
        </p>
      )}
      <input type="hidden" name="intent" value="save" />
      <input type="hidden" name="seen" value={version} />
      <label htmlFor="document" className="stamp">
        The whole book as JSON
      </label>
      <textarea
        id="document"
        name="document"
        rows={28}
        className="textarea w-full font-mono"
        defaultValue={JSON.stringify(JSON.parse(draft.text), null, 2)}
      />
      <button className="btn btn-primary touch mt-2">Save</button>
    </Form>
  );
}
