import { bestRate, clearHoursByMonth, isAway, targetNight, type Place } from "~/core/night";
import type { Channel, Filter, Rig } from "~/core/exposure";
import { partId, type Evenings } from "~/core/plan";
import type { KeepFault } from "~/core/records";
import { err, type Result } from "~/core/result";
import { addNights, weekdayOf, type NightDate, type UtcInterval } from "~/core/time";
import { keep, type Kept } from "~/desk/records/acts";
import { meOf, partOf } from "~/desk/records/parts";
import { orAborted } from "~/workers/client";
import { withLearntChances } from "~/desk/sky/learnt";
import type { Entity, Library } from "~/desk/records/library";
import { nightOver } from "~/desk/sky/nights";
import { type ProjectContext } from "~/desk/projects/project";
import { ownOf } from "~/desk/projects/weights";
import { filtersOf, hourWith, kitOf } from "~/desk/projects/reference";

/** What the sky over one member's place gives a project, in the channel that they would shoot. */
export interface JointRow {
  readonly memberId: string;
  readonly placeName: string;
  /** A place they can drive to; at home otherwise. */
  readonly isAway: boolean;
  readonly zone: string;
  readonly channel: Channel;
  /** Of tonight: from when to when it is usable; null = not at all. */
  readonly tonight: UtcInterval | null;
  /** Usable hours of the nights to come, clear sky assumed. */
  readonly nights: readonly { readonly night: NightDate; readonly hours: number; readonly isBusy: boolean }[];
  /** Hours at the project's reference, of nights that will be clear, by month: "2026-12". So hours of unequal skies can be added. */
  readonly months: readonly { readonly month: string; readonly hours: number }[];
}

/** Nights told one by one. */
const NIGHTS = 10;
const MONTHS = 6;

/** Hours at the reference that an hour of a member is, each with the target at its best; 1 where that is not known. */
function atReference(
  c: ProjectContext,
  {
    place,
    rig,
    filters,
  }: {
    readonly place: Entity<Place>;
    readonly rig: Entity<Rig> | undefined;
    readonly filters: readonly Entity<Filter>[];
  },
  channel: Channel,
  best: number,
): number {
  const { light } = c.project.data;
  const is = rig ? hourWith(channel, kitOf({ place, rig, filters }), kitOf(c.reference), light) : null;
  const bestThere = c.bestThere[channel] ?? 0;
  return is !== null && bestThere > 0 ? (is * best) / bestThere : 1;
}

/** One's own evenings as the rules have them, in an order that does not hang on how they are stored: what there is to tell. */
function ownEvenings(library: Library): Evenings {
  const away = library.places.filter((p) => isAway(p.data) && p.author === meOf(library));
  return {
    busyWeekdays: [...(library.settings?.data.planning?.busyWeekdays ?? [])].sort((a, b) => a - b),
    placeIds: away.map((p) => p.id).sort(),
  };
}

/** What one told the others, and whether it is still so; null where one takes no part. */
export function toldEvenings(
  library: Library,
  projectId: string,
): { readonly isTold: boolean; readonly isCurrent: boolean } | null {
  const part = partOf(library, projectId, meOf(library));
  if (!part) return null;
  const { evenings } = part.data;
  return {
    isTold: evenings !== undefined,
    isCurrent: JSON.stringify(evenings) === JSON.stringify(ownEvenings(library)),
  };
}

/** Tells the members of a project one's free evenings and the places one drives to, with the next file; or takes it back. */
export async function tellEvenings(
  library: Library,
  projectId: string,
  tells: boolean,
): Promise<Result<Kept, KeepFault>> {
  const part = partOf(library, projectId, meOf(library));
  if (!part) return err({ code: "takesNoPart" });
  const { evenings: _, ...rest } = part.data;
  return keep(library.desk, [
    {
      kind: "part",
      id: partId(projectId, part.data.memberId),
      data: tells ? { ...rest, evenings: ownEvenings(library) } : rest,
      baseRev: part.rev,
    },
  ]);
}

/** When each member of a project has its target, by the sky over their own place: what they said they shoot, else what it wants. */
export async function jointRows(
  library: Library,
  c: ProjectContext,
  today: NightDate,
  signal: AbortSignal,
): Promise<JointRow[]> {
  const rows: JointRow[] = [];
  const wanted = c.goal.data.channels.map((g) => g.channel);
  for (const { data: part } of library.parts.filter((p) => p.data.projectId === c.id)) {
    const evenings = part.memberId === meOf(library) ? ownEvenings(library) : part.evenings;
    const channel = (part.channels ?? wanted).find((ch) => wanted.includes(ch)) ?? wanted[0];
    if (!channel) continue;
    const ids = [part.placeId, ...(evenings?.placeIds ?? []).filter((id) => id !== part.placeId)];
    for (const home of ids.flatMap((id) => library.places.find((p) => p.id === id) ?? [])) {
      const place = withLearntChances(library, home).data;
      const target = c.layout.centre;
      const rig = library.rigs.find((r) => r.id === part.rigId);
      const kit = rig && { place: home, rig, filters: filtersOf(library, rig.data) };
      const own = kit ? ownOf(kit, c.goal.data.channels, c.project.data.light)[channel] : undefined;
      const best = bestRate(place, target, channel, own);
      const ask = { place, from: today, moon: c.moon, target, channel, ...(own ? { own } : {}) };
      const year = await orAborted(library.desk.workers.sky.year(ask), signal);
      const is = atReference(c, { place: home, rig, filters: rig ? filtersOf(library, rig.data) : [] }, channel, best);
      const { windows } = targetNight(nightOver(library.desk, place, today, c.moon), target, channel, own);
      const [first, last] = [windows[0], windows.at(-1)];
      rows.push({
        memberId: part.memberId,
        placeName: place.name,
        isAway: home.id !== part.placeId,
        zone: place.timeZone,
        channel,
        tonight: first && last ? { startMs: first.startMs, endMs: last.endMs } : null,
        nights: Array.from({ length: NIGHTS }, (_, i) => {
          const night = addNights(today, i);
          const isBusy = evenings?.busyWeekdays.includes(weekdayOf(night)) ?? false;
          return { night, hours: (year.find((n) => n.date === night)?.usableMin ?? 0) / 60, isBusy };
        }),
        months: clearHoursByMonth(year, place, best)
          .slice(0, MONTHS)
          .map((m) => ({ ...m, hours: m.hours * is })),
      });
    }
  }
  return rows;
}
