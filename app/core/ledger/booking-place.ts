import { separationDeg } from "~/core/sky";
import { degToRad } from "~/core/units";
import type { BookablePlace, BookableRig } from "./booking-context";
import type { ExposureFacts } from "./exposure-facts";

const SAME_PLACE_KM = 5; // a phone's fix, a town's middle
const EARTH_KM = 6371;

/** Kilometres between two places on a round Earth. */
function kmApart(
  a: { readonly latitudeDeg: number; readonly longitudeDeg: number },
  b: { readonly latitudeDeg: number; readonly longitudeDeg: number },
): number {
  const at = (p: typeof a) => ({ frame: "icrs", raDeg: p.longitudeDeg, decDeg: p.latitudeDeg }) as const;
  return degToRad(separationDeg(at(a), at(b))) * EARTH_KM;
}

/** The places that an exposure can come from: the header's, else where all its rigs were last used, else any. */
export function placesFor(
  facts: ExposureFacts,
  rigs: readonly BookableRig[],
  places: readonly BookablePlace[],
): readonly BookablePlace[] {
  const { site } = facts;
  if (site) {
    const near = places
      .map((p) => ({ p, km: kmApart(p.place, site) }))
      .filter((x) => x.km <= SAME_PLACE_KM)
      .sort((a, b) => a.km - b.km);
    if (near[0]) return [near[0].p];
  }
  if (places.length <= 1) return places;
  const last = [...new Set(rigs.map((r) => r.lastPlaceId))];
  const known = last.length === 1 ? places.find((p) => p.id === last[0]) : undefined;
  return known ? [known] : places;
}
