import type { CareChange } from "~/core/care";

/** One change of a rig's checklist, made on the version that was on the page. */
export interface ChecklistIntent {
  readonly act: "change";
  readonly baseRev: string;
  readonly change: CareChange;
}
