// The journeys that take longest begin first, so that no worker is left alone with one at the end.
import sequencer from "@jest/test-sequencer";

// Under its own kind of module the class stands one level deeper.
const Sequencer = sequencer.default ?? sequencer;

const SLOWEST = [
  // Journeys: whatever takes longer than a minute and a half of a busy machine.
  ...["axe", "build", "keys", "prove", "intake", "whole-automatic", "whole-dual-clutch", "any-unit", "parts"],
  ...["book", "slice", "seats", "doors", "whole-cvt"],
  // Units: whatever takes longer than fifteen seconds.
  ...["diagnose", "mutations", "sections", "joint", "suppliers", "copy", "difference"],
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
