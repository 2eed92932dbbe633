import { columnOf } from "./columns";
import { IDLE, type Block, type Column, type Programme } from "./model";
import { slopeAt, valueOf } from "./reward";
import type { Season } from "./state";

const EPS = 1e-9;

/** Prices of what is still open, as seen by a lane: the secant over what it gives now, else the slope. */
export function marginal(season: Season, lane: number, out: Float64Array): Float64Array {
  const { jobs } = season.task;
  const own = season.chosen[lane]!;
  jobs.forEach(({ reward }, k) => (out[k] = slopeAt(reward, season.yields[k]!)));
  own.jobs.forEach((k, j) => {
    const given = own.yields[j]!;
    if (given <= EPS) return;
    const { reward } = jobs[k]!;
    const y = season.yields[k]!;
    out[k] = (valueOf(reward, y) - valueOf(reward, y - given)) / given;
  });
  return out;
}

/** Nights in order, each lane by the best programme at the prices of what is still open, at the place where that is most. */
export function firstPlan(season: Season): void {
  season.choices.forEach(({ places }, choice) => {
    if (places.length > 1) moveNight(season, choice);
    else for (const lane of places[0]!.lanes) bestNow(season, lane);
  });
}

/** Every lane once more, at prices as it sees them. */
export function improve(season: Season): void {
  season.tables.forEach((_, lane) => bestNow(season, lane));
}

function bestNow(season: Season, lane: number): void {
  if (!season.isOpen(lane)) return;
  const column = season.bestAt(lane, marginal(season, lane, new Float64Array(season.task.jobs.length)));
  season.keep(lane, column);
  season.offer(lane, column);
}

/** Spends a night at the place where it brings most, all else as it is. */
function moveNight(season: Season, choice: number): void {
  const { places } = season.choices[choice]!;
  if (places.some((p) => p.lanes.some((l) => !season.isFree(l) && season.chosen[l] !== IDLE))) return;
  const before = { place: season.at[choice]!, chosen: [...season.chosen] };
  const worth = season.value();
  let best = { place: before.place, value: worth, chosen: before.chosen };
  for (let p = 0; p < places.length; p++) {
    season.go(choice, p);
    for (const lane of places[p]!.lanes) if (season.isFree(lane)) takeBest(season, lane);
    const value = season.value();
    if (value > best.value + EPS) best = { place: p, value, chosen: [...season.chosen] };
    season.go(choice, p); // gives up what was tried
  }
  season.at[choice] = best.place;
  for (const { lanes } of places)
    for (const l of lanes) if (season.chosen[l] !== best.chosen[l]) season.take(l, best.chosen[l]!);
}

/** The best of a lane, whatever going there costs. */
function takeBest(season: Season, lane: number): void {
  const column = season.bestAt(lane, marginal(season, lane, new Float64Array(season.task.jobs.length)));
  season.keep(lane, column);
  season.take(lane, column);
}

/** Every night that could be spent at several places, once. */
export function movePass(season: Season): void {
  season.choices.forEach(({ places }, choice) => (places.length > 1 ? moveNight(season, choice) : undefined));
}

/** Every programme of every pool, as long as one gains. */
export function poolPass(season: Season, passes = 3): void {
  for (let pass = 0; pass < passes; pass++) {
    let isBetter = false;
    season.pools.forEach((pool, lane) => {
      if (!season.isOpen(lane)) return;
      let best: Column | null = null;
      let most = EPS;
      for (const column of pool) {
        const gain = season.change(lane, column);
        if (gain > most) {
          most = gain;
          best = column;
        }
      }
      if (best) {
        season.take(lane, best);
        isBetter = true;
      }
    });
    if (!isBetter) return;
  }
}

/** Small changes of a programme: ends of blocks moved, boundaries shifted, a block dropped or handed to another job. */
function* variants(blocks: Programme, wanted: readonly number[]): Generator<Programme> {
  const withBlock = (i: number, block: Block) => blocks.map((b, j) => (j === i ? block : b));
  for (let i = 0; i < blocks.length; i++) {
    const [job, from, to] = blocks[i]!;
    for (const d of [-2, -1, 1, 2]) yield withBlock(i, [job, from + d, to]);
    for (const d of [-2, -1, 1, 2]) yield withBlock(i, [job, from, to + d]);
    for (const d of [-1, 1]) yield withBlock(i, [job, from + d, to + d]);
    const next = blocks[i + 1];
    if (next)
      for (const d of [-3, -2, -1, 1, 2, 3])
        yield blocks.map((b, j) => (j === i ? [job, from, to + d] : j === i + 1 ? [next[0], next[1] + d, next[2]] : b));
    yield blocks.filter((_, j) => j !== i);
    for (const k of wanted) if (k !== job) yield withBlock(i, [k, from, to]);
  }
}

/** Small changes of every lane, as long as one gains. */
export function polish(season: Season, passes = 2): void {
  for (let pass = 0; pass < passes; pass++) {
    let isBetter = false;
    season.tables.forEach((table, lane) => {
      if (!season.isOpen(lane)) return;
      const wanted = [...table.jobs].filter((k) => slopeAt(season.task.jobs[k]!.reward, season.yields[k]!) > 0);
      for (const blocks of variants(season.chosen[lane]!.blocks, wanted)) {
        if (!columnOf(season.task, table, blocks)) continue;
        const column = season.column(lane, blocks);
        if (!column || !season.offer(lane, column)) continue;
        season.keep(lane, column);
        isBetter = true;
        break;
      }
    });
    if (!isBetter) return;
  }
}

/** Each lane's heaviest programme, or one drawn by its weight; of the places of a night the heaviest, or one drawn. */
export function rounded(
  season: Season,
  weights: readonly Float64Array[],
  shares: readonly Float64Array[],
  random: (() => number) | null,
): Column[] {
  const draw = (w: ArrayLike<number>): number => {
    let at = 0;
    if (!random) {
      for (let i = 1; i < w.length; i++) if (w[i]! > w[at]!) at = i;
      return at;
    }
    let left = random();
    for (let i = 0; i < w.length; i++) if ((left -= w[i]!) <= 0) return i;
    return 0;
  };
  const out: Column[] = season.pools.map(() => IDLE);
  season.choices.forEach(({ places }, c) => {
    for (const lane of places[draw(shares[c]!)]!.lanes) out[lane] = season.pools[lane]![draw(weights[lane]!)]!;
  });
  return out;
}
