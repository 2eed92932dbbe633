export {
  isNebula,
  KINDS,
  KIND_WORDS,
  lightOf,
  ownEntry,
  type CatalogEntry,
  type CuratedFacts,
  type Kind,
  type OwnTarget,
} from "./entry";
export { packCatalog, unpackCatalog, type PackedCatalog } from "./pack";
export { searchKey } from "./key";
export { buildSearchIndex, isCalled, isDesignation, searchCatalog, type SearchIndex } from "./search";
export { packStars, unpackStars, starAt, starZones, starsWithin, type StarZones } from "./stars";
export { nearestTown, readTowns, searchTowns, type Town, type TownIndex } from "./towns";
export { drawnBrightness, surfaceBrightness } from "./surface";
export { movingKind, type MovingKind } from "./moving";
export type { SkyData } from "./chart-sky";
