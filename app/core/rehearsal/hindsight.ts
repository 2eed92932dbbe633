import { playNight } from "./play";
import type { Decision, NightBrought, Played, RehearsalNight, WayKey } from "./question";

/** What a night is worth to whoever spends it, min: exposure kept, a tenth of the darks (as under cloud beside the mount), and time up as the tie-break. */
export const worthOf = ({ keptMin, darksMin, upMin }: NightBrought): number => keptMin + darksMin / 10 - upMin / 10_000;

/** One decision of a night that was played, and what other ways would have brought. */
export interface Judged {
  readonly decision: Decision;
  readonly does: WayKey;
  /** What the whole night brought as it was played. */
  readonly yours: NightBrought;
  /** Had the app's advice been taken from here on. */
  readonly advice: NightBrought;
  readonly advised: WayKey;
  /** The best that was found knowing the night, from here on. */
  readonly best: NightBrought;
  readonly bestWay: WayKey;
}

const MOST_PLAYS = 240; // of one search: more ways than a night has that is not hopeless

/** The best way on from given ones, as far as so many plays find it: every way at each of the next decisions, the advice afterwards. */
function bestFrom(
  night: RehearsalNight,
  seed: number,
  given: readonly WayKey[],
  most: number,
): { best: NightBrought; ways: readonly WayKey[] } {
  let [left, best, ways]: [number, NightBrought | null, readonly WayKey[]] = [most, null, given];
  // By breadth: what is decided first matters most.
  const open: (readonly WayKey[])[] = [given];
  while (open.length > 0 && left > 0) {
    const so = open.shift()!;
    left--;
    const played = playNight(night, seed, { ways: so, then: "advice" });
    if (best === null || worthOf(played.brought) > worthOf(best)) [best, ways] = [played.brought, played.decided.map((d) => d.does)]; // prettier-ignore
    const at = played.decided[so.length];
    if (at) for (const way of at.decision.ways) open.push([...so, way.does]);
  }
  return { best: best!, ways };
}

/** Judges a night that was played to its end, decision by decision; hears of each as it is done and may stop it. */
export function* hindsight(night: RehearsalNight, seed: number, played: Played): Generator<Judged> {
  const ways = played.decided.map((d) => d.does);
  for (const [i, { decision, does }] of played.decided.entries()) {
    const given = ways.slice(0, i);
    const advice = playNight(night, seed, { ways: given, then: "advice" });
    const found = bestFrom(night, seed, given, MOST_PLAYS);
    const yours = played.brought;
    const isYours = worthOf(yours) >= worthOf(found.best);
    yield {
      decision,
      does,
      yours,
      advice: advice.brought,
      advised: advice.decided[i]!.does,
      best: isYours ? yours : found.best,
      bestWay: isYours ? does : found.ways[i]!,
    };
  }
}

/** How a way did over several nights that could have been. */
export interface WayRecord {
  readonly does: WayKey;
  /** Nights on which it was open. */
  readonly nights: number;
  /** Those in which it brought at least as much as every other way. */
  readonly bestIn: number;
  readonly meanKeptMin: number;
  readonly meanUpMin: number;
}

/**
 * The first decision under cloud over so many seeds in a row, each way of it tried and the advice followed afterwards: how often to wait
 * beats packing up here. Nights without cloud are left out; null where none had any.
 */
export function overSeeds(
  night: RehearsalNight,
  seeds: readonly number[],
): { readonly nights: number; readonly ways: readonly WayRecord[] } | null {
  const tries = seeds.flatMap((seed) => {
    const plain = playNight(night, seed, { ways: [], then: "advice" });
    const i = plain.decided.findIndex((d) => d.decision.trouble.about === "cloud");
    if (i < 0) return [];
    const before = plain.decided.slice(0, i).map((d) => d.does);
    return [
      plain.decided[i]!.decision.ways.map(({ does }) => ({
        does,
        brought: playNight(night, seed, { ways: [...before, does], then: "advice" }).brought,
      })),
    ];
  });
  if (tries.length === 0) return null;
  const kinds = [...new Set(tries.flatMap((t) => t.map((w) => w.does)))];
  const ways = kinds.map((does): WayRecord => {
    const mine = tries.flatMap((t) => t.filter((w) => w.does === does));
    const mean = (of: (b: NightBrought) => number) => mine.reduce((sum, w) => sum + of(w.brought), 0) / mine.length;
    const isBest = (t: (typeof tries)[number]) => {
      const own = t.find((w) => w.does === does);
      return own !== undefined && t.every((w) => worthOf(own.brought) >= worthOf(w.brought) - 0.01);
    };
    return { does, nights: mine.length, bestIn: tries.filter(isBest).length, meanKeptMin: mean((b) => b.keptMin), meanUpMin: mean((b) => b.upMin) }; // prettier-ignore
  });
  return {
    nights: tries.length,
    ways: ways.sort((a, b) => b.meanKeptMin - a.meanKeptMin || a.meanUpMin - b.meanUpMin),
  };
}
