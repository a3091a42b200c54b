import { HelpCircle, LogOut, SunMoon } from "lucide-react";
import type { ReactNode } from "react";
import { Form, Link, NavLink } from "react-router";
import { leave } from "~/door/leave";
import { keepLook } from "~/look/look-cookie";
import { useDialog } from "~/look/use-dialog";
import { useKeys } from "~/look/use-keys";
import { ScanButton } from "~/scan/scan-button";
import type { Staff } from "~store/staff";
import { KeySheet } from "./key-sheet";
import { WaitingSign } from "./waiting-sign";

/** How a tool on the bar looks: on dark, without a box of its own. */
export const TOOL =
  "touch no-print inline-flex shrink-0 cursor-pointer items-center justify-center gap-2 rounded px-2 font-semibold whitespace-nowrap hover:bg-white/10 [&>svg]:shrink-0";

/**
 * The one bar over every page: the shop's places, what the page is about, its tools, and who is signed in.
 *
 * @param job what the page is about; the shop's name where it is about the shop.
 */
export function Bar({
  staff,
  footKey,
  job,
  tools,
}: {
  staff: Pick<Staff, "name" | "role">;
  footKey: string;
  job?: ReactNode;
  tools?: ReactNode;
}) {
  const keys = useDialog();
  useKeys({ "?": keys.show });
  return (
    <header className="bg-neutral text-neutral-content no-print">
      <div className={`flex items-center gap-1 px-3 py-1 ${job ? "" : "mx-auto max-w-[1320px]"}`}>
        <Link to="/" className="touch flex items-center gap-2 pr-2 text-xl font-bold" aria-label="Yard Key">
          <img src="/favicon.svg" alt="" width="28" height="28" /> {!job && "Yard Key"}
        </Link>
        {job}
        <span className="grow" />
        {tools}
        <nav className="flex" aria-label="Places">
          <Place to="/" words="Jobs" />
          <Place to="/books" words="Books" rarely={job !== undefined} />
          <Place to="/shelf" words="Shelf" />
          <Place to="/orders" words="Orders" rarely={job !== undefined} />
          <Place to="/house" words="House" rarely={job !== undefined} />
        </nav>
        <WaitingSign />
        <ScanButton />
        <ThemeButton />
        <button type="button" className="touch grid place-items-center" aria-label="Keys" onClick={keys.show}>
          <HelpCircle size={22} />
        </button>
        <Link to="/account" className="px-1 text-right leading-tight" title="Your account">
          <span className="block font-semibold whitespace-nowrap">{staff.name}</span>
          <span className="block text-sm opacity-80">{staff.role}</span>
        </Link>
        <Form
          method="post"
          action="/sign-out"
          onSubmit={(event) => {
            event.preventDefault();
            void leave();
          }}
        >
          <button className="touch grid place-items-center" aria-label="Sign out">
            <LogOut size={22} />
          </button>
        </Form>
      </div>
      <KeySheet sheet={keys} footKey={footKey} />
    </header>
  );
}

/** @param rarely gives way where the bar is short. */
const Place = ({ to, words, rarely = false }: { to: string; words: string; rarely?: boolean }) => (
  <NavLink
    to={to}
    end={to === "/"}
    className={({ isActive }) =>
      `touch flex items-center border-b-3 px-2 ${rarely ? "max-[1500px]:hidden" : ""} ${isActive ? "border-accent" : "border-transparent"}`
    }
  >
    {words}
  </NavLink>
);

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
