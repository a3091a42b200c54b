/** What a pack of plates grips with. Newtons, metres, pascals. */
export interface PackGrip {
  kind: "pack";
  /** Faces that rub: two of a friction that is faced on both sides. */
  surfaces: number;
  friction: number;
  /** Radii of the facings. */
  inner: number;
  outer: number;
  /** Of the piston. */
  area: number;
  /** What the return spring takes off at the piston. */
  spring: number;
  /** What a dished spring between piston and plates makes of the force. */
  lever: number;
  pressure: number;
}

/** What a band grips its drum with. Newtons, metres, pascals, radians. */
export interface BandGrip {
  kind: "band";
  friction: number;
  drum: number;
  wrap: number;
  area: number;
  spring: number;
  lever: number;
  pressure: number;
  /** The sense in which its drum must be driven for it to wind itself tighter. */
  winds: "forward" | "backward";
}

/** Something that carries what it was made for. */
export interface RatedGrip {
  kind: "rated";
  torque: number;
}
/** What holds an element’s two members together. */
export type Grip = PackGrip | BandGrip | RatedGrip;

/** What presses: the piston’s force less the spring’s, times the lever; nothing where the spring is not overcome. */
export const forceOf = ({
  pressure,
  area,
  spring,
  lever,
}: Pick<PackGrip, "pressure" | "area" | "spring" | "lever">): number =>
  Math.max(0, pressure * area - spring) * lever;

/**
 * Where the friction of a ring acts, by both textbook models (Shigley, *Mechanical Engineering Design*, clutches): new facings press evenly, run-in
 * ones wear evenly and press more on the inside.
 *
 * @returns metres; the second is never larger.
 */
export const meanRadii = (inner: number, outer: number): { evenPressure: number; evenWear: number } => ({
  evenPressure: ((2 / 3) * (outer ** 3 - inner ** 3)) / (outer ** 2 - inner ** 2),
  evenWear: (inner + outer) / 2,
});

/** Torque a pack holds, `T = N·μ·F·r`, by both models of the radius. N·m. */
export function packTorque(grip: PackGrip): { evenPressure: number; evenWear: number } {
  const { evenPressure, evenWear } = meanRadii(grip.inner, grip.outer);
  const each = grip.surfaces * grip.friction * forceOf(grip);
  return { evenPressure: each * evenPressure, evenWear: each * evenWear };
}

/**
 * Torque a band holds by the capstan equation (Euler and Eytelwein): wound up by its drum `F·r·(e^μθ − 1)`, let down by it `F·r·(1 − e^−μθ)`. N·m.
 *
 * @param driven the sense in which the drum is driven against it.
 */
export function bandTorque(grip: BandGrip, driven: "forward" | "backward"): number {
  const turn = grip.friction * grip.wrap;
  const gain = grip.winds === driven ? Math.expm1(turn) : -Math.expm1(-turn);
  return forceOf(grip) * grip.drum * gain;
}

/** What an element holds at least, whichever way its radius is taken. N·m. */
export const torqueOf = (grip: Grip, driven: "forward" | "backward"): number => {
  if (grip.kind === "rated") return grip.torque;
  return grip.kind === "band" ? bandTorque(grip, driven) : packTorque(grip).evenWear;
};
