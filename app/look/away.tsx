import { useEffect } from "react";

const RETRY = 1_500;

/** The server or its database does not answer: say so, keep asking, come back by itself. */
export function Away() {
  useEffect(() => {
    const timer = setInterval(() => {
      fetch("/healthz").then(
        (answer) => answer.ok && window.location.reload(),
        () => {},
      );
    }, RETRY);
    return () => clearInterval(timer);
  }, []);
  return (
    <main className="mx-auto mt-24 max-w-xl p-6" role="status">
      <h1 className="mb-2 text-3xl font-bold">The shop’s server is away</h1>
      <p className="mb-6 text-lg">
        Whatever was stored is safe, and readings still waiting are kept on this machine. This page comes back
        by itself as soon as the server answers.
      </p>
      <button type="button" className="btn btn-primary touch" onClick={() => window.location.reload()}>
        Try now
      </button>
    </main>
  );
}
