import { depthRate, type Channel, type Filter, type KitUnderSky, type ObjectLight, type Rig } from "~/core/exposure";
import { opticsOf, panelName, type Optics } from "~/core/framing";
import { coveredShare, filledPanels, type ContributionData, type FilledPanel, type ShotFrame } from "~/core/ledger";
import type { Place } from "~/core/night";
import { layoutOf, panelCountedFor, panelsOf, type FrameData, type FrameStock, type ProjectData } from "~/core/plan";
import type { Entity, Library } from "~/desk/records/library";
import { partOf, type ShownPart } from "~/desk/records/parts";

/** Whose place and rig a project's hours are measured by. */
export interface Reference {
  /** Null = nobody's part any more, but the place and the rig it was begun with. */
  readonly memberId: string | null;
  readonly place: Entity<Place>;
  readonly rig: Entity<Rig>;
  readonly filters: readonly Entity<Filter>[];
}

/**
 * By whose kit and sky a project's hours are measured, the same for everyone who has its file: whoever it names, else whoever shoots
 * with what it was begun with, else its writer, else the part by which it is shown.
 */
export function referenceOf(library: Library, project: Entity<ProjectData>, shown: ShownPart): Reference | null {
  const { begun, measuredBy } = project.data;
  const parts = library.parts.filter((p) => p.data.projectId === project.id).map((p) => p.data);
  const offers = [
    measuredBy === undefined ? undefined : partOf(library, project.id, measuredBy)?.data,
    begun && parts.find((p) => p.placeId === begun.placeId && p.rigId === begun.rigId),
    begun && { memberId: null, ...begun },
    partOf(library, project.id, project.author)?.data,
    shown.data,
  ];
  for (const offer of offers) {
    const place = library.places.find((p) => p.id === offer?.placeId);
    const rig = library.rigs.find((r) => r.id === offer?.rigId);
    if (offer && place && rig) return { memberId: offer.memberId, place, rig, filters: filtersOf(library, rig.data) };
  }
  return null;
}

/** The filters of a rig, in its order. */
export const filtersOf = (library: Pick<Library, "filters">, rig: Rig): Entity<Filter>[] =>
  rig.filterIds.flatMap((id) => library.filters.filter((f) => f.id === id));

/** A kit as depth is calculated for it. */
export const kitOf = (at: {
  readonly place: Entity<Place>;
  readonly rig: Entity<Rig>;
  readonly filters: readonly Entity<Filter>[];
}): KitUnderSky => ({
  rig: at.rig.data,
  filters: at.filters.map((f) => f.data),
  skyMagPerArcsec2: at.place.data.skyMagPerArcsec2,
});

/** What an hour with one kit is in hours with another, by sky, rig and filter, the target as high at both; null where one has no filter for it. */
export function hourWith(channel: Channel, mine: KitUnderSky, theirs: KitUnderSky, light?: ObjectLight): number | null {
  const [rate, there] = [mine, theirs].map((kit) => depthRate(channel, kit, light)?.rate);
  return rate !== undefined && there !== undefined ? rate / there : null;
}

/** Remembers what a function says for the same key; asked of every entry of a log. */
function once<E, T>(keyOf: (entry: E) => string, work: (entry: E) => T): (entry: E) => T {
  const known = new Map<string, T>();
  return (entry) => {
    const key = keyOf(entry);
    if (!known.has(key)) known.set(key, work(entry));
    return known.get(key)!;
  };
}

/** What an hour of an entry is in hours at a reference, by sky, rig and filter; null where its place or rig is gone. */
export function hourIsOf(
  library: Library,
  reference: Reference,
  light?: ObjectLight,
): (entry: ContributionData) => number | null {
  const at = kitOf(reference);
  return once(
    (e) => `${e.rigId} ${e.placeId} ${e.channel}`,
    (e) => {
      if (e.rigId === reference.rig.id && e.placeId === reference.place.id) return 1;
      const rig = library.rigs.find((r) => r.id === e.rigId);
      const place = library.places.find((p) => p.id === e.placeId);
      return rig && place
        ? hourWith(e.channel, kitOf({ place, rig, filters: filtersOf(library, rig.data) }), at, light)
        : null;
    },
  );
}

/** A frame as a rig shoots it. */
export const shotWith = (frame: FrameData, optics: Optics): ShotFrame => ({
  layout: layoutOf(frame, optics),
  panels: panelsOf(frame, optics),
});

/** How the frame of an entry was shot; null where the frame or the rig is gone. */
export const shotOf =
  (library: Library, stock: FrameStock) =>
  (entry: Pick<ContributionData, "frameId" | "rigId">): ShotFrame | null => {
    const frame = stock.frames.find((f) => f.id === (entry.frameId ?? stock.referenceId))?.data;
    const rig = library.rigs.find((r) => r.id === entry.rigId)?.data;
    return frame && rig ? shotWith(frame, opticsOf(rig)) : null;
  };

/**
 * The panels of a frame that an entry fills: of that frame, or one before it that it follows, the panel it was booked to, as far as
 * its rig's field covers it; of another member's frame, whatever its panel covers. One's own hours in another frame are of another
 * picture, as one said when it was drawn.
 */
export function panelsFilled(
  library: Library,
  at: {
    readonly frameId: string;
    readonly stock: FrameStock;
    readonly shot: ShotFrame;
    readonly rigId: string;
    readonly ownerId: string;
  },
): (entry: ContributionData) => readonly FilledPanel[] {
  const panelFor = panelCountedFor(at.frameId, at.stock);
  const shotBy = shotOf(library, at.stock);
  const onePanel = (entry: ContributionData): ShotFrame | null => {
    const shot = shotBy(entry);
    const panels = shot?.panels.filter((p) => panelName(p.number) === entry.panel) ?? [];
    return shot && panels.length > 0 ? { ...shot, panels } : null;
  };
  return once(
    (e) => `${e.frameId ?? ""} ${e.rigId} ${e.panel} ${e.memberId === at.ownerId ? "" : e.memberId}`,
    (e) => {
      const panel = panelFor(e);
      if (panel !== null) {
        const mine = at.shot.panels.filter((p) => panelName(p.number) === panel);
        const theirs = e.rigId === at.rigId ? null : onePanel(e);
        const share = theirs && mine.length > 0 ? coveredShare({ ...at.shot, panels: mine }, theirs) : 1;
        return [{ panel, share }];
      }
      if (e.memberId === at.ownerId) return [];
      const theirs = onePanel(e);
      return theirs ? filledPanels(at.shot, theirs) : [];
    },
  );
}
