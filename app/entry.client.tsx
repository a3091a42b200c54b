import { StrictMode, startTransition, useEffect } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { whenAllHear } from "./look/soon";
import { bringBook } from "./revision/bring";

/** A page of a job was drawn with a book that is not in it: the script takes over once it has that book too. */
const { book: id, digest } = document.querySelector<HTMLElement>("link[data-book]")?.dataset ?? {};
if (id && digest) await bringBook({ id, digest }).catch(() => {});

/** Says when the page hears its keys: after all that is on it has taken its own. */
function Page() {
  useEffect(() => {
    whenAllHear(() => {
      document.documentElement.dataset.listens = "";
    });
  }, []);
  return <HydratedRouter />;
}

startTransition(() => {
  hydrateRoot(
    document,
    <StrictMode>
      <Page />
    </StrictMode>,
  );
});
