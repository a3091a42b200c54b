import type { ComponentProps } from "react";
import { Stack } from "~/look/stack";
import { pieceIn } from "~/reading/piece-in";
import { selectiveWord } from "~core/book";
import { titleOf, type PackSheet } from "~core/measure";
import { plates } from "~core/pack";
import type { LengthUnit, Nm } from "~core/quantity";

/** A pack drawn to scale with what is in its seats: a plate that is chosen lies among the plates, a ring in its groove. */
export function PackDrawing({
  sheet,
  gap,
  sameIn,
  unit,
  caption,
  swaps = new Map(),
  predicted = false,
  ...building
}: {
  sheet: PackSheet;
  gap: Nm | null;
  /** Whether what is in now was in when it was read. */
  sameIn: boolean;
  unit: LengthUnit;
  caption?: string;
  /** What goes in instead, by seat. */
  swaps?: ReadonlyMap<string, Nm | null>;
  predicted?: boolean;
} & Pick<ComponentProps<typeof Stack>, "stands" | "onTouch">) {
  const { applied, seats } = sheet;
  const inStack = new Set(applied.stack.flatMap(({ seat }) => seat ?? []));
  const sizeIn = (id: string): Nm | null => {
    const seat = seats.find(({ link }) => link.id === id);
    return swaps.has(id) ? (swaps.get(id) ?? null) : sameIn ? pieceIn(seat) : null;
  };
  // Seats that lie among the plates are drawn there with what is in them; the one that closes the pack stands at its end.
  const end = seats.find(
    ({ link }) => !inStack.has(link.id) && link.kind !== "groove" && link.kind !== "cut",
  );
  return (
    <Stack
      plates={plates(applied.stack).map((plate) =>
        plate.seat === undefined ? plate : { ...plate, thickness: sizeIn(plate.seat) ?? plate.thickness },
      )}
      gap={gap}
      ring={end ? sizeIn(end.link.id) : null}
      unit={unit}
      caption={caption ?? titleOf(sheet)}
      selective={selectiveWord(end?.link)}
      predicted={predicted}
      {...building}
    />
  );
}
