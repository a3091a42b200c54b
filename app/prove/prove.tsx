import { useSearchParams } from "react-router";
import { v7 as newId } from "uuid";
import { BuildPanel } from "~/build/build-panel";
import { Signing } from "~/build/signing";
import { BESIDE } from "~/frame/pages";
import { useHead } from "~/look/use-head";
import { loadOrKept } from "~/offline/kept";
import { KEPT } from "~/offline/keys";
import { services } from "~/server/context";
import { typedIn } from "~/server/form";
import { signOff } from "~/server/sign-off";
import { LEADS } from "~core/fact";
import { houseOf } from "~core/measure";
import { isSettled, type ProvingItem } from "~core/prove";
import { openOf } from "~core/stage";
import { listStaff } from "~store/staff";
import type { Route } from "./+types/prove";
import { DrivePanel } from "./drive-panel";
import { groupsOf, isBehind, lineKey, type Line } from "./groups";
import { ProcedurePanel } from "./procedure-panel";
import { ProofPanel } from "./proof-panel";
import { ProveList } from "./prove-list";
import { RelearnPanel } from "./relearn-panel";
import { useProving } from "./use-proving";

export const meta: Route.MetaFunction = ({ params }) => [{ title: `Prove ${params.number} · Yard Key` }];

/** Leads who may put their name to what is left out, those who may drive it, and an id for the signature. */
export const loader = async ({ context }: Route.LoaderArgs) => {
  const people = await listStaff(context.get(services).pool);
  const leads = people.filter(({ role }) => LEADS.includes(role));
  return {
    signing: newId(),
    leads: leads.map(({ id, name }) => ({ id, name })),
    people: people.map(({ name }) => name),
  };
};

export const clientLoader = ({ params, serverLoader }: Route.ClientLoaderArgs) =>
  loadOrKept(KEPT.page(params.number, "prove"), serverLoader, () => ({
    signing: newId(),
    leads: [],
    people: [],
  }));

/** A lead answers for one thing that is left out: a routine not run, a drive not made, a step’s figure. */
export const action = async ({ context, request, params }: Route.ActionArgs) => {
  const { of = "" } = await typedIn(request);
  return signOff(context, request, params.number, ({ job, applied, house }) =>
    openOf(job, applied, houseOf(job, house)).some(
      ({ key, stage, signed }) => key === of && signed === null && (stage === "prove" || stage === "parts"),
    )
      ? [of]
      : [],
  );
};

/** The unit in its vehicle: fitted, filled, started, learned, driven; each thing with its answer. */
export default function ProvePage({
  loaderData: { leads, people, signing },
  actionData,
}: Route.ComponentProps) {
  const { build, made } = useProving();
  const [search] = useSearchParams();
  const groups = groupsOf(build, made.proving);
  const lines = groups.flatMap((group) => group.lines);
  const asked = search.get("item") ?? (search.has("step") ? `step-${search.get("step")}` : "");
  const shown =
    lines.find((line) => lineKey(line) === asked) ?? lines.find((line) => !isBehind(line)) ?? lines.at(-1);
  const panel = useHead<HTMLDivElement>(shown && lineKey(shown));
  if (!shown)
    return (
      <p className="plate p-5 text-xl">
        The book knows nothing yet that this unit is proven by in the vehicle: drive it, and close the job on
        the build sheet.
      </p>
    );
  const done = lines.filter(isBehind).length;
  return (
    <>
      <p className={`text-xl ${BESIDE.free}`}>
        <b data-proven={done}>
          {done} of {lines.length} proven
        </b>
      </p>
      <div className="mt-2 grid grid-cols-[minmax(0,2fr)_minmax(0,5fr)] items-start gap-3">
        <ProveList groups={groups} shown={lineKey(shown)} />
        <div ref={panel} className="min-w-0">
          <Signing value={{ leads, id: signing, actionData }}>
            <Panel
              key={lineKey(shown)}
              line={shown}
              build={build}
              items={made.proving.items}
              people={people}
            />
          </Signing>
        </div>
      </div>
    </>
  );
}

const EARLIER: ReadonlySet<ProvingItem["group"]> = new Set<ProvingItem["group"]>([
  "before the engine",
  "fill and level",
]);

function Panel({
  line,
  build,
  items,
  people,
}: {
  line: Line;
  items: readonly ProvingItem[];
  build: Parameters<typeof BuildPanel>[0]["build"];
  people: readonly string[];
}) {
  if (line.kind === "step") {
    // The engine is not started before it is filled, nor filled before it is fitted.
    const first =
      line.step.step.vehicle === "first start"
        ? items.filter((one) => !isSettled(one) && EARLIER.has(one.group)).map(({ name }) => name)
        : [];
    return (
      <>
        {first.length > 0 && (
          <p
            className="plate border-warning mb-2 border-l-4 px-4 py-2 text-lg"
            data-comes-first={first.length}
          >
            <b>Comes first:</b> {first.join(" · ")}
          </p>
        )}
        <BuildPanel one={line.step} build={build} />
      </>
    );
  }
  switch (line.item.kind) {
    case "proof":
      return <ProofPanel item={line.item} />;
    case "procedure":
      return <ProcedurePanel item={line.item} />;
    case "relearn":
      return <RelearnPanel item={line.item} />;
    case "drive":
      return <DrivePanel item={line.item} people={people} />;
  }
}
