import type { MoonRule } from "~/core/sky";

/** What a filter, or a colour camera without one, records. */
export const CHANNELS = ["L", "R", "G", "B", "Ha", "OIII", "SII", "Colour", "Dual"] as const;

export type Channel = (typeof CHANNELS)[number];

/** Usual values of a channel, used until a filter says otherwise. */
export interface ChannelFacts {
  readonly words: string;
  readonly centreNm: number;
  readonly bandwidthNm: number;
  /** How much brighter (less) or darker the moonless sky is in it than in V, mag/arcsec². */
  readonly skyOffsetMag: number;
  readonly moonRule: MoonRule;
  /** Share of the noise that read noise may add: narrow bands never swamp it cheaply. */
  readonly readNoiseShare: number;
}

const BROAD = { skyOffsetMag: 0, moonRule: { atFullDeg: 120, halfWidthDays: 14 }, readNoiseShare: 0.05 };
/** Hydrogen and sulphur lie between the lines of airglow; oxygen near the dark end of the green. */
const RED_LINE = { skyOffsetMag: -0.3, readNoiseShare: 0.1 };
const TEAL_LINE = { skyOffsetMag: 0.3, readNoiseShare: 0.1 };
const RED_RULE = { atFullDeg: 60, halfWidthDays: 7 };
const TEAL_RULE = { atFullDeg: 100, halfWidthDays: 10 };

/**
 * Moon rules are common practice, provisional to about 20°; no source. Colour of the dark sky by band: Patat 2003, A&A 400, 1183, from
 * memory; by line a proposal, ± 0.4 mag.
 */
export const CHANNEL_FACTS: Readonly<Record<Channel, ChannelFacts>> = {
  L: { words: "luminance", centreNm: 550, bandwidthNm: 300, ...BROAD },
  R: { words: "red", centreNm: 640, bandwidthNm: 100, ...BROAD, skyOffsetMag: -0.7 },
  G: { words: "green", centreNm: 530, bandwidthNm: 100, ...BROAD },
  B: { words: "blue", centreNm: 445, bandwidthNm: 100, ...BROAD, skyOffsetMag: 1 },
  Ha: { words: "hydrogen-alpha", centreNm: 656.3, bandwidthNm: 5, ...RED_LINE, moonRule: RED_RULE },
  OIII: { words: "doubly ionised oxygen", centreNm: 500.7, bandwidthNm: 5, ...TEAL_LINE, moonRule: TEAL_RULE },
  SII: { words: "ionised sulphur", centreNm: 672.4, bandwidthNm: 5, ...RED_LINE, moonRule: RED_RULE },
  Colour: { words: "one-shot colour", centreNm: 550, bandwidthNm: 300, ...BROAD },
  Dual: {
    words: "colour camera behind a dual-band filter",
    centreNm: 500.7,
    bandwidthNm: 10,
    ...TEAL_LINE,
    moonRule: TEAL_RULE,
  },
};

/** Whether a channel isolates emission lines. */
export const isNarrow = (channel: Channel): boolean =>
  channel === "Ha" || channel === "OIII" || channel === "SII" || channel === "Dual";
