import type { Book, StrongerWay } from "../book";
import { baseOf, compare, lengthText } from "../quantity";
import type { Check, Say } from "./check";

const PLATES = [
  ["steels", "steel"],
  ["frictions", "friction"],
  ["apply", "apply plate"],
  ["reaction", "reaction plate"],
] as const;

/** What is done to plates and does something: a way must fit what the element has. */
export const stronger: Check = {
  reads: ["stronger", "packs", "elements", "unit", "ranges", "parts"],
  check(book, _conditions, say) {
    const ranges = book.ranges.map(({ id }) => id);
    for (const range of Object.keys(book.unit.behind?.held ?? {}))
      if (!ranges.includes(range))
        say(`unit.behind.held.${range}`, `no range "${range}"`, `use one of: ${ranges.join(", ")}`);
    (book.stronger ?? []).forEach((way, i) => {
      const path = `stronger[${i}]`;
      const { pressure, turns, area, carries, part, friction, cut, without } = way;
      const toPlates = PLATES.some(([what]) => way[what]) || cut !== undefined || without !== undefined;
      if (!toPlates && [pressure, turns, area, carries, part, friction].every((one) => one === undefined))
        say(
          path,
          `“${way.name}” changes nothing`,
          "say what it changes: plates, pressure, area, friction, a part",
        );
      if (toPlates) plates(book, way, path, say);
      if (cut && cut.step > cut.most)
        say(`${path}.cut.step`, "one step is more than may come off in all", "make the step smaller");
      if (way.takes) taken(book, way, path, say);
      for (const id of way.elements) grips(book, way, id, path, say);
    });
  },
};

/** Plates belong to one pack, which has such a plate; one that goes in for room is thinner than the stock one. */
function plates({ packs }: Book, way: StrongerWay, path: string, say: Say): void {
  const [id = "", ...more] = way.elements;
  const of = packs.filter(({ element }) => element === id);
  if (more.length > 0 || of.length === 0) {
    const problem = more.length > 0 ? "plates of several packs at once" : `${id} has no plates`;
    return say(`${path}.elements`, problem, "name the one pack whose plates are changed");
  }
  for (const [what, role] of PLATES) {
    const by = way[what];
    if (!by) continue;
    const stock = of.flatMap(({ stack }) => stack.filter((entry) => entry.role === role));
    if (stock.length === 0) say(`${path}.${what}`, `${id} has no ${role}`, "change a plate that it has");
    else if (stock.every(({ seat }) => seat !== undefined))
      say(`${path}.${what}`, `the ${role} of ${id} is chosen`, "add a size to its series instead");
    else if (
      what !== "frictions" &&
      stock.every(({ thickness }) => thickness !== undefined && by.thickness >= thickness)
    )
      say(
        `${path}.${what}.thickness`,
        `${lengthText(by.thickness, "mm")} is no thinner than the stock ${role}: it makes no room`,
        "write the thickness of the thinner one",
      );
  }
  if (way.without && !of.some(({ stack }) => stack.some(({ role }) => role === way.without)))
    say(`${path}.without`, `${id} has no ${way.without}`, "leave out a plate that it has");
}

/** A stronger part takes more than the one it goes in for. */
function taken({ parts }: Book, { takes, part: id }: StrongerWay, path: string, say: Say): void {
  const stock = parts.find((part) => part.id === id)?.takes;
  if (!stock || !takes)
    say(
      `${path}.takes`,
      id === undefined ? "no part is exchanged" : `nobody says what the stock ${id} takes`,
      "name the part, and say at it what it takes",
    );
  else if (compare(baseOf(takes), baseOf(stock.torque)) <= 0)
    say(`${path}.takes`, "is no more than the stock part takes", "write what the stronger one takes");
}

/** A friction of a lining is a band’s; what is rated has neither plates nor band; pressure is raised, not lowered. */
function grips({ elements, packs }: Book, way: StrongerWay, id: string, path: string, say: Say): void {
  const element = elements.find((one) => one.id === id);
  if (!element) return;
  const pack = packs.find((one) => one.element === id);
  if (way.friction !== undefined && !element.band)
    say(`${path}.friction`, `${id} has no band`, "of plates write it with the frictions");
  if (way.carries && (pack ?? element.band))
    say(
      `${path}.carries`,
      `what ${id} carries is worked out`,
      "say what is changed about its plates or band",
    );
  if ((way.pressure ?? way.turns ?? way.area) && !pack && !element.band)
    say(path, `nothing presses on ${id}`, "name an element with a piston or a servo");
  const stock = pack?.pressure ?? element.band?.pressure;
  if (way.pressure && stock && compare(baseOf(way.pressure), baseOf(stock)) <= 0)
    say(`${path}.pressure`, `is no more than the stock pressure of ${id}`, "write what it is raised to");
}
