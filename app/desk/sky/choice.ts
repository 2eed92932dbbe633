import { refusePage } from "~/desk/page-fault";
import { USUAL_MOON, type MoonWishes, type Place } from "~/core/night";
import type { Rig } from "~/core/exposure";
import { addMs, HOUR_MS, isNightDate, utcOffsetMinutes, type NightDate } from "~/core/time";
import { nightOf, type NightPlace } from "~/core/sky";
import type { Desk } from "~/desk/desk";
import { withLearntChances } from "./learnt";
import type { Entity, Library } from "~/desk/records/library";
import { libraryHere } from "~/desk/records/open-library";

/** What the address says, filled up from settings: the night, the place and the rig that govern a screen. */
export interface Choice {
  readonly night: NightDate;
  readonly today: NightDate;
  readonly place: Entity<Place> | null;
  /** How this person takes the Moon. */
  readonly moon: MoonWishes;
  readonly rig: Entity<Rig> | null;
}

/** How the owner of this library takes the Moon. */
export const moonOf = (library: Library): MoonWishes => library.settings?.data.moon ?? USUAL_MOON;

/** From four hours before the Sun's noon on, tonight is the coming night; before, it is the one just ending. */
export const tonightAt = (desk: Desk, place: NightPlace): NightDate => nightOf(place, addMs(desk.now(), 4 * HOUR_MS));

/** As long as no place is known: the middle of the zone of this computer. */
const somewhereIn = (desk: Desk, timeZone: string): NightPlace => ({
  timeZone,
  longitudeDeg: Math.max(-180, Math.min(180, utcOffsetMinutes(timeZone, desk.now()) / 4)),
});

/** Reads the chosen night, place and rig; a night that is no date or a place that is gone is a page that cannot be. */
export function choiceOf(library: Library, params: URLSearchParams): Choice {
  const [placeId, rigId, night] = [params.get("place"), params.get("rig"), params.get("night")];
  const settings = library.settings?.data;
  const place =
    library.places.find((p) => p.id === (placeId ?? settings?.placeId)) ??
    (placeId ? null : (library.places[0] ?? null));
  const rig =
    library.rigs.find((r) => r.id === (rigId ?? settings?.rigId)) ?? (rigId ? null : (library.rigs[0] ?? null));
  if (placeId && !place) refusePage({ code: "unknownPlace" });
  if (rigId && !rig) refusePage({ code: "unknownRig" });
  if (night !== null && !isNightDate(night)) refusePage({ code: "badNight" });
  const today = tonightAt(
    library.desk,
    place?.data ?? somewhereIn(library.desk, Intl.DateTimeFormat().resolvedOptions().timeZone),
  );
  return {
    night: night ?? today,
    today,
    place: place && withLearntChances(library, place),
    moon: moonOf(library),
    rig,
  };
}

/** Everything a person owns, and what the address chooses of it. */
export async function loadChoice(desk: Desk, request: Request): Promise<{ library: Library; choice: Choice }> {
  const library = await libraryHere(desk);
  return { library, choice: choiceOf(library, new URL(request.url).searchParams) };
}

/**
 * As `loadChoice`, for the shell round every screen, which stays up whatever is stored: where a place cannot be worked with, it
 * goes without and says why. An address that chooses what is not there is still a page that cannot be.
 */
export async function loadShellChoice(
  desk: Desk,
  request: Request,
): Promise<{ library: Library; choice: Choice; fault: string | null }> {
  try {
    return { ...(await loadChoice(desk, request)), fault: null };
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    const today = tonightAt(desk, somewhereIn(desk, "Etc/UTC"));
    return {
      library: await libraryHere(desk),
      choice: { night: today, today, place: null, moon: USUAL_MOON, rig: null },
      fault: error.message,
    };
  }
}

/** A place as the altitude school in the address sees it: its own lowest altitude, or the one asked for. */
export function withSchool(place: Place, params: URLSearchParams): Place {
  const low = Number(params.get("low"));
  return params.get("low") !== null && low >= 0 && low < 90 ? { ...place, minAltitudeDeg: low } : place;
}

/** The part of an address that goes along from screen to screen, changed; more can be added to it, "" takes a part away. */
export function keptSearch(params: URLSearchParams, change: Readonly<Record<string, string>> = {}): string {
  const kept = new URLSearchParams();
  for (const name of new Set(["night", "place", "rig", ...Object.keys(change)])) {
    const value = change[name] ?? params.get(name);
    if (value) kept.set(name, value);
  }
  const text = kept.toString();
  return text === "" ? "" : `?${text}`;
}
