import type { Desk } from "~/desk/desk";
import { opticsOf } from "~/core/framing";
import { loadChoice } from "~/desk/sky/choice";
import { exposedOf, factsOf, toldOf } from "~/desk/log/night-facts";
import { contextOf, ownContextsOf } from "~/desk/projects/project";
import type { Library } from "~/desk/records/library";
import type { ContributionData } from "~/core/ledger";

/** The facts of the chosen rig's night at the chosen place, and those of all nights of that rig there. */
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
  const rigId = choice.rig?.id ?? "";
  return {
    night,
    placeId: place.id,
    placeName: place.data.name,
    latitudeDeg: place.data.latitudeDeg,
    facts: factsOf(library, place.id, night, rigId),
    /** What the files of this rig's night say by themselves. */
    told: choice.rig ? toldOf(library, place, night, choice.rig) : null,
    /** Frames that this rig exposed for in this night, with the angle they want. */
    frames: framesOf(library, log, night, rigId),
    all: library.nightFacts
      .map((f) => f.data)
      .filter((f) => f.placeId === place.id && (f.rigId ?? rigId) === rigId)
      .sort((a, b) => (a.night < b.night ? -1 : 1)),
    /** Minutes of exposure of this rig in this night, by the log. */
    exposed: exposedOf(library, place.id, night, rigId),
    rigId,
    rigs: library.rigs.map((r) => ({
      id: r.id,
      name: r.data.name,
      scaleArcsec: opticsOf(r.data).pixelScaleArcsecPerPx,
      subSec: subOf(r.id),
      isGuided: r.data.isGuided,
    })),
  };
}

/** Frames of the projects that a rig exposed for in a night. */
function framesOf(library: Library, log: readonly ContributionData[], night: string, rigId: string) {
  const ids = new Set(log.filter((e) => e.night === night && e.rigId === rigId).map((e) => e.projectId));
  return [...ids].flatMap((id) => {
    const c = contextOf(library, id);
    return c ? [{ name: c.project.data.name, angleDeg: c.frame.data.positionAngleDeg }] : [];
  });
}

/** The facts of nights as their page shows them. */
export type FactsView = NonNullable<Awaited<ReturnType<typeof loadFacts>>>;
