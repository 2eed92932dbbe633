import type { CullReason } from "~/core/ledger";
import type { KeepFault } from "~/core/records";
import type { Faults } from "~/components/forms/form-numbers";
import type { IntakeReport, Said } from "~/desk/log/intake";
import type { LogRecord } from "~/desk/log/log";
import type { ReadFile } from "~/desk/log/files";

/** What the log asks for beside booking an entry written by hand, which comes as a form. */
export type LogIntent =
  | {
      readonly act: "book";
      readonly files: readonly ReadFile[];
      /** What a person said of them so far. */
      readonly said: Said;
      /** Only looked at, until somebody says yes. */
      readonly isSure: boolean;
    }
  /** Lines written by hand: each is an entry. */
  | {
      readonly act: "lines";
      readonly projectId: string;
      readonly night: string;
      readonly text: string;
      readonly isSure: boolean;
    }
  /** What was told at the mount of a night becomes entries. */
  | { readonly act: "told"; readonly night: string; readonly isSure: boolean }
  /** How a night was that nobody wrote down. */
  | { readonly act: "howItWas"; readonly placeId: string; readonly night: string; readonly isClear: boolean }
  | { readonly act: "change"; readonly record: LogRecord; readonly kept: number; readonly reason: CullReason | "" }
  /** Entries that a rehearsal made go out again. */
  | { readonly act: "takeSimulatedOut" }
  | { readonly act: "delete"; readonly records: readonly LogRecord[] };

/** What came of it. */
export interface LogAnswer {
  readonly refusal: KeepFault | null;
  readonly faults?: Faults;
  /** What is wrong with a line. */
  readonly lineFault?: string;
  /** Why lines cannot be as they stand: added once somebody says that they are right. */
  readonly lineDoubt?: string;
  /** Why what was told of a night cannot be as it stands. */
  readonly toldDoubt?: { readonly night: string; readonly words: string };
  /** The entry that was booked. */
  readonly booked?: string;
  readonly report?: IntakeReport & { readonly isAdded: boolean };
}
