export {
  KINDS,
  KIND_WORDS,
  isNebula,
  lightOf,
  ownEntry,
  type CatalogEntry,
  type CuratedFacts,
  type Kind,
  type Light,
  type OwnTarget,
} from "./entry";
export { packCatalog, unpackCatalog, type PackedCatalog, type CatalogFault } from "./pack";
export { searchKey, wordKey } from "./key";
export { buildSearchIndex, searchCatalog, type SearchIndex } from "./search";
export { packStars, unpackStars, starZones, starsWithin, type StarTable, type StarZones } from "./stars";
export { readTowns, searchTowns, type Town, type TownIndex } from "./towns";
export { surfaceBrightness, surfaceClass } from "./surface";
export { movingKind, type MovingKind } from "./moving";
export type { SkyData } from "./chart-sky";
