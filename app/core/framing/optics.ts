import { ARCSEC_PER_RAD, radToDeg } from "~/core/units";

/** The light-sensitive area of a camera. */
export interface SensorGeometry {
  readonly widthPx: number;
  readonly heightPx: number;
  /** Of one physical pixel, before binning. */
  readonly pixelPitchUm: number;
  readonly binning: number;
}

/** What a telescope or lens and a sensor see together. Distortion-free (tangent) optics; fisheye lenses follow other laws. */
export interface Optics {
  readonly focalLengthMm: number;
  readonly focalRatio: number;
  readonly fieldWidthDeg: number;
  readonly fieldHeightDeg: number;
  /** Width and height on the tangent plane in arcmin: w/f in radians × 3437.7. What mosaics are stepped by. */
  readonly planeWidthArcmin: number;
  readonly planeHeightArcmin: number;
  /** On the axis, per binned pixel. */
  readonly pixelScaleArcsecPerPx: number;
  /** Clear collecting area. */
  readonly apertureAreaM2: number;
  /** Full width at half maximum of the Airy disc at 550 nm without obstruction: 1.029 λ/D. */
  readonly diffractionArcsec: number;
}

/**
 * Effective focal length f·m, field 2 atan(w/2f), scale 206.265 p b/f, area π/4 D² (1 − ε²). Definitions. RangeError for
 * a length that is not positive.
 */
export function opticsOf(rig: {
  readonly focalLengthMm: number;
  readonly reducerFactor: number;
  readonly apertureMm: number;
  /** Diameter of the obstruction over that of the aperture, [0, 1). */
  readonly obstruction: number;
  readonly sensor: SensorGeometry;
}): Optics {
  const { sensor } = rig;
  const focalLengthMm = rig.focalLengthMm * rig.reducerFactor;
  for (const [name, value] of [
    ["focal length", focalLengthMm],
    ["aperture", rig.apertureMm],
    ["pixel pitch", sensor.pixelPitchUm],
  ] as const)
    if (!(value > 0)) throw new RangeError(`${name} must be positive, got ${value}`);
  const [w, h] = [sensor.widthPx, sensor.heightPx].map((px) => (px * sensor.pixelPitchUm) / 1000 / focalLengthMm) as [
    number,
    number,
  ];
  return {
    focalLengthMm,
    focalRatio: focalLengthMm / rig.apertureMm,
    fieldWidthDeg: radToDeg(2 * Math.atan(w / 2)),
    fieldHeightDeg: radToDeg(2 * Math.atan(h / 2)),
    planeWidthArcmin: radToDeg(w) * 60,
    planeHeightArcmin: radToDeg(h) * 60,
    pixelScaleArcsecPerPx: ((ARCSEC_PER_RAD / 1e3) * sensor.pixelPitchUm * sensor.binning) / focalLengthMm,
    apertureAreaM2: (Math.PI / 4) * (rig.apertureMm / 1000) ** 2 * (1 - rig.obstruction ** 2),
    diffractionArcsec: ((1.029 * 550e-9) / (rig.apertureMm / 1000)) * ARCSEC_PER_RAD,
  };
}
