import { createContext, useContext } from "react";
import { LeadSigns } from "~/say/lead-signs";
import type { FormAnswer } from "~/view/form-answer";

interface Signatures {
  leads: { id: string; name: string }[];
  id: string;
  actionData: FormAnswer | undefined;
}

const Who = createContext<Signatures>({ leads: [], id: "", actionData: undefined });
/** Who may sign for what a step asks, for the whole panel. */
export const Signing = Who.Provider;

/** A lead puts their name to what no reason stands for. */
export function SignsFor({
  of,
  summary,
}: {
  /** What is signed for, as the rule for closing calls it; null for what nobody signs for. */
  of: string | null;
  summary: string;
}) {
  const { leads, id, actionData } = useContext(Who);
  if (of === null || leads.length === 0) return null;
  return (
    <div className="mt-3">
      <LeadSigns
        intent="sign"
        summary={summary}
        leads={leads}
        id={id}
        actionData={actionData}
        fixed={{ of }}
      />
    </div>
  );
}
