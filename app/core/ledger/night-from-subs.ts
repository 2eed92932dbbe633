import { median } from "~/core/numeric";
import { turnTo } from "~/core/units";
import type { ContributionData } from "./contribution";

/** A fact of a night that its files tell, and how many of them. */
export interface ToldFact {
  readonly value: number;
  readonly subs: number;
}

/** What the subs of a rig's night say of it; null = none of them does. */
export interface ToldByFiles {
  /** Median of the air at the camera or the mount, °C. */
  readonly airC: ToldFact | null;
  /** Of the focuser from the first sub that says where it stood to the last, steps. */
  readonly focusMoves: ToldFact | null;
  /** Median angle of the camera by solutions, degrees from north through east; half a turn is none. */
  readonly cameraAngleDeg: ToldFact | null;
  /** Median width of stars as it would be at the zenith, arcseconds. */
  readonly seeingArcsec: ToldFact | null;
}

const of = (values: readonly number[], value: (v: readonly number[]) => number): ToldFact | null =>
  values.length === 0 ? null : { value: value(values), subs: values.length };

/** Steps between the first and the last sub that say where the focuser stood. */
function focusMovesOf(subs: readonly ContributionData[]): ToldFact | null {
  const at = subs
    .filter((s) => s.focusSteps !== undefined && s.startMs !== null)
    .sort((a, b) => a.startMs! - b.startMs!)
    .map((s) => s.focusSteps!);
  return at.length < 2 ? null : { value: Math.abs(at.at(-1)! - at[0]!), subs: at.length };
}

/**
 * What the subs of a rig's night say of it. Stars grow as airmass^0.6 towards the horizon (Fried 1966; MATHS 2.9): `airmassOf` a sub,
 * null where that is not known.
 */
export function toldByFiles(
  subs: readonly ContributionData[],
  scaleArcsec: number,
  airmassOf: (sub: ContributionData) => number | null,
): ToldByFiles {
  const some = (value: (s: ContributionData) => number | null | undefined) => subs.flatMap((s) => value(s) ?? []);
  const angles = some((s) => s.at?.positionAngleDeg);
  const widths = some((s) => {
    const airmass = s.measure ? airmassOf(s) : null;
    return airmass === null ? null : (s.measure!.fwhmPx * scaleArcsec) / airmass ** 0.6;
  });
  return {
    airC: of(
      some((s) => s.airC),
      median,
    ),
    focusMoves: focusMovesOf(subs),
    // Angles half a turn apart are one: all are taken to the first.
    cameraAngleDeg: of(angles, (all) => all[0]! + median(all.map((a) => turnTo(a, all[0]!)))),
    seeingArcsec: of(widths, median),
  };
}
