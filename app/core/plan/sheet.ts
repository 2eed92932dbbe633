import { clearChanceOn, runSheet, targetNight, type PlaceNight, type RunSheet, type TargetNight } from "~/core/night";
import { panelName, type Panel } from "~/core/framing";
import type { Channel } from "~/core/exposure";
import { nightEvents, nextTransitMs, sunPassesMs } from "~/core/sky";
import { MINUTE_MS, utcMs, type UtcInterval } from "~/core/time";
import { allocate, type ChannelOffer, type Need, type PlanRules } from "./allocate";

const STARS_SUN_DEG = -8; // the pole star shows in a camera; common practice, no source

/** The run sheet of one project for one night: what the plan would give it if that night is clear, laid out by the clock. */
export function nightSheet(at: {
  readonly night: PlaceNight;
  readonly panels: readonly Panel[];
  readonly centre: Panel["centre"];
  readonly needs: readonly Need[];
  readonly rules: PlanRules;
  readonly flips: boolean;
  readonly standsBeforeDark: boolean;
  /** The stretch that is clear; null = all night. */
  readonly within: UtcInterval | null;
  readonly filterName: (channel: Channel) => string;
}): RunSheet & { readonly clearChance: number } {
  const { place, date, sky } = at.night;
  const clip = (target: TargetNight) => clipped(target.windows, at.within);
  const channels = [...new Set(at.needs.map((n) => n.channel))];
  const offer = Object.fromEntries(
    channels.map((c) => [c, offerWithin(targetNight(at.night, at.centre, c), at.within)]),
  );
  const { nights } = allocate(at.needs, [{ date, channels: offer }], { ...at.rules, leastNightMin: 15 });
  const items = (nights[0]?.work ?? []).flatMap((work) => {
    const panel = at.panels.find((p) => panelName(p.number) === work.panel);
    const need = at.needs.find((n) => n.panel === work.panel && n.channel === work.channel && n.subSec === work.subSec);
    if (!panel || !need) return [];
    const target = targetNight(at.night, panel.centre, work.channel);
    return [
      {
        panel: work.panel,
        channel: work.channel,
        filterName: at.filterName(work.channel),
        subSec: need.subSec,
        exposureMin: work.exposureMin,
        windows: clip(target),
        transitMs: nextTransitMs(sky, target.ofDate),
      },
    ];
  });
  const { horizon } = nightEvents(sky);
  return {
    ...runSheet(items, at.rules.overheads, {
      flips: at.flips,
      standsBeforeDark: at.standsBeforeDark,
      sunsetMs: horizon.kind === "passes" ? horizon.downMs : null,
      starsMs: sunPassesMs(sky, STARS_SUN_DEG)?.downMs ?? null,
    }),
    clearChance: clearChanceOn(place, date),
  };
}

/** The part of some stretches that lies within another. */
function clipped(windows: readonly UtcInterval[], within: UtcInterval | null): readonly UtcInterval[] {
  if (!within) return windows;
  return windows.flatMap((w) => {
    const [startMs, endMs] = [Math.max(w.startMs, within.startMs), Math.min(w.endMs, within.endMs)];
    return endMs > startMs ? [{ startMs: utcMs(startMs), endMs: utcMs(endMs) }] : [];
  });
}

/** What a stretch of a night offers a target: worth in proportion. */
function offerWithin(target: TargetNight, within: UtcInterval | null): ChannelOffer {
  const minutes = clipped(target.windows, within).reduce((sum, w) => sum + (w.endMs - w.startMs) / MINUTE_MS, 0);
  const share = target.usableMin > 0 ? minutes / target.usableMin : 0;
  return {
    usableMin: minutes,
    worthMin: target.worthMin * share,
    moonlessWorthMin: target.moonlessWorthMin * share,
  };
}
