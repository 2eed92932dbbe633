import { type ProjectData, PANEL_SCHOOLS, URGENCIES } from "~/core/plan";
import { isNightDate } from "~/core/time";
import type { ChangedPart } from "~/desk/records/parts";

/** Something to choose by its name. */
export interface Named {
  readonly id: string;
  readonly name: string;
}

/** A project and one's own part in it as they are changed, and the versions that were on the page when that began. */
export interface ChangedProject {
  readonly rev: string;
  readonly data: ProjectData;
  /** Null = no part is taken. */
  readonly part: ChangedPart | null;
}

const isText = (v: unknown): v is string => typeof v === "string";

/** What was typed of a project is a change of it if it has the same texts. */
export const readChanged =
  (kept: ChangedProject) =>
  (raw: unknown): ChangedProject | null => {
    const { rev, data, part } = (typeof raw === "object" && raw !== null ? raw : {}) as Partial<ChangedProject>;
    const { name, notes, school, moon, hours, urgency, deadline, rules } = (data ?? {}) as Partial<ProjectData>;
    const { placeId, rigId, channels, onlyAt } = part?.data ?? {};
    if (!isText(rev) || !isText(name) || !isText(notes)) return null;
    if (!PANEL_SCHOOLS.some((s) => s === school)) return null;
    const typed =
      part && kept.part && isText(part.rev) && isText(placeId) && isText(rigId)
        ? {
            rev: part.rev,
            data: {
              ...kept.part.data,
              placeId,
              rigId,
              ...(channels ? { channels } : {}),
              ...(onlyAt ? { onlyAt } : {}),
            },
          }
        : kept.part;
    const { urgency: _u, deadline: _d, rules: _r, hours: _h, ...rest } = kept.data;
    const own = {
      ...(moon ? { moon } : {}),
      ...(rules ? { rules } : {}),
      ...(hours === "light" ? { hours } : {}),
      ...(urgency && urgency in URGENCIES ? { urgency } : {}),
      ...(isText(deadline) && isNightDate(deadline) ? { deadline } : {}),
    };
    return { rev, data: { ...rest, name, notes, school: school ?? kept.data.school, ...own }, part: typed };
  };
