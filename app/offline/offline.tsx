import { useEffect, useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Route } from "./+types/offline";
import { within } from "~/door/within";
import { keptKeys } from "./kept";

export const meta: Route.MetaFunction = () => [{ title: "Yard Key" }];

/**
 * The page that every page begins as when the server is away: it goes on to where it was meant to, and the pages there are made from what this
 * browser has kept.
 */
export default function Offline() {
  const navigate = useNavigate();
  const [jobs, setJobs] = useState<number[] | null>(null);
  useEffect(() => {
    const asked = new URLSearchParams(window.location.search).get("to");
    const to = within(asked);
    if (asked) void navigate(to.startsWith("/offline") ? "/" : to, { replace: true });
    else
      void keptKeys("job/").then((keys) =>
        setJobs(
          keys
            .flatMap((key) => /^job\/(\d+)$/.exec(key)?.[1] ?? [])
            .map(Number)
            .sort((a, b) => b - a),
        ),
      );
  }, [navigate]);
  return (
    <main className="mx-auto mt-16 max-w-xl p-6" role="status">
      <h1 className="mb-2 text-3xl font-bold">The shop’s server is away</h1>
      <p className="mb-4 text-lg">Opening what this machine has kept …</p>
      {jobs?.map((number) => (
        <Link key={number} to={`/jobs/${number}`} className="btn touch mr-2 mb-2">
          Job {number}
        </Link>
      ))}
      {jobs?.length === 0 && <p className="text-lg">No job is kept on this machine yet.</p>}
    </main>
  );
}
