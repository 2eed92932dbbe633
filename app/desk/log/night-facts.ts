import type { Rig } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { textSumOf, toldByFiles, type ContributionData, type NightFacts, type ToldByFiles } from "~/core/ledger";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { airmassKastenYoung, apparentVector, horizontalAt, nightOf, nightWindow } from "~/core/sky";
import { addNights, DAY_MS, utcMs, type NightDate } from "~/core/time";
import { placeSky, type Place } from "~/core/night";
import { keep, type Kept } from "~/desk/records/acts";
import type { Entity, Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";
import { contextOf } from "~/desk/projects/project";

/** One night of a rig at one place by one member has one name, in every tab. */
const factsId = (memberId: string, { placeId, night, rigId = "" }: Omit<NightFacts, "memberId">): string =>
  `night-${night}-${textSumOf([memberId, placeId, rigId].join("|"))}`;

/**
 * One's own facts of a rig's night at a place; those of the night that name no rig where there are none of this one. Null where nothing
 * is written down.
 */
export function factsOf(library: Library, placeId: string, night: string, rigId: string): Entity<NightFacts> | null {
  const me = meOf(library) ?? "me";
  const ofNight = library.nightFacts.filter(
    ({ data }) => data.night === night && data.placeId === placeId && data.memberId === me,
  );
  return (
    ofNight.find((f) => f.data.rigId === rigId || (f.data.rigId === undefined && rigId === "")) ??
    ofNight.find((f) => f.data.rigId === undefined) ??
    null
  );
}

/** Keeps the facts of a rig's night. */
export function keepFacts(
  library: Library,
  facts: Omit<NightFacts, "memberId">,
  baseRev: string | null,
): Promise<Result<Kept, KeepFault>> {
  const memberId = meOf(library) ?? "me";
  const known = factsOf(library, facts.placeId, facts.night, facts.rigId ?? "");
  return keep(library.desk, [
    {
      kind: "night",
      id: known?.id ?? factsId(memberId, facts),
      data: { ...facts, memberId },
      baseRev: baseRev ?? known?.rev ?? null,
    },
  ]);
}

/** What a rig's own subs of a night at a place say of it. */
export function toldOf(library: Library, place: Entity<Place>, night: NightDate, rig: Entity<Rig>): ToldByFiles {
  const me = meOf(library);
  const subs = (library.log.byNight.get(night) ?? [])
    .map((c) => c.data)
    .filter((d) => d.placeId === place.id && d.rigId === rig.id && d.memberId === me);
  const sky = placeSky(place.data, night);
  return toldByFiles(subs, opticsOf(rig.data).pixelScaleArcsecPerPx, ({ projectId, at, startMs, exposureSec }) => {
    // Without a pointing of its own a sub is of the middle of its project's frame.
    const centre = at ?? contextOf(library, projectId)?.layout.centre;
    if (!centre || startMs === null) return null;
    const { raDeg, decDeg } = centre;
    const middle = utcMs(startMs + 500 * exposureSec);
    const { altitudeDeg } = horizontalAt(sky, apparentVector(sky, { frame: "icrs", raDeg, decDeg }), middle);
    return altitudeDeg > 0 ? airmassKastenYoung(altitudeDeg) : null;
  });
}

/** Writes down, for the middle of a night, whether it was clear. */
export function keepNightLook(
  library: Library,
  place: Entity<Place>,
  night: NightDate,
  isClear: boolean,
): Promise<Result<Kept, KeepFault>> {
  const atMs = nightWindow(place.data, night).startMs + DAY_MS / 2;
  const data = { placeId: place.id, memberId: meOf(library) ?? "me", atMs, isClear };
  return keep(library.desk, [{ kind: "look", id: `look-${place.id}-${atMs}`, data, baseRev: "latest" }]);
}

const ASKED_NIGHTS = 14; // further back nobody remembers

/** Nights gone by at a place of which nobody wrote down anything, latest first: odds learn from all of them. */
export function silentNights(library: Library, place: Entity<Place>, today: NightDate): NightDate[] {
  const said = new Set<string>([
    ...(library.log.byPlace.get(place.id) ?? []).map((c) => c.data.night),
    ...library.nightFacts.filter((f) => f.data.placeId === place.id).map((f) => f.data.night),
    ...library.looks.filter((l) => l.data.placeId === place.id).map((l) => nightOf(place.data, utcMs(l.data.atMs))),
  ]);
  const [first] = [...said].sort();
  if (first === undefined) return [];
  const nights = Array.from({ length: ASKED_NIGHTS }, (_, i) => addNights(today, -1 - i));
  return nights.filter((n) => n > first && !said.has(n));
}

/** Exposure of a rig's night at a place by one's own log, minutes taken and kept. */
export function exposedOf(
  library: Library,
  placeId: string,
  night: string,
  rigId: string,
): { readonly takenMin: number; readonly keptMin: number } {
  const me = meOf(library);
  const mine = (library.log.byNight.get(night) ?? []).filter(
    ({ data }) => data.placeId === placeId && data.memberId === me && data.rigId === rigId,
  );
  const minutes = (of: (c: ContributionData) => number) =>
    mine.reduce((sum, { data }) => sum + (of(data) * data.exposureSec) / 60, 0);
  return { takenMin: minutes((c) => c.taken), keptMin: minutes((c) => c.kept) };
}
