import { clockTime } from "~/components/clock";
import { temperature } from "~/components/measures";
import { fixed } from "~/components/numbers";
import { Panel } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import type { Power } from "~/core/exposure";
import type { BatteryLife } from "~/core/night";
import { HOUR_MS } from "~/core/time";

/** The battery in one line, for the checklist on paper. */
export function batteryLine(
  { life, neededUntilMs, airC }: { readonly life: BatteryLife; readonly neededUntilMs: number; readonly airC: number },
  zone: string,
): string {
  const air = temperature(airC);
  return life.untilMs >= neededUntilMs
    ? `Battery charged: enough at ${air} till ${clockTime(neededUntilMs, zone)}`
    : `Battery lasts until ${clockTime(life.untilMs, zone)} at ${air}; the night needs till ${clockTime(neededUntilMs, zone)}`;
}

/** A battery that lasts so much longer than it is needed is named by its hours, not by a clock time of another day. */
const LONG_MS = 12 * HOUR_MS;

/** How long the battery lasts in tonight's cold, and until when it is needed. */
export function PowerPanel({
  life,
  power,
  neededUntilMs,
  airC,
  isAirKnown,
  zone,
  isCooled,
}: {
  readonly life: BatteryLife;
  readonly power: Power;
  readonly neededUntilMs: number;
  readonly airC: number;
  readonly isAirKnown: boolean;
  readonly zone: string;
  readonly isCooled: boolean;
}) {
  const isEnough = life.untilMs >= neededUntilMs;
  const air = temperature(airC);
  const short = neededUntilMs - life.untilMs;
  return (
    <Panel title="Battery" className="no-print">
      <p className={isEnough ? "" : "text-rust"}>
        {isEnough && life.untilMs - neededUntilMs > LONG_MS ? (
          "Lasts far beyond the night"
        ) : (
          <>
            Lasts until{" "}
            <Why title={clockTime(life.untilMs, zone)} className="font-semibold">
              <dl className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
                <dt>Mount</dt>
                <dd>{fixed(power.mountW)} W</dd>
                <dt>Camera</dt>
                <dd>{fixed(power.cameraW)} W</dd>
                {isCooled ? (
                  <>
                    <dt>Cooler, at tonight’s air</dt>
                    <dd>{fixed(life.coolerW)} W</dd>
                  </>
                ) : null}
                <dt>Dew heaters</dt>
                <dd>{fixed(power.dewW)} W</dd>
                <dt>Computer</dt>
                <dd>{fixed(power.computerW)} W</dd>
                <dt className="font-semibold">All together</dt>
                <dd className="font-semibold">{fixed(life.drawW)} W</dd>
                <dt>Battery as printed</dt>
                <dd>{fixed(power.batteryWh)} Wh</dd>
                <dt>Left of it at {air}</dt>
                <dd>{fixed(100 * life.capacityShare)} %</dd>
                <dt>That may be taken</dt>
                <dd>{fixed(100 * life.takeable)} %</dd>
              </dl>
              <p className="text-note text-soft mt-2">
                Shares by temperature as we remember them of such cells, not from a data sheet; the cooler draws in
                proportion to how far below the air it holds. A battery ages: good to about a fifth.
              </p>
            </Why>
          </>
        )}{" "}
        at {air}
        {isAirKnown ? "" : " (assumed: no forecast says)"}; the night needs till {clockTime(neededUntilMs, zone)}
        {isEnough ? "." : `: ${fixed(short / HOUR_MS, 1)} h short. A larger battery, or less dew heat and cooling.`}
      </p>
    </Panel>
  );
}
