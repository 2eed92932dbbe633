/**
 * Hours under one zenith sky that equal one hour under another, for faint extended light limited by the sky with the same
 * rig: 10^(0.4 (μ there − μ here)). Overstates the gain for bright objects and for narrow bands limited by read noise;
 * detail is not in it.
 */
export const equivalentHours = (thereMagPerArcsec2: number, hereMagPerArcsec2: number): number =>
  10 ** (0.4 * (thereMagPerArcsec2 - hereMagPerArcsec2));
