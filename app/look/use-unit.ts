import { useCallback, useState } from "react";
import { useRouteLoaderData } from "react-router";
import type { UnitSystem } from "~core/book";
import { keepLook, type Look } from "./look-cookie";

/** The unit this bench reads lengths in: its own choice, or the book's until it has one; and the way to change it. */
export function useUnit(ofBook: UnitSystem): [UnitSystem, () => void] {
  const look = useRouteLoaderData<Look>("root");
  const [unit, setUnit] = useState<UnitSystem>(look?.unit ?? ofBook);
  const change = useCallback(() => {
    const other = unit === "mm" ? "in" : "mm";
    keepLook("unit", other);
    setUnit(other);
  }, [unit]);
  return [unit, change];
}
