import type { Book, Element } from "../book";

/** The parts of a book that a diagnosis is made from: those that hold for this very unit. */
export type Unit = Pick<
  Book,
  | "unit"
  | "members"
  | "gearSets"
  | "elements"
  | "train"
  | "ranges"
  | "stations"
  | "airChecks"
  | "pressureTaps"
>;

/** An element that does not do its part, or does it when it should not. */
export interface ElementFault {
  kind: "element";
  id: string;
  element: Element;
  /** `off`: does not apply or does not hold; `on`: does not let go. */
  fault: "off" | "on";
}

export type Common = "pressure" | "converter" | "control" | "mechanics" | "variator" | "gears" | "elsewhere";

/** A cause that is no single element. */
export interface CommonFault {
  kind: Common;
  id: Common;
}

export type Cause = ElementFault | CommonFault;

/** Every cause this unit can have, elements first, in the order of its book. */
export function causesOf(unit: Unit): Cause[] {
  const elements = unit.elements.flatMap((element): Cause[] =>
    (["off", "on"] as const)
      // A synchroniser that hangs on is the change mechanism's doing: forks and drums hold it there.
      .filter((fault) => element.kind !== "synchroniser" || fault === "off")
      .map((fault) => ({ kind: "element", id: `${element.id}:${fault}`, element, fault })),
  );
  const has: Record<Common, boolean> = {
    pressure: true,
    converter: unit.stations.some(({ kind }) => kind === "converter"),
    control: true,
    mechanics: unit.elements.some(({ kind }) => kind === "synchroniser"),
    variator: unit.gearSets.some(({ kind }) => kind === "pulley pair"),
    gears: true,
    elsewhere: true,
  };
  const commons = (Object.keys(has) as Common[]).filter((id) => has[id]);
  return [...elements, ...commons.map((id): Cause => ({ kind: id, id }))];
}

const COMMON_NAMES: Readonly<Record<Common, string>> = {
  pressure: "Pump and line pressure",
  converter: "Converter",
  control: "Control: body, solenoids, electronics",
  mechanics: "Change mechanism: forks, drums, detents",
  variator: "Belt and pulleys",
  gears: "Gears and bearings",
  elsewhere: "Not this unit",
};

/** An element as the bench calls it: short ids in capitals, longer ones by their name. */
export const elementName = ({ id, name }: Pick<Element, "id" | "name">): string =>
  id.length <= 2 ? id.toUpperCase() : (name ?? id.replaceAll("-", " "));

/** A cause in a few words: `D3 does not apply`. */
export function causeName(cause: Cause): string {
  if (cause.kind !== "element") return COMMON_NAMES[cause.kind];
  const { element, fault } = cause;
  const name = elementName(element);
  if (element.kind === "one-way clutch")
    return `${name} ${fault === "off" ? "does not hold" : "is locked both ways"}`;
  if (element.kind === "synchroniser") return `${name} does not engage`;
  return `${name} ${fault === "off" ? "does not apply" : "does not let go"}`;
}
