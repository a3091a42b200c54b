/** How far something ran, as an odometer or a driver says it. */
export interface Distance {
  far: number;
  unit: "km" | "mi";
}

const KM_PER_MILE = 1.609344;

/** `148 200 km`, `12,5 mi`; a comma or a point before exactly three digits groups them. Null for what is no distance. */
export function readDistance(text: string): Distance | null {
  const match = /^(\d[\d .,]*?)\s*(km|mi)$/.exec(text.trim());
  if (!match) return null;
  const [, figure = "", unit] = match;
  const grouped = figure.replace(/[ .,](?=\d{3}(\D|$))/g, "").replace(",", ".");
  const far = Number(grouped);
  return Number.isFinite(far) ? { far, unit: unit as Distance["unit"] } : null;
}

/** In kilometres, to be compared; the statute mile is 1.609344 km. */
export const kilometresOf = ({ far, unit }: Distance): number => (unit === "km" ? far : far * KM_PER_MILE);
