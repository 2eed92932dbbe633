import type { CareOccasion, CarePart, OwnCheck, Rig, RigCare } from "~/core/exposure";
import { wholeChecklist } from "./checklist";

/** A change of a rig's checklist by its owner. */
export type CareChange =
  | { readonly what: "add"; readonly part: CarePart; readonly occasion: CareOccasion; readonly words: string }
  /** Says a check in other words, a usual one or one's own. */
  | { readonly what: "reword"; readonly id: string; readonly words: string }
  /** Takes a check out: a usual one is kept in mind, one's own is gone. */
  | { readonly what: "leaveOut"; readonly id: string }
  | { readonly what: "takeBack"; readonly id: string }
  /** All as it is usual for such kit. */
  | { readonly what: "asUsual" };

const NOTHING: RigCare = { own: [], without: [] };

/** How a rig's checklist stands after a change; absent = as usual. What does not fit the list as it is changes nothing. */
export function changedCare(rig: Rig, change: CareChange, newId: () => string): RigCare | undefined {
  const care = rig.care ?? NOTHING;
  return tidy(change.what === "asUsual" ? NOTHING : changed(rig, care, change, newId));
}

function changed(
  rig: Rig,
  care: RigCare,
  change: Exclude<CareChange, { what: "asUsual" }>,
  newId: () => string,
): RigCare {
  // prettier-ignore
  if (change.what === "add") {
    const { part, occasion, words } = change;
    return { ...care, own: [...care.own, { id: newId(), part, occasion, words }] };
  }
  if (change.what === "takeBack") return { ...care, without: care.without.filter((id) => id !== change.id) };
  const check = wholeChecklist(rig).find((c) => c.id === change.id);
  if (!check) return care;
  const isIt = (c: OwnCheck) => (c.insteadOf ?? c.id) === check.id || c.id === check.id;
  if (change.what === "leaveOut") {
    // A usual one in other words goes as a whole: its usual words do not come back by themselves.
    const without = check.usual === null ? care.without : [...care.without, check.usual];
    return { own: care.own.filter((c) => !isIt(c)), without };
  }
  const { words } = change;
  if (check.words !== null) return { ...care, own: care.own.map((c) => (isIt(c) ? { ...c, words } : c)) };
  const { part, occasion, id } = check;
  return { ...care, own: [...care.own, { id: newId(), part, occasion, words, insteadOf: id }] };
}

const tidy = (care: RigCare): RigCare | undefined =>
  care.own.length === 0 && care.without.length === 0 ? undefined : care;
