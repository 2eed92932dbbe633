import type { KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { remove, type Kept } from "~/desk/records/acts";
import type { Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";

/** One's own entries and calibration frames that a stand-in made. */
export function simulatedIn(library: Library) {
  const me = meOf(library);
  return {
    entries: library.contributions.filter((c) => c.data.isSimulated && c.data.memberId === me),
    calibrations: library.calibrations.filter((c) => c.data.isSimulated && c.data.memberId === me),
  };
}

/** Takes all of them out of the log; taken back as one act. */
export function takeSimulatedOut(library: Library): Promise<Result<Kept, KeepFault>> {
  const { entries, calibrations } = simulatedIn(library);
  return remove(library.desk, [
    ...entries.map((e) => ({ kind: "contribution" as const, ...e })),
    ...calibrations.map((c) => ({ kind: "calibration" as const, ...c })),
  ]);
}
