import { opticsOf } from "~/core/framing";
import { coveredShare, memberWeights, type ContributionData, type MemberWeight } from "~/core/ledger";
import type { Library } from "~/desk/records/library";
import type { ProjectContext } from "./project";
import { topic } from "~/desk/memo";
import { hourIsOf, shotOf, shotWith } from "./reference";

const weights = topic<MemberWeight[]>(20);

/** The hours of each member of a project as hours at its reference, over the frame that is shot. */
export const weightsOf = (library: Library, c: ProjectContext): MemberWeight[] =>
  library.desk.memo(weights, c.id, [c, library.rigs, library.places, library.filters], () => weighed(library, c));

function weighed(library: Library, c: ProjectContext): MemberWeight[] {
  const reference = c.stock.frames.find((f) => f.id === c.stock.referenceId);
  const whole = reference && shotWith(reference.data, opticsOf(c.reference.rig.data));
  const shotBy = shotOf(library, c.stock);
  const covers = new Map<string, number | null>();
  const coverOf = (e: ContributionData) => {
    const key = `${e.frameId ?? ""} ${e.rigId}`;
    if (!covers.has(key)) {
      const other = shotBy(e);
      covers.set(key, whole && other ? coveredShare(whole, other) : null);
    }
    return covers.get(key) ?? null;
  };
  return memberWeights(c.byLight, { hourIs: hourIsOf(library, c.reference, c.project.data.light), coverOf });
}
