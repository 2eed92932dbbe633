import type { Power, Rig } from "~/core/exposure";
import { addMs, HOUR_MS, type UtcMs } from "~/core/time";
import { clamp } from "~/core/units";

/** Share of a battery's energy that there is at a temperature, °C, by kind; between them in a line. From memory. */
const IN_THE_COLD: Readonly<Record<Power["chemistry"], readonly (readonly [number, number])[]>> = {
  lithium: [[-20, 0.6], [-10, 0.75], [0, 0.88], [20, 1]],
  lead: [[-20, 0.5], [-10, 0.65], [0, 0.8], [20, 1]],
}; // prettier-ignore
/** Share of what is in it that may be taken without harm; common practice, no source. */
const TAKEABLE: Readonly<Record<Power["chemistry"], number>> = { lithium: 0.9, lead: 0.5 };
/** How far below the air a cooler gets at full strength, °C; from memory. */
const FULL_STRENGTH_C = 35;

/** Share of a battery's printed energy at a temperature, [0.5, 1]. */
export function capacityShare(chemistry: Power["chemistry"], airC: number): number {
  const steps = IN_THE_COLD[chemistry];
  const above = steps.findIndex(([c]) => c >= airC);
  if (above === 0) return steps[0]![1];
  if (above < 0) return 1;
  const [[c0, s0], [c1, s1]] = [steps[above - 1]!, steps[above]!];
  return s0 + ((airC - c0) / (c1 - c0)) * (s1 - s0);
}

/** How long a battery lasts, and what went in. */
export interface BatteryLife {
  /** Mean draw over the night, W. */
  readonly drawW: number;
  /** Of the cooler alone, W. */
  readonly coolerW: number;
  /** What can be taken out of it that night, Wh. */
  readonly usableWh: number;
  readonly capacityShare: number;
  readonly takeable: number;
  readonly untilMs: UtcMs;
}

/**
 * How long a rig runs on its battery from an instant on, in air of a temperature (°C) that is taken as the same all night. The
 * cooler draws in proportion to how far below the air it holds. Real batteries age: take it as good to a fifth.
 */
export function batteryLife(
  power: Power,
  rig: Pick<Rig, "isCooled" | "workingTempC">,
  at: { readonly fromMs: UtcMs; readonly airC: number },
): BatteryLife {
  const coolerW = rig.isCooled ? power.coolerW * clamp((at.airC - rig.workingTempC) / FULL_STRENGTH_C, 0, 1) : 0;
  const drawW = power.mountW + power.cameraW + power.dewW + power.computerW + coolerW;
  const share = capacityShare(power.chemistry, at.airC);
  const takeable = TAKEABLE[power.chemistry];
  const usableWh = power.batteryWh * share * takeable;
  // A week is for ever: a draw of nothing must stay an instant.
  const hours = Math.min(drawW > 0 ? usableWh / drawW : Number.POSITIVE_INFINITY, 168);
  return { drawW, coolerW, usableWh, capacityShare: share, takeable, untilMs: addMs(at.fromMs, hours * HOUR_MS) };
}
