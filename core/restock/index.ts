export {
  cheapestFor,
  restock,
  type Chance,
  type PartDemand,
  type Pieces,
  type Restock,
  type RestockQuestion,
} from "./restock";
