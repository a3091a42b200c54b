import type { LengthUnit } from "~core/quantity";

/** How this bench likes to see things; nothing secret, so a plain cookie both sides can read. */
export interface Look {
  /** Undefined follows the machine. */
  theme?: "chalk" | "lamp";
  /** Undefined follows the unit's book. */
  unit?: Extract<LengthUnit, "mm" | "in">;
}

export function readLook(cookies: string | null): Look {
  const value = (name: string): string | undefined =>
    new RegExp(`(?:^|;\\s*)${name}=(\\w+)`).exec(cookies ?? "")?.[1];
  const theme = value("look-theme");
  const unit = value("look-unit");
  return {
    ...(theme === "chalk" || theme === "lamp" ? { theme } : {}),
    ...(unit === "mm" || unit === "in" ? { unit } : {}),
  };
}

/** Kept for a year on this machine; in the browser only. */
export function keepLook(name: "theme" | "unit", value: string): void {
  document.cookie = `look-${name}=${value}; path=/; max-age=31536000; samesite=lax`;
}
