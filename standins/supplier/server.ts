// A simulated supplier with a computer: `PORT=4403 CATALOGUE=prices.csv node --import tsx standins/supplier/server.ts`. Orders, what is cancelled
// and how far an order is, as JSON (docs/formats.md); `POST /behave` has it refuse, be late, be slow or be away.
import { readFileSync } from "node:fs";
import Papa from "papaparse";
import { stand } from "../stand";
import { supplierServer } from "./http";
import { Trade, type Catalogue } from "./trade";

/** part, price, days: a list of prices is a catalogue. */
function catalogueOf(file: string): Catalogue {
  const { data } = Papa.parse<{ part: string; days: string }>(readFileSync(file, "utf8"), {
    header: true,
    skipEmptyLines: true,
  });
  return new Map(data.map(({ part, days }) => [part, { days: days ? Number(days) : null }]));
}

const { CATALOGUE: file } = process.env;
stand(supplierServer(new Trade(file ? catalogueOf(file) : new Map(), () => new Date())), 4403);
