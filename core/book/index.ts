export { BOOK_FORMAT, bookSchema, FAMILIES, keptBook, type Book, type Trait } from "./book";
export type { Chain, ChainLink, Origin, Pack, Seat, Series, SeriesSize, StackEntry } from "./format/pack";
export {
  EMPTY_MARK,
  isDecided,
  isFromShelf,
  isLastResort,
  seatsOf,
  takenBy,
  UNCUT_MARK,
  usualIn,
} from "./seats";
export type { SeatKind, SeatLink, SeatSize } from "./seats";
export {
  MEASUREMENT_KINDS,
  PART_KINDS,
  type CheckBall,
  type FastenerGroup,
  type Measurement,
  type Part,
  type PartKind,
  type WeakPoint,
} from "./format/parts";
export { CHAIN_KINDS, ORIGINS, plateRole } from "./format/pack";
export type { Strengthening } from "./strengthened";
export type { StrongerWay } from "./format/stronger";
export type { Feature } from "./format/common";
export type { Gate, Procedure, ProcedureTurn, Proof } from "./format/prove";
export type { Consumable, Kit } from "./format/supply";
export type { Element, GearSet, Range, Station } from "./format/train";
export { ELEMENT_KINDS, GEAR_SET_KINDS, STATION_KINDS } from "./format/train";
export type { AirCheck, BookPicture, Fluid, Relearn, Soak, Step, Tip, Tool } from "./format/work";
export {
  configurations,
  holding,
  inDepth,
  inVersion,
  resolve,
  within,
  type Applied,
  type AppliedChain,
  type Configuration,
  type HouseValue,
  type PackChain,
} from "./resolve";
export { type Problem } from "../shape";
export { bookByHand, packEntries, packId, type PackByHand, type UnitByHand } from "./by-hand";
export { checksOf, type StepCheck } from "./asked";
export { behindOf, type Behind } from "./behind";
export { partsOf, stationOf } from "./assembly";
export {
  DRAWN,
  LOOKS,
  OUTSIDE,
  REASONS,
  WEAR,
  type Drawn,
  type Look,
  type LookId,
  type WearId,
} from "./catalogue";
export { reasonOf, wearKind, type OwnWear } from "./wear-of";
export { abilityOf, type Ability } from "./can";
export { upcastBook, withHead } from "./upcast";
export { book as bookShape } from "./book";
export { CATALOGUE } from "./catalogue";
export { undecidedBy } from "./resolve";
export { boltsOf, nameIn, namesOfBook, partNameIn, unitName } from "./names";
export { difference, differenceText, type Difference } from "./difference";
export {
  believed,
  limitWords,
  originWords,
  houseTorque,
  measurementWords,
  shownIn,
  specWords,
  torqueWords,
  usedTorque,
  type UnitSystem,
} from "./figures";
export { statedIn } from "./stated";
export { capital, isSprung, listed, seatWord, selectiveWord } from "./selective";
export {
  pictureDigests,
  pictureIn,
  withoutPictureData,
  withPictureData,
  type PictureData,
  type ShownPicture,
} from "./pictures";
export { isSameUnit, offersOf, takeOver, type Offer } from "./take-over";
export { isInReach, wrenchesOf } from "./tools";
