import type { Happening } from "~/core/live";
import type { KeepFault } from "~/core/records";

/** One press, for a rig at a place; or what the other device's codes brought is taken over. */
export type LiveIntent =
  | {
      readonly act: "press";
      readonly night: string;
      readonly rigId: string;
      readonly placeId: string;
      readonly is: Happening;
    }
  | { readonly act: "takeOver"; readonly handle: string };

/** What came of it. */
export interface LiveAnswer {
  readonly refusal: KeepFault | null;
  /** By which the press is taken back; "" = it was not kept. */
  readonly undoId: string;
}
