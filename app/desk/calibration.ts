import { USUAL_ABOVE_AIR_C, type Rig } from "~/core/exposure";
import { calibrationNeeds, lastTrainChange, USUAL_CALIBRATION, type CalibrationNeed } from "~/core/ledger";
import type { RunSheet } from "~/core/night";
import { nightWindow, sunPassesMs, type NightSky } from "~/core/sky";
import { nightDate, type UtcInterval } from "~/core/time";
import { now } from "~/storage/session";
import type { Entity, Library } from "./library";
import { meOf } from "./parts";

const SKY_FLATS_DEG = [-8, -2] as const; // Sun; MATHS 9.5

/** What a sheet's lights need of calibration, and when the sky of the morning would do for flats; null = it never does. */
export interface NightCalibration {
  readonly needs: readonly CalibrationNeed[];
  readonly skyFlats: UtcInterval | null;
}

/** What the lights of a sheet need of calibration, by what is on the shelf of the owner of a library. */
export function calibrationOf(
  library: Library,
  rig: Entity<Rig>,
  sheet: RunSheet,
  sky: NightSky,
  /** Air of the night; null = nobody says. */
  airC: number | null,
): NightCalibration {
  const me = meOf(library);
  const log = library.contributions.flatMap((c) => (c.data.rigId === rig.id ? [c.data] : []));
  const gainOf = (channel: string): number | null =>
    log.filter((c) => c.channel === channel && c.gain !== undefined).sort((a, b) => (b.startMs ?? 0) - (a.startMs ?? 0))[0]?.gain ?? null; // prettier-ignore
  const lights = sheet.lines.flatMap((l) =>
    l.kind === "block"
      ? [{ channel: l.channel, filterName: l.filterName, subSec: l.subSec, gain: gainOf(l.channel) }]
      : [],
  );
  const { isCooled, workingTempC, cameraName, aboveAirC = USUAL_ABOVE_AIR_C } = rig.data;
  const facts = library.nightFacts.flatMap(({ data }) => {
    const place = library.places.find((p) => p.id === data.placeId)?.data;
    if (data.rigId !== rig.id || !place) return [];
    return [{ train: data.train ?? [], startMs: nightWindow(place, nightDate(data.night)).startMs }];
  });
  const needs = calibrationNeeds(
    lights,
    library.calibrations.flatMap((c) => (c.data.memberId === me ? [c.data] : [])),
    {
      camera: { cameraName, isCooled, sensorC: isCooled ? workingTempC : airC === null ? null : airC + aboveAirC },
      school: library.settings?.data.calibration ?? USUAL_CALIBRATION,
      changed: lastTrainChange(log, facts),
      nowMs: now(),
    },
  );
  const [from, to] = SKY_FLATS_DEG.map((deg) => sunPassesMs(sky, deg)?.upMs ?? null);
  return { needs, skyFlats: from && to ? { startMs: from, endMs: to } : null };
}
