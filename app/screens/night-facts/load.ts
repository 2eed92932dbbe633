import type { Desk } from "~/desk/desk";
import { opticsOf } from "~/core/framing";
import { loadChoice } from "~/desk/sky/choice";
import { exposedOf, factsOf } from "~/desk/log/night-facts";
import { ownContextsOf } from "~/desk/projects/project";

/** The facts of the chosen night at the chosen place, and those of all its nights. */
export async function loadFacts(desk: Desk, request: Request) {
  const { library, choice } = await loadChoice(desk, request);
  const { place, night } = choice;
  if (!place) return null;
  const planned = new Map(ownContextsOf(library).flatMap((c) => c.needs.map((n) => [c.rig.id, n.subSec] as const)));
  const log = library.log.byPlace.get(place.id)?.map((x) => x.data) ?? [];
  // The longest really shot there that night, else in any night, else what is planned.
  const longest = (some: readonly { readonly exposureSec: number }[]) =>
    some.reduce((sec, e) => Math.max(sec, e.exposureSec), 0);
  const subOf = (rigId: string) => {
    const mine = log.filter((e) => e.rigId === rigId);
    return longest(mine.filter((e) => e.night === night)) || longest(mine) || (planned.get(rigId) ?? 300);
  };
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
      subSec: subOf(r.id),
      isGuided: r.data.isGuided,
    })),
  };
}

/** The facts of nights as their page shows them. */
export type FactsView = NonNullable<Awaited<ReturnType<typeof loadFacts>>>;
