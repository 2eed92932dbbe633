import { channelSky, nightSteps, runSheet, stretches, walkTarget, type Place, type RunSheet } from "~/core/night";
import { panelName, type Panel } from "~/core/framing";
import type { Channel } from "~/core/exposure";
import { apparentVector, transits, type NightSky } from "~/core/sky";
import { monthOf, type NightDate } from "~/core/time";
import { allocate, type Need, type PlanRules } from "./allocate";
import { nightOffer } from "./offers";

/** The run sheet of one project for one night: what the plan would give it if that night is clear, laid out by the clock. */
export function nightSheet(at: {
  readonly place: Place;
  readonly sky: NightSky;
  readonly date: NightDate;
  readonly panels: readonly Panel[];
  readonly centre: Panel["centre"];
  readonly needs: readonly Need[];
  readonly rules: PlanRules;
  readonly flips: boolean;
  readonly filterName: (channel: Channel) => string;
}): RunSheet & { readonly clearChance: number } {
  const channels = [...new Set(at.needs.map((n) => n.channel))];
  const offer = nightOffer(at.place, at.centre, channels, at.date);
  const { nights } = allocate(at.needs, [offer], { ...at.rules, leastNightMin: 15 });
  const steps = nightSteps(at.sky, 2);
  const skies = new Map(channels.map((c) => [c, channelSky(at.place, steps, c)]));
  const items = (nights[0]?.work ?? []).flatMap((work) => {
    const panel = at.panels.find((p) => panelName(p.number) === work.panel);
    const need = at.needs.find((n) => n.panel === work.panel && n.channel === work.channel);
    if (!panel || !need) return [];
    const vector = apparentVector(at.sky, panel.centre);
    const windows = stretches(steps, walkTarget(steps, skies.get(work.channel)!, vector)).filter(
      (s) => s.cause === "none",
    );
    const passage = transits(at.sky, vector).find((t) => windows.some((w) => w.startMs < t.atMs && t.atMs < w.endMs));
    return [
      {
        panel: work.panel,
        channel: work.channel,
        filterName: at.filterName(work.channel),
        subSec: need.subSec,
        exposureMin: work.exposureMin,
        windows,
        transitMs: passage?.atMs ?? null,
      },
    ];
  });
  return {
    ...runSheet(items, at.rules.overheads, { flips: at.flips }),
    clearChance: at.place.clearChance[monthOf(at.date) - 1] ?? 0.4,
  };
}
