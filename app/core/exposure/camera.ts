/** Electrons at which a pixel clips: full well or the end of the converter's range, whichever comes first. */
export const ceilingE = (c: {
  readonly fullWellE: number;
  readonly gainEPerAdu: number;
  readonly bits: number;
  readonly offsetAdu: number;
}): number => Math.min(c.fullWellE, c.gainEPerAdu * (2 ** c.bits - 1 - c.offsetAdu));

/** Dark current at another temperature: doubles every 6 °C. Common practice; physics gives 4–8 °C (Widenhorn et al. 2002, Proc. SPIE 4669). */
export const darkRateAt = (darkEPerSec: number, fromC: number, toC: number): number =>
  darkEPerSec * 2 ** ((toC - fromC) / 6);
