import type { Desk } from "~/desk/desk";
import { meOf } from "~/desk/records/parts";
import { shelfSets } from "~/core/ledger";
import { panelName } from "~/core/framing";
import { choiceOf } from "~/desk/sky/choice";
import { landingOf } from "~/desk/log/landing";
import { latestNight } from "~/desk/log/last-night";
import { logNights } from "~/desk/log/log";
import { libraryHere } from "~/desk/records/open-library";
import type { Library } from "~/desk/records/library";
import { simulatedIn } from "~/desk/log/simulated";
import { toldNights } from "~/desk/log/told";
import { silentNights } from "~/desk/log/night-facts";
import { contextOf } from "~/desk/projects/project";
import type { LoggableProject } from "./LogForm";

/** A project with what can be logged of it; null when it cannot be put together. */
export function loggable(library: Library, projectId: string): LoggableProject | null {
  const c = contextOf(library, projectId);
  if (!c) return null;
  const goals = c.goal.data.channels.map((g) => ({
    channel: g.channel,
    subSec: g.subSec,
    ...(g.isShort ? { isShort: true } : {}),
  }));
  const others = c.filters
    .filter((f) => !goals.some((g) => g.channel === f.data.channel))
    .map((f) => ({ channel: f.data.channel, subSec: 60 }));
  return {
    id: c.id,
    name: c.project.data.name,
    panels: c.panels.map((x) => panelName(x.number)),
    channels: [...goals, ...others],
  };
}

/** Loads the log of one project, or of all. */
export async function loadLog(desk: Desk, request: Request, projectId: string | null) {
  const library = await libraryHere(desk);
  const { night, today, place } = choiceOf(library, new URL(request.url).searchParams);
  const projects = library.projects.flatMap((p) =>
    projectId !== null && p.id !== projectId ? [] : (loggable(library, p.id) ?? []),
  );
  const silent = place && projectId === null ? silentNights(library, place, today) : [];
  return {
    night,
    today,
    projects,
    silent,
    simulated: projectId === null ? simulatedIn(library).entries.length : 0,
    told: projectId === null ? toldNights(library, today) : [],
    intakes:
      projectId === null
        ? library.intakes
            .filter((i) => i.data.memberId === meOf(library))
            .map((i) => ({ id: i.id, ...i.data }))
            .sort((a, b) => b.atMs - a.atMs)
        : [],
    zone: place?.data.timeZone ?? "Etc/UTC",
    place: place ? { id: place.id, name: place.data.name } : null,
    nights: logNights(library, projectId),
    landing: projectId === null ? landingOf(library, today, null) : null,
    latest: latestNight(library, projectId),
    shelf: shelfSets(library.calibrations.map((c) => c.data)),
    members: Object.fromEntries(library.members.map((m) => [m.id, m.data.name])),
    names: Object.fromEntries(library.projects.map((p) => [p.id, p.data.name])),
    choices: {
      projects: Object.fromEntries(library.projects.map((p) => [p.id, p.data.name])),
      rigs: Object.fromEntries(library.rigs.map((r) => [r.id, r.data.name])),
      places: Object.fromEntries(library.places.map((p) => [p.id, p.data.name])),
    },
    memberId: meOf(library) ?? "",
  };
}
