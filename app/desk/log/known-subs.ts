import { fileIdentity, type ContributionData, type ExposureFacts } from "~/core/ledger";
import type { Library } from "~/desk/records/library";

/** Shorter subs than this, seconds, can follow one another within what clocks of headers are off. */
const APART_SEC = 2;

/**
 * Subs by rig, start to the second, and length: a file that was solved, calibrated or renamed since is the same sub as before. Of short
 * ones several begin within a second: those are the same only by name as well.
 */
export function takenAt(library: Library) {
  type Sub = Pick<ContributionData, "rigId" | "startMs" | "exposureSec" | "fileName">;
  const key = ({ rigId, exposureSec, fileName }: Sub, sec: number) =>
    [rigId, sec, exposureSec, exposureSec < APART_SEC ? fileName : ""].join("|");
  const known = new Map<string, Library["contributions"][number] | null>();
  const put = (sub: Sub, entry: Library["contributions"][number] | null) => {
    if (sub.startMs !== null) known.set(key(sub, Math.round(sub.startMs / 1000)), entry);
  };
  for (const entry of library.contributions) if (entry.data.taken === 1) put(entry.data, entry);
  return {
    add: (sub: Sub) => put(sub, null),
    /** The entry of the log that is the same sub, begun within a second of it. */
    find: (sub: Sub) => {
      const sec = Math.round((sub.startMs ?? 0) / 1000);
      for (const off of [0, -1, 1]) {
        const entry = known.get(key(sub, sec + off));
        if (entry) return entry;
      }
      return null;
    },
  };
}

/** Files the log has already, and those that come to it. */
export function knownFiles(library: Library) {
  const have = new Set([...library.contributions, ...library.calibrations].map((r) => r.id));
  // An identity of earlier editions is one file's: of several that share it, the first that is not known otherwise.
  const claims = new Map<string, string>();
  return {
    /** Where a file lies in the log, or would lie; whether it lies there already. */
    look(
      kind: "contribution" | "calibration",
      facts: ExposureFacts,
    ): { readonly id: string; readonly isKnown: boolean } {
      const { own, before } = fileIdentity(facts);
      const [id, old] = [`${kind}-file-${own}`, `${kind}-file-${before}`];
      if (have.has(id)) return { id, isKnown: true };
      if (!have.has(old)) return { id, isKnown: false };
      const claim = claims.get(old) ?? own;
      claims.set(old, claim);
      return { id, isKnown: claim === own };
    },
    add: (id: string) => void have.add(id),
  };
}
