import { Choice } from "~/look/field";
import { SayForm } from "~/say/say-form";
import { useSay } from "~/say/use-say";
import { DriveAskRow } from "./drive-ask";
import { useJobView } from "~/view/view";
import type { OnDrive } from "~core/fact";
import { driveAsks, type DriveAsk, type ProvingItem } from "~core/prove";
import { ProvePanel } from "./panel";
import { WeakList } from "./weak-list";

/** A drive: each range and each symptom it was brought with asked for, then who drove and whether it is right. */
export function DrivePanel({ item, people }: { item: ProvingItem; people: readonly string[] }) {
  const { applied, job } = useJobView();
  const say = useSay();
  const drive = Number(item.subject);
  const asks = driveAsks(job, applied);
  const saidOf = (one: DriveAsk): OnDrive | undefined => job.driven.get(`${drive} ${one.of}`)?.body.said;
  const left = asks.filter((one) => saidOf(one) === undefined);
  const ended = job.drives.get(`${drive}`)?.body;
  return (
    <ProvePanel item={item} caution="road" leftOut="Not driven: a lead signs">
      {drive > 1 && (
        <p className="mt-2 text-lg">
          {applied.scoped.drives?.second}; not by{" "}
          {job.drives.get(`${drive - 1}`)?.body.driver ?? "whoever drove first"}.
        </p>
      )}
      {left.length > 1 && (
        <button
          type="button"
          className="btn btn-primary btn-lg touch mt-3 w-full text-xl"
          onClick={() => {
            for (const said of ["cured", "fine"] as const) {
              const of = left.filter(({ brought }) => brought === (said === "cured")).map((one) => one.of);
              if (of.length > 0) say({ kind: "driven", drive, of, said, note: "" });
            }
          }}
        >
          All {left.length} are right
        </button>
      )}
      <ul className="mt-3" aria-label="Asked on the drive">
        {asks.map((one) => (
          <DriveAskRow key={one.of} ask={one} drive={drive} said={saidOf(one)} />
        ))}
      </ul>
      <SayForm
        kind="drive"
        fixed={{ drive: `${drive}` }}
        className="border-base-300 mt-3 border-t-2 pt-3"
        keep
      >
        {(problems) => (
          <div className="flex flex-wrap items-end gap-3">
            <div className="w-52">
              <Choice
                label="Who drove"
                name="driver"
                value={ended?.driver}
                problem={problems.driver}
                options={people.map((name) => ({ value: name, words: name }))}
              />
            </div>
            <label className="mb-3">
              <span className="stamp mb-1 block">How far</span>
              <input
                name="distance"
                defaultValue={ended?.distance}
                placeholder="20 km"
                className={`input touch w-32 text-lg ${problems.distance ? "input-error" : ""}`}
                aria-invalid={problems.distance ? true : undefined}
              />
            </label>
            <div className="mb-3 flex gap-2">
              <button name="is" value="right" className="btn btn-primary touch">
                It drives right
              </button>
              <button name="is" value="wrong" className="btn touch">
                It does not
              </button>
            </div>
            {problems.distance && (
              <p role="alert" className="text-error w-full font-semibold">
                {problems.distance}
              </p>
            )}
          </div>
        )}
      </SayForm>
      {item.at === "not so" && <WeakList />}
    </ProvePanel>
  );
}
