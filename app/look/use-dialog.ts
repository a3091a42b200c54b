import { useRef, useState, type RefObject } from "react";
import { flushSync } from "react-dom";

/** A dialog whose contents are drawn when it is first opened: a page has several, and hardly any is ever looked at. */
export function useDialog(): {
  dialog: RefObject<HTMLDialogElement | null>;
  /** Whether its contents are to be drawn. */
  drawn: boolean;
  show: () => void;
  close: () => void;
} {
  const dialog = useRef<HTMLDialogElement>(null);
  const [drawn, setDrawn] = useState(false);
  return {
    dialog,
    drawn,
    show: () => {
      // At once: opening gives the focus to what stands in it.
      flushSync(() => setDrawn(true));
      dialog.current?.showModal();
    },
    close: () => dialog.current?.close(),
  };
}
