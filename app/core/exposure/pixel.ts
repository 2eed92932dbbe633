import { CHANNEL_FACTS, isNarrow, type Channel } from "./channel";
import type { Filter, Rig } from "./rig";

/** The light one kind of pixel sees behind a filter. */
export interface PixelLight {
  readonly centreNm: number;
  readonly bandwidthNm: number;
  /** Of the colour dye before the pixel, (0, 1]; 1 without one. */
  readonly dye: number;
  /** Share of all pixels that are of this kind. */
  readonly share: number;
  /** How much darker than in V the moonless sky is in its light, mag/arcsec². */
  readonly skyOffsetMag: number;
}

const [HA_NM, OIII_NM, SII_NM] = [656.3, 500.7, 672.4];
/** Transmission of the dyes; from memory, sensors differ: replace by the sensor's own curve when it is known. */
const DYE = { red: 0.85, green: 0.75, blue: 0.55 } as const;
const GREEN_BROAD = 0.8; // over the whole green band, of a mono pixel behind a green filter; from memory
const COLOUR_BAND_NM = 100; // a third of the visible, as a separate filter has it
const QUARTER = 0.25;
const HALF = 0.5;

/**
 * The kinds of pixel that see light behind a filter. Every pixel of a mono camera sees the filter's band. A Bayer pixel sees its own
 * third only: green ones, half of all, decide for colour; behind a dual-band filter a red one sees Ha, green and blue ones OIII
 * (bandwidth of such a filter: both bands together).
 */
export function pixelLights(rig: Pick<Rig, "isColour">, filter: Filter): PixelLight[] {
  const { channel, centreNm, bandwidthNm } = filter;
  const { skyOffsetMag } = CHANNEL_FACTS[channel];
  if (!rig.isColour) return [{ centreNm, bandwidthNm, dye: 1, share: 1, skyOffsetMag }];
  const line = (nm: number, width: number): PixelLight =>
    nm > 600
      ? { centreNm: nm, bandwidthNm: width, dye: DYE.red, share: QUARTER, skyOffsetMag: CHANNEL_FACTS.Ha.skyOffsetMag }
      : {
          centreNm: nm,
          bandwidthNm: width,
          dye: DYE.green,
          share: HALF,
          skyOffsetMag: CHANNEL_FACTS.OIII.skyOffsetMag,
        };
  if (channel === "Dual") return [line(HA_NM, bandwidthNm / 2), line(OIII_NM, bandwidthNm / 2)];
  if (isNarrow(channel)) return [line(centreNm, bandwidthNm)];
  const colour = broadOf(channel);
  return [{ ...colour, bandwidthNm: Math.min(bandwidthNm, colour.bandwidthNm) }];
}

function broadOf(channel: Channel): PixelLight {
  const of = channel === "R" || channel === "B" ? channel : "G";
  const { centreNm, skyOffsetMag } = CHANNEL_FACTS[of];
  const dye = { R: DYE.red, G: GREEN_BROAD, B: DYE.blue }[of];
  return { centreNm, bandwidthNm: COLOUR_BAND_NM, dye, share: of === "G" ? HALF : QUARTER, skyOffsetMag };
}

/** Green and blue pixels behind a dual-band filter, which both see OIII, as one kind. */
const tealOf = (oiii: PixelLight): PixelLight => ({
  ...oiii,
  dye: (HALF * DYE.green + QUARTER * DYE.blue) / (HALF + QUARTER),
  share: HALF + QUARTER,
});

/** All kinds of pixel behind a filter, each with its own light: what a whole picture is made of. */
export function pictureLights(rig: Pick<Rig, "isColour">, filter: Filter): PixelLight[] {
  if (!rig.isColour) return pixelLights(rig, filter);
  if (filter.channel === "Colour" || filter.channel === "L") {
    const width = Math.min(filter.bandwidthNm, COLOUR_BAND_NM);
    return (["R", "G", "B"] as const).map((c) => ({ ...broadOf(c), bandwidthNm: width }));
  }
  const [first, second] = pixelLights(rig, filter);
  return second ? [first!, tealOf(second)] : [first!];
}

/** What a channel of a picture gets of each pixel of a camera behind a filter; null when that filter does not record it. */
export function lightFor(channel: Channel, rig: Pick<Rig, "isColour">, filter: Filter): PixelLight | null {
  if (!rig.isColour) return filter.channel === channel ? pixelLights(rig, filter)[0]! : null;
  if (channel === "L") return null; // a third of the light in each pixel is no luminance
  if (filter.channel === "Dual") {
    const [ha, oiii] = pixelLights(rig, filter) as [PixelLight, PixelLight];
    return channel === "Ha" ? ha : channel === "OIII" ? tealOf(oiii) : null;
  }
  if (filter.channel === "Colour") {
    if (channel === "R" || channel === "G" || channel === "B" || channel === "Colour") return broadOf(channel);
    return null; // lines drown in a whole band
  }
  return filter.channel === channel ? pixelLights(rig, filter)[0]! : null;
}

/** Wavelengths of the lines, nm. */
export const LINE_NM = { Ha: HA_NM, OIII: OIII_NM, SII: SII_NM } as const;
