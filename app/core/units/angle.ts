const RAD_PER_DEG = Math.PI / 180;

/** Arcseconds in one radian (definition). */
export const ARCSEC_PER_RAD = (180 * 3600) / Math.PI;

/** Degrees to radians. */
export const degToRad = (deg: number): number => deg * RAD_PER_DEG;

/** Radians to degrees. */
export const radToDeg = (rad: number): number => rad / RAD_PER_DEG;

/** The same direction in [0, 360) degrees. */
export function wrap360(deg: number): number {
  const wrapped = deg % 360;
  const positive = wrapped < 0 ? wrapped + 360 : wrapped;
  return positive === 360 ? 0 : positive + 0; // -1e-15 + 360 rounds to 360; + 0 turns -0 into 0
}

/** The same direction in [−180, 180) degrees. */
export const wrap180 = (deg: number): number => wrap360(deg + 180) - 180;

/** `value` held within [low, high]; the bounds must be in order. */
export const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));

/** From one camera angle to another, degrees, −90 to under 90: a rectangle is the same at half a turn. */
export const turnTo = (to: number, from: number): number => ((((to - from + 90) % 180) + 180) % 180) - 90;
