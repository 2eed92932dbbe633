import { starAt, starsWithin, type StarZones } from "~/core/catalog";
import { randomFrom } from "~/core/numeric";
import { icrsToGalactic, separationDeg, type Equatorial } from "~/core/sky";
import { degToRad } from "~/core/units";

/** A star of a field, from the catalogue or made up. */
export interface FieldStar {
  readonly at: Equatorial<"icrs">;
  readonly magnitude: number;
  /** B − V; NaN = unknown. */
  readonly colour: number;
}

/** From here on stars are made up: the catalogue is complete a little beyond magnitude 8. */
export const MADE_UP_FROM_MAG = 9;
const CELL_DEG = 0.25;
/** Stars to magnitude 10 in a square degree, all sky, and how their number grows by magnitude; from memory, after Allen's tables. */
const PER_SQUARE_DEG_AT_10 = 8;
const GROWTH = 0.4;

/** How many more stars there are at a galactic latitude than on average: 2.5 in the Milky Way, 0.5 at its poles; from memory. */
const crowding = (latitudeDeg: number): number => 0.5 + 2 * Math.exp(-Math.abs(latitudeDeg) / 15);

/** Stars a square degree down to a magnitude. */
const starsTo = (magnitude: number): number => PER_SQUARE_DEG_AT_10 * 10 ** (GROWTH * (magnitude - 10));

/** A whole-number seed of a cell of the sky. */
const seedOf = (band: number, cell: number): number =>
  (Math.imul(band + 1, 0x9e3779b1) ^ Math.imul(cell + 1, 0x85ebca6b)) >>> 0;

/**
 * Stars within a circle down to a magnitude: those of the catalogue, and below it made-up ones, as many as there are in such a part of
 * the sky and always the same for the same spot.
 */
export function fieldStars(
  zones: StarZones,
  centre: Equatorial<"icrs">,
  radiusDeg: number,
  faintest: number,
): readonly FieldStar[] {
  const known = starsWithin(zones, {
    raDeg: centre.raDeg,
    decDeg: centre.decDeg,
    radiusDeg,
    faintest: MADE_UP_FROM_MAG,
  }).map((row): FieldStar => starAt(zones.stars, row));
  const found = [...known, ...madeUpStars(centre, radiusDeg, faintest)];
  return found.filter((s) => separationDeg(centre, s.at) <= radiusDeg);
}

/** Made-up stars of the cells about a circle, fainter than the catalogue's. */
function* madeUpStars(centre: Equatorial<"icrs">, radiusDeg: number, faintest: number): Generator<FieldStar> {
  if (faintest <= MADE_UP_FROM_MAG) return;
  const [low, high] = [centre.decDeg - radiusDeg, centre.decDeg + radiusDeg];
  for (let band = Math.floor((low + 90) / CELL_DEG); band <= Math.floor((high + 90) / CELL_DEG); band++) {
    if (band < 0 || band >= 180 / CELL_DEG) continue;
    const decDeg = band * CELL_DEG - 90;
    const cells = Math.max(1, Math.round((360 * Math.cos(degToRad(decDeg + CELL_DEG / 2))) / CELL_DEG));
    const wide = 360 / cells;
    const reach = Math.min(
      180,
      radiusDeg / Math.max(1e-6, Math.cos(degToRad(Math.min(90, Math.abs(centre.decDeg) + radiusDeg)))),
    );
    const [first, last] = reach >= 180 ? [0, cells - 1] : [Math.floor((centre.raDeg - reach) / wide), Math.floor((centre.raDeg + reach) / wide)]; // prettier-ignore
    for (let c = first; c <= last; c++) {
      const cell = ((c % cells) + cells) % cells;
      const random = randomFrom(seedOf(band, cell));
      const middle = { frame: "icrs", raDeg: (cell + 0.5) * wide, decDeg: decDeg + CELL_DEG / 2 } as const;
      const area = CELL_DEG * wide * Math.cos(degToRad(middle.decDeg));
      const many = area * crowding(icrsToGalactic(middle).latDeg);
      // Brightest first, by the gaps of a Poisson process: going deeper adds stars and moves none.
      for (let count = starsTo(MADE_UP_FROM_MAG) * many; ;) {
        count -= Math.log(1 - random());
        const magnitude = 10 + Math.log10(count / many / PER_SQUARE_DEG_AT_10) / GROWTH;
        const [across, up, tint] = [random(), random(), random()];
        if (magnitude > faintest) break;
        yield {
          at: { frame: "icrs", raDeg: (cell + across) * wide, decDeg: decDeg + up * CELL_DEG },
          magnitude,
          colour: 0.2 + 1.2 * tint,
        };
      }
    }
  }
}
