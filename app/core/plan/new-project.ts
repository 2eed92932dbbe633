import type { CatalogEntry } from "~/core/catalog";
import { isNebula } from "~/core/catalog";
import { isNarrow, subAdvice, suggestedHours, type Channel, type Filter, type Rig } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import type { Place } from "~/core/night";
import type { NightDate } from "~/core/time";
import { wrap360 } from "~/core/units";
import type { FrameData, GoalData, PanelGoal, ProjectData } from "./project";

const DEFAULT_HOURS_MIN = 4; // for objects nobody has picked by hand: a first look
const PROTECTED_MAG = 10.5; // a handful of clipped stars in a frame is usual
const MARGIN = 0.9; // share of a frame an object may fill

/** Panels along one side so that a length fits with a margin: 1 to 4. */
function panelsAlong(length: number, side: number, overlap: number): number {
  if (length <= side * MARGIN) return 1;
  return Math.min(4, Math.ceil((length / MARGIN - side) / (side * (1 - overlap))) + 1);
}

/** Channels to begin with, of those a rig has: lines for what shines in lines, luminance or colour for the rest. */
function channelsFor(entry: CatalogEntry, filters: readonly Filter[]): Channel[] {
  const has = (c: Channel) => filters.some((f) => f.channel === c);
  const lines = entry.curated?.lines;
  const isLine =
    lines !== null && lines !== undefined ? Math.max(lines.ha, lines.oiii, lines.sii) >= 1 : isNebula(entry.kind);
  const narrow = (["Ha", "OIII", "SII"] as const).filter(
    (c) => has(c) && (lines ? lines[c === "Ha" ? "ha" : c === "OIII" ? "oiii" : "sii"] >= 1 : c !== "SII"),
  );
  if (isLine && narrow.length > 0) return narrow;
  if (isLine && has("Dual")) return ["Dual"];
  const broad = (["L", "R", "G", "B"] as const).filter(has);
  return broad.length > 0 ? broad : has("Colour") ? ["Colour"] : filters.slice(0, 1).map((f) => f.channel);
}

/**
 * A project to start from: framed along the object's long axis, as many panels as its outline needs, channels by its light,
 * sub lengths by rig and sky, hours by rule of thumb. Everything can be changed afterwards.
 */
export function newProject(
  entry: CatalogEntry,
  kit: {
    readonly rig: Rig;
    readonly rigId: string;
    readonly filters: readonly { readonly id: string; readonly data: Filter }[];
    readonly place: Place;
    readonly placeId: string;
  },
  startedOn: NightDate,
): {
  readonly project: ProjectData;
  readonly frame: Omit<FrameData, "projectId">;
  readonly goal: Omit<GoalData, "projectId">;
} {
  const optics = opticsOf(kit.rig);
  const overlap = 0.15;
  const [major, minor] = [entry.majorArcmin ?? 10, entry.minorArcmin ?? entry.majorArcmin ?? 10];
  const columns = panelsAlong(major, optics.planeWidthArcmin, overlap);
  const rows = panelsAlong(minor, optics.planeHeightArcmin, overlap);
  const channels = channelsFor(
    entry,
    kit.filters.map((f) => f.data),
  ).flatMap((channel): PanelGoal[] => {
    const filter = kit.filters.find((f) => f.data.channel === channel);
    if (!filter) return [];
    const { subSec } = subAdvice({
      rig: kit.rig,
      filter: filter.data,
      skyMagPerArcsec2: kit.place.skyMagPerArcsec2,
      seeingArcsec: kit.place.seeingArcsec,
      protectedMag: PROTECTED_MAG,
    });
    const hours = suggestedHours({
      hoursMin: entry.curated?.hoursMin ?? DEFAULT_HOURS_MIN,
      rig: kit.rig,
      skyMagPerArcsec2: kit.place.skyMagPerArcsec2,
      isNarrow: isNarrow(channel),
    });
    const share = channel === "R" || channel === "G" || channel === "B" ? 1 / 3 : 1; // L:R:G:B 3:1:1:1, common practice
    return [{ channel, filterId: filter.id, hoursPerPanel: Math.max(0.5, Math.round(hours * share * 2) / 2), subSec }];
  });
  return {
    project: {
      name: entry.name || entry.id,
      targetId: entry.id,
      placeId: kit.placeId,
      rigId: kit.rigId,
      startedOn,
      school: columns * rows > 1 ? "allPanelsEveryNight" : "panelAfterPanel",
      notes: "",
    },
    // The frame's long side is its width, 90° from its up axis.
    frame: {
      raDeg: entry.raDeg,
      decDeg: entry.decDeg,
      positionAngleDeg: entry.positionAngleDeg === null ? 0 : wrap360(entry.positionAngleDeg + 90) % 180,
      columns,
      rows,
      overlap,
    },
    goal: { protectedMag: PROTECTED_MAG, channels },
  };
}
