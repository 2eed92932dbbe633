import type { ContributionData, NightFacts } from "~/core/ledger";
import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { nightWindow, nightOf } from "~/core/sky";
import { addNights, DAY_MS, utcMs, type NightDate } from "~/core/time";
import type { Place } from "~/core/night";
import { keep, type Kept } from "~/desk/records/acts";
import type { Entity, Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";

/** One night at one place by one member has one name, in every tab. */
const factsId = (memberId: string, placeId: string, night: string): string => `night-${memberId}-${placeId}-${night}`;

/** One's own facts of a night at a place; null where nothing is written down. */
export function factsOf(library: Library, placeId: string, night: string): Entity<NightFacts> | null {
  const me = meOf(library) ?? "me";
  return (
    library.nightFacts.find((f) => f.data.night === night && f.data.placeId === placeId && f.data.memberId === me) ??
    null
  );
}

/** Keeps the facts of a night. */
export function keepFacts(
  library: Library,
  facts: Omit<NightFacts, "memberId">,
  baseRev: string | null,
): Promise<Result<Kept, KeepFault>> {
  const memberId = meOf(library) ?? "me";
  const known = factsOf(library, facts.placeId, facts.night);
  const id = known?.id ?? factsId(memberId, facts.placeId, facts.night).slice(0, 120);
  return keep(library.desk, [
    { kind: "night", id, data: { ...facts, memberId }, baseRev: baseRev ?? known?.rev ?? null },
  ]);
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

/** Exposure of a night at a place by one's own log, minutes taken and kept. */
export function exposedOf(
  library: Library,
  placeId: string,
  night: string,
): { readonly takenMin: number; readonly keptMin: number } {
  const me = meOf(library);
  const mine = (library.log.byNight.get(night) ?? []).filter(
    (c) => c.data.placeId === placeId && c.data.memberId === me,
  );
  const minutes = (of: (c: ContributionData) => number) =>
    mine.reduce((sum, { data }) => sum + (of(data) * data.exposureSec) / 60, 0);
  return { takenMin: minutes((c) => c.taken), keptMin: minutes((c) => c.kept) };
}
