import { nightPlan, nightPlanCsv, type BlockAim } from "~/core/formats";
import type { Place, RunSheet } from "~/core/night";
import type { NightDate } from "~/core/time";
import { contextOf, panelLabelled } from "~/desk/projects/project";
import type { Written } from "~/desk/records/written";
import type { Library } from "~/desk/records/library";
import { nightOver } from "~/desk/sky/nights";
import { findTarget } from "~/desk/sky/targets";

/** A sheet as a page shows it. */
export interface ShownSheet {
  readonly night: NightDate;
  readonly place: Place;
  readonly sheet: Pick<RunSheet, "lines">;
}

/** An evening's sheet for other programs, as JSON and as a table; null = nothing is exposed in it. */
export async function nightFiles(
  library: Library,
  { night, place, sheet }: ShownSheet,
): Promise<{ readonly json: Written; readonly table: Written } | null> {
  const ids = [...new Set(sheet.lines.flatMap((l) => (l.kind === "block" ? [l.projectId] : [])))];
  const contexts = ids.flatMap((id) => contextOf(library, id) ?? []);
  const [lead] = contexts;
  if (!lead) return null;
  const targets = await Promise.all(contexts.map((c) => findTarget(library, c.project.data.targetId)));
  const aimOf = (projectId: string, label: string): BlockAim | null => {
    const i = contexts.findIndex((c) => c.id === projectId);
    const c = contexts[i];
    const panel = c && panelLabelled(c, label);
    if (!panel) return null;
    const project = c.project.data.name;
    return { project, target: targets[i]?.id ?? project, centre: panel.centre, cameraAngleDeg: panel.positionAngleDeg };
  };
  const { name, latitudeDeg, longitudeDeg, elevationM, timeZone } = place;
  const plan = nightPlan({
    night,
    writtenAt: new Date(library.desk.now()).toISOString(),
    place: { name, latitudeDeg, longitudeDeg, elevationM, timeZone },
    rig: { name: lead.rig.data.name, ditherEvery: lead.rig.data.overheads.ditherEvery },
    lines: sheet.lines,
    sky: nightOver(library.desk, place, night, lead.moon).sky,
    aimOf: (b) => aimOf(b.projectId, b.panel),
  });
  return {
    json: { name: `night-${night}.json`, text: `${JSON.stringify(plan, null, 2)}\n` },
    table: { name: `night-${night}.csv`, text: nightPlanCsv(plan) },
  };
}
