import type { ComponentProps } from "react";
import { Checklist, type NightLine } from "~/components/kit/Checklist";
import { Panel } from "~/components/ui/Panel";
import { needWords } from "~/components/words/calibration-words";
import type { CalibrationNeed } from "~/core/ledger";

/** What a calibration is known by in the list. */
const needId = ({ kind, exposureSec, filterName }: CalibrationNeed): string =>
  ["calibration", kind, exposureSec ?? "", filterName ?? ""].join(" ").slice(0, 120).trim();

/** What to check with the rig, and what the night itself asks: its battery, and the calibration it will want. */
export function NightChecklist({
  needs,
  battery,
  ...list
}: Omit<ComponentProps<typeof Checklist>, "lines" | "isLarge"> & {
  readonly needs: readonly CalibrationNeed[];
  /** How the battery stands; null = nobody said what the rig draws. */
  readonly battery: string | null;
}) {
  const lines: readonly NightLine[] = [
    ...(battery === null ? [] : [{ id: "battery", part: "daylight" as const, words: battery }]),
    ...needs
      .filter((n) => n.state !== "serves")
      .map((n) => ({ id: needId(n), part: "packUp" as const, words: needWords(n) })),
  ];
  return (
    <Panel
      title="Checklist"
      className="print:border-0 print:p-0 print:text-[9.5px] print:leading-[1.25] print:[column-span:all]"
    >
      <Checklist {...list} lines={lines} />
    </Panel>
  );
}
