import pg from "pg";
import { openPool } from "../store/database";
import { keptParts, shelfValue, toCount } from "../store/restock";
import { listShelf, movementsOf, stockOf } from "../store/shelf";

const BINS = 20_000;
const MOVEMENTS = 2_000_000;
const RUNS = 200;
/** Of what looks at the whole shelf. */
const RUNS_WHOLE = 20;

const median = (values: number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
async function time(work: (i: number) => Promise<unknown>, runs: number): Promise<number> {
  const taken: number[] = [];
  for (let i = 0; i < runs; i++) {
    const begun = performance.now();
    await work(i);
    taken.push(performance.now() - begun);
  }
  return median(taken.slice(runs / 10));
}

/**
 * The shelf with twenty thousand bins and two million movements, each answer beside the barest SQL that could give it, in one run.
 *
 * @param url of an empty database that may be filled, after its migrations.
 */
export async function shelf(url: string, say: (text: string) => void): Promise<void> {
  const pool = openPool(url, () => {});
  // Filling takes longer than any page may.
  const filler = new pg.Client({ connectionString: url });
  await filler.connect();
  say(`\nfilling a shelf of ${BINS} bins and ${MOVEMENTS} movements …`);
  await filler.query(
    `insert into shelf_part (part, name, bin, price_cents, order_days)
     select 'BN-' || n, 'ring ' || n, 'B' || n / 20, 500, 2 + n % 5 from generate_series(1, $1) n`,
    [BINS],
  );
  // The ledger as it would be, its sums put in at once: each movement by itself would take an hour.
  await filler.query("alter table movement disable trigger movement_into_stock");
  await filler.query(
    `insert into movement (id, part, quantity, why, by_name, at)
     select gen_random_uuid(), 'BN-' || (1 + n % $1), case when n % 3 = 0 then -1 else 1 end,
            case when n % 3 = 0 then 'fitted' else 'received' end, 'Ines R.', now() - make_interval(mins => n)
       from generate_series(1, $2) n`,
    [BINS, MOVEMENTS],
  );
  await filler.query("alter table movement enable trigger movement_into_stock");
  await filler.query("update stock set on_hand = (hashtext(part) & 15) where piece is null");
  await filler.query("analyze");
  await filler.end();
  const part = (i: number): string => `BN-${1 + ((i * 7919) % BINS)}`;
  const series = (i: number): string[] => Array.from({ length: 40 }, (_, k) => part(i * 40 + k));
  const bare = (text: string) => () => pool.query(text);
  const lines: [string, (i: number) => Promise<unknown>, (i: number) => Promise<unknown>, number?][] = [
    [
      "forty sizes of a unit",
      (i) => stockOf(pool, series(i)),
      (i) => pool.query("select part, on_hand from stock where part = any ($1)", [series(i)]),
    ],
    [
      "a page of the shelf",
      (i) => listShelf(pool, { after: { part: part(i), onHand: 0 }, limit: 60 }),
      (i) => pool.query("select * from shelf_part where part > $1 order by part limit 60", [part(i)]),
    ],
    [
      "the emptiest first",
      (i) => listShelf(pool, { lowFirst: true, after: { part: part(i), onHand: 1 }, limit: 60 }),
      (i) =>
        pool.query(
          "select part from stock where piece is null and (on_hand, part) > (1, $1) order by on_hand, part limit 60",
          [part(i)],
        ),
    ],
    [
      "a part’s movements",
      (i) => movementsOf(pool, part(i)),
      (i) => pool.query("select * from movement where part = $1 order by at desc limit 60", [part(i)]),
    ],
    [
      "what is to be counted",
      () => toCount(pool),
      bare(
        "select part, count(*) from (select part from movement order by at desc limit 2000) m group by part",
      ),
      RUNS_WHOLE,
    ],
    [
      "all that is kept",
      () => keptParts(pool),
      bare("select p.part, p.name, s.on_hand, p.price_cents from shelf_part p join stock s using (part)"),
      RUNS_WHOLE,
    ],
    [
      "what it is worth, and since when",
      () => shelfValue(pool),
      bare(
        `select p.part, m.at from shelf_part p left join lateral
           (select at from movement where part = p.part and quantity < 0 order by at desc limit 1) m on true`,
      ),
      RUNS_WHOLE,
    ],
  ];
  say("shelf                             median ms   bare SQL   ratio");
  for (const [name, own, floorOf, runs = RUNS] of lines) {
    const [mine, floor] = [await time(own, runs), await time(floorOf, runs)];
    say(
      `${name.padEnd(33)} ${mine.toFixed(2).padStart(10)} ${floor.toFixed(2).padStart(10)} ${(mine / floor).toFixed(1).padStart(7)}`,
    );
  }
  await pool.end();
}
