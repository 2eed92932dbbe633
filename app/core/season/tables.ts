import { equivalentHours, underSky, type Overheads } from "~/core/exposure";
import { placeNight, targetNight, withMoon, type MoonWishes, type PlaceNight } from "~/core/night";
import { nextTransitMs } from "~/core/sky";
import { addNights, HOUR_MS, MINUTE_MS, utcMs, type NightDate, type UtcInterval, type UtcMs } from "~/core/time";
import type { Block, Lane, SeasonJob } from "./model";
import { capReward } from "./reward";
import type { SeasonProject, HourOdds, SeasonRequest, SeasonLane, SeasonTables } from "./request";
import { isShort, plannedWants, type PlannedWant } from "./wants";

/** Rigs at their place, and the jobs that are theirs. */
interface Stand {
  readonly mine: readonly boolean[];
  readonly placeId: string;
  readonly rigIds: readonly string[];
  readonly moon: MoonWishes;
  /** Where they are taken to; null = they stay. */
  readonly away: string | null;
}

/** Slots of a season: five steps of a night. */
export const SLOT_MIN = 15;
const SLOT_MS = SLOT_MIN * MINUTE_MS;
/** Minutes at their best that a block costs by itself: of two like plans the one with fewer changes; a proposal of this project. */
const TICK = 0.5;
/** What a minute costs at the end of a season, as a share of its priority: of two like nights the earlier one (PLAN.md 8.2, tried). */
const LATENESS = 0.1;
/** What a minute of no worth costs where every minute kept counts the same, as a share of its priority (PLAN.md 8.10, tried). */
const POOR_LIGHT = 0.15;
const HALF_TURN_MS = 43_082_045; // half a sidereal day
const LEAST_LEFT = 0.1; // of a slot with a flip in it: it stays usable
const LEAST_ODDS = 0.05; // no forecast is surer than that; what a clouded night would be used for stays known

/** What forecasts make of the slots of a night: the chance of the night, and by slot the share of it. */
function pooled(
  hours: readonly HourOdds[] | null,
  chance: number,
  at: { readonly startMs: UtcMs; readonly isUsed: readonly boolean[] },
): { readonly chance: number; readonly share: ((slot: number) => number) | null } {
  const first = hours?.[0];
  if (!hours || !first) return { chance, share: null };
  const oddsOf = (slot: number) => {
    const hour = Math.floor((at.startMs + (slot + 0.5) * SLOT_MS - first.atMs) / HOUR_MS);
    return Math.max(LEAST_ODDS, hours[hour]?.odds ?? chance);
  };
  const odds = at.isUsed.flatMap((is, slot) => (is ? [oddsOf(slot)] : []));
  const mean = odds.length > 0 ? odds.reduce((a, b) => a + b, 0) / odds.length : Math.max(LEAST_ODDS, chance);
  return { chance: mean, share: (slot) => oddsOf(slot) / mean };
}

/** The run of slots, at most so many, in which most is to be had. */
function bestRun(
  worth: readonly (readonly number[])[],
  charge: readonly (readonly number[])[],
  most: number,
): readonly [from: number, to: number] {
  const best = worth.map((slot, s) => Math.max(0, ...slot.map((w, k) => w - charge[s]![k]!)));
  let [from, sum] = [0, 0];
  let top = -1;
  for (let s = 0; s < best.length; s++) {
    sum += best[s]! - (s >= most ? best[s - most]! : 0);
    if (sum > top + 1e-9) [top, from] = [sum, Math.max(0, s - most + 1)];
  }
  return [from, from + most];
}

/**
 * The tables of a season: for every rig at its place and every night, what each slot is worth to each project and channel when it
 * is clear. Sky and channels of a night are made once a place and shared. Judged at a project's centre: panels of a mosaic are one
 * job. `onNight` hears of each night done.
 */
export function seasonTables(request: SeasonRequest, onNight?: (done: number) => void): SeasonTables {
  const { projects, rigs, places } = request;
  const overheadsOf = new Map(rigs.map((r) => [r.id, r.overheads]));
  const open = projects.flatMap((project, number) =>
    plannedWants(project, overheadsOf.get(project.rigId)).map((want) => ({ project, number, want })),
  );
  const slotsFor = (minutes: number) => Math.max(1, Math.ceil(minutes / SLOT_MIN));
  /** A short set is no target of its own: a stretch of it may be as short as what it takes. */
  const leastOf = (own: number | undefined, want: PlannedWant) => {
    const usual = own ?? request.minBlockMin;
    const least = isShort(want) ? Math.min(usual, want.remainingMin / want.efficiency) : usual;
    return least === request.minBlockMin ? {} : { minSlots: slotsFor(least), leastMin: least };
  };
  const jobs: SeasonJob[] = open.map(({ project, number, want }) => ({
    project: number,
    reward: capReward(want.remainingMin, project.priority),
    need: want.remainingMin,
    priority: project.priority,
    ...leastOf(project.leastMin, want),
    ...(isShort(want) ? { isAhead: true } : {}),
  }));
  const flipMinOf = new Map(rigs.map((r) => [r.id, r.flips ? r.overheads.flipMin + r.overheads.focusMin : 0]));
  const lanes: SeasonLane[] = [];
  const rows: Lane[] = [];
  // A rig stands where its projects say; one that is used at two places is two lanes.
  const standOf = (p: SeasonProject, rigId: string) => (request.isOneRig ? p.placeId : `${rigId}\n${p.placeId}`);
  const rigsOf = (p: SeasonProject) => [p.rigId, ...(p.alsoRigs ?? [])];
  const stands = open.map(({ project }) => new Map(rigsOf(project).map((id) => [standOf(project, id), id])));
  const homes = [...new Set(stands.flatMap((s) => [...s.keys()]))].map((stand): Stand => {
    const mine = stands.map((s) => s.has(stand));
    const used = open.filter((_, k) => mine[k]).map((o) => o.project);
    return {
      mine,
      placeId: used[0]!.placeId,
      rigIds: [...new Set(stands.flatMap((s) => s.get(stand) ?? []))],
      moon: used[0]!.moon,
      away: null,
    };
  });
  const lanesOf = homes.flatMap((home) => [
    home,
    ...(request.drives ?? []).filter((id) => id !== home.placeId).map((away) => ({ ...home, away })),
  ]);
  for (let n = 0; n < request.nights; n++) {
    const date = addNights(request.from, n);
    const skies = new Map<string, PlaceNight>();
    for (const { mine, placeId: homeId, rigIds, moon, away } of lanesOf) {
      const placeId = away ?? request.standsAt?.(homeId, date) ?? homeId;
      const place = places.find((p) => p.id === placeId)?.place;
      const home = places.find((p) => p.id === homeId)?.place;
      if (!place || !home) continue;
      const [skyHere, skyThere] = [home.skyMagPerArcsec2, place.skyMagPerArcsec2];
      const night = skies.get(placeId) ?? request.nightOver?.(placeId, date, moon) ?? placeNight(place, date, moon);
      skies.set(placeId, night);
      const { steps } = night;
      const slotOf = (i: number) => Math.floor((steps.startMs + (i + 0.5) * steps.stepMin * MINUTE_MS) / SLOT_MS);
      const [from, to] = steps.count > 0 ? [slotOf(0), slotOf(steps.count - 1) + 1] : [0, 0];
      const table = () => Array.from({ length: to - from }, () => new Uint8Array(open.length));
      const [usableMin, fromMin, toMin] = [table(), table(), table()];
      const worth = Array.from({ length: to - from }, () => open.map(() => 0));
      const charge = Array.from({ length: to - from }, () => open.map(() => 0));
      const within = request.within?.(placeId, date) ?? null;
      const [earliest, latest] = [within?.startMs ?? 0, within?.endMs ?? Number.MAX_SAFE_INTEGER];
      if (request.isFree(date))
        open.forEach(({ project, want }, k) => {
          if (!mine[k] || (project.deadline !== undefined && date > project.deadline)) return;
          const channels = want.parts.map((p) => p.want.channel);
          if (request.mayShoot && !request.mayShoot(project.id, away ?? homeId, date, channels)) return;
          if (want.parts.some((p) => p.want.onlyAt !== undefined && p.want.onlyAt !== placeId)) return;
          const inRun = project.clearRun === undefined ? 1 : (request.runShare?.(project, placeId, date) ?? 1);
          if (inRun <= 0) return;
          const over = withMoon(night, project.moon);
          const isKept = project.counts === "kept" || isShort(want);
          const stepMin = inRun * steps.stepMin * want.efficiency;
          const parts = want.parts.map(({ want: w, share }) => {
            const { walk, windows, ofDate } = targetNight(
              over,
              project.target,
              w.channel,
              w.own && underSky(w.own, skyHere, skyThere),
            );
            // Where no sub fits, nothing can be shot.
            const long = windows.filter((x) => x.endMs - x.startMs >= w.subSec * 1000);
            return {
              walk,
              long,
              ofDate,
              share,
              quality: equivalentHours(skyThere, skyHere, w.own) / (w.bestRate ?? 1),
            };
          });
          for (let i = 0; i < steps.count; i++) {
            const startMs = steps.startMs + i * steps.stepMin * MINUTE_MS;
            if (startMs < earliest || startMs + steps.stepMin * MINUTE_MS > latest) continue;
            // Worth of a minute over one at the target's best.
            let light = 0;
            for (const { walk, long, share, quality } of parts) {
              const is = walk.worth[i]! > 0 && long.some((w) => w.startMs <= startMs && startMs < w.endMs);
              if (!is) {
                light = 0;
                break;
              }
              light += walk.worth[i]! * share * quality;
            }
            if (!(light > 0)) continue;
            const slot = slotOf(i) - from;
            const minute = Math.round(startMs / MINUTE_MS - (slot + from) * SLOT_MIN);
            worth[slot]![k]! += isKept ? stepMin : light * stepMin;
            if (isKept && !isShort(want))
              charge[slot]![k]! += POOR_LIGHT * project.priority * stepMin * Math.max(0, 1 - light);
            if (usableMin[slot]![k] === 0) fromMin[slot]![k] = Math.max(0, minute);
            usableMin[slot]![k]! += steps.stepMin;
            toMin[slot]![k] = Math.min(SLOT_MIN, minute + steps.stepMin);
          }
          // A flip takes its time out of the slot in which it falls due.
          const flipMin = Math.max(0, ...rigIds.map((id) => flipMinOf.get(id) ?? 0));
          if (flipMin > 0) {
            const passage = nextTransitMs(night.sky, parts[0]!.ofDate);
            const endMs = steps.startMs + steps.count * steps.stepMin * MINUTE_MS;
            const before = Math.ceil((steps.startMs - passage) / HALF_TURN_MS);
            for (let ms = passage + before * HALF_TURN_MS; ms < endMs; ms += HALF_TURN_MS) {
              const row = worth[Math.floor(ms / SLOT_MS) - from];
              if (row && row[k]! > 0) row[k]! *= Math.max(LEAST_LEFT, 1 - flipMin / SLOT_MIN);
            }
          }
        });
      const [first, last] =
        request.mostHours === undefined
          ? [0, worth.length]
          : bestRun(worth, charge, Math.max(1, request.mostHours * (60 / SLOT_MIN)));
      worth.forEach((slot, s) => (s < first || s >= last ? slot.fill(0) : undefined));
      const startMs = utcMs(from * SLOT_MS);
      const isUsed = worth.map((slot) => slot.some((w) => w > 0));
      const weather = pooled(request.hoursOf?.(placeId, date) ?? null, request.chanceOf(placeId, date), {
        startMs,
        isUsed,
      });
      lanes.push({ night: date, placeId, rigIds, startMs, worth, usableMin, fromMin, toMin });
      rows.push({
        chance: weather.chance,
        worth: weather.share === null ? worth : worth.map((slot, s) => slot.map((w) => w * weather.share!(s))),
        clear: worth,
        minutes: usableMin,
        lateness: (LATENESS * n) / Math.max(1, request.nights),
        charge,
      });
    }
    onNight?.(n + 1);
  }
  firstThings(open, lanes, rows);
  const set = rigs.map((r) => r.overheads);
  const most = (of: (o: Overheads) => number) => Math.min(SLOT_MIN, Math.max(0, ...set.map(of)));
  return {
    lanes,
    jobs: open.map(({ project, want }) => ({
      projectId: project.id,
      channel: want.channel,
      subSec: want.subSec,
      needMin: want.remainingMin,
      efficiency: want.efficiency,
      ...(want.turn ? { turn: want.turn } : {}),
      ...(isShort(want) ? { isShort: true } : {}),
    })),
    task: {
      slotMin: SLOT_MIN,
      targetsANight: request.targetsANight,
      minSlots: slotsFor(request.minBlockMin),
      leastMin: request.minBlockMin,
      lostMin: {
        start: most((o) => o.focusMin + o.panelChangeSec / 60),
        target: most((o) => o.panelChangeSec / 60 + o.focusMin + o.filterChangeSec / 60),
        filter: most((o) => o.filterChangeSec / 60 + o.focusMin),
      },
      tick: TICK,
      jobs,
      lanes: rows,
    },
  };
}

/**
 * Where one channel of a project is to be done before the others, these have no time until it can be: up to the night by which it is
 * done in expectation if every night it is usable on goes to it. Planned anew after each night, so that clouds put it off.
 */
function firstThings(
  open: readonly { readonly project: SeasonProject; readonly want: PlannedWant }[],
  lanes: readonly SeasonLane[],
  rows: readonly Lane[],
): void {
  for (const project of new Set(open.map((o) => o.project))) {
    const { first } = project;
    if (first === undefined) continue;
    const of = (is: boolean) =>
      open.flatMap((o, k) => (o.project === project && (o.want.channel === first) === is ? [k] : []));
    const [leading, others] = [of(true), of(false)];
    const need = leading.reduce((sum, k) => sum + open[k]!.want.remainingMin, 0);
    const best = lanes.map(
      ({ worth }, l) =>
        rows[l]!.chance * worth.reduce((sum, slot) => sum + Math.max(0, ...leading.map((k) => slot[k]!)), 0),
    );
    const gains = new Map<NightDate, number>();
    lanes.forEach(({ night }, l) => gains.set(night, Math.max(gains.get(night) ?? 0, best[l]!)));
    let left = need;
    // The night that would finish it is open for the rest as well.
    const early = new Set([...gains].flatMap(([night, gain]) => ((left -= gain) > 0 ? [night] : [])));
    lanes.forEach(({ night, worth }, l) => {
      if (early.has(night))
        for (const table of worth === rows[l]!.worth ? [worth] : [worth, rows[l]!.worth])
          for (const slot of table as number[][]) for (const k of others) slot[k] = 0;
    });
  }
}

/** From when to when a block of a lane can be shot, and how much of that is usable: slots count from and to the usable minute. */
export function spanOf(lane: SeasonLane, [job, from, to]: Block): UtcInterval & { readonly usableMin: number } {
  const at = (slot: number, minute: number) => utcMs(lane.startMs + slot * SLOT_MS + minute * MINUTE_MS);
  let usableMin = 0;
  for (let s = from; s < to; s++) usableMin += lane.usableMin[s]?.[job] ?? 0;
  return {
    startMs: at(from, lane.fromMin[from]?.[job] ?? 0),
    endMs: at(to - 1, lane.toMin[to - 1]?.[job] ?? SLOT_MIN),
    usableMin,
  };
}
