import { CHANNEL_FACTS, type Channel } from "~/core/exposure";

/** A channel as one night finds it. */
export interface ChannelChance {
  readonly channel: Channel;
  readonly worthMin: number;
  /** What the same night would be worth without the Moon. */
  readonly moonlessWorthMin: number;
  /** Share of its goal that its weakest panel still lacks, [0, 1]. */
  readonly lacking: number;
}

const STEP = 0.1; // differences in what the Moon takes smaller than this do not decide

/** How little the Moon takes tonight, in tenths. */
const kept = (c: ChannelChance) => (c.moonlessWorthMin > 0 ? Math.round(c.worthMin / c.moonlessWorthMin / STEP) : 0);

/**
 * Channels in the order a night should go to them: what the Moon takes least from; on nights it takes nothing, what bears
 * it least (luminance and colour, then OIII, then Ha and SII); then what is furthest behind. The rule of the trade, the
 * same for tonight, the run sheet and the plan.
 */
export const inNightOrder = <C extends ChannelChance>(chances: readonly C[]): C[] =>
  [...chances].sort(
    (a, b) =>
      kept(b) - kept(a) ||
      CHANNEL_FACTS[b.channel].moonRule.atFullDeg - CHANNEL_FACTS[a.channel].moonRule.atFullDeg ||
      b.lacking - a.lacking ||
      a.channel.localeCompare(b.channel),
  );
