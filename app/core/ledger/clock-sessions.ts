import { HOUR_MS } from "~/core/time";

/** A file as far as its camera's clock is concerned. */
export interface Stamped {
  readonly camera: string | null;
  /** When it was begun by that clock, ms; null = it does not say. */
  readonly atMs: number | null;
}

/** Longer than any pause within a night, shorter than the day between two; common practice, no source. */
const GAP_MS = 6 * HOUR_MS;

/**
 * Sessions by cameras' own clocks: files of one camera that follow one another without a gap of six hours. A clock that is set wrong is
 * wrong for all of a session and tells nothing of another, nor of another camera. Of each file the name of its session, the same for the
 * same files in any order; null where it does not say when it was begun.
 */
export function clockSessions(files: readonly Stamped[]): readonly (string | null)[] {
  const names: (string | null)[] = files.map(() => null);
  const byCamera = new Map<string, { readonly i: number; readonly atMs: number }[]>();
  files.forEach(({ camera, atMs }, i) => {
    if (atMs === null) return;
    const of = byCamera.get(camera ?? "") ?? [];
    byCamera.set(camera ?? "", of);
    of.push({ i, atMs });
  });
  for (const [camera, list] of byCamera) {
    let [name, last] = ["", -Infinity];
    for (const { i, atMs } of list.sort((a, b) => a.atMs - b.atMs)) {
      if (atMs - last > GAP_MS) name = `${camera} ${atMs}`;
      names[i] = name;
      last = atMs;
    }
  }
  return names;
}
