import type { Happening } from "~/core/live";
import type { KeepFault } from "~/core/records";

/** One press, for a rig at a place. */
export interface LiveIntent {
  readonly act: "press";
  readonly night: string;
  readonly rigId: string;
  readonly placeId: string;
  readonly is: Happening;
}

/** What came of it. */
export interface LiveAnswer {
  readonly refusal: KeepFault | null;
  /** By which the press is taken back; "" = it was not kept. */
  readonly undoId: string;
}
