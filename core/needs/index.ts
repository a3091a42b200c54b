export {
  broughtWords,
  heldUpBy,
  inPlaceOf,
  needsOf,
  overIn,
  standing,
  wanted,
  type Need,
  type NeedKind,
  type Needs,
  type Stands,
  type Supply,
  type Waits,
  type WhileOpen,
} from "./needs";
export { comparedBy } from "./goods-in";
export { quoteChanges, quoteOf, type Given, type Quote, type QuoteLine } from "./quote";
