import { CheckButtons } from "~/build/check-buttons";
import { useGo } from "~/build/large";
import { useSay } from "~/say/use-say";
import { useJobView } from "~/view/view";
import type { ProvingItem } from "~core/prove";
import { CodesPanel } from "./codes-panel";
import { ProvePanel } from "./panel";

/** Something seen to in the vehicle: so, not so, or not to be seen. */
export function ProofPanel({ item }: { item: ProvingItem }) {
  const { applied, job } = useJobView();
  const say = useSay();
  const proof = applied.scoped.proofs?.find(({ id }) => id === item.subject);
  const tell = (said: "yes" | "no") => (): void =>
    say({ kind: "proof", proof: item.subject, said, note: "" });
  const open = !job.closed && item.at !== "done" && !proof?.codes;
  useGo(open ? tell("yes") : undefined, open ? { n: tell("no") } : {});
  return (
    <ProvePanel item={item} caution={proof?.caution}>
      {proof?.codes ? (
        <CodesPanel item={item} proof={proof} />
      ) : (
        <div
          className={`mt-3 rounded border-4 p-4 ${item.at === "not so" ? "border-error" : item.at === "done" ? "border-base-300" : "border-primary"}`}
          data-turn={item.key}
        >
          <span className="stamp quiet">
            {proof?.at === "before the engine" ? "Before the engine starts" : "See to it"}
          </span>
          {item.at === "not so" && (
            <p role="alert" className="text-error text-2xl font-semibold">
              Not so. {proof?.no}
            </p>
          )}
          <div className="mt-3">
            <CheckButtons kind="proof" fixed={{ proof: item.subject }} said={item.fact} />
          </div>
        </div>
      )}
    </ProvePanel>
  );
}
