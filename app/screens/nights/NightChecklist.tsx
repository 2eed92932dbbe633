import { setTemperature } from "~/components/measures";
import { needWords } from "~/components/words/calibration-words";
import type { Rig } from "~/core/exposure";
import type { CalibrationNeed } from "~/core/ledger";
import { Panel } from "~/components/ui/Panel";

/** What to have done, and the calibration the night will want; short enough to be read at the pier. */
export function NightChecklist({
  rig,
  needs,
  battery,
}: {
  readonly rig: Rig;
  readonly needs: readonly CalibrationNeed[];
  /** How the battery stands; null = nobody said what the rig draws. */
  readonly battery: string | null;
}) {
  const items = [
    battery === null
      ? "Daylight: ground firm, cables free, power and card enough"
      : "Daylight: ground firm, cables free, card enough",
    ...(battery === null ? [] : [battery]),
    "Balance both axes, level; polar align when stars show",
    rig.isCooled ? `Cool to ${setTemperature(rig.workingTempC)}, dew heater on` : "Let the optics cool, dew heater on",
    "Focus on a bright star, one test exposure",
    "Frame and camera angle checked (within 1°)",
    rig.isGuided ? "Guiding calibrated, dither on" : `Unguided: subs up to ${rig.longestUnguidedSec} s`,
    ...needs.filter((n) => n.state !== "serves").map(needWords),
    "Cap the tube before sunrise; park; cover",
  ];
  return (
    <Panel title="Checklist" className="print:break-inside-avoid print:border-0 print:p-0">
      <ul className="space-y-1.5 print:space-y-0">
        {items.map((item) => (
          <li key={item} className="flex gap-2.5">
            <span className="border-soft mt-[3px] h-3.5 w-3.5 shrink-0 rounded-[3px] border" aria-hidden="true" />
            {item}
          </li>
        ))}
      </ul>
      <p className="text-note text-faint mt-3 print:mt-1 print:text-[9.5px]">
        Mains power and dew: protected outlets, your local code. Never point optics near the Sun. Way home planned?
      </p>
    </Panel>
  );
}
