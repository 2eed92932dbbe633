import { cellKey, countedByCell } from "~/core/ledger";
import { groupBy } from "~/core/numeric";
import { addNights, nightDate, type NightDate } from "~/core/time";
import { contextOf } from "~/desk/projects/project";
import type { Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";

/** What one's last night brought to a picture. */
export interface Brought {
  readonly projectId: string;
  readonly name: string;
  readonly taken: number;
  readonly kept: number;
  readonly keptMin: number;
  /** Of the goal's hours, what counts now, and what did without that night, [0, 1]; null where it has no goal. */
  readonly share: number | null;
  readonly shareBefore: number | null;
}

/** What one's own exposures of the night before brought, the most first; empty where nothing of it is logged. */
export const lastNightOf = (library: Library, today: NightDate): readonly Brought[] =>
  broughtOn(library, addNights(today, -1));

/** The latest night of which one logged anything, and what it brought, of one project or of all; null where there is none. */
export function latestNight(
  library: Library,
  projectId: string | null = null,
): { readonly night: NightDate; readonly brought: readonly Brought[] } | null {
  const me = meOf(library);
  const nights = [...library.log.byNight]
    .filter(([, entries]) =>
      entries.some(
        (c) => c.data.memberId === me && c.data.taken > 0 && (projectId === null || c.data.projectId === projectId),
      ),
    )
    .map(([night]) => night);
  if (nights.length === 0) return null;
  const night = nightDate(nights.reduce((a, b) => (b > a ? b : a)));
  const brought = broughtOn(library, night);
  return { night, brought: projectId === null ? brought : brought.filter((b) => b.projectId === projectId) };
}

/** What one's own exposures of a night brought, the most first. */
function broughtOn(library: Library, night: NightDate): readonly Brought[] {
  const me = meOf(library);
  const mine = (library.log.byNight.get(night) ?? []).filter((c) => c.data.memberId === me && c.data.taken > 0);
  return [...groupBy(mine, (c) => c.data.projectId)]
    .map(([projectId, entries]): Brought => {
      const c = contextOf(library, projectId);
      const sum = (of: (e: (typeof entries)[number]) => number) => entries.reduce((total, e) => total + of(e), 0);
      const goalMin = c ? c.cells.reduce((total, x) => total + x.goalMin, 0) : 0;
      const ofNight = c
        ? countedByCell(
            c.counted.filter((x) => x.night === night && x.memberId === me),
            c.goal.data.channels,
          )
        : new Map<string, number>();
      const done = (without: ReadonlyMap<string, number>) =>
        (c?.cells ?? []).reduce((total, x) => {
          const counts = x.countedMin - (without.get(cellKey(x.panel, x.channel, x.isShort)) ?? 0);
          return total + Math.max(0, Math.min(x.goalMin, counts));
        }, 0);
      return {
        projectId,
        name:
          c?.project.data.name ?? library.projects.find((p) => p.id === projectId)?.data.name ?? "a deleted project",
        taken: sum((e) => e.data.taken),
        kept: sum((e) => e.data.kept),
        keptMin: sum((e) => (e.data.kept * e.data.exposureSec) / 60),
        share: goalMin > 0 ? done(new Map()) / goalMin : null,
        shareBefore: goalMin > 0 ? done(ofNight) / goalMin : null,
      };
    })
    .sort((a, b) => b.keptMin - a.keptMin);
}
