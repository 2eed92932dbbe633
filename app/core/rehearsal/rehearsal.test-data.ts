import { runSheet, type WorkItem } from "~/core/night";
import { type HourForecast } from "~/core/observatory";
import { testFilter, testRig } from "~/core/test-data";
import { HOUR_MS, MINUTE_MS, nightDate, utcMs } from "~/core/time";
import { panelKey, skyKey, type RehearsalNight } from "./question";

export const DUSK = utcMs(Date.parse("2026-12-05T17:00:00Z"));

/** Hours of a night, all alike but for what is said. */
export const hoursLike = (of: (i: number) => Partial<HourForecast>): HourForecast[] =>
  Array.from({ length: 14 }, (_, i) => ({
    startMs: utcMs(DUSK + (i - 1) * HOUR_MS),
    odds: 1,
    airC: 4,
    dewC: -6,
    gustKmh: 5,
    seeingArcsec: 2.5,
    ...of(i),
  }));

/** Two panels in Hα, one behind the other, with a flip between; twelve hours. */
export function testNight(more: Partial<RehearsalNight> = {}): RehearsalNight {
  const rig = { ...testRig, isGuided: true };
  const item = (panel: string, subs: number): WorkItem => ({
    projectId: "veil", panel, channel: "Ha", filterName: testFilter.name, subSec: 300, subs, need: panel, stage: 0, inOrder: true,
    windows: [{ startMs: DUSK, endMs: utcMs(DUSK + 11 * HOUR_MS) }], transitMs: utcMs(DUSK + 5 * HOUR_MS),
  }); // prettier-ignore
  const sheet = runSheet([item("P1", 50), item("P2", 40)], rig.overheads, { flips: true, standsBeforeDark: false, sunsetMs: utcMs(DUSK - 60 * MINUTE_MS), starsMs: DUSK }); // prettier-ignore
  const sky = { startMs: DUSK, stepMin: 60, passes: Array<number>(13).fill(0.8), skyOver: Array<number>(13).fill(1.2) };
  const at = (panel: string) => ({ projectId: "veil", panel, channel: "Ha" as const });
  return {
    night: nightDate("2026-12-05"),
    memberId: "me",
    site: { latitudeDeg: 45, longitudeDeg: 5 },
    zenithSkyMag: 20.5,
    hours: hoursLike(() => ({})),
    weather: null,
    rigs: [
      {
        rigId: "rig",
        rig,
        filters: { [testFilter.name]: testFilter },
        sheet,
        names: { veil: "The veil" },
        subjects: { veil: null },
        pointings: Object.fromEntries(
          ["P1", "P2"].map((p) => [panelKey(at(p)), { pointing: { frame: "icrs", raDeg: 312, decDeg: 30 }, positionAngleDeg: 0 }]), // prettier-ignore
        ),
        skies: Object.fromEntries(["P1", "P2"].map((p) => [skyKey(at(p)), sky])),
        darksMin: 60,
        focusPerC: 2,
      },
    ],
    ...more,
  };
}
