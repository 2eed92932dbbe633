/** A yes/no rule of the trade: keep `atFullDeg` from a full Moon, half of that `halfWidthDays` away from it. */
export interface MoonRule {
  readonly atFullDeg: number;
  readonly halfWidthDays: number;
}

const DEG_PER_DAY = 12.19; // mean daily change of the phase angle
const IGNORED_PHASE_DEG = 154.2; // lit share under 5 %

/**
 * Separation from the Moon that a rule asks for at a phase angle (0 full), degrees: D/(1 + (d/W)²). A Lorentzian of
 * observatory practice, parameters good to about 20°. 0 when less than 5 % is lit. Only for a Moon above the horizon.
 */
export function moonAvoidanceDeg(rule: MoonRule, phaseAngleDeg: number): number {
  if (phaseAngleDeg > IGNORED_PHASE_DEG) return 0;
  const days = phaseAngleDeg / DEG_PER_DAY;
  return rule.atFullDeg / (1 + (days / rule.halfWidthDays) ** 2);
}
