export {
  cheapestFor,
  restock,
  type Chance,
  type KnownJob,
  type PartDemand,
  type PastJob,
  type Pieces,
  type Restock,
  type RestockQuestion,
} from "./restock";
