import { Check } from "lucide-react";
import { memo, type ReactNode } from "react";
import { Link } from "react-router";
import type { JobStage, StageId } from "~core/stage";
import { entryOf, STAGE_WORDS } from "./stages";

/** The stages of the work, down the side: each with how it stands, the one that is next with a brass notch. */
export function Rail({
  number,
  stages,
  here,
  next,
  firstPack,
  children,
}: {
  number: number;
  stages: readonly JobStage[];
  here: StageId | null;
  next: StageId | null;
  /** The pack that choosing begins with. */
  firstPack: string | undefined;
  /** What stands below them. */
  children?: ReactNode;
}) {
  return (
    <nav
      aria-label="Stages of the job"
      className="bg-neutral text-neutral-content no-print sticky top-0 h-screen w-[6.6rem] shrink-0"
    >
      {stages.map(({ id, state, open }) => (
        <StageLink
          key={id}
          id={id}
          state={state}
          open={open}
          here={id === here}
          next={id === next}
          to={`/jobs/${number}/${entryOf(id, firstPack)}`}
        />
      ))}
      {children}
    </nav>
  );
}

/** One stage, drawn again only when it stands otherwise. */
const StageLink = memo(function StageLink({
  id,
  state,
  open,
  here,
  next,
  to,
}: JobStage & { here: boolean; next: boolean; to: string }) {
  const className = `flex min-h-[58px] flex-col justify-center border-l-4 px-3 leading-tight ${
    here ? "bg-base-200 text-base-content" : ""
  } ${next ? "border-accent" : "border-transparent"}`;
  const words = (
    <>
      <b className="whitespace-nowrap">{STAGE_WORDS[id]}</b>
      <span className="flex items-center gap-1 text-sm opacity-80">
        {state === "done" && <Check size={15} strokeWidth={3} aria-hidden="true" />}
        {stateWords(state, open)}
      </span>
    </>
  );
  return state === "out of scope" ? (
    <span className={className} data-stage={id} data-state={state}>
      {words}
    </span>
  ) : (
    <Link
      to={to}
      className={className}
      aria-current={here ? "true" : undefined}
      data-stage={id}
      data-state={state}
    >
      {words}
    </Link>
  );
});

function stateWords(state: JobStage["state"], open: number): string {
  if (state === "out of scope") return "not in scope";
  return state === "done" || state === "waits" || state === "by hand" ? state : `${open} open`;
}
