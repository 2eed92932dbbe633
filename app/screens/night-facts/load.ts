import { opticsOf } from "~/core/framing";
import { loadChoice } from "~/desk/choice";
import { exposedOf, factsOf } from "~/desk/night-facts";
import { ownContextsOf } from "~/desk/project";

/** The facts of the chosen night at the chosen place, and those of all its nights. */
export async function loadFacts(request: Request) {
  const { library, choice } = await loadChoice(request);
  const { place, night } = choice;
  if (!place) return null;
  const subs = new Map(ownContextsOf(library).flatMap((c) => c.needs.map((n) => [c.rig.id, n.subSec] as const)));
  return {
    night,
    placeId: place.id,
    placeName: place.data.name,
    latitudeDeg: place.data.latitudeDeg,
    facts: factsOf(library, place.id, night),
    all: library.nightFacts
      .map((f) => f.data)
      .filter((f) => f.placeId === place.id)
      .sort((a, b) => (a.night < b.night ? -1 : 1)),
    /** Minutes of exposure at this place in this night, by the log. */
    exposed: exposedOf(library, place.id, night),
    rigId: choice.rig?.id ?? "",
    rigs: library.rigs.map((r) => ({
      id: r.id,
      name: r.data.name,
      scaleArcsec: opticsOf(r.data).pixelScaleArcsecPerPx,
      subSec: subs.get(r.id) ?? 300,
    })),
  };
}

/** The facts of nights as their page shows them. */
export type FactsView = NonNullable<Awaited<ReturnType<typeof loadFacts>>>;
