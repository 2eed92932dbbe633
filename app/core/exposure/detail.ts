import { FWHM_PER_SIGMA } from "~/core/numeric";
import { airmassKastenYoung } from "~/core/sky";

/** What blurs a picture, FWHM in arcsec unless said otherwise; they add in quadrature. */
export interface Blur {
  /** Air at the altitude and wavelength asked for. */
  readonly seeingArcsec: number;
  readonly opticsArcsec: number;
  readonly guidingArcsec: number;
  readonly totalArcsec: number;
  readonly pixelScaleArcsecPerPx: number;
  /** Pixels across the total: 2 to 3 is advised, under 1.5 undersampled, over 4 oversampled. */
  readonly samples: number;
  /** Narrowest pair that can be told apart: the blur or two pixels, whichever is larger. */
  readonly limitArcsec: number;
  readonly limitedBy: "seeing" | "optics" | "guiding" | "pixels";
}

/** How two equal points a given distance apart come out. */
export type DetailVerdict = "apart" | "touching" | "elongated" | "one";

const SPARROW = 0.85; // of the FWHM: two equal Gaussians lose the dip between them (σ√8 ln 2 against 2σ)
const PLAINLY = 1.5;

/**
 * Blur of a rig at a target's altitude: seeing × X^0.6 × (λ/550 nm)^−0.2 (Fried 1966), Airy 1.029 λ/D, guiding 2.355 σ per
 * axis. A sum of Gaussians: real seeing has wings, focus and tilt come on top. Valid above 20° of altitude (X < 3).
 */
export function blurOf(at: {
  readonly zenithSeeingArcsec: number;
  readonly altitudeDeg: number;
  readonly wavelengthNm: number;
  readonly diffractionArcsecAt550: number;
  readonly guidingRmsPerAxisArcsec: number;
  readonly pixelScaleArcsecPerPx: number;
}): Blur {
  const colour = at.wavelengthNm / 550;
  const airmass = Math.max(1, airmassKastenYoung(Math.max(5, at.altitudeDeg)));
  const seeingArcsec = at.zenithSeeingArcsec * airmass ** 0.6 * colour ** -0.2;
  const opticsArcsec = at.diffractionArcsecAt550 * colour;
  const guidingArcsec = FWHM_PER_SIGMA * at.guidingRmsPerAxisArcsec;
  const totalArcsec = Math.hypot(seeingArcsec, opticsArcsec, guidingArcsec);
  const pixels = 2 * at.pixelScaleArcsecPerPx;
  const worst = Math.max(seeingArcsec, opticsArcsec, guidingArcsec);
  return {
    seeingArcsec,
    opticsArcsec,
    guidingArcsec,
    totalArcsec,
    pixelScaleArcsecPerPx: at.pixelScaleArcsecPerPx,
    samples: totalArcsec / at.pixelScaleArcsecPerPx,
    limitArcsec: Math.max(totalArcsec, pixels),
    limitedBy:
      pixels > totalArcsec
        ? "pixels"
        : worst === seeingArcsec
          ? "seeing"
          : worst === opticsArcsec
            ? "optics"
            : "guiding",
  };
}

/** Two equal points under a blur: apart from one and a half times the limit, touching from once, elongated from 0.85 (Sparrow). */
export function detailVerdict(detailArcsec: number, blur: Blur): DetailVerdict {
  const ratio = detailArcsec / blur.limitArcsec;
  return ratio >= PLAINLY ? "apart" : ratio >= 1 ? "touching" : ratio >= SPARROW ? "elongated" : "one";
}
