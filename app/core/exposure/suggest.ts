/**
 * Hours per channel and panel to begin with: a target's least hours at f/5 under 20 mag/arcsec², moved to this sky for
 * broad bands (10^(−0.4 Δμ)) and to this focal ratio per pixel ((N/5)²). A rule of thumb, to half an hour; at least one.
 */
export function suggestedHours(at: {
  readonly hoursMin: number;
  readonly focalRatio: number;
  readonly skyMagPerArcsec2: number;
  readonly isNarrow: boolean;
}): number {
  const speed = (at.focalRatio / 5) ** 2;
  const sky = at.isNarrow ? 1 : 10 ** (-0.4 * (at.skyMagPerArcsec2 - 20));
  const hours = at.hoursMin * Math.min(4, Math.max(0.25, speed)) * Math.min(6, Math.max(0.4, sky));
  return Math.max(1, Math.round(hours * 2) / 2);
}
