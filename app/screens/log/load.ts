import { panelName } from "~/core/framing";
import { choiceOf } from "~/desk/choice";
import { logNights } from "~/desk/log";
import { libraryHere } from "~/desk/open-library";
import { contextOf } from "~/desk/project";
import type { LoggableProject } from "./LogForm";

/** Loads the log of one project, or of all. */
export async function loadLog(request: Request, projectId: string | null) {
  const library = await libraryHere();
  const { night, today } = choiceOf(library, new URL(request.url).searchParams);
  const projects = library.projects.flatMap((p): LoggableProject[] => {
    const c = contextOf(library, p.id);
    if (!c || (projectId !== null && p.id !== projectId)) return [];
    const goals = c.goal.data.channels.map((g) => ({
      channel: g.channel,
      subSec: g.subSec,
      ...(g.isShort ? { isShort: true } : {}),
    }));
    const others = c.filters
      .filter((f) => !goals.some((g) => g.channel === f.data.channel))
      .map((f) => ({ channel: f.data.channel, subSec: 60 }));
    return [
      {
        id: p.id,
        name: p.data.name,
        panels: c.panels.map((x) => panelName(x.number)),
        channels: [...goals, ...others],
      },
    ];
  });
  return {
    night,
    today,
    projects,
    nights: logNights(library, projectId),
    calibrations: library.calibrations.length,
    members: Object.fromEntries(library.members.map((m) => [m.id, m.data.name])),
    names: Object.fromEntries(library.projects.map((p) => [p.id, p.data.name])),
    choices: {
      projects: Object.fromEntries(library.projects.map((p) => [p.id, p.data.name])),
      rigs: Object.fromEntries(library.rigs.map((r) => [r.id, r.data.name])),
      places: Object.fromEntries(library.places.map((p) => [p.id, p.data.name])),
    },
    memberId: library.settings?.data.memberId ?? "",
  };
}
