/** Of warm transmission fluid, kg/m³; made up like every figure of the demo, near what such fluids have. */
const FLUID = 850;
/** Of steel: kg/m³ and J/(kg·K). */
const STEEL = { density: 7_850, heat: 490 };

/** 1/min → rad/s. */
export const radians = (rpm: number): number => (rpm * 2 * Math.PI) / 60;

/**
 * Force of the fluid that turns along behind a piston, from the paraboloid of pressure `ρω²(r² − ri²)/2` over its ring: `πρω²(ro² − ri²)²/4`. The
 * fluid is taken to stand up to the piston’s inner edge, which is the most there can be.
 *
 * @param inner @param outer radii of the piston in metres. @returns newtons.
 */
export const headForce = (inner: number, outer: number, rpm: number): number =>
  (Math.PI * FLUID * radians(rpm) ** 2 * (outer ** 2 - inner ** 2) ** 2) / 4;

/**
 * Speed of the drum from which a released pack drags when its bleed is plugged: the head is as much as the spring.
 *
 * @param spring newtons at the piston. @returns 1/min.
 */
export const dragSpeed = (inner: number, outer: number, spring: number): number =>
  (Math.sqrt((4 * spring) / (Math.PI * FLUID)) / (outer ** 2 - inner ** 2)) * (60 / (2 * Math.PI));

/**
 * Mass of steel that takes the heat: what lies under the facings, without tabs.
 *
 * @param thickness of all steels together, metres. @returns kg.
 */
export const steelMass = (inner: number, outer: number, thickness: number): number =>
  Math.PI * (outer ** 2 - inner ** 2) * thickness * STEEL.density;

/** Heat of one shift with the slip going evenly to nothing, `T·ω·t/2`. N·m, 1/min, s → J. */
export const shiftHeat = (torque: number, slip: number, seconds: number): number =>
  (torque * radians(Math.abs(slip)) * seconds) / 2;

/** How much warmer the steels are at once, all heat in them and none gone: facings keep it out. K. */
export const riseOf = (joules: number, mass: number): number => joules / (mass * STEEL.heat);

/** Speed of a facing at its outer edge. m/s. */
export const facingSpeed = (outer: number, slip: number): number => radians(Math.abs(slip)) * outer;
