import { CHANNEL_FACTS, type Channel } from "~/core/exposure";
import { TWILIGHT_BEGINS_DEG, type MoonRule } from "~/core/sky";

/**
 * How the Moon decides whether a minute is used: counted by what it costs, kept away from by a separation, or not used at all
 * while it is up. Three schools that people hold to; none is law.
 */
export const MOON_SCHOOLS = ["count", "keepAway", "noMoon"] as const;
export type MoonSchool = (typeof MOON_SCHOOLS)[number];

/**
 * How twilight decides whether a minute is used: counted like the Moon by what it costs, or not before the Sun is so many degrees down.
 */
export const TWILIGHT_SCHOOLS = ["count", "below18", "below15", "below12"] as const;
export type TwilightSchool = (typeof TWILIGHT_SCHOOLS)[number];
const SUN_BELOW_DEG = { below18: -18, below15: -15, below12: -12 } as const;

/** A person's or a project's wish about the light of Moon and twilight. */
export interface MoonWishes {
  readonly school: MoonSchool;
  /** School "count": a minute is used while the Moon leaves at least this share of its worth, [0, 1]. */
  readonly leastShare: number;
  /** Absent = twilight is counted. */
  readonly twilight?: TwilightSchool;
  /** School "keepAway": separations that differ from the usual ones of a channel. */
  readonly rules?: Partial<Record<Channel, MoonRule>>;
  /** Channels that follow another school. */
  readonly channels?: Partial<Record<Channel, MoonSchool>>;
}

/** What is done as long as nobody says otherwise: 15 % is a proposal of this project. */
export const USUAL_MOON: MoonWishes = { school: "count", leastShare: 0.15 };

/** What one channel asks of the Moon. */
export type MoonLimit =
  | { readonly kind: "count"; readonly leastShare: number }
  | { readonly kind: "keepAway"; readonly rule: MoonRule }
  | { readonly kind: "noMoon" };

/** What is asked of twilight: the Sun below an altitude, and a share of a minute's worth that must be left. */
export interface TwilightLimit {
  readonly sunBelowDeg: number;
  readonly leastShare: number;
}

/**
 * A minute of twilight is used while half of its worth is left: nobody hurries out for less. Dusk is short, so that the figure hardly
 * matters: a quarter and three quarters lie ten minutes apart. A proposal of this project.
 */
const TWILIGHT_SHARE = 0.5;

/** What some wishes ask of twilight. */
export function twilightLimitOf({ twilight = "count" }: MoonWishes): TwilightLimit {
  if (twilight === "count") return { sunBelowDeg: -TWILIGHT_BEGINS_DEG, leastShare: TWILIGHT_SHARE };
  return { sunBelowDeg: SUN_BELOW_DEG[twilight], leastShare: 0 };
}

/** The separation rule of a channel under some wishes: its own figures, or the usual ones. */
export const moonRuleOf = (wishes: MoonWishes, channel: Channel): MoonRule =>
  wishes.rules?.[channel] ?? CHANNEL_FACTS[channel].moonRule;

/** What some wishes ask in a channel. */
export function moonLimitOf(wishes: MoonWishes, channel: Channel): MoonLimit {
  const school = wishes.channels?.[channel] ?? wishes.school;
  if (school === "noMoon") return { kind: "noMoon" };
  if (school === "keepAway") return { kind: "keepAway", rule: moonRuleOf(wishes, channel) };
  return { kind: "count", leastShare: wishes.leastShare };
}
