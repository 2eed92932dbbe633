import { USUAL_ABOVE_AIR_C, type Rig } from "~/core/exposure";
import {
  calibrationNeeds,
  lastTrainChange,
  USUAL_CALIBRATION,
  type CalibrationNeed,
  type CameraSet,
  type ContributionData,
} from "~/core/ledger";
import { groupBy } from "~/core/numeric";
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

const NOT_KNOWN: CameraSet = { gain: null, offset: null, binning: null };
const cameraSettings = topic<ReadonlyMap<string, CameraSet>>(20);

/** The value that most of some entries have, by exposures; of equals the later. Null where none tells it. */
function usual(entries: readonly ContributionData[], what: keyof CameraSet): number | null {
  const counts = new Map<number, number>();
  for (const entry of entries) {
    const value = entry[what];
    if (value !== undefined) counts.set(value, (counts.get(value) ?? 0) + entry.taken);
  }
  return [...counts].reduce<readonly [number | null, number]>(
    (best, one) => (one[1] >= best[1] ? one : best),
    [null, 0],
  )[0];
}

/** How a rig's camera is set, by channel: each setting as most subs of the last night have it that tells it. */
export function cameraSetsOf(log: readonly ContributionData[]): ReadonlyMap<string, CameraSet> {
  const of = (entries: readonly ContributionData[], what: keyof CameraSet) => {
    const telling = entries.filter((e) => e[what] !== undefined);
    const last = telling.reduce((night, e) => (e.night > night ? e.night : night), "");
    return usual(
      telling.filter((e) => e.night === last),
      what,
    );
  };
  return new Map(
    [...groupBy(log, (e) => e.channel)].map(([channel, entries]) => [
      channel,
      { gain: of(entries, "gain"), offset: of(entries, "offset"), binning: of(entries, "binning") },
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
  const set = library.desk.memo(cameraSettings, rig.id, [library.contributions], () => cameraSetsOf(log));
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

/** Minutes of darks that the lights of a sheet still want: taken with the cap on, whatever the sky does. */
export function darksWantedMin(...at: Parameters<typeof calibrationOf>): number {
  const { needs } = calibrationOf(...at);
  const darks = needs.filter((n) => n.kind === "dark" && n.state !== "serves");
  return darks.reduce((sum, n) => sum + (Math.max(0, n.want - n.have) * (n.exposureSec ?? 0)) / 60, 0);
}
