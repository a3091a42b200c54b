/** A small generator with a seed of its own for each job and item: the same tool on the same vehicle reads the same. */
function scatter(seed: string): (from: number, to: number) => number {
  let state = 2166136261;
  for (const letter of seed) state = Math.imul(state ^ letter.charCodeAt(0), 16777619) >>> 0;
  return (from, to) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return from + Math.floor((state / 2 ** 32) * (to - from + 1));
  };
}

const WORDS: Readonly<Record<string, readonly string[]>> = {
  learned: [
    "fill time A",
    "fill time B",
    "fill time C",
    "fill time D",
    "shift 1-2",
    "shift 2-3",
    "shift 3-4",
  ],
  ids: ["solenoid 1", "solenoid 2", "solenoid 3", "solenoid 4", "solenoid 5", "solenoid 6"],
  points: ["clutch point odd", "clutch point even", "fork 1-3", "fork 2-4", "fork 5-7", "fork 6-R"],
  slip: ["belt slip events", "longest slip, ms"],
  serial: ["serial", "coding"],
};

/** What a pretended vehicle answers when this item is read out: lines of a name and a number, all made up. */
export function readOut(unit: string, job: string, item: string): string {
  const number = scatter(`${unit} ${job} ${item}`);
  const names = WORDS[item] ?? Array.from({ length: 6 }, (_, i) => `${item} ${i + 1}`);
  return [
    `Simulated scan tool. Unit ${unit}, item ${item}. Made up.`,
    ...names.map((name) => `${name}: ${number(80, 980)}`),
  ].join("\n");
}
