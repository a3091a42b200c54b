import { pictureIn } from "~core/book";
import { ToolsUsed } from "~/look/tools-used";
import { BookPicture } from "~/pictures/shown";
import { AlertTriangle, ArrowRight, Hammer, RotateCw, TriangleRight } from "lucide-react";
import type { ReactNode } from "react";
import { useJobView } from "~/view/view";
import type { StepState } from "~core/steps";

/** What the book says of a step: what to mind, how, with what, what to see to, what to leave alone. */
export function Told({ step }: { step: StepState["step"] }) {
  const { applied } = useJobView();
  const leave = applied.present.parts.filter(({ id }) => step.leave?.includes(id)).map(({ name }) => name);
  const caution = applied.present.cautions?.find(({ id }) => id === step.caution);
  return (
    <>
      {caution && (
        <p className="border-accent bg-base-200 mt-2 flex items-center gap-3 border-l-4 px-3 py-2 text-lg font-semibold">
          <AlertTriangle size={26} aria-hidden="true" className="shrink-0" /> {caution.text}
        </p>
      )}
      <div className="mt-2 grid gap-x-6 text-lg md:grid-cols-2">
        <Line wide name="How" text={step.how} icon={<ArrowRight size={20} aria-hidden="true" />} />
        <Line name="Sits" text={step.round} icon={<RotateCw size={20} aria-hidden="true" />} />
        <Line name="Unit lies" text={step.lies} icon={<TriangleRight size={20} aria-hidden="true" />} />
        <Line name="Pry" text={step.pry} icon={<Hammer size={20} aria-hidden="true" />} />
      </div>
      <BookPicture picture={pictureIn(applied.present, step.picture)} />
      <ToolsUsed ids={step.tools} present={applied.present} />
      {step.check && (
        <p className="mt-1">
          <span className="stamp quiet mr-2">See to it</span> {step.check.map(({ what }) => what).join(", ")}.
        </p>
      )}
      {leave.length > 0 && (
        <p className="mt-1" data-leave>
          <span className="stamp quiet mr-2">Leave for now</span> {leave.join(", ")}.
        </p>
      )}
    </>
  );
}

const Line = ({
  name,
  text,
  icon,
  wide = false,
}: {
  name: string;
  text: string | undefined;
  icon: ReactNode;
  wide?: boolean;
}) =>
  text ? (
    <p className={`flex items-baseline gap-2 ${wide ? "md:col-span-2" : ""}`}>
      <span className="shrink-0 self-center">{icon}</span>
      <span className="stamp quiet shrink-0">{name}</span> {text}
    </p>
  ) : null;
