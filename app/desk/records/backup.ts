import { instantOfRev } from "~/core/crew";
import { DAY_MS } from "~/core/time";
import { USUAL_FILTER } from "~/desk/kit/kit";
import type { Entity, Library } from "./library";
import { topic } from "~/desk/memo";

/** How things stand with backups. */
export interface BackupState {
  /** Days since the last one; null = there never was one. */
  readonly ageDays: number | null;
  /** What was entered, logged or changed since; forecasts and usual filters do not count, since nobody typed them. */
  readonly changes: number;
  /** Whether it is time for one. */
  readonly isDue: boolean;
}

const counts = topic<number>(1);

/** A backup is called for after a month with changes; common practice, no source. */
const DUE_AFTER_DAYS = 30;
/** Before the first one, once there is so much that it would hurt to lose it. */
const WORTH_KEEPING = 10;

/** Whether it is time for a backup, and what it would save. */
export function backupState(library: Library, nowMs: number): BackupState {
  const last = library.settings?.data.lastBackupMs ?? null;
  const own: readonly (readonly Entity<unknown>[])[] = [
    library.places,
    library.rigs,
    library.filters,
    library.projects,
    library.frames,
    library.goals,
    library.contributions,
    library.calibrations,
    library.looks,
    library.ownTargets,
  ];
  const changes = library.desk.memo(counts, "changes", [last, ...own], () =>
    own.reduce(
      (sum, list) =>
        sum +
        list.filter(({ id, rev }) => !id.startsWith(USUAL_FILTER) && (last === null || instantOfRev(rev) > last))
          .length,
      0,
    ),
  );
  const ageDays = last === null ? null : Math.max(0, Math.floor((nowMs - last) / DAY_MS));
  const isDue = ageDays === null ? changes >= WORTH_KEEPING : ageDays >= DUE_AFTER_DAYS && changes > 0;
  return { ageDays, changes, isDue };
}
