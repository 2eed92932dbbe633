import type { ClockFault, RecordKind } from "~/core/crew";

/** Why something was not kept: the store refused, or what was to be kept would not read again. Nothing of the act is stored. */
export type KeepFault =
  | { readonly code: "storageFull" | "storageBlocked" | "storageNewer" | "notFetched" }
  | ClockFault
  | { readonly code: "recordRefused"; readonly kind: RecordKind; readonly path: string; readonly message: string };
