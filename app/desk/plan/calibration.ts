import { USUAL_ABOVE_AIR_C, type Rig } from "~/core/exposure";
import {
  calibrationNeeds,
  lastTrainChange,
  USUAL_CALIBRATION,
  type CalibrationNeed,
  type ContributionData,
  type LightPlan,
} from "~/core/ledger";
import type { RunSheet } from "~/core/night";
import { nightWindow, sunPassesMs, type NightSky } from "~/core/sky";
import { nightDate, type UtcInterval } from "~/core/time";
import type { Entity, Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";
import { contextOf } from "~/desk/projects/project";
import { topic } from "~/desk/memo";

const SKY_FLATS_DEG = [-8, -2] as const; // Sun; MATHS 9.5

/** What a sheet's lights need of calibration, and when the sky of the morning would do for flats; null = it never does. */
export interface NightCalibration {
  readonly needs: readonly CalibrationNeed[];
  readonly skyFlats: UtcInterval | null;
}

/** How a camera was set, as far as its log tells. */
type CameraSettings = Pick<LightPlan, "gain" | "offset" | "binning">;

const NOT_KNOWN: CameraSettings = { gain: null, offset: null, binning: null };
const cameraSettings = topic<ReadonlyMap<string, CameraSettings>>(20);

/** How a rig's camera was set last, by channel: each setting by the latest sub that tells it. */
function settingsOf(log: readonly ContributionData[]): ReadonlyMap<string, CameraSettings> {
  const found = new Map<
    string,
    Record<keyof CameraSettings, { readonly value: number | null; readonly atMs: number }>
  >();
  for (const entry of log)
    for (const what of ["gain", "offset", "binning"] as const) {
      const value = entry[what];
      if (value === undefined) continue;
      const none = { value: null, atMs: -Infinity };
      const of = found.get(entry.channel) ?? { gain: none, offset: none, binning: none };
      if ((entry.startMs ?? 0) >= of[what].atMs) of[what] = { value, atMs: entry.startMs ?? 0 };
      found.set(entry.channel, of);
    }
  return new Map(
    [...found].map(([channel, { gain, offset, binning }]) => [
      channel,
      { gain: gain.value, offset: offset.value, binning: binning.value },
    ]),
  );
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
  const set = library.desk.memo(cameraSettings, rig.id, [library.contributions], () => settingsOf(log));
  // Of the frame, not of each panel: theirs differ by what the meridians do, for which nobody takes new flats.
  const angleOf = (projectId: string): number | null => contextOf(library, projectId)?.layout.positionAngleDeg ?? null;
  const lights = sheet.lines.flatMap((l) =>
    l.kind === "block"
      ? [
          {
            channel: l.channel,
            filterName: l.filterName,
            subSec: l.subSec,
            ...(set.get(l.channel) ?? NOT_KNOWN),
            angleDeg: angleOf(l.projectId),
          },
        ]
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
      nowMs: library.desk.now(),
    },
  );
  const [from, to] = SKY_FLATS_DEG.map((deg) => sunPassesMs(sky, deg)?.upMs ?? null);
  return { needs, skyFlats: from && to ? { startMs: from, endMs: to } : null };
}
