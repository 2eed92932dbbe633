import { columnOf, fitted } from "./columns";
import { IDLE, type Column, type NightChoice, type Programme, type SeasonTask } from "./model";
import { bestColumn, bestProgrammes, valueAt } from "./night";
import { scratchFor } from "./night-scratch";
import { valueOf } from "./reward";
import { nightTable, type NightTable } from "./table";

const POOL = 64; // programmes kept a lane
const RANKED = 12; // of them told
const EPS = 1e-9;

export const keyOf = (blocks: Programme): string => blocks.map((b) => b.join()).join(";");

const firstOf = ({ places }: NightChoice): number => Math.min(...places.flatMap((p) => p.lanes));

/** The lanes of a task in the groups of which one place is used: a lane without a choice is a group by itself. */
export function choicesOf(task: SeasonTask): readonly NightChoice[] {
  const chosen = task.choices ?? [];
  const grouped = new Set(chosen.flatMap((c) => c.places.flatMap((p) => p.lanes)));
  const alone = task.lanes.flatMap((_, l) => (grouped.has(l) ? [] : [{ places: [{ lanes: [l], cost: 0 }] }]));
  return [...chosen, ...alone].sort((a, b) => firstOf(a) - firstOf(b));
}

/** What is known while a season is being solved. */
export class Season {
  readonly tables: readonly NightTable[];
  readonly choices: readonly NightChoice[];
  readonly pools: Column[][];
  /** The programme each lane has now, and what they bring together. */
  chosen: Column[];
  readonly yields: Float64Array;
  /** By choice: the place that is used. */
  readonly at: Int32Array;
  readonly #scratch;
  readonly #known: Set<string>[];
  readonly #seen: (Column | null)[];
  readonly #choiceOf: Int32Array;
  readonly #placeOf: Int32Array;

  constructor(readonly task: SeasonTask) {
    this.tables = task.lanes.map((lane) => nightTable(task, lane));
    this.choices = choicesOf(task);
    this.at = new Int32Array(this.choices.length);
    this.#choiceOf = new Int32Array(task.lanes.length);
    this.#placeOf = new Int32Array(task.lanes.length);
    this.choices.forEach(({ places }, c) =>
      places.forEach(({ lanes }, p) =>
        lanes.forEach((l) => {
          this.#choiceOf[l] = c;
          this.#placeOf[l] = p;
        }),
      ),
    );
    this.#scratch = scratchFor(task, this.tables);
    this.#seen = task.lanes.map(({ seen }, l) => {
      const table = this.tables[l]!;
      if (!seen || seen.blocks.length === 0 || table.fixed) return null;
      const blocks = fitted(task, table, seen.blocks);
      const column = blocks.length > 0 ? columnOf(task, table, blocks) : null;
      return column ? { ...column, cost: column.cost - seen.bonus } : null;
    });
    const fixed = this.tables.map((t) => (t.fixed ? (columnOf(task, t, t.fixed) ?? IDLE) : null));
    this.pools = fixed.map((c) => [c ?? IDLE]);
    this.#known = this.pools.map(([c]) => new Set([keyOf(c!.blocks)]));
    this.#seen.forEach((c, l) => (c ? this.keep(l, c) : undefined));
    this.chosen = fixed.map((c) => c ?? IDLE);
    // Where something is fixed, there one is.
    fixed.forEach((c, l) => (c && c !== IDLE ? (this.at[this.#choiceOf[l]!] = this.#placeOf[l]!) : undefined));
    this.yields = new Float64Array(task.jobs.length);
    for (const c of this.chosen) this.add(c, 1);
  }

  add({ jobs, yields }: Column, sign: 1 | -1): void {
    for (let j = 0; j < jobs.length; j++) this.yields[jobs[j]!]! += sign * yields[j]!;
  }

  /** Whether anything else could be done with a lane, the place of its night aside. */
  isFree(lane: number): boolean {
    return this.tables[lane]!.fixed === null;
  }

  /** Whether a lane is free, and at the place where the night is spent. */
  isOpen(lane: number): boolean {
    return this.isFree(lane) && this.at[this.#choiceOf[lane]!] === this.#placeOf[lane];
  }

  /** A programme of a lane as a column, cut to the rules if need be; what was seen counts its bonus. */
  column(lane: number, blocks: Programme): Column | null {
    const table = this.tables[lane]!;
    const column = columnOf(this.task, table, blocks) ?? columnOf(this.task, table, fitted(this.task, table, blocks));
    const seen = this.#seen[lane];
    return column && seen && keyOf(seen.blocks) === keyOf(column.blocks) ? seen : column;
  }

  /** What a lane's programme brings at prices, at most; the programmes met go into its pool. */
  price(lane: number, prices: ArrayLike<number>): number {
    if (!this.isFree(lane)) return valueAt(this.chosen[lane]!, prices);
    const { bound, found } = bestProgrammes(this.task, this.tables[lane]!, prices, this.#scratch);
    for (const blocks of found) {
      const column = this.column(lane, blocks);
      if (column) this.keep(lane, column);
    }
    const seen = this.#seen[lane];
    return seen ? Math.max(bound, valueAt(seen, prices)) : bound;
  }

  /** The programme that is best at prices, counted exactly. */
  bestAt(lane: number, prices: ArrayLike<number>): Column {
    const column = bestColumn(this.task, this.tables[lane]!, prices, this.#scratch);
    const seen = this.#seen[lane];
    if (!seen) return column;
    return keyOf(column.blocks) === keyOf(seen.blocks) || valueAt(seen, prices) > valueAt(column, prices)
      ? seen
      : column;
  }

  keep(lane: number, column: Column): void {
    const key = keyOf(column.blocks);
    if (this.#known[lane]!.has(key)) return;
    this.#known[lane]!.add(key);
    this.pools[lane]!.push(column);
  }

  /** Lets go of programmes that hardly take part in the mixture, where a pool has grown too large. */
  thin(weights: readonly Float64Array[]): void {
    this.pools.forEach((pool, lane) => {
      if (pool.length <= POOL) return;
      const ranked = pool
        .map((column, i) => ({ column, weight: weights[lane]?.[i] ?? 1 }))
        .sort((a, b) => b.weight - a.weight)
        .slice(0, POOL / 2)
        .map((x) => x.column);
      const seen = this.#seen[lane];
      const kept = [...new Set([IDLE, ...(seen ? [seen] : []), ...ranked])];
      this.pools[lane] = kept;
      this.#known[lane] = new Set(kept.map((c) => keyOf(c.blocks)));
    });
  }

  /** The best programmes of each lane at prices, best first. */
  ranked(prices: ArrayLike<number>): Programme[][] {
    return this.pools.map((pool) =>
      pool
        .map((column) => ({ column, value: valueAt(column, prices) }))
        .sort((a, b) => b.value - a.value)
        .slice(0, RANKED)
        .map((x) => x.column.blocks),
    );
  }

  /** Worth of the plan as it stands. */
  value(): number {
    let value = 0;
    this.task.jobs.forEach((job, k) => (value += valueOf(job.reward, this.yields[k]!)));
    for (const c of this.chosen) value -= c.cost;
    this.choices.forEach((_, c) => (value -= this.#goingCost(c)));
    return value;
  }

  /** What going to the place of a night costs, as it stands; nothing where nothing is done. */
  #goingCost(choice: number, lane = -1, instead: Column = IDLE): number {
    const place = this.choices[choice]!.places[this.at[choice]!];
    if (!place || place.cost === 0) return 0;
    return place.lanes.some((l) => (l === lane ? instead : this.chosen[l]!) !== IDLE) ? place.cost : 0;
  }

  /** What taking another programme for a lane changes, exactly. */
  change(lane: number, next: Column): number {
    const now = this.chosen[lane]!;
    if (now === next) return 0;
    const choice = this.#choiceOf[lane]!;
    let delta = now.cost - next.cost + this.#goingCost(choice) - this.#goingCost(choice, lane, next);
    for (let j = 0; j < now.jobs.length; j++) {
      const k = now.jobs[j]!;
      const at = next.jobs.indexOf(k);
      delta += this.#differs(k, (at === -1 ? 0 : next.yields[at]!) - now.yields[j]!);
    }
    for (let j = 0; j < next.jobs.length; j++)
      if (!now.jobs.includes(next.jobs[j]!)) delta += this.#differs(next.jobs[j]!, next.yields[j]!);
    return delta;
  }

  #differs(job: number, by: number): number {
    const { reward } = this.task.jobs[job]!;
    const y = this.yields[job]!;
    return valueOf(reward, y + by) - valueOf(reward, y);
  }

  take(lane: number, next: Column): void {
    this.add(this.chosen[lane]!, -1);
    this.add(next, 1);
    this.chosen[lane] = next;
  }

  /** Takes a programme if that gains. */
  offer(lane: number, next: Column): boolean {
    if (!this.isOpen(lane) || this.change(lane, next) <= EPS) return false;
    this.take(lane, next);
    return true;
  }

  /** Goes to another place on a night: what was planned at the one before is given up. */
  go(choice: number, place: number): void {
    for (const l of this.choices[choice]!.places[this.at[choice]!]?.lanes ?? []) if (this.isFree(l)) this.take(l, IDLE);
    this.at[choice] = place;
  }

  /** Starts over from given programmes: nights are spent where most of theirs is done. */
  restart(columns: readonly Column[]): void {
    this.choices.forEach(({ places }, c) => {
      if (places.some((p) => p.lanes.some((l) => !this.isFree(l) && this.chosen[l] !== IDLE))) return;
      const busy = places.findIndex((p) => p.lanes.some((l) => columns[l] && columns[l] !== IDLE));
      if (busy !== -1) this.at[c] = busy;
    });
    this.chosen = columns.map((c, l) => (!this.isFree(l) ? this.chosen[l]! : this.isOpen(l) ? c : IDLE));
    this.yields.fill(0);
    for (const c of this.chosen) this.add(c, 1);
  }
}
