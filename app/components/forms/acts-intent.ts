import type { RecordKind } from "~/core/crew";
import type { KeepFault } from "~/core/records";
import type { NightDate } from "~/core/time";

/** A stop of the round with its page, or what else can be done about the round. */
export type RoundGoal = "take up" | "leave" | { readonly stop: string; readonly path: string };

/**
 * What can be asked from any screen, at `ACTS`: to take an act back, to choose among versions written at the same time, to set
 * aside what is stored and does not read, to go on the round, and to tick a line of a night's checklist.
 */
export type ActsIntent =
  | { readonly act: "undo"; readonly undoId: string }
  | { readonly act: "recheck" }
  | {
      /** Goes to a stop of the round and its page, takes the round up, or leaves it. */
      readonly act: "round";
      readonly to: RoundGoal;
    }
  | {
      readonly act: "tick";
      readonly night: NightDate;
      readonly rigId: string;
      readonly check: string;
      readonly isDone: boolean;
    }
  | {
      readonly act: "settle";
      readonly kind: RecordKind;
      readonly id: string;
      /** The version that was shown as the one that counts, and the others shown beside it. */
      readonly rev: string;
      readonly copies: readonly string[];
      readonly data: unknown;
      readonly isDeleted: boolean;
    };

/** What came of it. */
export interface ActsAnswer {
  readonly refusal: KeepFault | null;
  /** Of a check of all that is stored: how many things were set aside; null = it could not be checked. */
  readonly aside?: number | null;
}

export const ACTS = "/acts";
