import { lightOf, surfaceBrightness, type CatalogEntry } from "~/core/catalog";
import { clamp } from "~/core/units";
import { linesOf } from "./channel-advice";

/**
 * What the faintest part of an object that belongs to the picture shines with: lines in rayleighs, everything else as a surface
 * brightness in V. Values by rung and class are proposals (MATHS 3.15); galaxies by their mean.
 */
export interface ObjectLight {
  readonly ha: number;
  readonly oiii: number;
  readonly sii: number;
  /** Stars, dust and reflected light, mag/arcsec²; null = nothing of it. */
  readonly magPerArcsec2: number | null;
}

/** Where a figure of light comes from. */
export type LightSource = "handPicked" | "surface" | "kind";

/** Brilliant, strong, medium, weak and faint, R. */
const RUNGS = [120, 60, 25, 8, 3] as const;
const STRONG_RUNG = 1;
const FAINTEST_RUNG = RUNGS.length - 1;
/** Bright planetary nebulae outshine other nebulae of a strength by so much. */
const BRIGHT_PLANETARY = 5;
const FAINT_PART_MAG = 1.5; // below the mean of a galaxy
const ISOPHOTE_MAG = 25; // at which the sizes of galaxies are measured: nothing of the catalogue's ellipse is fainter
/** Faint parts of dust that reflects or hides light, by class of surface brightness, mag/arcsec². */
const DUST_MAG = [22.5, 23.5, 24.3, 24.8, 25.2, 25.6] as const;
/** Faint parts of what is reflected beside glowing gas, by class. */
const BESIDE_GAS_MAG = [21.5, 22.5, 23.3, 24, 24.8, 25.6] as const;
/** Where nobody picked a class: faint parts by kind, from memory. */
const UNKNOWN_DUST_MAG = { reflectionNebula: 24, darkNebula: 25 } as const;
const UNKNOWN_GALAXY_MAG = 24.5;
const GROUP_MAG = 24;

/** How many rungs an object's class, kind or list puts it below strong; the brightest nebulae stand above it. */
function rungsBelow(entry: CatalogEntry): number {
  const { curated, kind, id } = entry;
  if (curated) {
    const { sbClass } = curated;
    if (kind === "supernovaRemnant") return sbClass >= 5 ? 2 : sbClass >= 3 ? 1 : 0; // filaments thin out into nothing
    if (sbClass === 1 && kind === "emissionNebula") return -1;
    return sbClass >= 6 ? 2 : sbClass >= 4 ? 1 : 0;
  }
  if (kind === "planetaryNebula") return /^(M|NGC|IC) /.test(id) ? 0 : 1;
  if (/^SNR /.test(id)) return 3; // found by radio: hardly any of them shows
  return /^(LBN|Ced)/i.test(id) ? 2 : 1;
}

/** Light of the lines of an object, R. */
function linesIn(entry: CatalogEntry): Omit<ObjectLight, "magPerArcsec2"> {
  const strengths = linesOf(entry);
  const below = rungsBelow(entry);
  const isBright = entry.kind === "planetaryNebula" && entry.curated !== null && entry.curated.sbClass <= 2;
  const of = (strength: number) => {
    if (strength < 1) return 0;
    const rung = clamp(STRONG_RUNG + 3 - strength + below, 0, FAINTEST_RUNG);
    return RUNGS[rung]! * (isBright ? BRIGHT_PLANETARY : 1);
  };
  return { ha: of(strengths.ha), oiii: of(strengths.oiii), sii: of(strengths.sii) };
}

/** Surface brightness of what is no line: null where an object shines in lines alone, or in single stars. */
function continuumOf(entry: CatalogEntry): number | null {
  const { kind, curated } = entry;
  const by = (scale: readonly number[]) => (curated ? scale[clamp(curated.sbClass, 1, 6) - 1]! : null);
  switch (kind) {
    case "galaxy": {
      const mean = surfaceBrightness(entry);
      // To a tenth: no catalogue knows it better.
      return mean === null
        ? UNKNOWN_GALAXY_MAG
        : clamp(Math.round((mean + FAINT_PART_MAG) * 10) / 10, 20, ISOPHOTE_MAG);
    }
    case "galaxyGroup":
    case "galaxyCluster":
      return GROUP_MAG;
    case "reflectionNebula":
    case "darkNebula":
      return by(DUST_MAG) ?? UNKNOWN_DUST_MAG[kind];
    case "openCluster": // with dust about it
      return curated && curated.sbClass >= 4 ? by(DUST_MAG) : null;
    case "emissionNebula":
      return lightOf(entry) === "Ha" || lightOf(entry) === "OIII"
        ? null
        : (by(BESIDE_GAS_MAG) ?? UNKNOWN_DUST_MAG.reflectionNebula);
    case "planetaryNebula":
    case "supernovaRemnant":
    case "wolfRayetNebula":
      return lightOf(entry) === "continuum" ? UNKNOWN_DUST_MAG.reflectionNebula : null;
    default:
      return null;
  }
}

const lights = new WeakMap<CatalogEntry, ObjectLight>();
const alike = new Map<string, ObjectLight>();

/** What the faintest part of an object that belongs to the picture shines with: one object for all that shine alike. */
export function objectLight(entry: CatalogEntry): ObjectLight {
  const known = lights.get(entry);
  if (known) return known;
  const made: ObjectLight = { ...linesIn(entry), magPerArcsec2: continuumOf(entry) };
  const key = `${made.ha} ${made.oiii} ${made.sii} ${made.magPerArcsec2}`;
  const light = alike.get(key) ?? made;
  alike.set(key, light);
  lights.set(entry, light);
  return light;
}

/** Where that is from. */
export const lightSource = (entry: CatalogEntry): LightSource =>
  entry.curated ? "handPicked" : surfaceBrightness(entry) !== null ? "surface" : "kind";

/** A faint object as most are: what hours are weighed for where nobody knows the target. MATHS 6.2. */
export const USUAL_LIGHT: ObjectLight = { ha: 20, oiii: 20, sii: 20, magPerArcsec2: 24 };

/** Whether an object is a picture of single stars, whose hours go by the telescope and not by a surface. */
export const isOfStars = (light: ObjectLight): boolean =>
  light.magPerArcsec2 === null && light.ha === 0 && light.oiii === 0 && light.sii === 0;
