/** One way to fill a group: so much it takes from each of some rows; below zero, it gives. */
export interface Column {
  group: number;
  rows: readonly number[];
  takes: readonly number[];
}

/** More than anything costs: what may not be in, and is not out yet. */
const NEVER = 1e6;
/** Prices are whole so many parts of one: sums of them and of whole costs are exact then, and a bound that is made of them is one. */
const GRID = 2 ** 20;
/** Less than this is nothing: of a reduced cost, of a share, of an entry of the inverse. */
const NO_COST = 1e-7;
const NO_SHARE = 1e-9;
const NO_ENTRY = 1e-12;
/** Of a row so little more is there than is, a little else for each, that hardly any two run out at once. */
const SPARE = 1e-6;
const GOLDEN = 0.618034;
/** A column is taken from the list of good ones while it saves at least half of what the best did; those a third as good are on it. */
const STILL_GOOD = 0.5;
const LISTED = 0.3;
/** More of a column than this is all of it. */
const WHOLE = 1 - 1e-3;
/** Exchanges before it is given up. */
const PATIENCE = 20_000;

/** A bound on what any whole filling costs, and what a column costs more than the cheapest of its group by the same prices. */
export interface Bound {
  value: number;
  prices: Float64Array;
}

/** What anything whole comes to at least. */
export const leastOf = ({ value }: Bound): number => Math.ceil(value);

/** What there is to go back to. */
export interface Kept {
  inverse: Float64Array;
  columns: Int32Array;
  rows: Int32Array;
  arrays: readonly (Int32Array | Float64Array | Uint8Array)[];
}

/**
 * Groups filled by parts of their columns, each group once in all, no row giving more than it holds: the simplex method with generalized upper bounds (G. B. Dantzig,
 * R. M. Van Slyke 1967). Of each group one column, the key, is reckoned by what the others leave; only as many rows as are used up by columns beside the keys stand
 * in the inverse. It works in fractions and nothing rests on them: `bound` counts prices again, exactly.
 */
export class Simplex {
  /** What a column costs now. */
  readonly costs: Float64Array;
  /** Columns that may not be in, and rows of which nothing may be left over. */
  readonly barred: Uint8Array;
  readonly usedUp: Uint8Array;
  /** Exchanges so far. */
  exchanges = 0;
  /** The first column of each group, and where the last ends. */
  readonly first: Int32Array;

  private readonly groupOf: Int32Array;
  private from: Int32Array;
  private row: Int32Array;
  private take: Float64Array;
  /** The key of each group, how much of it is in, and the other columns of the group that are. */
  private readonly key: Int32Array;
  private readonly keyShare: Float64Array;
  private readonly nonkeys: number[][];
  /** Of each column: its place among those beside the keys; −1 out, −2 a key. Of each row: its place among those used up; −1 where some is left. */
  private readonly placeOf: Int32Array;
  private readonly placeOfRow: Int32Array;
  private readonly left: Float64Array;
  private readonly prices: Float64Array;
  /** Columns beside the keys, their shares, and the rows used up: as many of both. */
  private size = 0;
  private readonly columns: Int32Array;
  private readonly shares: Float64Array;
  private readonly rows: Int32Array;
  private stride = 64;
  private inverse = new Float64Array(64 * 64);

  /** What changes with the column that enters: rows, columns beside keys, groups; and lists of where there is something. */
  private readonly change: Float64Array;
  private readonly touched: Int32Array;
  private readonly isTouched: Uint8Array;
  private touches = 0;
  private readonly rate: Float64Array;
  private readonly rated: Int32Array;
  private readonly keyRate: Float64Array;
  private readonly keyRated: Int32Array;
  private readonly isRated: Uint8Array;
  private readonly line: Float64Array;
  private readonly filled: Int32Array;
  private readonly good: Int32Array;
  private readonly saved: Float64Array;
  private goods = 0;
  private atLeast = 0;
  /** Groups whose columns may change. */
  private open: Int32Array;

  /**
   * @param all columns, group after group.
   * @param start a column of each group with which no row gives more than it holds.
   */
  constructor(all: readonly Column[], counts: readonly number[], start: readonly number[]) {
    const [many, groups, rows] = [all.length, start.length, counts.length];
    this.groupOf = Int32Array.from(all, ({ group }) => group);
    this.from = new Int32Array(many + 1);
    for (const [j, one] of all.entries()) this.from[j + 1] = (this.from[j] as number) + one.rows.length;
    this.row = new Int32Array(this.from[many] as number);
    this.take = new Float64Array(this.from[many] as number);
    for (const [j, one] of all.entries()) {
      this.row.set(one.rows, this.from[j]);
      this.take.set(one.takes, this.from[j]);
    }
    this.first = new Int32Array(groups + 1).fill(many);
    for (let j = many - 1; j >= 0; j--) this.first[this.groupOf[j] as number] = j;
    this.costs = new Float64Array(many);
    this.barred = new Uint8Array(many);
    this.usedUp = new Uint8Array(rows);
    this.key = Int32Array.from(start);
    this.keyShare = new Float64Array(groups).fill(1);
    this.nonkeys = start.map(() => []);
    this.placeOf = new Int32Array(many).fill(-1);
    this.placeOfRow = new Int32Array(rows).fill(-1);
    this.left = Float64Array.from(counts, (count, i) => count + SPARE * (0.2 + ((i * GOLDEN) % 1)));
    this.prices = new Float64Array(rows);
    this.columns = new Int32Array(rows);
    this.shares = new Float64Array(rows);
    this.rows = new Int32Array(rows);
    this.change = new Float64Array(rows);
    this.touched = new Int32Array(rows);
    this.isTouched = new Uint8Array(rows);
    this.rate = new Float64Array(rows);
    this.rated = new Int32Array(rows);
    this.keyRate = new Float64Array(groups);
    this.keyRated = new Int32Array(groups);
    this.isRated = new Uint8Array(groups);
    this.line = new Float64Array(rows);
    this.filled = new Int32Array(rows);
    this.good = new Int32Array(many);
    this.saved = new Float64Array(many);
    this.open = Int32Array.from(start.keys());
    for (const j of start) {
      this.placeOf[j] = -2;
      for (let q = this.from[j] as number; q < (this.from[j + 1] as number); q++)
        this.left[this.row[q] as number] =
          (this.left[this.row[q] as number] as number) - (this.take[q] as number);
    }
  }

  /** Only these groups change from now on. */
  only(groups: readonly number[]): void {
    this.open = Int32Array.from(groups);
    this.goods = 0;
  }

  /** What costs so much more than it may is out of the question from now on. */
  bar(column: number): void {
    this.barred[column] = 1;
    this.costs[column] = NEVER;
  }

  /** New costs for all columns; those that are barred stay out. */
  cost(of: (column: number) => number): void {
    for (let j = 0; j < this.costs.length; j++) this.costs[j] = this.barred[j] === 1 ? NEVER : of(j);
  }

  /** Holds what columns take of a row, which was not limited, to so much. */
  limit(row: number, takes: (column: number) => number, most: number): void {
    if (!this.row.includes(row)) this.add(row, takes);
    let taken = 0;
    for (const column of this.groupOf.keys()) taken += this.share(column) * takes(column);
    this.left[row] = most + SPARE - taken;
  }
  isLimited(row: number): boolean {
    return this.left[row] !== Infinity;
  }

  private add(row: number, takes: (column: number) => number): void {
    const [from, rows, all]: [number[], number[], number[]] = [[0], [], []];
    for (const column of this.groupOf.keys()) {
      const [start, end] = [this.from[column] as number, this.from[column + 1] as number];
      rows.push(...this.row.subarray(start, end));
      all.push(...this.take.subarray(start, end));
      if (takes(column) !== 0) {
        rows.push(row);
        all.push(takes(column));
      }
      from.push(rows.length);
    }
    this.from = Int32Array.from(from);
    this.row = Int32Array.from(rows);
    this.take = Float64Array.from(all);
  }

  /** What a column takes from each row it takes from. */
  takesOf(column: number): Map<number, number> {
    const takes = new Map<number, number>();
    for (let q = this.from[column] as number; q < (this.from[column + 1] as number); q++)
      takes.set(this.row[q] as number, this.take[q] as number);
    return takes;
  }

  /** Columns of a group that may be in. */
  openOf(group: number): number[] {
    const open: number[] = [];
    for (let j = this.first[group] as number; j < (this.first[group + 1] as number); j++)
      if (this.barred[j] === 0) open.push(j);
    return open;
  }

  /** What groups cost at most. */
  dearest(groups: readonly number[]): number {
    let sum = 0;
    for (const group of groups) {
      let most = -Infinity;
      for (const column of this.openOf(group)) most = Math.max(most, this.costs[column] as number);
      sum += most;
    }
    return sum;
  }

  /**
   * Bars every column of these groups with which all would cost more than so much.
   *
   * @returns what the dearest left of each cost more than the cheapest, added up.
   */
  barDearer(groups: readonly number[], { value, prices }: Bound, most: number): number {
    let sum = 0;
    for (const group of groups) {
      const least = this.cheapest(group, prices);
      let highest = 0;
      for (const column of this.openOf(group)) {
        const above = this.priced(column, prices) - least;
        if (value + above > most) this.bar(column);
        else highest = Math.max(highest, above);
      }
      sum += highest;
    }
    return sum;
  }

  /** How much of a column is in. */
  share(column: number): number {
    const place = this.placeOf[column] as number;
    if (place === -1) return 0;
    return place === -2
      ? (this.keyShare[this.groupOf[column] as number] as number)
      : (this.shares[place] as number);
  }

  /** Exchanges columns until none that is out saves anything; false where that was given up. */
  solve(): boolean {
    this.price();
    this.goods = 0;
    this.atLeast = 0;
    for (let left = PATIENCE; left > 0; left--) {
      const enters = this.entering();
      if (!enters) return true;
      if (!this.exchange(enters)) return false;
    }
    return false;
  }

  /** The column of a group of which most is in. */
  most(group: number): { column: number; share: number } {
    let [column, share] = [this.key[group] as number, this.keyShare[group] as number];
    for (const other of this.nonkeys[group] as number[]) {
      const own = this.shares[this.placeOf[other] as number] as number;
      if (own > share) [column, share] = [other, own];
    }
    return { column, share };
  }

  /** The column of which most is in, of those of a group that may be; null where that is no question. */
  toDecide(group: number): { column: number; others: readonly number[] } | null {
    const open = this.openOf(group);
    if (open.length < 2) return null;
    const column = open.reduce((a, b) => (this.share(b) > this.share(a) ? b : a));
    return { column, others: open.filter((other) => other !== column) };
  }

  /** The group of which least is filled with one column; −1 where all are with one. */
  leastDecided(groups: readonly number[]): number {
    let [at, least] = [-1, WHOLE];
    for (const group of groups) {
      const { share } = this.most(group);
      if (share < least) [at, least] = [group, share];
    }
    return at;
  }

  /**
   * What these groups cost at least, of what these rows hold: with a price on each row everybody takes what is cheapest, and rows are paid for what they hold. Other
   * rows are free, whatever they cost here. Prices lie on a grid, so that sums of them are exact.
   *
   * @param counts of the rows, less what groups take that are not asked.
   */
  bound(groups: readonly number[], rows: readonly number[], counts: readonly number[]): Bound {
    const prices = new Float64Array(this.prices.length);
    let value = 0;
    for (const row of rows) {
      const near = Math.round((this.prices[row] as number) * GRID) / GRID;
      const price = near > 0 && this.usedUp[row] === 0 ? 0 : near;
      prices[row] = price;
      value += price * (counts[row] as number);
    }
    for (const group of groups) value += this.cheapest(group, prices);
    return { value, prices };
  }

  /** What a column costs with what it takes from rows. */
  priced(column: number, prices: Float64Array): number {
    let value = this.costs[column] as number;
    for (let q = this.from[column] as number, end = this.from[column + 1] as number; q < end; q++)
      value -= (prices[this.row[q] as number] as number) * (this.take[q] as number);
    return value;
  }

  /** What the cheapest column of a group costs that may be in. */
  cheapest(group: number, prices: Float64Array): number {
    let least = Infinity;
    for (let j = this.first[group] as number; j < (this.first[group + 1] as number); j++)
      if (this.barred[j] === 0) least = Math.min(least, this.priced(j, prices));
    return least;
  }

  keep(): Kept {
    const { size, stride, inverse } = this;
    const own = new Float64Array(size * size);
    for (let p = 0; p < size; p++) own.set(inverse.subarray(p * stride, p * stride + size), p * size);
    return {
      inverse: own,
      columns: this.columns.slice(0, size),
      rows: this.rows.slice(0, size),
      arrays: this.kept().map((array) => array.slice()),
    };
  }

  back({ inverse, columns, rows, arrays }: Kept): void {
    for (let p = 0; p < this.size; p++) (this.nonkeys[this.groupAt(p)] as number[]).length = 0;
    const size = columns.length;
    this.size = size;
    for (let p = 0; p < size; p++)
      this.inverse.set(inverse.subarray(p * size, p * size + size), p * this.stride);
    this.columns.set(columns);
    for (let p = 0; p < size; p++) (this.nonkeys[this.groupAt(p)] as number[]).push(columns[p] as number);
    this.rows.set(rows);
    for (const [i, array] of this.kept().entries()) array.set(arrays[i] as Float64Array);
    this.goods = 0;
  }

  private groupAt(place: number): number {
    return this.groupOf[this.columns[place] as number] as number;
  }

  private kept(): (Int32Array | Float64Array | Uint8Array)[] {
    const { costs, barred, usedUp, key, keyShare, placeOf, placeOfRow, left, shares } = this;
    return [costs, barred, usedUp, key, keyShare, placeOf, placeOfRow, left, shares];
  }

  /** Prices of the rows that are used up, from the costs. */
  private price(): void {
    const { size, stride, inverse, columns, costs, key, groupOf, line, prices } = this;
    line.fill(0, 0, size);
    for (let p = 0; p < size; p++) {
      const column = columns[p] as number;
      const cost = (costs[column] as number) - (costs[key[groupOf[column] as number] as number] as number);
      if (cost === 0) continue;
      for (let s = 0; s < size; s++)
        line[s] = (line[s] as number) + cost * (inverse[p * stride + s] as number);
    }
    prices.fill(0);
    for (let s = 0; s < size; s++) prices[this.rows[s] as number] = line[s] as number;
  }

  /** What saves most: a column that is out, or leaving something over of a row that is used up. */
  private entering(): Enters | null {
    const { good, saved, placeOf, key, groupOf, prices } = this;
    let [best, column, kept] = [-NO_COST, -1, 0];
    for (let x = 0; x < this.goods; x++) {
      const j = good[x] as number;
      if (placeOf[j] !== -1 || this.barred[j] === 1) continue;
      const by = this.priced(j, prices) - this.priced(key[groupOf[j] as number] as number, prices);
      if (by >= -NO_COST) continue;
      good[kept++] = j;
      if (by < best) [best, column] = [by, j];
    }
    this.goods = kept;
    if (column < 0 || best > STILL_GOOD * this.atLeast) {
      [best, column, kept] = [-NO_COST, -1, 0];
      for (const group of this.open) {
        const own = this.priced(key[group] as number, prices);
        for (let j = this.first[group] as number; j < (this.first[group + 1] as number); j++) {
          if (placeOf[j] !== -1 || this.barred[j] === 1) continue;
          const by = this.priced(j, prices) - own;
          if (by >= -NO_COST) continue;
          good[kept] = j;
          saved[kept++] = by;
          if (by < best) [best, column] = [by, j];
        }
      }
      this.goods = 0;
      for (let x = 0; x < kept; x++)
        if ((saved[x] as number) <= LISTED * best) good[this.goods++] = good[x] as number;
      this.atLeast = best;
    }
    let place = -1;
    for (let s = 0; s < this.size; s++) {
      const row = this.rows[s] as number;
      if (this.usedUp[row] === 0 && -(prices[row] as number) < best)
        [best, place] = [-(prices[row] as number), s];
    }
    if (place >= 0) return { column: -1, place, by: best };
    return column < 0 ? null : { column, place: -1, by: best };
  }

  private touch(column: number, times: number): void {
    const { change, isTouched, touched } = this;
    for (let q = this.from[column] as number, end = this.from[column + 1] as number; q < end; q++) {
      const row = this.row[q] as number;
      if (isTouched[row] === 0) {
        isTouched[row] = 1;
        touched[this.touches++] = row;
      }
      change[row] = (change[row] as number) + times * (this.take[q] as number);
    }
  }

  /** How fast the columns beside the keys go out as another comes in; returns how many do. */
  private direct({ column, place }: Enters): number {
    const { size, stride, inverse, rate, rated, change, touched, placeOfRow } = this;
    for (let x = 0; x < this.touches; x++) {
      change[touched[x] as number] = 0;
      this.isTouched[touched[x] as number] = 0;
    }
    this.touches = 0;
    rate.fill(0, 0, size);
    if (column >= 0) {
      this.touch(column, 1);
      this.touch(this.key[this.groupOf[column] as number] as number, -1);
      for (let x = 0; x < this.touches; x++) {
        const row = touched[x] as number;
        const [s, by] = [placeOfRow[row] as number, change[row] as number];
        if (s < 0 || by === 0) continue;
        for (let p = 0, at = s; p < size; p++, at += stride)
          rate[p] = (rate[p] as number) + by * (inverse[at] as number);
      }
    } else {
      const row = this.rows[place] as number;
      this.isTouched[row] = 1;
      touched[this.touches++] = row;
      change[row] = 1;
      for (let p = 0, at = place; p < size; p++, at += stride) rate[p] = inverse[at] as number;
    }
    let many = 0;
    for (let p = 0; p < size; p++) {
      if (Math.abs(rate[p] as number) < NO_ENTRY) rate[p] = 0;
      else rated[many++] = p;
    }
    return many;
  }

  /** Lets a column in, or leaves something of a row, as far as it goes; false where there is no end of it. */
  private exchange(enters: Enters): boolean {
    const { rate, rated, columns, key, groupOf, keyRate, keyRated, isRated, change, touched } = this;
    const { column } = enters;
    let many = this.direct(enters);
    let groups = 0;
    const rateKey = (group: number, by: number): void => {
      if (isRated[group] === 0) {
        isRated[group] = 1;
        keyRated[groups++] = group;
        keyRate[group] = 0;
      }
      keyRate[group] = (keyRate[group] as number) + by;
    };
    for (let x = 0; x < many; x++) {
      const p = rated[x] as number;
      const group = groupOf[columns[p] as number] as number;
      this.touch(columns[p] as number, -(rate[p] as number));
      this.touch(key[group] as number, rate[p] as number);
      rateKey(group, rate[p] as number);
    }
    if (column >= 0) rateKey(groupOf[column] as number, -1);
    for (let x = 0; x < groups; x++) isRated[keyRated[x] as number] = 0;

    let [far, kind, at, pivot]: [number, Leaves | null, number, number] = [Infinity, null, -1, 0];
    const reach = (there: number, by: number, what: Leaves, place: number): void => {
      if (by <= NO_SHARE) return;
      const way = Math.max(0, there) / by;
      if (way < far - NO_ENTRY || (way < far + NO_ENTRY && by > pivot))
        [far, kind, at, pivot] = [way, what, place, by];
    };
    for (let x = 0; x < many; x++) {
      const p = rated[x] as number;
      reach(this.shares[p] as number, rate[p] as number, "column", p);
    }
    for (let x = 0; x < groups; x++) {
      const group = keyRated[x] as number;
      reach(this.keyShare[group] as number, -(keyRate[group] as number), "key", group);
    }
    for (let x = 0; x < this.touches; x++) {
      const row = touched[x] as number;
      if ((this.placeOfRow[row] as number) < 0)
        reach(this.left[row] as number, change[row] as number, "row", row);
    }
    if (kind === null) return false;
    this.exchanges++;
    for (let x = 0; x < many; x++) {
      const p = rated[x] as number;
      this.shares[p] = (this.shares[p] as number) - far * (rate[p] as number);
    }
    for (let x = 0; x < groups; x++) {
      const group = keyRated[x] as number;
      this.keyShare[group] = (this.keyShare[group] as number) + far * (keyRate[group] as number);
    }
    for (let x = 0; x < this.touches; x++) {
      const row = touched[x] as number;
      if ((this.placeOfRow[row] as number) < 0)
        this.left[row] = (this.left[row] as number) - far * (change[row] as number);
    }
    if (kind === "key") {
      if ((this.nonkeys[at] as number[]).length === 0) {
        // Nothing else of the group is in: what enters is its key.
        this.placeOf[key[at] as number] = -1;
        key[at] = column;
        this.placeOf[column] = -2;
        this.keyShare[at] = far;
        return true;
      }
      at = this.rekeyed(at);
      many = this.direct(enters);
      kind = "column";
    }
    if (kind === "column") {
      if (column >= 0) this.replaceColumn(enters, at, far, many);
      else this.shrink(enters, at, far, many);
    } else if (column >= 0) this.grow(enters, at, far, many);
    else this.replaceRow(enters, at, far, many);
    return true;
  }

  /** Another column of a group that is in becomes its key; returns the place of the one that was. */
  private rekeyed(group: number): number {
    const { inverse, stride, size, placeOf, shares, columns } = this;
    const others = this.nonkeys[group] as number[];
    const next = others[0] as number;
    const p = placeOf[next] as number;
    for (let s = 0; s < size; s++) {
      let sum = 0;
      for (const one of others) sum += inverse[(placeOf[one] as number) * stride + s] as number;
      inverse[p * stride + s] = -sum;
    }
    const [old, share] = [this.key[group] as number, this.keyShare[group] as number];
    this.key[group] = next;
    this.keyShare[group] = shares[p] as number;
    placeOf[next] = -2;
    columns[p] = old;
    shares[p] = share;
    placeOf[old] = p;
    others[0] = old;
    return p;
  }

  /** Where a line of the inverse has something; what is next to nothing is made nothing. */
  private fill(line: Float64Array, from: number): number {
    let many = 0;
    for (let s = 0; s < this.size; s++) {
      if (Math.abs(line[from + s] as number) < NO_ENTRY) line[from + s] = 0;
      else this.filled[many++] = s;
    }
    return many;
  }

  /** Takes a line off every line of the inverse that changes, so many times: those of the columns that go out as fast. */
  private takeOff(
    but: number,
    line: Float64Array,
    from: number,
    cells: number,
    many: number,
    by: number,
  ): void {
    const { rated, rate, inverse, stride, filled } = this;
    for (let y = 0; y < many; y++) {
      const p = rated[y] as number;
      if (p === but) continue;
      const [times, at] = [(rate[p] as number) * by, p * stride];
      for (let x = 0; x < cells; x++) {
        const s = filled[x] as number;
        inverse[at + s] = (inverse[at + s] as number) - times * (line[from + s] as number);
      }
    }
  }

  private out(p: number): void {
    const column = this.columns[p] as number;
    this.placeOf[column] = -1;
    const others = this.nonkeys[this.groupOf[column] as number] as number[];
    others.splice(others.indexOf(column), 1);
  }
  private in(column: number, p: number, share: number): void {
    this.columns[p] = column;
    this.shares[p] = share;
    this.placeOf[column] = p;
    (this.nonkeys[this.groupOf[column] as number] as number[]).push(column);
  }
  /** Something is left over of a row from now on. */
  private spare(s: number, left: number): void {
    const row = this.rows[s] as number;
    this.placeOfRow[row] = -1;
    this.left[row] = left;
    this.prices[row] = 0;
  }
  private useUp(row: number, s: number): void {
    this.rows[s] = row;
    this.placeOfRow[row] = s;
    this.left[row] = 0;
  }
  private reprice(line: Float64Array, from: number, cells: number, by: number): void {
    for (let x = 0; x < cells; x++) {
      const s = this.filled[x] as number;
      const row = this.rows[s] as number;
      this.prices[row] = (this.prices[row] as number) + by * (line[from + s] as number);
    }
  }

  private replaceColumn({ column, by }: Enters, p: number, far: number, many: number): void {
    const { inverse, stride, filled } = this;
    const at = p * stride;
    this.out(p);
    const cells = this.fill(inverse, at);
    const times = 1 / (this.rate[p] as number);
    for (let x = 0; x < cells; x++) {
      const s = at + (filled[x] as number);
      inverse[s] = (inverse[s] as number) * times;
    }
    this.takeOff(p, inverse, at, cells, many, 1);
    this.reprice(inverse, at, cells, by);
    this.in(column, p, far);
  }

  /** A column goes out and a row is no longer used up. */
  private shrink({ place }: Enters, p: number, far: number, many: number): void {
    const { inverse, stride, columns, shares, rows } = this;
    const at = p * stride;
    this.out(p);
    const cells = this.fill(inverse, at);
    const times = 1 / (inverse[at + place] as number);
    this.takeOff(p, inverse, at, cells, many, times);
    this.reprice(inverse, at, cells, -(this.prices[rows[place] as number] as number) * times);
    this.spare(place, far);
    const last = --this.size;
    if (p !== last) {
      inverse.copyWithin(at, last * stride, last * stride + last + 1);
      const moved = columns[last] as number;
      columns[p] = moved;
      shares[p] = shares[last] as number;
      this.placeOf[moved] = p;
    }
    if (place === last) return;
    for (let q = 0; q < last; q++) inverse[q * stride + place] = inverse[q * stride + last] as number;
    const row = rows[last] as number;
    rows[place] = row;
    this.placeOfRow[row] = place;
  }

  /** What the columns beside the keys take from a row, by the inverse. */
  private lineOf(row: number): number {
    const { size, stride, inverse, columns, key, groupOf, line } = this;
    const takes = (column: number): number => {
      let sum = 0;
      for (let q = this.from[column] as number; q < (this.from[column + 1] as number); q++)
        if (this.row[q] === row) sum += this.take[q] as number;
      return sum;
    };
    line.fill(0, 0, size);
    for (let p = 0; p < size; p++) {
      const column = columns[p] as number;
      const by = takes(column) - takes(key[groupOf[column] as number] as number);
      if (by === 0) continue;
      for (let s = 0, at = p * stride; s < size; s++, at++)
        line[s] = (line[s] as number) + by * (inverse[at] as number);
    }
    return this.fill(line, 0);
  }

  /** A column comes in beside its key, and a row is used up. */
  private grow({ column, by }: Enters, row: number, far: number, many: number): void {
    const { line, filled, rate, rated, size } = this;
    const cells = this.lineOf(row);
    const by1 = 1 / (this.change[row] as number);
    if (size === this.stride) this.widen();
    const { inverse, stride } = this;
    for (let p = 0; p < size; p++) inverse[p * stride + size] = 0;
    this.takeOff(-1, line, 0, cells, many, -by1);
    for (let y = 0; y < many; y++) {
      const p = rated[y] as number;
      inverse[p * stride + size] = -(rate[p] as number) * by1;
    }
    const at = size * stride;
    inverse.fill(0, at, at + size);
    for (let x = 0; x < cells; x++) {
      const s = filled[x] as number;
      inverse[at + s] = -(line[s] as number) * by1;
    }
    inverse[at + size] = by1;
    this.reprice(inverse, at, cells, by);
    this.prices[row] = by * by1;
    this.in(column, size, far);
    this.useUp(row, size);
    this.size++;
  }

  /** Of one row something is left over, and another is used up. */
  private replaceRow({ place }: Enters, row: number, far: number, many: number): void {
    const { line, filled, rate, rated, inverse, stride, rows } = this;
    const cells = this.lineOf(row);
    const by = 1 / (line[place] as number);
    const price = (this.prices[rows[place] as number] as number) * by;
    line[place] = 0;
    this.takeOff(-1, line, 0, cells, many, by);
    for (let y = 0; y < many; y++) {
      const p = rated[y] as number;
      inverse[p * stride + place] = (rate[p] as number) * by;
    }
    for (let x = 0; x < cells; x++) {
      const other = rows[filled[x] as number] as number;
      this.prices[other] = (this.prices[other] as number) - price * (line[filled[x] as number] as number);
    }
    this.spare(place, far);
    this.prices[row] = price;
    this.useUp(row, place);
  }

  private widen(): void {
    const wider = new Float64Array(4 * this.stride * this.stride);
    for (let p = 0; p < this.size; p++)
      wider.set(this.inverse.subarray(p * this.stride, p * this.stride + this.size), 2 * p * this.stride);
    this.stride *= 2;
    this.inverse = wider;
  }
}

/** What enters: a column, or what is left of the row at a place; and what that saves for each whole of it. */
interface Enters {
  column: number;
  place: number;
  by: number;
}
/** What sets the end of it: a column beside a key, a key, or a row that is used up. */
type Leaves = "column" | "key" | "row";
