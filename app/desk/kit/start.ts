import {
  opticsName,
  stillTypical,
  typicalRig,
  type Filter,
  type KitPresets,
  type Rig,
  type TypicalFilters,
  type TypicalKit,
} from "~/core/exposure";
import {
  firstDarkNight,
  isEverDark,
  USUAL_CLEAR_CHANCE,
  targetNight,
  USUAL_MOON,
  type Place,
  type PlaceNight,
  type TargetNight,
} from "~/core/night";
import type { KeepFault } from "~/core/records";
import { ok, type Result } from "~/core/result";
import { kitFromExposure, type KitFromExposure } from "~/core/ledger";
import { nightOf, nightSky, nightWindow, sunAltitudeDeg } from "~/core/sky";
import type { NightDate, UtcMs } from "~/core/time";
import type { ReadFile } from "~/workers/files";
import presets from "~/data/kit-presets.json";
import type { RankedEntry } from "~/workers/sky";
import type { Desk } from "~/desk/desk";
import { keep, type Kept } from "~/desk/records/acts";
import { tonightAt } from "~/desk/sky/choice";
import { ownerOf, saveRig, usualFilter, type Draft } from "./kit";
import type { Library } from "~/desk/records/library";
import { lockNight } from "~/desk/plan/locks";
import { nightOver } from "~/desk/sky/nights";
import { libraryHere } from "~/desk/records/open-library";
import { startProject } from "~/desk/projects/projects";

/** Kinds of kit and of sky with the typical values of their classes, from memory. */
export const KIT_PRESETS = presets as KitPresets;

/** The zone of a position, from borders that ship with the app; null at sea where none is. */
export async function zoneAt(latitudeDeg: number, longitudeDeg: number): Promise<string | null> {
  const { default: zoneOf } = await import("@photostructure/tz-lookup");
  return zoneOf(latitudeDeg, longitudeDeg) ?? null;
}

/** Has the catalogue and the gazetteer read before anybody asks for them. */
export function warmUp(desk: Desk): void {
  void desk.workers.sky.entry("NGC 7000").catch(() => undefined);
}

/** Where somebody observes from, in three answers: position, zone, and the sky by its look or as measured. */
export interface StartPlace {
  readonly name: string;
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
  readonly elevationM: number;
  readonly timeZone: string;
  readonly skyMagPerArcsec2: number;
  /** The sky was chosen by its look and not measured. */
  readonly isSkyByLook: boolean;
  /** Chance of a clear night over the year as its observer says, 0 to 1; null = not known: assumed, and said so. */
  readonly clearChance: number | null;
}

/** What somebody observes with: kinds of kit, and the values of their own that replace typical ones. */
export interface StartKit extends TypicalKit {
  readonly filters: TypicalFilters;
  readonly own: Readonly<Record<string, number>>;
  /** As the files of the camera call it; "" = any. */
  readonly cameraName: string;
}

const LOWEST_ALTITUDE_DEG = 25;
const SEEING_ARCSEC = 3;

/** A place of three answers: a level skyline, the seeing and, unless somebody said, the clear nights of a usual garden, all marked as not measured. */
export const placeOf = (start: StartPlace): Place => ({
  name: start.name,
  latitudeDeg: start.latitudeDeg,
  longitudeDeg: start.longitudeDeg,
  elevationM: start.elevationM,
  timeZone: start.timeZone,
  skyMagPerArcsec2: start.skyMagPerArcsec2,
  minAltitudeDeg: LOWEST_ALTITUDE_DEG,
  seeingArcsec: SEEING_ARCSEC,
  skyline: [],
  clearChance: Array.from({ length: 12 }, () => start.clearChance ?? USUAL_CLEAR_CHANCE),
  typical: [
    ...(start.isSkyByLook ? ["skyMagPerArcsec2"] : []),
    "skyline",
    "seeingArcsec",
    ...(start.clearChance === null ? ["clearChance"] : []),
  ],
});

/** The filters of a set, by the ids under which they are kept. */
export const filtersOf = (set: TypicalFilters): readonly { readonly id: string; readonly data: Filter }[] =>
  set.channels.map((channel) => usualFilter(channel, set.bandwidthNm));

const SENSOR_NAMES = ["widthPx", "heightPx", "pixelPitchUm", "binning"];

/** Keeps those filters of a set that are not here yet. */
export function addFilterSet(library: Library, setId: string): Promise<Result<Kept, KeepFault>> {
  const set = KIT_PRESETS.filterSets.find((s) => s.id === setId);
  const have = new Set(library.filters.map((f) => f.id));
  return keep(
    library.desk,
    (set ? filtersOf(set) : [])
      .filter((f) => !have.has(f.id))
      .map((f) => ({ kind: "filter" as const, id: f.id, data: f.data, baseRev: "latest" })),
  );
}

/** A rig of kinds, with its owner's own values in the place of typical ones. */
export function rigOf({ own, cameraName, filters, ...kit }: StartKit): Rig {
  const ids = filtersOf(filters).map((f) => f.id);
  const words = opticsName(kit.optics, own["focalLengthMm"], own["apertureMm"]);
  const typical = typicalRig(words.charAt(0).toUpperCase() + words.slice(1), kit, ids);
  const sensor = Object.fromEntries(Object.entries(own).filter(([name]) => SENSOR_NAMES.includes(name)));
  const rest = Object.fromEntries(Object.entries(own).filter(([name]) => !SENSOR_NAMES.includes(name)));
  const rig: Rig = { ...typical, ...rest, sensor: { ...typical.sensor, ...sensor }, cameraName };
  return { ...rig, typical: stillTypical(typical, rig) };
}

/** A rig of kinds, and the filters of its set under the ids they are kept by. */
export function rigOfKinds(
  kit: TypicalKit & { readonly filters: TypicalFilters },
  own: Readonly<Record<string, number>>,
): { readonly rig: Rig; readonly filters: readonly { readonly id: string; readonly data: Filter }[] } {
  return { rig: rigOf({ ...kit, own, cameraName: "" }), filters: filtersOf(kit.filters) };
}

/** Keeps a rig that was begun with its kinds: what is still as typical of them is marked so, and filters of the set that it takes come with it. */
export function saveRigOfKinds(
  library: Library,
  rig: Draft<Rig>,
  kit: TypicalKit & { readonly filters: TypicalFilters },
): Promise<Result<Kept, KeepFault>> {
  const made = rigOfKinds(kit, {});
  const typical = rig.data.typical ?? stillTypical(made.rig, rig.data);
  const set = made.filters.filter((f) => rig.data.filterIds.includes(f.id));
  return saveRig(library, { ...rig, data: { ...rig.data, typical } }, set);
}

/** What dropped exposures tell of kit and place: each fact from the first file that says it. */
export function takenFrom(files: readonly ReadFile[], writtenMs: readonly number[]): KitFromExposure | null {
  const sunAt = (site: { readonly latitudeDeg: number; readonly longitudeDeg: number }, at: UtcMs) => {
    const place = { ...site, elevationM: 0, timeZone: "Etc/UTC" };
    return sunAltitudeDeg(nightSky(place, nightWindow(place, nightOf(place, at))), at);
  };
  const all = files.flatMap((f, i) =>
    f.facts.ok ? [kitFromExposure(f.facts.value, writtenMs[i] ?? null, sunAt)] : [],
  );
  if (all.length === 0) return null;
  const first = <K extends keyof KitFromExposure>(name: K): KitFromExposure[K] =>
    (all.find((k) => k[name] !== null) ?? all[0]!)[name];
  const solved = all.find((k) => k.isFocalSolved);
  return {
    focalLengthMm: solved?.focalLengthMm ?? first("focalLengthMm"),
    isFocalSolved: solved !== undefined,
    pixelPitchUm: first("pixelPitchUm"),
    widthPx: first("widthPx"),
    heightPx: first("heightPx"),
    cameraName: first("cameraName"),
    isColour: first("isColour"),
    gain: first("gain"),
    site: first("site"),
    clock: first("clock"),
  };
}

/** The kinds of kit that come nearest to what an exposure tells: optics by focal length, camera by pixel and size; null where it does not say. */
export function nearestKinds(taken: KitFromExposure): {
  readonly optics: string | null;
  readonly camera: string | null;
} {
  const off = (a: number, b: number) => Math.abs(Math.log(a / b));
  const { focalLengthMm: focal, pixelPitchUm: pitch, widthPx: width } = taken;
  const optics =
    focal === null
      ? null
      : KIT_PRESETS.optics.reduce((a, b) => (off(b.focalMm, focal) < off(a.focalMm, focal) ? b : a));
  const cameraOff = (c: (typeof KIT_PRESETS.cameras)[number]) =>
    (pitch === null ? 0 : off(c.pixelUm, pitch)) + (width === null ? 0 : off(c.widthPx, width));
  const camera =
    pitch === null && width === null
      ? null
      : KIT_PRESETS.cameras.reduce((a, b) => (cameraOff(b) < cameraOff(a) ? b : a));
  return { optics: optics?.id ?? null, camera: camera?.id ?? null };
}

/** What many begin with: a small refractor and a cooled colour camera on a guided mount. */
export function usualKit(): {
  readonly rig: Rig;
  readonly filters: readonly { readonly id: string; readonly data: Filter }[];
} {
  const find = <T extends { readonly id: string }>(list: readonly T[], id: string): T => list.find((x) => x.id === id)!;
  const { optics, cameras, mounts, filterSets } = KIT_PRESETS;
  const filters = find(filterSets, "colour-plain");
  const kit = { optics: find(optics, "ref-360"), camera: find(cameras, "c-aps-26"), mount: find(mounts, "eq") };
  return { rig: rigOf({ ...kit, isColour: true, filters, own: {}, cameraName: "" }), filters: filtersOf(filters) };
}

/** A target of the first answer, with its night. */
export interface FirstTarget {
  readonly target: RankedEntry;
  readonly night: TargetNight;
}

/** What tonight is best for, from a place with a rig that nobody has kept yet. */
export interface FirstAnswer {
  readonly place: Place;
  readonly rig: Rig;
  readonly date: NightDate;
  /** Else it does not get dark tonight, and this is the first night that does. */
  readonly isTonight: boolean;
  readonly night: PlaceNight;
  readonly best: readonly FirstTarget[];
}

const BEST = 3;

/** Tonight's best targets by the same ranking as the list of all: clear sky assumed. */
export async function firstAnswer(desk: Desk, at: StartPlace, kit: StartKit): Promise<FirstAnswer> {
  const place = placeOf(at);
  const rig = rigOf(kit);
  const today = tonightAt(desk, place);
  const isDark = isEverDark(nightOver(desk, place, today, USUAL_MOON));
  const date = isDark ? today : (firstDarkNight(place, today, USUAL_MOON) ?? today);
  const filters = filtersOf(kit.filters).map((f) => f.data);
  const ranking = await desk.workers.sky.rank({ place, date, moon: USUAL_MOON, rig, filters, own: [] });
  const night = nightOver(desk, place, date, USUAL_MOON);
  const best = ranking.ranked
    .filter((t) => !t.isOutOfReach && t.within === null)
    .slice(0, BEST)
    .map((target): FirstTarget => ({ target, night: targetNight(night, target.entry.at, target.channel, target.own) }));
  return { place, rig, date, isTonight: date === today, night, best };
}

/** Keeps a place, a rig and its filters in one act; they are used on every screen from then on. With a target, its picture is begun too, tonight. */
export async function begin(
  library: Library,
  at: StartPlace,
  kit: StartKit,
  targetId: string | null,
): Promise<Result<{ readonly projectId: string | null }, KeepFault>> {
  const [placeId, rigId] = [library.desk.newId("place"), library.desk.newId("rig")];
  const have = new Set(library.filters.map((f) => f.id));
  const { settings } = library;
  const kept = await keep(library.desk, [
    { kind: "place", id: placeId, data: placeOf(at), baseRev: null },
    { kind: "rig", id: rigId, data: rigOf(kit), baseRev: null },
    ...filtersOf(kit.filters)
      .filter((f) => !have.has(f.id))
      .map((f) => ({ kind: "filter" as const, id: f.id, data: f.data, baseRev: "latest" })),
    ...(settings
      ? [
          {
            kind: "settings" as const,
            id: "settings",
            data: { ...settings.data, placeId, rigId },
            baseRev: settings.rev,
          },
        ]
      : ownerOf(library, { placeId, rigId }).edits),
  ]);
  if (!kept.ok) return kept;
  if (targetId === null) return ok({ projectId: null });
  const after = await libraryHere(library.desk);
  const place = after.places.find((p) => p.id === placeId)!;
  const rig = after.rigs.find((r) => r.id === rigId)!;
  const entry = await library.desk.workers.sky.entry(targetId);
  if (!entry) return ok({ projectId: null });
  const today = tonightAt(library.desk, place.data);
  const started = await startProject(after, { place, rig, today }, entry);
  if (!started.ok) return started;
  // It was chosen for tonight: the night is kept for it, whatever else the plan would do with it.
  if (isEverDark(nightOver(library.desk, place.data, today, USUAL_MOON)))
    await lockNight(await libraryHere(library.desk), today, { does: "fix", projectId: started.value.projectId });
  return started;
}
