import { groupBy, median, percentile, SIGMA_PER_MAD } from "~/core/numeric";
import type { SubLimits } from "~/core/exposure";
import type { ContributionData, CullReason, KeptBefore, SubMeasure } from "./contribution";

/** How far off the middle each value is, in robust standard deviations, (x − median)/(1.4826 MAD); null where more than half are alike. */
export function robustZ(
  values: readonly number[],
): { readonly median: number; readonly sigma: number; readonly z: readonly number[] } | null {
  if (values.length === 0) return null;
  const centre = median(values);
  const sigma = SIGMA_PER_MAD * median(values.map((v) => Math.abs(v - centre)));
  return sigma > 0 ? { median: centre, sigma, z: values.map((v) => (v - centre) / sigma) } : null;
}

/** One sub as culling looks at it. */
export interface CullSub {
  readonly id: string;
  readonly data: ContributionData;
}

/** Why a sub stands out from its like, and by how much. */
export interface CullHint {
  readonly id: string;
  readonly what: "fwhmPx" | "eccentricity" | "background" | "stars" | "light";
  readonly reason: CullReason;
  readonly value: number;
  /** What it is held against: the middle of its like, or its owner's own limit. */
  readonly against: { readonly kind: "like" | "limit"; readonly value: number };
  /** Robust standard deviations; of stars and their light, their share of the middle; of a limit, the share of it. */
  readonly by: number;
}

const FAR = 3; // common practice, no source
const FEW_STARS = 0.7;
const LITTLE_LIGHT = 0.75; // more than air takes between 60° and 35° of altitude
const SHARED = 0.7; // of an eccentricity, as the whole picture has it: the mount, not the optics
const LEAST_SUBS = 10; // fewer say nothing about one another
const REASONS = { fwhmPx: "seeing", eccentricity: "guiding", background: "light", stars: "cloud" } as const;

/** Subs that compare: one project, channel, rig, panel and sub length of a night. */
export const likeKey = ({ projectId, channel, rigId, panel, exposureSec, night }: ContributionData): string =>
  [projectId, channel, rigId, panel, exposureSec, night].join("|");

/** Stars long one way all over the picture were drawn out by the mount; long every way, by focus or tilt. */
const longReason = ({ eccentricity, shared }: SubMeasure): CullReason =>
  shared === undefined || eccentricity === null || shared >= SHARED * eccentricity ? "guiding" : "focus";

/** How a measure is against its owner's limit: above 1 = over it; null where one of them is not known. */
function overLimit(what: keyof SubLimits, { [what]: value }: SubMeasure, limit: number | undefined): number | null {
  if (value === null || limit === undefined) return null;
  if (what === "stars") return value > 0 ? limit / value : Infinity;
  return limit > 0 ? value / limit : Infinity;
}

const LIMITED = ["background", "eccentricity", "fwhmPx", "stars"] as const;

/** Subs over their owner's own limits; of several limits the plainest: stars, width, shape, sky. */
function limitHints(subs: readonly CullSub[], limitsOf: (rigId: string) => SubLimits | undefined): CullHint[] {
  return subs.flatMap(({ id, data: { rigId, measure } }) => {
    const limits = limitsOf(rigId);
    if (!measure || !limits) return [];
    const over = LIMITED.flatMap((what): CullHint[] => {
      const by = overLimit(what, measure, limits[what]);
      if (by === null || by <= 1) return [];
      const reason = what === "eccentricity" ? longReason(measure) : REASONS[what];
      return [{ id, what, reason, value: measure[what]!, against: { kind: "limit", value: limits[what]! }, by }];
    });
    return over.slice(-1);
  });
}

/** Subs of which one measure is known, and the middle of it. */
function withMiddle(group: readonly CullSub[], what: "stars" | "light") {
  const known = group.flatMap(({ id, data }) => {
    const value = data.measure?.[what];
    return value == null ? [] : { id, value };
  });
  return { known, usual: known.length < LEAST_SUBS ? 0 : median(known.map((k) => k.value)) };
}

/**
 * Subs that stand out among their like: wider, longer or brighter by more than 3 robust standard deviations, with less than 70 % of
 * the stars, or with stars less than 75 % as bright, which is cloud (MATHS 10.4, 10.5). Only of ten or more. The sky's brightness
 * follows altitude and Moon too, so it is told last. One hint a sub, the plainest first: over its owner's own limit, light, stars,
 * width, shape, sky.
 */
export function cullHints(
  subs: readonly CullSub[],
  limitsOf: (rigId: string) => SubLimits | undefined = () => undefined,
): CullHint[] {
  const groups = groupBy(
    subs.filter((s) => s.data.measure !== undefined),
    (s) => likeKey(s.data),
  );
  const hints = new Map<string, CullHint>();
  for (const group of groups.values()) {
    if (group.length < LEAST_SUBS) continue;
    for (const what of ["background", "eccentricity", "fwhmPx"] as const) {
      const known = group.filter((s) => s.data.measure![what] !== null);
      if (known.length < LEAST_SUBS) continue;
      const found = robustZ(known.map((s) => s.data.measure![what]!));
      found?.z.forEach((z, i) => {
        const { id, data } = known[i]!;
        const measure = data.measure!;
        const reason = what === "eccentricity" ? longReason(measure) : REASONS[what];
        if (z > FAR)
          hints.set(id, { id, what, reason, value: measure[what]!, against: { kind: "like", value: found.median }, by: z }); // prettier-ignore
      });
    }
    for (const [what, least] of [
      ["stars", FEW_STARS],
      ["light", LITTLE_LIGHT],
    ] as const) {
      const { known, usual } = withMiddle(group, what);
      for (const { id, value } of known)
        if (usual > 0 && value < least * usual)
          hints.set(id, {
            id,
            what,
            reason: "cloud",
            value,
            against: { kind: "like", value: usual },
            by: value / usual,
          });
    }
  }
  for (const hint of limitHints(subs, limitsOf)) hints.set(hint.id, hint);
  return [...hints.values()];
}

/** What dropping subs costs. */
export interface CullPrice {
  readonly subs: number;
  readonly hours: number;
  /** Of the signal to noise of those that compare, by their count: √ of what is kept. */
  readonly snr: number;
  /** The same with every sub weighed by 1/(background × FWHM²), for stars; null where not all are measured. */
  readonly snrOfStars: number | null;
}

/** 1/(background × FWHM²), of stars on a sky that sets the noise; null where it was not measured. MATHS 10.4. */
export function pointWeight(measure: SubMeasure | undefined): number | null {
  if (!measure || measure.background === null || !(measure.background > 0)) return null;
  return 1 / (measure.background * measure.fwhmPx ** 2);
}

/** The price of dropping some of the subs that are kept. */
export function cullPrice(kept: readonly CullSub[], dropped: ReadonlySet<string>): CullPrice {
  const gone = kept.filter((s) => dropped.has(s.id));
  const seconds = (list: readonly CullSub[]) => list.reduce((sum, s) => sum + s.data.kept * s.data.exposureSec, 0);
  const all = seconds(kept);
  const weights = kept.map((s) => ({ id: s.id, w: pointWeight(s.data.measure) }));
  const isKnown = weights.length > 0 && weights.every((x) => x.w !== null);
  const sum = (list: typeof weights) => list.reduce((total, x) => total + x.w!, 0);
  return {
    subs: gone.length,
    hours: seconds(gone) / 3600,
    snr: all > 0 ? Math.sqrt((all - seconds(gone)) / all) : 1,
    snrOfStars: isKnown ? Math.sqrt(sum(weights.filter((x) => !dropped.has(x.id))) / sum(weights)) : null,
  };
}

/** Ids of subs that were open at some time between two instants. */
export const subsBetween = (subs: readonly CullSub[], fromMs: number, toMs: number): string[] =>
  subs.flatMap(({ id, data }) =>
    data.startMs !== null && data.startMs < toMs && data.startMs + data.exposureSec * 1000 > fromMs ? [id] : [],
  );

/** States of an entry that are kept; of more the oldest go. */
export const MOST_STATES = 30;

/** An entry with another count kept; what it was before stays in its history. The same entry where nothing changes. */
export function withKept(
  data: ContributionData,
  kept: number,
  reason: CullReason | "",
  nowMs: number,
): ContributionData {
  const why = kept < data.taken ? reason || "other" : "";
  if (kept === data.kept && why === data.reason) return data;
  const before: KeptBefore = { untilMs: nowMs, kept: data.kept, reason: data.reason };
  return { ...data, kept, reason: why, history: [...(data.history ?? []), before].slice(-MOST_STATES) };
}

/** How many of some entries were kept after each look: 15, then 11, then 7. */
export function keptHistory(
  entries: readonly Pick<ContributionData, "kept" | "history">[],
): { readonly untilMs: number | null; readonly kept: number }[] {
  const times = [...new Set(entries.flatMap((e) => (e.history ?? []).map((h) => h.untilMs)))].sort((a, b) => a - b);
  const at = (e: Pick<ContributionData, "kept" | "history">, ms: number) =>
    e.history?.find((h) => h.untilMs >= ms)?.kept ?? e.kept;
  const states = [
    ...times.map((untilMs) => ({ untilMs, kept: entries.reduce((sum, e) => sum + at(e, untilMs), 0) })),
    { untilMs: null, kept: entries.reduce((sum, e) => sum + e.kept, 0) },
  ];
  return states.filter((s, i) => i === 0 || s.kept !== states[i - 1]!.kept);
}

/** The middle and the best tenth of a measure over subs; null without any. */
export function measureSummary(
  subs: readonly CullSub[],
  what: "fwhmPx" | "eccentricity" | "stars" | "background",
): { readonly median: number; readonly best: number } | null {
  const values = subs.flatMap((s) => s.data.measure?.[what] ?? []);
  return values.length === 0 ? null : { median: median(values), best: percentile(values, 0.1) };
}
