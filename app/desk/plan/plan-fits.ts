import { isWork, type Lock, type SeasonPlan } from "~/core/season";
import type { NightDate } from "~/core/time";

/** Whether a plan keeps all that stands in it by hand. */
export function keeps(plan: SeasonPlan, locks: readonly Lock[]): boolean {
  return locks.every((lock) => {
    const blocks = plan.evenings
      .filter((e) => e.night === lock.night)
      .flatMap((e) => e.blocks.map((b) => ({ ...b, placeId: e.placeId })));
    const isIt = (b: (typeof blocks)[number]) =>
      (lock.projectId === undefined ||
        isWork(b, { projectId: lock.projectId, ...(lock.channel === undefined ? {} : { channel: lock.channel }) })) &&
      (lock.placeId === undefined || b.placeId === lock.placeId);
    if (lock.does === "forbid") return !blocks.some(isIt);
    return lock.projectId === undefined ? blocks.every(isIt) && blocks.length > 0 : blocks.some(isIt);
  });
}

/** From when a question asks, and what it knows of. */
interface Known {
  readonly from: NightDate;
  readonly projects: readonly { readonly id: string }[];
  readonly rigs: readonly { readonly id: string }[];
}

/** Whether a plan says something of a question's first night, and nothing of what is gone. */
export function coversOf(plan: SeasonPlan, { from, projects, rigs }: Known): boolean {
  const evenings = plan.evenings.filter((e) => e.night === from);
  return (
    evenings.length > 0 &&
    evenings.every(
      (e) =>
        e.rigIds.every((id) => rigs.some((r) => r.id === id)) &&
        e.blocks.every((b) => projects.some((p) => p.id === b.projectId)),
    )
  );
}
