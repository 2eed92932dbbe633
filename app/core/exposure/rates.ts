import { magToFluxRatio } from "~/core/units";

/** Photons s⁻¹ m⁻² nm⁻¹ of an AB magnitude 0 source: 3631 Jy/(h λ) = 5.4799e10/λ[nm]. Oke & Gunn 1983, ApJ 266, 713. */
export const photonZeroPoint = (wavelengthNm: number): number => 5.4799e10 / wavelengthNm;

/** What turns a brightness into electrons: filter band, clear area, optics × filter × quantum efficiency, pixel scale. */
export interface Reception {
  readonly centreNm: number;
  readonly bandwidthNm: number;
  readonly areaM2: number;
  readonly efficiency: number;
  readonly pixelScaleArcsecPerPx: number;
}

/** Electrons per second from a point source of a magnitude (V ≈ AB within 0.02 mag), over all its pixels, above the air. */
export const pointSourceRate = (r: Reception, magnitude: number): number =>
  photonZeroPoint(r.centreNm) * r.bandwidthNm * r.areaM2 * r.efficiency * magToFluxRatio(magnitude);

/** Electrons per pixel and second from a surface of a brightness in mag/arcsec². A V sky scaled into a narrow band is about 20 % too bright. */
export const skyRate = (r: Reception, magPerArcsec2: number): number =>
  pointSourceRate(r, magPerArcsec2) * r.pixelScaleArcsecPerPx ** 2;

/** Electrons per pixel and second from a spectral line of a surface brightness in rayleighs. 1 R = 10⁶/4π photons cm⁻² s⁻¹ sr⁻¹; Hunten et al. 1956. */
export const lineRate = (r: Reception, rayleighs: number): number =>
  rayleighs * 1.87042e-2 * r.areaM2 * r.efficiency * r.pixelScaleArcsecPerPx ** 2;
