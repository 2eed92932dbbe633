import type { Panel } from "~/core/framing";
import { degToRad } from "~/core/units";
import { fitsCard as card } from "./fits-card";

/**
 * FITS header cards of one panel as the rig should see it: a TAN solution (CD matrix) with the panel in the middle, unmirrored,
 * rows rising along the panel's up axis. One 80-character card a line, without END; text outside ASCII becomes "?".
 */
export function headerCards(at: {
  readonly panel: Panel;
  readonly label: string;
  readonly object: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly scaleArcsecPerPx: number;
  readonly focalLengthMm: number;
}): string {
  const { panel, widthPx, heightPx } = at;
  const scale = at.scaleArcsecPerPx / 3600;
  const [c, s] = [Math.cos(degToRad(panel.positionAngleDeg)), Math.sin(degToRad(panel.positionAngleDeg))];
  const ascii = (text: string) => text.replace(/[^\x20-\x7e]/g, "?").slice(0, 60);
  return [
    card("NAXIS1", widthPx, "width, pixels"),
    card("NAXIS2", heightPx, "height, pixels"),
    card("OBJECT", ascii(`${at.object} ${at.label}`), "project and panel"),
    card("FOCALLEN", at.focalLengthMm, "[mm] focal length"),
    card("CTYPE1", "RA---TAN", "gnomonic projection"),
    card("CTYPE2", "DEC--TAN", "gnomonic projection"),
    card("CUNIT1", "deg", "unit of CRVAL1"),
    card("CUNIT2", "deg", "unit of CRVAL2"),
    card("RADESYS", "ICRS", "reference frame"),
    card("CRVAL1", panel.centre.raDeg, "[deg] right ascension of the middle"),
    card("CRVAL2", panel.centre.decDeg, "[deg] declination of the middle"),
    card("CRPIX1", (widthPx + 1) / 2, "middle of the columns"),
    card("CRPIX2", (heightPx + 1) / 2, "middle of the rows"),
    card("CD1_1", -scale * c, "[deg/px] east along columns"),
    card("CD1_2", scale * s, "[deg/px] east along rows"),
    card("CD2_1", scale * s, "[deg/px] north along columns"),
    card("CD2_2", scale * c, "[deg/px] north along rows"),
  ].join("\n");
}
