import { isNarrow, type Channel } from "./channel";
import type { Filter, Rig } from "./rig";

/** The light one kind of pixel sees behind a filter. */
export interface PixelLight {
  readonly centreNm: number;
  readonly bandwidthNm: number;
  /** Of the colour dye before the pixel, (0, 1]; 1 without one. */
  readonly dye: number;
  /** Share of all pixels that are of this kind. */
  readonly share: number;
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
  if (!rig.isColour) return [{ centreNm, bandwidthNm, dye: 1, share: 1 }];
  const line = (nm: number, width: number): PixelLight =>
    nm > 600
      ? { centreNm: nm, bandwidthNm: width, dye: DYE.red, share: QUARTER }
      : { centreNm: nm, bandwidthNm: width, dye: DYE.green, share: HALF };
  if (channel === "Dual") return [line(HA_NM, bandwidthNm / 2), line(OIII_NM, bandwidthNm / 2)];
  if (isNarrow(channel)) return [line(centreNm, bandwidthNm)];
  const colour = broadOf(channel);
  return [{ ...colour, bandwidthNm: Math.min(bandwidthNm, colour.bandwidthNm) }];
}

function broadOf(channel: Channel): PixelLight {
  if (channel === "R") return { centreNm: 640, bandwidthNm: COLOUR_BAND_NM, dye: DYE.red, share: QUARTER };
  if (channel === "B") return { centreNm: 445, bandwidthNm: COLOUR_BAND_NM, dye: DYE.blue, share: QUARTER };
  return { centreNm: 530, bandwidthNm: COLOUR_BAND_NM, dye: GREEN_BROAD, share: HALF };
}

/** What a channel of a picture gets of each pixel of a camera behind a filter; null when that filter does not record it. */
export function lightFor(channel: Channel, rig: Pick<Rig, "isColour">, filter: Filter): PixelLight | null {
  if (!rig.isColour) return filter.channel === channel ? pixelLights(rig, filter)[0]! : null;
  if (channel === "L") return null; // a third of the light in each pixel is no luminance
  if (filter.channel === "Dual") {
    const [ha, oiii] = pixelLights(rig, filter) as [PixelLight, PixelLight];
    // Green and blue pixels both see OIII.
    const blue = QUARTER * DYE.blue;
    const both = { ...oiii, dye: (HALF * DYE.green + blue) / (HALF + QUARTER), share: HALF + QUARTER };
    return channel === "Ha" ? ha : channel === "OIII" ? both : null;
  }
  if (filter.channel === "Colour") {
    if (channel === "R" || channel === "G" || channel === "B" || channel === "Colour") return broadOf(channel);
    return null; // lines drown in a whole band
  }
  return filter.channel === channel ? pixelLights(rig, filter)[0]! : null;
}

/** Wavelengths of the lines, nm. */
export const LINE_NM = { Ha: HA_NM, OIII: OIII_NM, SII: SII_NM } as const;
