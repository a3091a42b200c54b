import { capital, type Book, type Element } from "../book";
import { Mechanics } from "./mechanics";

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
> &
  Partial<Pick<Book, "parts">>;

/** An element that does not do its part, or does it when it should not. */
export interface ElementFault {
  kind: "element";
  id: string;
  element: Element;
  /** `off`: does not apply or does not hold; `unfed`: is sound and gets no pressure or no push; `on`: does not let go. */
  fault: "off" | "unfed" | "on";
}

/** What lies between elements and gears, or moves several of them, is broken: a shaft sheared, a hub stripped, the shell round a sun, a fork. */
export interface MemberFault {
  kind: "member";
  id: string;
  /** What it is called, in words. */
  name: string;
  /** The member of the train that no longer carries; null for a fork, which carries nothing. */
  member: string | null;
  /** The elements that a fork no longer moves. */
  moves: readonly string[];
}

/** What the gear train knows the consequences of. */
export type MechanicalFault = ElementFault | MemberFault;
export const isMechanical = (cause: Fault): cause is MechanicalFault =>
  cause.kind === "element" || cause.kind === "member";

export type Common = "pressure" | "converter" | "control" | "mechanics" | "variator" | "gears" | "elsewhere";

/** A cause that is no single element. */
export interface CommonFault {
  kind: Common;
  id: Common;
}

/** Anything the diagnosis can suspect: a fault of the train’s, or of what all units have. */
export type Fault = MechanicalFault | CommonFault;

/** How each kind of element can fail. A one-way clutch is fed by nothing; what hangs at a synchroniser is the change mechanism’s doing. */
const FAULTS: Readonly<Record<Element["kind"], readonly ElementFault["fault"][]>> = {
  clutch: ["off", "unfed", "on"],
  brake: ["off", "unfed", "on"],
  band: ["off", "unfed", "on"],
  "one-way clutch": ["off", "on"],
  synchroniser: ["off"],
};

/** Every cause this unit can have: elements first, in the order of its book, then what lies between them. */
export function causesOf(unit: Unit, mechanics = new Mechanics(unit)): Fault[] {
  const elements = unit.elements.flatMap((element): Fault[] =>
    FAULTS[element.kind].map((fault) => ({
      kind: "element",
      id: `${element.id}:${fault}`,
      element,
      fault,
    })),
  );
  const members = unit.members
    .filter((member) => member !== unit.train.held)
    .map((member): MemberFault => ({
      kind: "member",
      id: `${member}:broken`,
      name: memberName(member),
      member,
      moves: [],
    }))
    .filter((fault) => mechanics.rows.some((row) => mechanics.effect(row, [fault]).kind !== "drives"));
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
  return [...elements, ...members, ...forksOf(unit), ...commons.map((id): Fault => ({ kind: id, id }))];
}

/** Forks that move several elements; one that moves a single one cannot be told from it. */
function forksOf({ elements, parts = [] }: Unit): MemberFault[] {
  const moved = new Map<string, string[]>();
  for (const { id, fork } of elements) if (fork) moved.set(fork, [...(moved.get(fork) ?? []), id]);
  return [...moved].flatMap(([fork, moves]): MemberFault[] => {
    if (moves.length < 2) return [];
    const name = capital(parts.find(({ id }) => id === fork)?.name ?? memberName(fork));
    return [{ kind: "member", id: `${fork}:broken`, name, member: null, moves }];
  });
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

/** A member of the train in words. */
export const memberName = (member: string): string => capital(member.replaceAll("-", " "));

/** A cause in a few words: `D3 does not apply`. */
export function causeName(cause: Fault): string {
  if (cause.kind === "member") return `${cause.name} is broken`;
  if (cause.kind !== "element") return COMMON_NAMES[cause.kind];
  const { element, fault } = cause;
  const name = elementName(element);
  if (element.kind === "one-way clutch")
    return `${name} ${fault === "off" ? "does not hold" : "is locked both ways"}`;
  if (element.kind === "synchroniser") return `${name} does not engage`;
  if (fault === "unfed") return `${name} is not worked: solenoid, valve or passage`;
  return `${name} ${fault === "off" ? "does not apply" : "does not let go"}`;
}
