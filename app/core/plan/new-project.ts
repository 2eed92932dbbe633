import type { CatalogEntry } from "~/core/catalog";
import { pictureOf, subAdvice, type Filter, type Rig } from "~/core/exposure";
import { opticsOf, panelsFor, USUAL_OVERLAP, type MosaicLayout, type Optics } from "~/core/framing";
import type { Place } from "~/core/night";
import { usualRotationDegPerHour } from "~/core/sky";
import type { NightDate } from "~/core/time";
import { wrap360 } from "~/core/units";
import { layoutOf, type FrameData, type ProjectData } from "./project";
import type { GoalData, PanelGoal } from "./goal";

const UNKNOWN_SUB_SEC = 300;

/** Where to aim when not at the target itself; the camera angle then, null for the one that suits the target. */
interface Aim {
  readonly raDeg: number;
  readonly decDeg: number;
  readonly positionAngleDeg: number | null;
}

/** The frame a target is begun with: along its long axis, as many panels as its outline needs. */
function firstFrame(
  entry: CatalogEntry,
  optics: Optics,
  aim: Aim | null = null,
): Pick<FrameData, "raDeg" | "decDeg" | "positionAngleDeg" | "columns" | "rows" | "overlap"> {
  const [major, minor] = [entry.majorArcmin ?? 10, entry.minorArcmin ?? entry.majorArcmin ?? 10];
  const { columns, rows } = panelsFor(
    { major, minor },
    { width: optics.planeWidthArcmin, height: optics.planeHeightArcmin },
  );
  const { raDeg, decDeg } = aim ?? entry.at;
  // The frame's long side is its width, 90° from its up axis.
  const along = entry.positionAngleDeg === null ? 0 : wrap360(entry.positionAngleDeg + 90) % 180;
  return { raDeg, decDeg, positionAngleDeg: aim?.positionAngleDeg ?? along, columns, rows, overlap: USUAL_OVERLAP };
}

/** The mosaic a target is begun with. */
export const firstLayout = (entry: CatalogEntry, optics: Optics): MosaicLayout =>
  layoutOf(firstFrame(entry, optics), optics);

/**
 * A project to start from: framed along the object's long axis, as many panels as its outline needs, channels by its light,
 * sub lengths and hours by rig and sky. Everything can be changed afterwards.
 */
export function newProject(
  entry: CatalogEntry,
  kit: {
    readonly rig: Rig;
    readonly filters: readonly { readonly id: string; readonly data: Filter }[];
    readonly place: Place;
  },
  startedOn: NightDate,
  aim: Aim | null = null,
): {
  readonly project: ProjectData;
  readonly frame: Omit<FrameData, "projectId">;
  readonly goal: Omit<GoalData, "projectId">;
} {
  const frame = firstFrame(entry, opticsOf(kit.rig), aim);
  const { skyMagPerArcsec2, seeingArcsec, latitudeDeg, minAltitudeDeg } = kit.place;
  const picture = pictureOf(entry, {
    rig: kit.rig,
    filters: kit.filters.map((f) => f.data),
    skyMagPerArcsec2,
    seeingArcsec,
  });
  const channels = picture.jobs.flatMap(({ channel, hours }): PanelGoal[] => {
    const filter = kit.filters.find((f) => f.data.channel === channel);
    // Wanted, but nothing for it in this rig: it stays in the budget for whoever has.
    if (!filter) return [{ channel, filterId: "", hoursPerPanel: hours, subSec: UNKNOWN_SUB_SEC }];
    const { subSec } = subAdvice({
      rig: kit.rig,
      filter: filter.data,
      skyMagPerArcsec2,
      seeingArcsec,
      protectedMag: null,
      rotationDegPerHour: usualRotationDegPerHour(latitudeDeg, entry.at.decDeg, minAltitudeDeg),
    });
    return [{ channel, filterId: filter.id, hoursPerPanel: hours, subSec }];
  });
  return {
    project: {
      name: entry.name || entry.id,
      targetId: entry.id,
      startedOn,
      school: frame.columns * frame.rows > 1 ? "allPanelsEveryNight" : "panelAfterPanel",
      notes: "",
      light: picture.weighedBy,
    },
    frame,
    goal: { protectedMag: null, channels },
  };
}
