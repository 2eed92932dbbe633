import { CHANNEL_FACTS, CHANNELS, type Channel } from "~/core/exposure";
import type { MoonRule } from "~/core/sky";

/**
 * How the Moon decides whether a minute is used: counted by what it costs, kept away from by a separation, or not used at all
 * while it is up. Three schools that people hold to; none is law.
 */
export const MOON_SCHOOLS = ["count", "keepAway", "noMoon"] as const;
export type MoonSchool = (typeof MOON_SCHOOLS)[number];

/** A person's or a project's wish about the Moon. */
export interface MoonWishes {
  readonly school: MoonSchool;
  /** School "count": a minute is used while it keeps at least this share of its worth without the Moon, [0, 1]. */
  readonly leastShare: number;
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

/** Whether two wishes ask the same in every channel. */
export const isSameMoon = (a: MoonWishes, b: MoonWishes): boolean =>
  a === b || CHANNELS.every((c) => JSON.stringify(moonLimitOf(a, c)) === JSON.stringify(moonLimitOf(b, c)));
