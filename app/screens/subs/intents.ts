import type { SubLimits } from "~/core/exposure";
import type { CullReason } from "~/core/ledger";
import type { KeepFault } from "~/core/records";
import type { MeasureReport } from "~/desk/log/cull";
import type { MeasuredFile } from "~/desk/log/files";

/** What looking through a night's subs asks for. */
export type SubsIntent =
  | {
      readonly act: "cull";
      readonly ids: readonly string[];
      readonly night: string;
      readonly isKept: boolean;
      readonly reason: CullReason;
    }
  /** The owner's own rule for a rig's subs. */
  | { readonly act: "limits"; readonly rigId: string; readonly limits: SubLimits }
  | { readonly act: "measured"; readonly files: readonly MeasuredFile[] };

/** What came of it. */
export interface SubsAnswer {
  readonly refusal: KeepFault | null;
  readonly report?: MeasureReport;
}
