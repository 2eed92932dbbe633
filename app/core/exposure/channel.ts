import type { MoonRule } from "~/core/sky";

/** What a filter, or a colour camera without one, records. */
export const CHANNELS = ["L", "R", "G", "B", "Ha", "OIII", "SII", "Colour", "Dual"] as const;

export type Channel = (typeof CHANNELS)[number];

/** Usual values of a channel, used until a filter says otherwise. */
export interface ChannelFacts {
  readonly words: string;
  readonly centreNm: number;
  readonly bandwidthNm: number;
  /** The Sun must be lower than this. Narrow bands bear more twilight. */
  readonly sunBelowDeg: number;
  readonly moonRule: MoonRule;
  /** Share of the noise that read noise may add: narrow bands never swamp it cheaply. */
  readonly readNoiseShare: number;
}

const BROAD = { sunBelowDeg: -18, moonRule: { atFullDeg: 120, halfWidthDays: 14 }, readNoiseShare: 0.05 };
const NARROW = { sunBelowDeg: -15, readNoiseShare: 0.1 };
const RED_RULE = { atFullDeg: 60, halfWidthDays: 7 };
const TEAL_RULE = { atFullDeg: 100, halfWidthDays: 10 };

/** Moon rules and twilight limits are common practice, provisional to about 20°; no source. */
export const CHANNEL_FACTS: Readonly<Record<Channel, ChannelFacts>> = {
  L: { words: "luminance", centreNm: 550, bandwidthNm: 300, ...BROAD },
  R: { words: "red", centreNm: 640, bandwidthNm: 100, ...BROAD },
  G: { words: "green", centreNm: 530, bandwidthNm: 100, ...BROAD },
  B: { words: "blue", centreNm: 445, bandwidthNm: 100, ...BROAD },
  Ha: { words: "hydrogen-alpha", centreNm: 656.3, bandwidthNm: 5, ...NARROW, moonRule: RED_RULE },
  OIII: { words: "doubly ionised oxygen", centreNm: 500.7, bandwidthNm: 5, ...NARROW, moonRule: TEAL_RULE },
  SII: { words: "ionised sulphur", centreNm: 672.4, bandwidthNm: 5, ...NARROW, moonRule: RED_RULE },
  Colour: { words: "one-shot colour", centreNm: 550, bandwidthNm: 300, ...BROAD },
  Dual: {
    words: "colour camera behind a dual-band filter",
    centreNm: 500.7,
    bandwidthNm: 10,
    ...NARROW,
    moonRule: TEAL_RULE,
  },
};

/** Whether a channel isolates emission lines. */
export const isNarrow = (channel: Channel): boolean =>
  channel === "Ha" || channel === "OIII" || channel === "SII" || channel === "Dual";
