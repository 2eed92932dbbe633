import type { Desk } from "~/desk/desk";
import { loadChoice } from "~/desk/sky/choice";
import { nightSubs } from "~/desk/log/cull";

/** The single subs of the chosen night, of one project where the address names it. */
export async function loadSubs(desk: Desk, request: Request) {
  const { library, choice } = await loadChoice(desk, request);
  const projectId = new URL(request.url).searchParams.get("project");
  const known = library.projects.some((p) => p.id === projectId) ? projectId : null;
  const view = nightSubs(library, choice.night, known);
  return {
    ...view,
    night: choice.night,
    zone: choice.place?.data.timeZone ?? "Etc/UTC",
    projectId: known,
    projects: Object.fromEntries(library.projects.map((p) => [p.id, p.data.name])),
    /** Nights with single subs, latest first: where to look when this one has none. */
    others: [...library.log.byNight]
      .filter(([, list]) => list.some(({ data }) => data.taken === 1 && data.startMs !== null))
      .map(([night]) => night)
      .sort()
      .reverse()
      .slice(0, 12),
  };
}

/** A night's subs as their page shows them. */
export type SubsView = Awaited<ReturnType<typeof loadSubs>>;
