import { Term } from "~/components/ui/Term";
import { Time } from "~/components/Time";
import { Panel } from "~/components/ui/Panel";
import { needWords, shelfWords } from "~/components/words/calibration-words";
import type { NightCalibration } from "~/desk/plan/calibration";

/** What the night's lights still need of calibration, what the shelf has, and when it can be taken. */
export function CalibrationPanel({
  calibration: { needs, skyFlats },
  zone,
  isCooled,
}: {
  readonly calibration: NightCalibration;
  readonly zone: string;
  readonly isCooled: boolean;
}) {
  if (needs.length === 0) return null;
  const open = needs.filter((n) => n.state !== "serves");
  const wantsFlats = open.some((n) => n.kind === "flat");
  const wantsDarks = open.some((n) => n.kind === "dark");
  return (
    <Panel
      title="Calibration"
      aside={open.length === 0 ? "all on the shelf" : undefined}
      className="print:break-inside-avoid print:border-0 print:p-0"
    >
      {/* On paper they stand in the checklist, each with its box. */}
      <ul className="space-y-1 print:hidden">
        {[...open, ...needs.filter((n) => n.state === "serves")].map((n) => (
          <li key={needWords(n)} className={n.state === "serves" ? "text-soft" : ""}>
            {n.kind === "darkFlat" ? <Term word="dark flat">{needWords(n)}</Term> : needWords(n)}
            <span className={n.state === "serves" ? "" : "text-lamp"}>: {shelfWords(n)}</span>
          </li>
        ))}
      </ul>
      {wantsFlats ? (
        <p className="text-note text-soft mt-2">
          {skyFlats ? (
            <>
              Sky flats <Time ms={skyFlats.startMs} zone={zone} /> to <Time ms={skyFlats.endMs} zone={zone} />, broad
              filters before narrow ones; capped before the Sun is up. Or a panel, before anything is turned.
            </>
          ) : (
            "With a panel, before anything is turned: the Sun gives no twilight for them."
          )}
        </p>
      ) : null}
      {wantsDarks && !isCooled ? (
        <p className="text-note text-soft mt-2">Darks right after the last sub, while the sensor is as warm.</p>
      ) : null}
    </Panel>
  );
}
