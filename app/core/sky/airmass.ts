import { degToRad } from "~/core/units";

/**
 * Airmass at an apparent altitude 0–90°: 1/(sin h + 0.50572 (h + 6.07995)^−1.6364). Kasten & Young 1989, Appl. Opt. 28, 4735.
 * Below the horizon the value at 0° (37.9) is returned; never less than 0.9997.
 */
export function airmassKastenYoung(altitudeDeg: number): number {
  const h = Math.max(0, altitudeDeg);
  return 1 / (Math.sin(degToRad(h)) + 0.50572 * (h + 6.07995) ** -1.6364);
}

/** Airmass at an apparent altitude 0–90°: 1/sin(h + 244/(165 + 47 h^1.1)). Pickering 2002, DIO 12. */
export function airmassPickering(altitudeDeg: number): number {
  const h = Math.max(0, altitudeDeg);
  return 1 / Math.sin(degToRad(h + 244 / (165 + 47 * h ** 1.1)));
}
