import { clamp } from "~/core/units";

/** A forecast as odds, and what came: 1 = usable, 0 = not. */
export interface Scored {
  readonly odds: number;
  readonly outcome: 0 | 1;
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;

/** Brier score, mean (p − o)²: 0 perfect, 1 always wrong; NaN for none. Brier 1950, Mon. Weather Rev. 78, 1. */
export const brierScore = (scored: readonly Scored[]): number =>
  mean(scored.map(({ odds, outcome }) => (odds - outcome) ** 2));

/** The parts of a Brier score over forecasts of few distinct odds: reliability − resolution + uncertainty. */
export interface BrierParts {
  readonly reliability: number;
  readonly resolution: number;
  readonly uncertainty: number;
}

/** Splits a Brier score by its distinct odds: Murphy 1973, J. Appl. Meteorol. 12, 595. Exact, without binning. */
export function brierParts(scored: readonly Scored[]): BrierParts {
  const base = mean(scored.map((s) => s.outcome));
  const groups = new Map<number, number[]>();
  for (const s of scored) groups.set(s.odds, [...(groups.get(s.odds) ?? []), s.outcome]);
  let [reliability, resolution] = [0, 0];
  for (const [odds, outcomes] of groups) {
    const share = outcomes.length / scored.length;
    const seen = mean(outcomes);
    reliability += share * (odds - seen) ** 2;
    resolution += share * (seen - base) ** 2;
  }
  return { reliability, resolution, uncertainty: base * (1 - base) };
}

/** Skill against a score of climatology, 1 − BS/BS_clim: 1 perfect, 0 no better, negative worse. */
export const brierSkill = (score: number, climatology: number): number => 1 - score / climatology;

/** Forecasts of like odds, and how often such hours were usable. */
export interface ReliabilityBin {
  readonly hours: number;
  /** Mean of the odds told, [0, 1]. */
  readonly told: number;
  /** Share of those hours that were usable, [0, 1]. */
  readonly seen: number;
}

/** Forecasts sorted into `count` equal bins of odds; empty bins are left out. Told and seen agree for a reliable source. */
export function reliabilityBins(scored: readonly Scored[], count: number): ReliabilityBin[] {
  const bins = Array.from({ length: count }, (): Scored[] => []);
  for (const s of scored) bins[Math.min(count - 1, Math.floor(s.odds * count))]!.push(s);
  return bins
    .filter((bin) => bin.length > 0)
    .map((bin) => ({ hours: bin.length, told: mean(bin.map((s) => s.odds)), seen: mean(bin.map((s) => s.outcome)) }));
}

const PRIOR_HOURS = 20; // logged hours that a source's own record needs to count as much as the prior

/** A source's record here: hours scored, and its Brier score over them (anything when none). */
export interface TrackRecord {
  readonly hours: number;
  readonly brier: number;
}

/** A source's score drawn towards climatology's while few hours are logged: (n·BS + 20·BS_clim)/(n + 20), a proposal of this project. */
export const shrunkBrier = (record: TrackRecord, climatologyBrier: number): number =>
  ((record.hours > 0 ? record.hours * record.brier : 0) + PRIOR_HOURS * climatologyBrier) /
  (record.hours + PRIOR_HOURS);

/** Odds of several sources made one. */
export interface Pooled {
  /** Weights by source, summing to 1: 1/BS'. */
  readonly weights: readonly number[];
  readonly linear: number;
  /** Pooled as log-odds, clipped to 0.02–0.98 first. */
  readonly logOdds: number;
  /** Weighted standard deviation of the sources' odds: how much they disagree. Sources share models: agreement is no proof. */
  readonly spread: number;
}

/** Pools odds with weights 1/BS'. RangeError without any. */
export function poolOdds(
  sources: readonly { readonly odds: number; readonly record: TrackRecord }[],
  climatologyBrier: number,
): Pooled {
  if (sources.length === 0) throw new RangeError("nothing to pool");
  const raw = sources.map((s) => 1 / Math.max(1e-6, shrunkBrier(s.record, climatologyBrier)));
  const total = raw.reduce((a, b) => a + b, 0);
  const weights = raw.map((w) => w / total);
  const weighted = (of: (odds: number) => number) => sources.reduce((sum, s, i) => sum + weights[i]! * of(s.odds), 0);
  const linear = weighted((p) => p);
  const logit = weighted((p) => {
    const q = clamp(p, 0.02, 0.98);
    return Math.log(q / (1 - q));
  });
  return {
    weights,
    linear,
    logOdds: 1 / (1 + Math.exp(-logit)),
    spread: Math.sqrt(weighted((p) => (p - linear) ** 2)),
  };
}
