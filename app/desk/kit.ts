import type { OwnTarget } from "~/core/catalog";
import type { Edit } from "~/core/crew";
import { CHANNELS, CHANNEL_FACTS, type Filter, type Rig } from "~/core/exposure";
import { USUAL_MOON, type Place } from "~/core/night";
import { USUAL_WISH_HOURS, type KeepFault, type Settings } from "~/core/records";
import { err, type Result } from "~/core/result";
import { browserId, newId } from "~/storage/session";
import { keep, type Kept } from "./acts";
import type { Library } from "./library";

/** A thing as a form knows it: its id, or "new", and the version that was on the page. */
export interface Draft<D> {
  readonly id: string;
  readonly baseRev: string;
  readonly data: D;
}

const idOf = (thing: Draft<unknown>, prefix: string): string => (thing.id === "new" ? newId(prefix) : thing.id);
const baseOf = (thing: Draft<unknown>): string | null => (thing.id === "new" ? null : thing.baseRev);

/** Who the owner of this library is; before there is one, the edits that make one, with the place and the rig they use. */
export function ownerOf(
  library: Library,
  uses: { readonly placeId: string; readonly rigId: string },
): { readonly memberId: string; readonly edits: readonly Edit[] } {
  if (library.settings) return { memberId: library.settings.data.memberId, edits: [] };
  const memberId = `member-${browserId()}`;
  const settings: Settings = {
    ...uses,
    memberId,
    lastBackupMs: null,
    wishHours: USUAL_WISH_HOURS,
    moon: USUAL_MOON,
    standsBeforeDark: true,
    simulatedServices: false,
  };
  return {
    memberId,
    edits: [
      { kind: "member", id: memberId, data: { name: "Me" }, baseRev: "latest" },
      { kind: "settings", id: "settings", data: settings, baseRev: "latest" },
    ],
  };
}

/** Keeps a place; the first one makes its owner a member and is used on every screen. */
export function savePlace(library: Library, place: Draft<Place>): Promise<Result<Kept, KeepFault>> {
  const id = idOf(place, "place");
  return keep([
    { kind: "place", id, data: place.data, baseRev: baseOf(place) },
    ...ownerOf(library, { placeId: id, rigId: "" }).edits,
  ]);
}

/** What a newcomer can tick: one filter a channel with its usual values; kept with the first rig. */
export function usualFilters(): { readonly id: string; readonly data: Filter }[] {
  return CHANNELS.map((channel) => {
    const { centreNm, bandwidthNm } = CHANNEL_FACTS[channel];
    const isNarrow = bandwidthNm < 20 && channel !== "Dual";
    const name =
      channel === "Colour"
        ? "No filter (colour)"
        : channel === "Dual"
          ? "Dual band"
          : isNarrow
            ? `${channel} ${bandwidthNm} nm`
            : channel;
    return {
      id: `filter-usual-${channel.toLowerCase()}`,
      data: { name, channel, centreNm, bandwidthNm, transmission: 0.9 },
    };
  });
}

/** Keeps a rig; with the first one the usual filters. */
export function saveRig(library: Library, rig: Draft<Rig>): Promise<Result<Kept, KeepFault>> {
  const filters = library.filters.length > 0 ? [] : usualFilters();
  const id = idOf(rig, "rig");
  const { settings } = library;
  // The first one is used on every screen; another one added later changes nothing of that.
  const isFirst = settings !== null && !library.rigs.some((r) => r.id === settings.data.rigId);
  const chosen = library.rigs[0]?.id ?? id;
  return keep([
    { kind: "rig", id, data: rig.data, baseRev: baseOf(rig) },
    ...(isFirst
      ? [
          {
            kind: "settings" as const,
            id: "settings",
            data: { ...settings.data, rigId: chosen },
            baseRev: settings.rev,
          },
        ]
      : []),
    ...filters.map((f) => ({ kind: "filter" as const, id: f.id, data: f.data, baseRev: "latest" })),
  ]);
}

/** Keeps a filter. */
export const saveFilter = (filter: Draft<Filter>): Promise<Result<Kept, KeepFault>> =>
  keep([{ kind: "filter", id: idOf(filter, "filter"), data: filter.data, baseRev: baseOf(filter) }]);

/** Keeps a target of one's own under an id already made. */
export const saveOwnTarget = (target: Draft<OwnTarget>): Promise<Result<Kept, KeepFault>> =>
  keep([{ kind: "target", id: target.id, data: target.data, baseRev: target.baseRev || null }]);

/** Changes some of the settings. There are none before there is a place. */
export function changeSettings(library: Library, change: Partial<Settings>): Promise<Result<Kept, KeepFault>> {
  const { settings } = library;
  if (!settings)
    return Promise.resolve(
      err({ code: "recordRefused", kind: "settings", path: "", message: "enter a place under Kit first" }),
    );
  return keep([{ kind: "settings", id: "settings", data: { ...settings.data, ...change }, baseRev: settings.rev }]);
}
