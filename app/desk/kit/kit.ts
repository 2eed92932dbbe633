import { changedCare, type CareChange } from "~/core/care";
import type { OwnTarget } from "~/core/catalog";
import { CHANNELS, CHANNEL_FACTS, stillTypical, type Channel, type Filter, type Rig } from "~/core/exposure";
import { USUAL_MOON, type Place } from "~/core/night";
import { USUAL_WISH_HOURS, type KeepFault, type Settings, type EditOf } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import type { Desk } from "~/desk/desk";
import { nobodyYet } from "~/desk/records/kept";
import { keep, type Kept } from "~/desk/records/acts";
import type { Library } from "~/desk/records/library";

/** A thing as a form knows it: its id, or "new", and the version that was on the page. */
export interface Draft<D> {
  readonly id: string;
  readonly baseRev: string;
  readonly data: D;
}

const idOf = (desk: Desk, thing: Draft<unknown>, prefix: string): string =>
  thing.id === "new" ? desk.newId(prefix) : thing.id;
const baseOf = (thing: Draft<unknown>): string | null => (thing.id === "new" ? null : thing.baseRev);

/** Who the owner of this library is; before there is one, the edits that make one, with the place and the rig they use. */
export function ownerOf(
  library: Library,
  uses: { readonly placeId: string; readonly rigId: string },
): { readonly memberId: string; readonly edits: readonly EditOf[] } {
  if (library.settings) return { memberId: library.settings.data.memberId, edits: [] };
  const memberId = library.desk.at(nobodyYet)();
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

/** A changed place or rig with its marks: a value that somebody replaced is typical no more, unless nobody measured that one either. */
function remarked<D extends { readonly typical?: readonly string[] }>(
  before: D | undefined,
  after: D,
  unmeasured: readonly string[] = [],
): D {
  const still = after.typical ?? (before ? stillTypical(before, after) : []);
  const typical = [...new Set([...still, ...unmeasured])];
  return { ...after, typical: typical.length > 0 ? typical : undefined };
}

/** Keeps a place, with what of it nobody measured; the first one makes its owner a member and is used on every screen. */
export function savePlace(
  library: Library,
  place: Draft<Place>,
  unmeasured: readonly string[] = [],
): Promise<Result<Kept, KeepFault>> {
  const id = idOf(library.desk, place, "place");
  const before = library.places.find((p) => p.id === place.id);
  return keep(library.desk, [
    { kind: "place", id, data: remarked(before?.data, place.data, unmeasured), baseRev: baseOf(place) },
    ...ownerOf(library, { placeId: id, rigId: "" }).edits,
  ]);
}

/** What the id of a filter begins with that nobody typed. */
export const USUAL_FILTER = "filter-usual-";

/** A filter of a channel with its usual values; a narrow one of another bandwidth where that is said, nm. */
export function usualFilter(channel: Channel, narrowNm?: number): { readonly id: string; readonly data: Filter } {
  const usual = CHANNEL_FACTS[channel];
  const isNarrow = usual.bandwidthNm < 20 && channel !== "Dual";
  const bandwidthNm = isNarrow ? (narrowNm ?? usual.bandwidthNm) : usual.bandwidthNm;
  const name =
    channel === "Colour"
      ? "No filter (colour)"
      : channel === "Dual"
        ? "Dual band"
        : isNarrow
          ? `${channel} ${bandwidthNm} nm`
          : channel;
  const width = bandwidthNm === usual.bandwidthNm ? "" : `-${bandwidthNm}nm`;
  return {
    id: `${USUAL_FILTER}${channel.toLowerCase()}${width}`,
    data: { name, channel, centreNm: usual.centreNm, bandwidthNm, transmission: 0.9 },
  };
}

/** What a newcomer can tick: one filter a channel with its usual values; kept with the first rig. */
export const usualFilters = (): { readonly id: string; readonly data: Filter }[] =>
  CHANNELS.map((channel) => usualFilter(channel));

/** The limits of its owner for subs, and the checklist, are written elsewhere, and stay. */
const withElsewhere = (before: Rig | undefined, after: Rig): Rig => ({
  ...after,
  ...(before?.limits ? { limits: before.limits } : {}),
  ...(before?.care ? { care: before.care } : {}),
});

/** Keeps a rig, and filters that came with it; with the first one the usual filters where none came. */
export function saveRig(
  library: Library,
  rig: Draft<Rig>,
  came: readonly { readonly id: string; readonly data: Filter }[] = [],
): Promise<Result<Kept, KeepFault>> {
  const have = new Set(library.filters.map((f) => f.id));
  const ticked = (f: { readonly id: string }) => rig.data.filterIds.includes(f.id);
  const usual = came.length > 0 ? usualFilters().filter(ticked) : usualFilters();
  const all = [...came, ...(have.size > 0 ? [] : usual)];
  const filters = [...new Map(all.map((f) => [f.id, f])).values()].filter((f) => !have.has(f.id));
  const id = idOf(library.desk, rig, "rig");
  const { settings } = library;
  // The first one is used on every screen; another one added later changes nothing of that.
  const isFirst = settings !== null && !library.rigs.some((r) => r.id === settings.data.rigId);
  const chosen = library.rigs[0]?.id ?? id;
  const before = library.rigs.find((r) => r.id === rig.id);
  return keep(library.desk, [
    { kind: "rig", id, data: withElsewhere(before?.data, remarked(before?.data, rig.data)), baseRev: baseOf(rig) },
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

/** Changes the checklist that is kept with a rig. */
export const changeCare = (
  { desk }: Library,
  rig: { readonly id: string; readonly data: Rig },
  baseRev: string,
  change: CareChange,
): Promise<Result<Kept, KeepFault>> => {
  const care = changedCare(rig.data, change, () => desk.newId("check"));
  return keep(desk, [{ kind: "rig", id: rig.id, data: { ...rig.data, care }, baseRev }]);
};

/** Keeps a rig like another under a name of its own; gives its id. */
export async function copyRig(library: Library, rig: Rig): Promise<Result<string, KeepFault>> {
  const id = library.desk.newId("rig");
  const taken = new Set(library.rigs.map((r) => r.data.name));
  let name = `${rig.name}, copy`.slice(0, 120);
  for (let n = 2; taken.has(name); n++) name = `${rig.name.slice(0, 100)}, copy ${n}`;
  const kept = await keep(library.desk, [{ kind: "rig", id, data: { ...rig, name }, baseRev: null }]);
  return kept.ok ? ok(id) : kept;
}

/** Keeps a filter. */
export const saveFilter = (desk: Desk, filter: Draft<Filter>): Promise<Result<Kept, KeepFault>> =>
  keep(desk, [{ kind: "filter", id: idOf(desk, filter, "filter"), data: filter.data, baseRev: baseOf(filter) }]);

/** Keeps a target of one's own under an id already made. */
export const saveOwnTarget = (desk: Desk, target: Draft<OwnTarget>): Promise<Result<Kept, KeepFault>> =>
  keep(desk, [{ kind: "target", id: target.id, data: target.data, baseRev: target.baseRev || null }]);

/** Changes some of the settings. There are none before there is a place. */
export function changeSettings(library: Library, change: Partial<Settings>): Promise<Result<Kept, KeepFault>> {
  const { settings } = library;
  if (!settings) return Promise.resolve(err({ code: "noPlaceYet" }));
  return keep(library.desk, [
    { kind: "settings", id: "settings", data: { ...settings.data, ...change }, baseRev: settings.rev },
  ]);
}
