import type { Channel } from "~/core/exposure";

/** The colour a channel is drawn in; always together with its letters. */
export const CHANNEL_COLOUR: Readonly<Record<Channel, string>> = {
  L: "var(--ch-l)",
  R: "var(--ch-r)",
  G: "var(--ch-g)",
  B: "var(--ch-b)",
  Ha: "var(--ch-ha)",
  OIII: "var(--ch-oiii)",
  SII: "var(--ch-sii)",
  Colour: "var(--ch-l)",
  Dual: "var(--ch-oiii)",
};
