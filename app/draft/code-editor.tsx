import { json, jsonParseLinter } from "@codemirror/lang-json";
import { syntaxHighlighting, syntaxTree } from "@codemirror/language";
import { linter, lintGutter, setDiagnostics, type Diagnostic } from "@codemirror/lint";
import { EditorState } from "@codemirror/state";
import { classHighlighter } from "@lezer/highlight";
import { basicSetup, EditorView } from "codemirror";
import { useEffect, useRef } from "react";
import type { Problem } from "~core/book";
import { pathOf, type Path } from "./edit";

/** The whole document as text, with the check's problems at their places. */
export function CodeEditor({
  document,
  problems,
  onChange,
}: {
  document: unknown;
  problems: readonly Problem[];
  /** The document as typed; null while it is not JSON. */
  onChange: (document: unknown) => void;
}) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const first = useRef(document);
  const changedTo = useRef(onChange);
  useEffect(() => {
    changedTo.current = onChange;
  }, [onChange]);
  useEffect(() => {
    if (!host.current) return;
    const editor = new EditorView({
      parent: host.current,
      state: EditorState.create({
        doc: JSON.stringify(first.current, null, 2),
        extensions: [
          basicSetup,
          json(),
          lintGutter(),
          linter(jsonParseLinter(), { delay: 300 }),
          // The page’s own: a style sheet made later must carry what the page came with.
          EditorView.cspNonce.of(
            window.document.querySelector<HTMLScriptElement>("script[nonce]")?.nonce ?? "",
          ),
          syntaxHighlighting(classHighlighter),
          EditorView.contentAttributes.of({ "aria-label": "The whole book as JSON" }),
          EditorView.updateListener.of((update) => {
            if (!update.docChanged) return;
            try {
              changedTo.current(JSON.parse(update.state.doc.toString()));
            } catch {
              changedTo.current(null);
            }
          }),
        ],
      }),
    });
    view.current = editor;
    return () => editor.destroy();
  }, []);
  useEffect(() => {
    const editor = view.current;
    if (!editor) return;
    const found = problems.slice(0, 100).map(({ path, message, remedy, warning }): Diagnostic => {
      const { from, to } = placeOf(editor.state, pathOf(path));
      return { from, to, severity: warning ? "warning" : "error", message: `${message}; ${remedy}` };
    });
    editor.dispatch(setDiagnostics(editor.state, found));
  }, [problems]);
  return <div ref={host} className="code-editor plate overflow-hidden" />;
}

/** Where a path stands in the text; where it ends early, the nearest thing that holds it. */
function placeOf(state: EditorState, path: Path): { from: number; to: number } {
  let node = syntaxTree(state).topNode.firstChild;
  for (const step of path) {
    if (!node) break;
    let next = null;
    if (typeof step === "number") {
      let item = node.firstChild;
      let i = -1;
      while (item && i < step) {
        if (/^(Object|Array|String|Number|True|False|Null)$/.test(item.name)) i++;
        if (i < step) item = item.nextSibling;
      }
      next = item;
    } else {
      for (let property = node.firstChild; property; property = property.nextSibling) {
        const name = property.getChild("PropertyName");
        if (name && state.sliceDoc(name.from, name.to) === JSON.stringify(step)) next = property.lastChild;
      }
    }
    if (!next) break;
    node = next;
  }
  const [from, end] = [node?.from ?? 0, node?.to ?? 0];
  return { from, to: Math.min(end, state.doc.lineAt(from).to) };
}
