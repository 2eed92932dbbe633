import type { ReadForecast } from "~/core/formats";
import type { KeepFault } from "~/core/records";

/** What Tonight asks to be written down, and what it asks for again. */
export type TonightIntent =
  | { readonly act: "begin" }
  | { readonly act: "look"; readonly isClear: boolean }
  | { readonly act: "typed"; readonly text: string; readonly isOneMore: boolean }
  | { readonly act: "forecastFile"; readonly read: ReadForecast; readonly isOneMore: boolean }
  | { readonly act: "wish"; readonly hours: string }
  | { readonly act: "again" };

/** What came of it. */
export interface TonightAnswer {
  readonly refusal?: KeepFault | null;
  /** What is wrong with what was typed. */
  readonly fault?: string;
  readonly said?: string;
}
