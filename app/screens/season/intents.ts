import type { KeepFault } from "~/core/records";
import type { LockAbout } from "~/desk/plan/locks";
import type { NightDate } from "~/core/time";

/** What the season asks for: locks set and let go of. */
export type SeasonIntent =
  | { readonly act: "lock"; readonly night: NightDate; readonly about: LockAbout }
  /** Fixes a project on another night than it was planned for. */
  | { readonly act: "move"; readonly projectId: string; readonly from: NightDate; readonly to: NightDate }
  | { readonly act: "unlock"; readonly ids: readonly string[] }
  /** Puts what a text names on the wish list. */
  | { readonly act: "wishes"; readonly text: string }
  | { readonly act: "unwish"; readonly targetIds: readonly string[] };

/** What came of it. */
export interface SeasonAnswer {
  readonly refusal: KeepFault | null;
  /** Of a list of wishes: what was not found, and how many were. */
  readonly missing?: readonly string[];
  readonly found?: number;
}
