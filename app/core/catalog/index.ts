export { KINDS, KIND_WORDS, isNebula, type CatalogEntry, type CuratedFacts, type Kind } from "./entry";
export { packCatalog, unpackCatalog, type PackedCatalog, type CatalogFault } from "./pack";
export { searchKey, wordKey } from "./key";
export { buildSearchIndex, searchCatalog, type SearchIndex } from "./search";
export { packStars, unpackStars, starZones, starsWithin, type StarTable, type StarZones } from "./stars";
