// The journeys that take longest begin first, so that no worker is left alone with one at the end.
import sequencer from "@jest/test-sequencer";

// Under its own kind of module the class stands one level deeper.
const Sequencer = sequencer.default ?? sequencer;

const SLOWEST = [
  "whole-automatic",
  "axe",
  "whole-cvt",
  "whole-dual-clutch",
  "book",
  "slice",
  "diagnose",
  "mutations",
  "bench",
  "measure",
];

export default class SlowestFirst extends Sequencer {
  sort(tests) {
    const place = ({ path }) => {
      const found = SLOWEST.findIndex((name) => path.endsWith(`/${name}.test.ts`));
      return found < 0 ? SLOWEST.length : found;
    };
    return [...tests].sort((a, b) => place(a) - place(b) || (a.path < b.path ? -1 : 1));
  }
}
