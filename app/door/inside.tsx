import { KEPT } from "~/offline/keys";
import { HelpCircle, LogOut, SunMoon } from "lucide-react";
import { useEffect, useRef } from "react";
import { Form, isRouteErrorResponse, Link, NavLink, Outlet, useRouteLoaderData } from "react-router";
import { Away } from "~/look/away";
import { ScanButton } from "~/scan/scan-button";
import { keepLook } from "~/look/look-cookie";
import { whenItMatters } from "~/look/revalidate";
import { useKeepJobs } from "~/offline/keep-jobs";
import { dropAll, orKept } from "~/offline/kept";
import { useKept } from "~/offline/use-kept";
import { outbox } from "~/outbox/outbox";
import { useOutbox } from "~/outbox/use-outbox";
import { ground, visitor } from "~/server/context";
import { door } from "~/server/session";
import { voucherFor } from "~/server/voucher";
import { readHouse } from "~store/house";
import type { Route } from "./+types/inside";

export const middleware: Route.MiddlewareFunction[] = [door];

export const loader = async ({ context }: Route.LoaderArgs) => {
  const { pool, gaugeUrl, cookieKey } = context.get(ground);
  const { staff } = context.get(visitor);
  return {
    staff,
    house: await readHouse(pool),
    gauge: gaugeUrl !== "",
    voucher: voucherFor(cookieKey, staff.id),
  };
};

export const clientLoader = ({ serverLoader }: Route.ClientLoaderArgs) => orKept(KEPT.inside, serverLoader);

export const shouldRevalidate = whenItMatters;

type Inside = Awaited<ReturnType<typeof loader>>;

/** Who is signed in and what the house has chosen, for every page behind the door. */
export function useInside(): Inside {
  const data = useRouteLoaderData<Inside>("door/inside");
  if (!data) throw new Error("used outside the door");
  return data;
}

export default function InsidePage({ loaderData }: Route.ComponentProps) {
  const { staff, house } = loaderData;
  useKept(KEPT.inside, loaderData);
  useKeepJobs();
  const keys = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const inField =
        event.target instanceof HTMLElement &&
        event.target.closest("input:not([type=radio]), textarea, select");
      if (event.key === "?" && !inField) keys.current?.showModal();
    };
    document.addEventListener("keydown", onKey);
    return () => document.removeEventListener("keydown", onKey);
  }, []);
  return (
    <>
      <header className="bg-neutral text-neutral-content no-print">
        <div className="mx-auto flex max-w-[1320px] items-center gap-1 px-4 py-1">
          <Link to="/" className="touch flex items-center gap-2 pr-4 text-xl font-bold">
            <img src="/favicon.svg" alt="" width="28" height="28" /> Yard Key
          </Link>
          <nav className="flex" aria-label="Places">
            <Place to="/" words="Jobs" />
            <Place to="/books" words="Books" />
            <Place to="/shelf" words="Shelf" />
            <Place to="/house" words="House" />
          </nav>
          <span className="grow" />
          <WaitingSign />
          <ScanButton />
          <ThemeButton />
          <button
            type="button"
            className="touch grid place-items-center"
            aria-label="Keys"
            onClick={() => keys.current?.showModal()}
          >
            <HelpCircle size={22} />
          </button>
          <span className="px-2 text-right leading-tight">
            <span className="block font-semibold">{staff.name}</span>
            <span className="block text-sm opacity-80">{staff.role}</span>
          </span>
          <Form method="post" action="/sign-out" onSubmit={() => void dropAll()}>
            <button className="touch grid place-items-center" aria-label="Sign out">
              <LogOut size={22} />
            </button>
          </Form>
        </div>
      </header>
      <Outlet />
      <KeySheet ref={keys} footKey={house.footKey} />
    </>
  );
}

const Place = ({ to, words }: { to: string; words: string }) => (
  <NavLink
    to={to}
    end={to === "/"}
    className={({ isActive }) =>
      `touch flex items-center border-b-3 px-3 ${isActive ? "border-accent" : "border-transparent"}`
    }
  >
    {words}
  </NavLink>
);

/** What has been said here and not yet reached the server; quiet when nothing waits. */
function WaitingSign() {
  const { waiting, away, signedOut } = useOutbox();
  if (waiting.length === 0) return null;
  const refused = waiting.filter((entry) => entry.refused !== undefined);
  return (
    <details className="relative" data-waiting={waiting.length}>
      <summary className="touch flex cursor-pointer items-center gap-2 rounded px-3 font-semibold">
        <span className="border-accent inline-block size-3 rotate-45 border-3" aria-hidden="true" />
        <span role="status">
          {refused.length > 0
            ? `${refused.length} not taken`
            : `${waiting.length} waiting${away ? ", server away" : ""}${signedOut ? ": sign in again" : ""}`}
        </span>
      </summary>
      <div className="plate text-base-content absolute right-0 z-10 w-96 p-4">
        <p className="mb-2">
          {waiting.some(({ unkept }) => unkept) ? (
            <b className="text-error">
              This browser keeps nothing: leave this page open until the server has it.
            </b>
          ) : (
            "Kept on this machine until the server has it."
          )}{" "}
          {signedOut && (
            <a href="/sign-in" className="link">
              Sign in again
            </a>
          )}
        </p>
        {refused.map((entry) => (
          <div key={entry.fact.id} className="mb-2 flex items-center gap-3">
            <span className="grow">
              Job {entry.job}, {entry.fact.body.kind}: <b>{entry.refused}</b>
            </span>
            <button type="button" className="btn touch" onClick={() => void outbox.setAside(entry)}>
              Set aside
            </button>
          </div>
        ))}
      </div>
    </details>
  );
}

function ThemeButton() {
  const change = (): void => {
    const chosen = document.documentElement.dataset.theme;
    const dark = chosen ? chosen === "lamp" : window.matchMedia("(prefers-color-scheme: dark)").matches;
    keepLook("theme", dark ? "chalk" : "lamp");
    document.documentElement.dataset.theme = dark ? "chalk" : "lamp";
  };
  return (
    <button
      type="button"
      className="touch grid place-items-center"
      onClick={change}
      aria-label="Light or dark look"
    >
      <SunMoon size={22} />
    </button>
  );
}

function KeySheet({ ref, footKey }: { ref: React.RefObject<HTMLDialogElement | null>; footKey: string }) {
  const keys: [string, string][] = [
    ["Enter", "store the reading typed; a gauge that types does this by itself"],
    ["Space", `open the air, then take the reading (also ${footKey}, the foot switch)`],
    ["Esc", "leave the field, so that the keys below work"],
    ["t f n g", "read by typing, feeler, numbers, gauge"],
    ["1 2 3 4", "as found, trial, ring, as built"],
    ["[ ]", "pack before, pack after"],
    ["u", "show millimetres or inches"],
    ["x", "axis of the job"],
    ["/", "find a figure in the book, from anywhere in a job or a book"],
    ["b", "build sheet"],
    ["d f", "tear down: step done, every bolt of it out"],
    ["a o", "inspect: all of them in good order, this one in good order and on"],
    ["j k", "inspect: the part below, the part above"],
    ["m", "bench: pick up the part in focus, arrows carry it, again lays it down"],
    ["?", "this sheet"],
  ];
  return (
    <dialog ref={ref} className="plate text-base-content m-auto p-6" aria-label="Keys">
      <h2 className="mb-3 text-xl font-bold">Keys</h2>
      <table>
        <tbody>
          {keys.map(([key, what]) => (
            <tr key={key}>
              <th scope="row" className="py-1 pr-5 text-left">
                {key.split(" ").map((one) => (
                  <kbd key={one} className="key mr-1 text-base">
                    {one}
                  </kbd>
                ))}
              </th>
              <td>{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <form method="dialog" className="mt-4">
        <button className="btn btn-primary touch">Close</button>
      </form>
    </dialog>
  );
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  if (isRouteErrorResponse(error) && error.status < 500) throw error;
  return <Away />;
}
