import type { StarZones } from "~/core/catalog";
import {
  ceilingE,
  darkRateAt,
  pictureLights,
  pixelModel,
  type Filter,
  objectRate,
  type ObjectLight,
  type PixelModel,
  type Rig,
} from "~/core/exposure";
import { writeFits, type FitsCard } from "~/core/formats";
import { opticsOf, skyToFrame } from "~/core/framing";
import type { Equatorial } from "~/core/sky";
import type { UtcMs } from "~/core/time";
import { clamp, degToRad, magToFluxRatio } from "~/core/units";
import { fieldStars } from "./field-stars";
import { frameCounts, type CellLight, type FrameLight, type SensorStar } from "./frame-pixels";

/** What a picture is of: an object as a smooth patch of its catalogue brightness. */
export interface FrameSubject {
  readonly centre: Equatorial<"icrs">;
  readonly majorArcmin: number;
  readonly minorArcmin: number;
  /** Of its long axis, north through east. */
  readonly positionAngleDeg: number;
  readonly light: ObjectLight;
}

/** What a frame lets in: the sky as it was, or the cap, or a panel of even light. */
export type FrameScene =
  | {
      readonly kind: "light";
      /** Where the telescope truly pointed, and how the picture is turned there. */
      readonly pointing: Equatorial<"icrs">;
      readonly positionAngleDeg: number;
      readonly subject: FrameSubject | null;
      /** Share of light from above the air that comes through air and cloud, (0, 1]. */
      readonly passes: number;
      /** Sky there over the moonless zenith sky of the filter's band. */
      readonly skyOver: number;
      /** Zenith sky in V without Moon, mag/arcsec². */
      readonly zenithSkyMag: number;
      /** Of stars in the picture, arcsec. */
      readonly fwhmArcsec: number;
      /** How far stars wander in the picture during the exposure, arcsec to its right and up. */
      readonly trailArcsec: { readonly x: number; readonly y: number };
    }
  | { readonly kind: "dark" | "bias" | "flat" };

/** One exposure of the stand-in observatory. */
export interface FrameAsk {
  readonly scene: FrameScene;
  readonly rig: Rig;
  readonly filter: Filter;
  readonly startMs: UtcMs;
  /** 0 for bias. */
  readonly exposureSec: number;
  /** As the project and panel are called; "" for calibration. */
  readonly object: string;
  readonly sensorC: number;
  readonly airC: number;
  readonly focusSteps: number;
  readonly pierSide: "east" | "west" | null;
  readonly site: { readonly latitudeDeg: number; readonly longitudeDeg: number };
  /** Longest side of the part that is read out from the middle of the sensor, px; null = all of it. */
  readonly cropPx: number | null;
  readonly seed: number;
}

/** Light lost in the corners; a proposal, as much as a usual telescope loses. */
const CORNER_LOSS = 0.25;
/** How full flats are exposed, of what a pixel holds; common practice. */
const FLAT_LEVEL = 0.5;
const FAINTEST_MAG = 16; // fainter ones would be many and change nothing that is measured
/** Stars that stand out of the noise of their disc by less are not drawn. */
const LEAST_SIGMA = 2;
const DARK_CELL: CellLight = { skyE: 0, patchE: 0 };

/** Pixels of a frame, a side. */
export function frameSize(
  { sensor }: Rig,
  cropPx: number | null,
): { readonly widthPx: number; readonly heightPx: number } {
  // Even, so that a colour mosaic begins as it does on the whole sensor.
  const side = (px: number) => 2 * Math.floor(Math.min(px / sensor.binning, cropPx ?? Infinity) / 2);
  return { widthPx: side(sensor.widthPx), heightPx: side(sensor.heightPx) };
}

/** The kinds of pixel behind a filter as they lie on the sensor: one, or red, green, green, blue; null = sees nothing of the filter's light. */
function cellsOf(ask: FrameAsk, zenithSkyMag: number): readonly (PixelModel | null)[] {
  const { rig, filter, airC } = ask;
  const at = { rig, filter, skyMagPerArcsec2: zenithSkyMag, airC };
  const lights = pictureLights(rig, filter);
  const models = lights.map((light) => pixelModel(at, light, Math.max(1, ask.exposureSec)));
  if (!rig.isColour) return [models[0]!];
  const cells: (PixelModel | null)[] = [null, null, null, null];
  const [RED, GREEN, GREEN_TOO, BLUE] = [0, 1, 2, 3];
  lights.forEach(({ centreNm, share }, i) => {
    const places =
      centreNm > 600 ? [RED] : share > 0.7 ? [GREEN, GREEN_TOO, BLUE] : share > 0.4 ? [GREEN, GREEN_TOO] : [BLUE];
    for (const place of places) cells[place] = models[i]!;
  });
  return cells;
}

/** What falls on the sensor in an exposure. */
export function frameLight(ask: FrameAsk, stars: StarZones): FrameLight {
  const { scene, rig, exposureSec } = ask;
  const size = frameSize(rig, ask.cropPx);
  const { pixelScaleArcsecPerPx: scale } = opticsOf(rig);
  const { sensor } = rig;
  const camera = {
    gainEPerAdu: rig.gainEPerAdu,
    readNoiseE: rig.readNoiseE,
    fullWellE: rig.fullWellE,
    bits: rig.bits,
    offsetAdu: rig.offsetAdu,
  };
  const dark = darkRateAt(rig.darkEPerSec, rig.workingTempC, ask.sensorC) * exposureSec;
  const capped: FrameLight = {
    ...size,
    cells: [DARK_CELL],
    stars: [],
    patch: null,
    fwhmPx: 1,
    trailPx: { x: 0, y: 0 },
    cornerLoss: CORNER_LOSS,
    cornerPx: Math.hypot(sensor.widthPx, sensor.heightPx) / 2 / sensor.binning,
    darkE: scene.kind === "bias" ? 0 : dark,
    camera,
    seed: ask.seed,
  };
  if (scene.kind !== "light")
    return scene.kind === "flat" ? { ...capped, cells: [{ skyE: FLAT_LEVEL * ceilingE(camera), patchE: 0 }] } : capped;
  const models = cellsOf(ask, scene.zenithSkyMag);
  const { subject } = scene;
  const cells = models.map((m): CellLight =>
    m
      ? {
          skyE: m.sky * scene.skyOver * exposureSec,
          patchE: subject ? objectRate(m, subject.light) * scene.passes * exposureSec : 0,
        }
      : DARK_CELL,
  );
  const fwhmPx = scene.fwhmArcsec / scale;
  const zero = models.map((m) => ((m?.zeroMag ?? 0) / scale ** 2) * scene.passes * exposureSec);
  const background = Math.max(...cells.map((c) => c.skyE)) + capped.darkE + rig.readNoiseE ** 2;
  const leastE = LEAST_SIGMA * Math.sqrt(background) * Math.max(1, fwhmPx);
  const faintest = clamp(2.5 * Math.log10(Math.max(...zero) / leastE), 0, FAINTEST_MAG);
  const toSensor = (at: Equatorial<"icrs">) => {
    const p = skyToFrame({ centre: scene.pointing, positionAngleDeg: scene.positionAngleDeg }, at);
    return (
      p && {
        xPx: (size.widthPx - 1) / 2 + (p.xArcmin * 60) / scale,
        yPx: (size.heightPx - 1) / 2 + (p.yArcmin * 60) / scale,
      }
    );
  };
  const radiusDeg = (Math.hypot(size.widthPx, size.heightPx) / 2 + 20) * (scale / 3600);
  const field = fieldStars(stars, scene.pointing, radiusDeg, faintest).flatMap((star): SensorStar[] => {
    const at = toSensor(star.at);
    return at ? [{ ...at, electrons: zero.map((z) => z * magToFluxRatio(star.magnitude)) }] : [];
  });
  const middle = subject && toSensor(subject.centre);
  return {
    ...capped,
    cells,
    stars: field,
    patch:
      subject && middle
        ? {
            ...middle,
            semiMajorPx: Math.max(1, (subject.majorArcmin * 30) / scale),
            semiMinorPx: Math.max(1, (subject.minorArcmin * 30) / scale),
            // North is turned by the position angle of the picture from +y, and east lies to its left.
            angleRad: degToRad(90 + subject.positionAngleDeg - scene.positionAngleDeg),
          }
        : null,
    fwhmPx,
    trailPx: { x: scene.trailArcsec.x / scale, y: scene.trailArcsec.y / scale },
  };
}

const IMAGE_TYPES = { light: "Light Frame", dark: "Dark Frame", bias: "Bias Frame", flat: "Flat Field" } as const;

/** Header cards of an exposure: the usual ones, a solution for lights, and that it is simulated. */
export function frameCards(ask: FrameAsk): readonly FitsCard[] {
  const { scene, rig, filter } = ask;
  const { widthPx, heightPx } = frameSize(rig, ask.cropPx);
  const { pixelScaleArcsecPerPx, focalLengthMm } = opticsOf(rig);
  const cards: FitsCard[] = [
    ["SIMULATD", true, "made by a stand-in observatory, no sky was seen"],
    ["IMAGETYP", IMAGE_TYPES[scene.kind], "kind of frame"],
    ["DATE-OBS", new Date(ask.startMs).toISOString().slice(0, -1), "[UTC] start of exposure"],
    ["EXPTIME", ask.exposureSec, "[s] exposure"],
    ["INSTRUME", rig.cameraName || rig.name, "camera"],
    ["TELESCOP", "stand-in observatory", "simulated"],
    ["FOCALLEN", focalLengthMm, "[mm] focal length"],
    ["XPIXSZ", rig.sensor.pixelPitchUm, "[um] pixel, before binning"],
    ["YPIXSZ", rig.sensor.pixelPitchUm, "[um] pixel, before binning"],
    ["XBINNING", rig.sensor.binning, "pixels read as one"],
    ["YBINNING", rig.sensor.binning, "pixels read as one"],
    ["EGAIN", rig.gainEPerAdu, "[e-/ADU] gain"],
    ["OFFSET", rig.offsetAdu, "[ADU] bias level"],
    ["CCD-TEMP", ask.sensorC, "[degC] sensor"],
    ["AMBTEMP", ask.airC, "[degC] air"],
    ["FOCUSPOS", ask.focusSteps, "focuser, steps"],
    ["SITELAT", ask.site.latitudeDeg, "[deg] latitude, north"],
    ["SITELONG", ask.site.longitudeDeg, "[deg] longitude, east"],
  ];
  if (rig.isColour) cards.push(["BAYERPAT", "RGGB", "colour mosaic, from the first row up"]);
  if (scene.kind === "light" || scene.kind === "flat") cards.push(["FILTER", filter.name, "filter"]);
  if (ask.pierSide && scene.kind === "light") cards.push(["PIERSIDE", ask.pierSide, "side of the pier"]);
  if (scene.kind !== "light") return cards;
  const s = pixelScaleArcsecPerPx / 3600;
  const turn = degToRad(scene.positionAngleDeg);
  return [
    ...cards,
    ["OBJECT", ask.object, "project and panel"],
    ["RA", scene.pointing.raDeg, "[deg] right ascension"],
    ["DEC", scene.pointing.decDeg, "[deg] declination"],
    ["CTYPE1", "RA---TAN", "gnomonic projection"],
    ["CTYPE2", "DEC--TAN", "gnomonic projection"],
    ["CUNIT1", "deg", "unit of CRVAL1"],
    ["CUNIT2", "deg", "unit of CRVAL2"],
    ["RADESYS", "ICRS", "reference frame"],
    ["CRVAL1", scene.pointing.raDeg, "[deg] right ascension of the middle"],
    ["CRVAL2", scene.pointing.decDeg, "[deg] declination of the middle"],
    ["CRPIX1", (widthPx + 1) / 2, "middle of the columns"],
    ["CRPIX2", (heightPx + 1) / 2, "middle of the rows"],
    ["CD1_1", -s * Math.cos(turn), "[deg/px] east along columns"],
    ["CD1_2", s * Math.sin(turn), "[deg/px] east along rows"],
    ["CD2_1", s * Math.sin(turn), "[deg/px] north along columns"],
    ["CD2_2", s * Math.cos(turn), "[deg/px] north along rows"],
  ];
}

/** A seed for an exposure of a night: the same exposure, the same frame. */
export function frameSeed(nightSeed: number, rigName: string, startMs: number): number {
  let hash = Math.imul(nightSeed + 1, 0x9e3779b1) ^ Math.imul(Math.floor(startMs / 1000), 0x85ebca6b);
  for (let i = 0; i < rigName.length; i++) hash = Math.imul(hash ^ rigName.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

/** An exposure as the bytes of a FITS file. */
export const exposureFrame = (ask: FrameAsk, stars: StarZones): Uint8Array<ArrayBuffer> =>
  writeFits(frameCounts(frameLight(ask, stars)), frameSize(ask.rig, ask.cropPx).widthPx, frameCards(ask));
