import { ARCSEC_PER_RAD } from "~/core/units";
import type { Rig } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import type { FitsHeader } from "./fits-header";
import type { FitsWcs } from "./fits-wcs";

/** Something about an exposure that is not as the rig has it. */
export interface RigDeviation {
  readonly code: "focalLength" | "headerFocalLength" | "pixels" | "scales" | "camera";
  readonly found: string;
  readonly wanted: string;
}

const FOCAL_TOLERANCE = 0.005;

/** Where an exposure's scale, size and camera differ from a rig's: half a per cent of focal length, any pixel. */
export function deviationsOf(header: FitsHeader, wcs: FitsWcs, rig: Rig): RigDeviation[] {
  const optics = opticsOf(rig);
  const { widthPx, heightPx, pixelPitchUm, binning } = rig.sensor;
  const found: RigDeviation[] = [];
  const scale = Math.sqrt(wcs.scaleXArcsec * wcs.scaleYArcsec);
  const binned = Math.max(1, Math.round(widthPx / (header.axes[0] ?? widthPx)));
  const focalMm = ((ARCSEC_PER_RAD / 1e3) * pixelPitchUm * binned) / scale;
  if (Math.abs(focalMm / optics.focalLengthMm - 1) > FOCAL_TOLERANCE)
    found.push({ code: "focalLength", found: focalMm.toFixed(0), wanted: optics.focalLengthMm.toFixed(0) });
  const said = header.values.get("FOCALLEN");
  if (typeof said === "number" && said > 0 && Math.abs(said / optics.focalLengthMm - 1) > FOCAL_TOLERANCE)
    found.push({ code: "headerFocalLength", found: said.toFixed(0), wanted: optics.focalLengthMm.toFixed(0) });
  const [w, h] = [Math.floor(widthPx / binned), Math.floor(heightPx / binned)];
  const [nx, ny] = [header.axes[0]!, header.axes[1]!];
  const isSame = (Math.abs(nx - w) <= 1 && Math.abs(ny - h) <= 1) || (Math.abs(nx - h) <= 1 && Math.abs(ny - w) <= 1);
  if (!isSame || binned !== binning)
    found.push({
      code: "pixels",
      found: `${nx} × ${ny}`,
      wanted: `${Math.floor(widthPx / binning)} × ${Math.floor(heightPx / binning)}`,
    });
  if (Math.abs(wcs.scaleXArcsec / wcs.scaleYArcsec - 1) > 0.002)
    found.push({
      code: "scales",
      found: `${wcs.scaleXArcsec.toFixed(3)} × ${wcs.scaleYArcsec.toFixed(3)}`,
      wanted: "equal",
    });
  const camera = header.values.get("INSTRUME");
  if (
    rig.cameraName !== "" &&
    typeof camera === "string" &&
    camera.trim().toLowerCase() !== rig.cameraName.trim().toLowerCase()
  )
    found.push({ code: "camera", found: camera.trim(), wanted: rig.cameraName });
  return found;
}
