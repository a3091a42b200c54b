import type { Names } from "../../shape";
import { REASONS } from "./reasons";
import { WEAR } from "./wear";

export { ONLY, OUTSIDE, REASONS, type Only, type Outside, type Reason } from "./reasons";
export { DRAWN, LOOKS, WEAR, type Drawn, type Look, type LookId, type WearId, type WearKind } from "./wear";

/** What every book may refer to without naming it itself. */
export const CATALOGUE: Names = new Map([
  ["wear", new Map(Object.keys(WEAR).map((id) => [id, "catalogue"]))],
  ["reason", new Map(Object.keys(REASONS).map((id) => [id, "catalogue"]))],
]);
