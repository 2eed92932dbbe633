import type { Channel } from "~/core/exposure";
import type { BookingContext } from "~/core/ledger";
import { worthRateOf } from "./log";
import { type ProjectContext, contextsOf } from "~/desk/projects/project";
import { filtersOf } from "~/desk/projects/reference";
import type { Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";
import { targetNameOf } from "~/desk/sky/targets";

/** What booking needs to know of all projects, rigs and places. */
export function bookingContext(library: Library): {
  readonly context: BookingContext;
  readonly projects: ReadonlyMap<string, ProjectContext>;
} {
  const found = contextsOf(library);
  const memberId = meOf(library) ?? "me";
  const lastPlace = new Map<string, string>();
  for (const { data } of library.contributions) if (data.memberId === memberId) lastPlace.set(data.rigId, data.placeId);
  return {
    projects: new Map(found.map((c) => [c.id, c])),
    context: {
      memberId,
      // Frames shot before are looked at too: files of theirs may come late.
      projects: found.flatMap((c) =>
        [c.frame, ...c.stock.frames.filter((f) => f.id !== c.frame.id)].map((frame) => ({
          id: c.id,
          project: c.project.data,
          rigId: c.rig.id,
          frameId: frame.id,
          frame: frame.data,
          goals: c.goal.data,
          frameRig: c.rig.data,
          targetNames: [targetNameOf(library, c.project.data.targetId), c.project.data.name],
        })),
      ),
      rigs: library.rigs.map((r) => ({
        id: r.id,
        rig: r.data,
        filters: filtersOf(library, r.data).map((f) => f.data),
        lastPlaceId: lastPlace.get(r.id) ?? null,
      })),
      places: library.places.map((p) => ({ id: p.id, place: p.data })),
    },
  };
}

/** Mean worth of a usable minute of a project in one channel and night; asked often for the same night. */
export function worthRates(projects: ReadonlyMap<string, ProjectContext>) {
  const known = new Map<string, number | null>();
  return (projectId: string, channel: Channel, night: string): number | null => {
    const key = `${projectId}|${channel}|${night}`;
    if (!known.has(key)) {
      const c = projects.get(projectId);
      known.set(key, c ? worthRateOf(c, channel, night) : null);
    }
    return known.get(key) ?? null;
  };
}
