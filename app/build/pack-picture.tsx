import { PackDrawing } from "~/choose/pack-drawing";
import { useJobView } from "~/view/view";
import type { Step } from "~core/book";
import { isPackSheet } from "~core/measure";

/** The pack that a step puts plates of in, drawn as it lies. */
export function PackPicture({ step }: { step: Step }) {
  const { sheets, unit } = useJobView();
  const parts = new Set(step.parts ?? []);
  const packs = sheets
    .filter(isPackSheet)
    .filter(({ applied }) => applied.stack.some(({ part }) => parts.has(part)));
  return packs.map((sheet) => (
    <section
      key={sheet.applied.chain.id}
      className="border-base-300 mt-3 border-t pt-2"
      aria-label="The pack as it lies"
    >
      <PackDrawing sheet={sheet} gap={sheet.built.assessment.estimate?.mean ?? null} sameIn unit={unit} />
    </section>
  ));
}
