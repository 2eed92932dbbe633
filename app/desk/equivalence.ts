import { coveredShare, memberWeights, type ContributionData, type MemberWeight, type ShotFrame } from "~/core/ledger";
import type { KitUnderSky } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { layoutOf, panelsOf } from "~/core/plan";
import type { Library } from "./library";
import type { ProjectContext } from "./project";
import { recaller } from "./recall";

const weights = recaller<MemberWeight[]>(20);

/** The hours of each member of a project as hours at the place and with the rig it is shown by, over its reference frame. */
export const weightsOf = (library: Library, c: ProjectContext): MemberWeight[] =>
  weights(c.id, [c, library.rigs, library.places, library.filters], () => weighed(library, c));

function weighed(library: Library, c: ProjectContext): MemberWeight[] {
  const kit = (rigId: string, placeId: string): KitUnderSky | null => {
    const rig = library.rigs.find((r) => r.id === rigId)?.data;
    const place = library.places.find((p) => p.id === placeId)?.data;
    if (!rig || !place) return null;
    const filters = library.filters.filter((f) => rig.filterIds.includes(f.id)).map((f) => f.data);
    return { rig, filters, skyMagPerArcsec2: place.skyMagPerArcsec2 };
  };
  const shot = (frameId: string | undefined, rigId: string): ShotFrame | null => {
    const frame = c.stock.frames.find((f) => f.id === (frameId ?? c.stock.referenceId))?.data;
    const rig = library.rigs.find((r) => r.id === rigId)?.data;
    if (!frame || !rig) return null;
    const optics = opticsOf(rig);
    return { layout: layoutOf(frame, optics), panels: panelsOf(frame, optics) };
  };
  const reference = shot(undefined, c.rig.id);
  const covers = new Map<string, number | null>();
  const coverOf = (e: ContributionData) => {
    const key = `${e.frameId ?? ""} ${e.rigId}`;
    if (!covers.has(key)) {
      const other = shot(e.frameId, e.rigId);
      covers.set(key, reference && other ? Math.min(1, coveredShare(reference, other)) : null);
    }
    return covers.get(key) ?? null;
  };
  return memberWeights(
    c.contributions.map((x) => x.data),
    {
      reference: {
        rig: c.rig.data,
        filters: c.filters.map((f) => f.data),
        skyMagPerArcsec2: c.place.data.skyMagPerArcsec2,
      },
      kitOf: (e) => kit(e.rigId, e.placeId),
      coverOf,
    },
  );
}
