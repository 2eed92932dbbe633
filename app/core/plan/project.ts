import { mosaicPanels, panelName, type Crop, type MosaicLayout, type Optics, type Panel } from "~/core/framing";
import type { Channel, Filter, ObjectLight } from "~/core/exposure";
import type { MoonWishes, OwnLight } from "~/core/night";
import type { PanelGoal } from "./goal";
import { hoursFor } from "./panel-hours";
import type { HoursCount, ShootingRules } from "~/core/season";

/** Exposure still wanted of one panel in one channel, in minutes at the target's best. */
export interface Need {
  readonly panel: string;
  readonly channel: Channel;
  readonly goalMin: number;
  readonly remainingMin: number;
  readonly subSec: number;
  /** Of the short set of its channel. */
  readonly isShort?: boolean;
}

/** By what the minutes of a project's channels are weighed at the place of its part. */
export type OwnByChannel = Readonly<Partial<Record<Channel, OwnLight>>>;

/** How a project stands against the others when both want the same night, and what its hours count then. */
export const URGENCIES = { first: 2, usual: 1, whenFree: 0.5 } as const;
export type Urgency = keyof typeof URGENCIES;

/** In what order the panels of a night are shot: all of them, weakest first; one until it is done; the one first that goes down first. */
export const PANEL_SCHOOLS = ["allPanelsEveryNight", "panelAfterPanel", "sinkingFirst"] as const;
export type PanelSchool = (typeof PANEL_SCHOOLS)[number];

/** How its members share a picture's work. */
export const SHARING_WAYS = ["advantage", "all", "hand"] as const;
export type SharingWay = (typeof SHARING_WAYS)[number];

/** Who shoots what, as its members agreed. */
export interface SharingRules {
  readonly way: SharingWay;
  /** The least part of all hours at the reference that everyone gives, 0 to 0.5; absent = none. */
  readonly floor?: number;
  /** Hours of their own that members promised, by member; absent = what the sky gives them. */
  readonly hours?: Readonly<Record<string, number>>;
  /** Hours by member and channel, as set by hand. */
  readonly hand?: Readonly<Record<string, Readonly<Partial<Record<Channel, number>>>>>;
  /** The open hours in a ratio of channels, in the order of the budget; absent = as the budget says. */
  readonly ratio?: readonly number[];
}

/** A picture to be made. */
export interface ProjectData {
  readonly name: string;
  /** Lead designation of the catalogue object it began with. */
  readonly targetId: string;
  readonly startedOn: string;
  readonly school: PanelSchool;
  readonly notes: string;
  /** Which of several frames the others are measured by: the reference frame; absent = the only one. */
  readonly frameId?: string;
  /** What an hour of it counts against an hour of others: `URGENCIES`; absent = as much. */
  readonly urgency?: Urgency;
  /** The last night that counts for it; absent = none. */
  readonly deadline?: string;
  /** How the Moon is taken for this picture; absent = as each member does. */
  readonly moon?: MoonWishes;
  /** What the faintest part that belongs to the picture shines with: by it minutes are weighed; absent = as a usual faint object. */
  readonly light?: ObjectLight;
  /** How its hours count: absent = as kept. */
  readonly hours?: HoursCount;
  /** How it is shot, where not as usual. */
  readonly rules?: ShootingRules;
  /** The evening on which it was called finished: nothing is planned for it any more. */
  readonly finishedOn?: string;
  /** Nothing is planned for it before that evening: it waits for its next season. */
  readonly restsUntil?: string;
  /** Who shoots what; absent = as everyone promised. */
  readonly sharing?: SharingRules;
  /** Whose place and rig its hours are measured by; absent = what it was begun with, else whoever wrote it. */
  readonly measuredBy?: string;
  /** Where and with what it was shot before members had parts of their own; nothing is calculated from it. */
  readonly begun?: { readonly placeId: string; readonly rigId: string };
}

/** Where a project points: one record per project, under its own id, so that framing and naming do not collide. */
export interface FrameData {
  readonly projectId: string;
  readonly raDeg: number;
  readonly decDeg: number;
  readonly positionAngleDeg: number;
  readonly columns: number;
  readonly rows: number;
  readonly overlap: number;
  /** See `MosaicLayout`; absent = a plain grid. */
  readonly overlapRows?: number;
  readonly rowShift?: number;
  readonly extra?: readonly { readonly xArcmin: number; readonly yArcmin: number }[];
  readonly skipped?: readonly number[];
  /** Names given to panels beside their numbers, by number. */
  readonly names?: Readonly<Record<string, string>>;
  /** Numbers of panels in the order of shooting; those not named follow. */
  readonly order?: readonly number[];
  /** Outlines of what is wanted, drawn by hand: corners as [ra, dec], ICRS degrees. */
  readonly outlines?: readonly DrawnOutline[];
  /** What this frame is called where a project has several. */
  readonly title?: string;
  /** The picture that is cut out in the end, in the mosaic's frame; absent = the largest without gaps. */
  readonly crop?: Crop;
  /** The frame that it took the place of, and which of that one's panels, by name, each count for one of these. */
  readonly follows?: { readonly frameId: string; readonly panels: Readonly<Record<string, string>> };
}

/** "I want this plume": corners on the sky, in order, closed. */
export interface DrawnOutline {
  readonly name: string;
  readonly corners: readonly (readonly [raDeg: number, decDeg: number])[];
}

/** A target that a member would like to shoot some day. */
export interface WishData {
  readonly memberId: string;
  readonly targetId: string;
}

/** The mosaic a frame describes with the optics of a rig. */
export const layoutOf = (frame: FrameData | Omit<FrameData, "projectId">, optics: Optics): MosaicLayout => ({
  centre: { frame: "icrs", raDeg: frame.raDeg, decDeg: frame.decDeg },
  positionAngleDeg: frame.positionAngleDeg,
  planeWidthArcmin: optics.planeWidthArcmin,
  planeHeightArcmin: optics.planeHeightArcmin,
  columns: frame.columns,
  rows: frame.rows,
  overlap: frame.overlap,
  ...(frame.overlapRows === undefined ? {} : { overlapRows: frame.overlapRows }),
  ...(frame.rowShift === undefined ? {} : { rowShift: frame.rowShift }),
  ...(frame.extra === undefined ? {} : { extra: frame.extra }),
  ...(frame.skipped === undefined ? {} : { skipped: frame.skipped }),
});

/** Panels of a frame in the order of shooting. */
export function panelsOf(frame: FrameData, optics: Optics): Panel[] {
  const panels = mosaicPanels(layoutOf(frame, optics));
  const place = (p: Panel) => {
    const at = frame.order?.indexOf(p.number) ?? -1;
    return at === -1 ? Number.MAX_SAFE_INTEGER : at;
  };
  return panels.sort((a, b) => place(a) - place(b) || a.number - b.number);
}

/** "P3", or "P3 the arch" where it has a name. */
export const panelLabel = (frame: Pick<FrameData, "names">, number: number): string => {
  const name = frame.names?.[String(number)]?.trim();
  return name ? `${panelName(number)} ${name}` : panelName(number);
};

/** What is left to do, per panel in the order of shooting and channel, from the goals and the minutes that count. */
export function remainingWork(
  goals: readonly PanelGoal[],
  panels: readonly Pick<Panel, "number">[],
  countedMin: (panel: string, goal: PanelGoal) => number,
): Need[] {
  return goals.flatMap((g) =>
    panels.map(({ number }) => {
      const panel = panelName(number);
      const goalMin = hoursFor(g, panel) * 60;
      return {
        panel,
        channel: g.channel,
        goalMin,
        remainingMin: Math.max(0, goalMin - countedMin(panel, g)),
        subSec: g.subSec,
        ...(g.isShort ? { isShort: true } : {}),
      };
    }),
  );
}

/** How the Moon is taken for a picture: as its owner does everywhere, as the project says, and as its channels say. */
export function moonOfProject(
  everywhere: MoonWishes,
  project: Pick<ProjectData, "moon">,
  goals: readonly PanelGoal[],
): MoonWishes {
  const base = project.moon ?? everywhere;
  const own = goals.flatMap((g) => (g.moon ? [[g.channel, g.moon] as const] : []));
  return own.length === 0 ? base : { ...base, channels: { ...base.channels, ...Object.fromEntries(own) } };
}

/** The filter a goal is shot through with a rig's filters: the chosen one, else one of the same channel; null = none for it here. */
export const filterOfGoal = <F extends { readonly id: string; readonly data: Filter }>(
  goal: Pick<PanelGoal, "channel" | "filterId">,
  filters: readonly F[],
): F | null =>
  filters.find((f) => f.id === goal.filterId && f.data.channel === goal.channel) ??
  filters.find((f) => f.data.channel === goal.channel) ??
  null;
