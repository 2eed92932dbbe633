import { clearChanceOn, runSheet, targetNight, type PlaceNight, type RunSheet } from "~/core/night";
import { panelName, type Panel } from "~/core/framing";
import type { Channel } from "~/core/exposure";
import { transits } from "~/core/sky";
import { allocate, type Need, type PlanRules } from "./allocate";
import { nightOffer } from "./offers";

/** The run sheet of one project for one night: what the plan would give it if that night is clear, laid out by the clock. */
export function nightSheet(at: {
  readonly night: PlaceNight;
  readonly panels: readonly Panel[];
  readonly centre: Panel["centre"];
  readonly needs: readonly Need[];
  readonly rules: PlanRules;
  readonly flips: boolean;
  readonly filterName: (channel: Channel) => string;
}): RunSheet & { readonly clearChance: number } {
  const { place, date, sky } = at.night;
  const channels = [...new Set(at.needs.map((n) => n.channel))];
  const offer = nightOffer(at.night, at.centre, channels);
  const { nights } = allocate(at.needs, [offer], { ...at.rules, leastNightMin: 15 });
  const items = (nights[0]?.work ?? []).flatMap((work) => {
    const panel = at.panels.find((p) => panelName(p.number) === work.panel);
    const need = at.needs.find((n) => n.panel === work.panel && n.channel === work.channel);
    if (!panel || !need) return [];
    const { windows, ofDate } = targetNight(at.night, panel.centre, work.channel);
    const passage = transits(sky, ofDate).find((t) => windows.some((w) => w.startMs < t.atMs && t.atMs < w.endMs));
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
    clearChance: clearChanceOn(place, date),
  };
}
