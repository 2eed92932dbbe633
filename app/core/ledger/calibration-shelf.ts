import type { CalibrationData } from "./contribution";

/** Frames on the shelf that are alike. */
export interface ShelfSet {
  readonly type: CalibrationData["type"];
  readonly camera: string;
  readonly exposureSec: number;
  readonly gain: number | null;
  readonly temperatureC: number | null;
  readonly filter: string;
  readonly offset: number | null;
  readonly binning: number | null;
  readonly count: number;
  readonly latestMs: number | null;
}

/** The shelf by sets of like frames: kind, camera, filter, length, gain, offset, binning, temperature to the degree; the latest first within a kind. */
export function shelfSets(frames: readonly CalibrationData[]): ShelfSet[] {
  const sets = new Map<string, ShelfSet>();
  for (const f of frames) {
    const temperatureC = f.temperatureC === null ? null : Math.round(f.temperatureC);
    const key = [
      f.type,
      f.camera.toLowerCase(),
      f.filter.toLowerCase(),
      f.exposureSec.toPrecision(3),
      f.gain,
      f.offset,
      f.binning,
      temperatureC,
    ].join("|");
    const known = sets.get(key);
    const { type, camera, exposureSec, gain, filter, startMs } = f;
    sets.set(key, {
      ...(known ?? {
        type,
        camera,
        exposureSec,
        gain,
        temperatureC,
        filter,
        offset: f.offset ?? null,
        binning: f.binning ?? null,
      }),
      count: (known?.count ?? 0) + 1,
      latestMs: startMs === null ? (known?.latestMs ?? null) : Math.max(startMs, known?.latestMs ?? 0),
    });
  }
  return [...sets.values()].sort((a, b) => a.type.localeCompare(b.type) || (b.latestMs ?? 0) - (a.latestMs ?? 0));
}
