import type { RecordKind } from "~/core/crew";

/** What can be asked from any screen, at `ACTS`: to take an act back, and to choose among versions written at the same time. */
export type ActsIntent =
  | { readonly act: "undo"; readonly undoId: string }
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

export const ACTS = "/acts";
