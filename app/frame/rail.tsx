import { Check } from "lucide-react";
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
}: {
  number: number;
  stages: readonly JobStage[];
  here: StageId | null;
  next: StageId | null;
  /** The pack that choosing begins with. */
  firstPack: string | undefined;
}) {
  return (
    <nav
      aria-label="Stages of the job"
      className="bg-neutral text-neutral-content no-print sticky top-0 h-screen w-[6.6rem] shrink-0"
    >
      {stages.map(({ id, state, open }) => {
        const gone = state === "out of scope";
        const className = `flex min-h-[58px] flex-col justify-center border-l-4 px-3 leading-tight ${
          id === here ? "bg-base-200 text-base-content" : ""
        } ${id === next ? "border-accent" : "border-transparent"}`;
        const words = (
          <>
            <b className="whitespace-nowrap">{STAGE_WORDS[id]}</b>
            <span className="flex items-center gap-1 text-sm opacity-80">
              {state === "done" ? (
                <>
                  <Check size={15} strokeWidth={3} aria-hidden="true" /> done
                </>
              ) : state === "waits" ? (
                "waits"
              ) : gone ? (
                "not in scope"
              ) : (
                `${open} open`
              )}
            </span>
          </>
        );
        return gone ? (
          <span key={id} className={className} data-stage={id} data-state={state}>
            {words}
          </span>
        ) : (
          <Link
            key={id}
            to={`/jobs/${number}/${entryOf(id, firstPack)}`}
            className={className}
            aria-current={id === here ? "true" : undefined}
            data-stage={id}
            data-state={state}
          >
            {words}
          </Link>
        );
      })}
    </nav>
  );
}
