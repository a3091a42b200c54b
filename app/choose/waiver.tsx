import type { FactOf } from "~core/fact";
import type { FormAnswer } from "~/view/form-answer";
import { LeadSigns } from "~/say/lead-signs";

/** A lead's signed reason why a pack leaves without an as-built verdict. */
export function Waiver({
  signed,
  ...form
}: {
  leads: { id: string; name: string }[];
  id: string;
  actionData: FormAnswer | undefined;
  signed: FactOf<"waiver"> | null;
}) {
  if (!signed)
    return <LeadSigns intent="waive" summary="It must leave without being proven: a lead signs" {...form} />;
  return (
    <p className="plate p-4">
      <b>{signed.body.signedBy}</b> signed: “{signed.body.reason}”
    </p>
  );
}
