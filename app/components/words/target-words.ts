import { fixed } from "~/components/numbers";
import { channelAdvice, CHANNELS, linesOf, type Channel } from "~/core/exposure";
import { KIND_WORDS, type CatalogEntry } from "~/core/catalog";

/** "M 31 · Andromeda Galaxy"; the name alone of one's own. */
export const entryTitle = (e: CatalogEntry): string =>
  e.light !== undefined ? e.name : e.name ? `${e.id} · ${e.name}` : e.id;

/** "27′ × 7′", or that no size is known. */
export function sizeWords(e: CatalogEntry): string {
  if (e.majorArcmin === null) return "size unknown";
  const [scale, unit] = e.majorArcmin >= 120 ? [60, "°"] : [1, "′"];
  const show = (arcmin: number) => `${fixed(arcmin / scale, arcmin / scale < 10 ? 1 : 0)}${unit}`;
  return e.minorArcmin !== null && e.minorArcmin < e.majorArcmin
    ? `${show(e.majorArcmin)} × ${show(e.minorArcmin)}`
    : show(e.majorArcmin);
}

/** "1190 × 309 px" at a scale; "" without a size. */
export function pixelWords(e: CatalogEntry, arcsecPerPx: number): string {
  if (e.majorArcmin === null) return "";
  const px = (arcmin: number) => String(Math.round((arcmin * 60) / arcsecPerPx));
  const { majorArcmin, minorArcmin } = e;
  return minorArcmin !== null && minorArcmin < majorArcmin
    ? `${px(majorArcmin)} × ${px(minorArcmin)} px`
    : `${px(majorArcmin)} px`;
}

/** "galaxy, 27′ × 7′, Scl". */
export const entryFacts = (e: CatalogEntry): string => `${KIND_WORDS[e.kind]}, ${sizeWords(e)}, ${e.constellation}`;

/** How an object sits in a frame whose short side is given. */
export function fillWords(fill: number | null): string {
  if (fill === null) return "";
  if (fill > 1) return "needs a mosaic";
  if (fill < 0.06) return "tiny in my field";
  return `fills ${Math.round(fill * 100)} % of my field`;
}

const LINE_NAMES = { ha: "Ha", oiii: "OIII", sii: "SII" } as const;
const STRENGTHS = ["none", "weak", "medium", "strong"] as const;

/** "Ha strong, OIII weak": what an object shines in. */
export function lightWords(entry: CatalogEntry): string {
  const { wanted } = channelAdvice(entry, CHANNELS);
  const lines = linesOf(entry);
  const parts = (["ha", "oiii", "sii"] as const)
    .filter((line) => lines[line] > 0)
    .map((line) => `${LINE_NAMES[line]} ${STRENGTHS[lines[line]]}`);
  if (parts.length === 0) return "continuous light";
  if (wanted.includes("L")) parts.push("reflected light or stars");
  return parts.join(", ");
}

const [WELL, SOME] = [0.45, 0.2]; // of a minute's worth left by a full Moon

/** "bears moonlight well: a full Moon leaves 62 %". */
export function moonBornWords(share: number): string {
  const how = share >= WELL ? "bears moonlight well" : share >= SOME ? "bears some moonlight" : "wants no Moon";
  return `${how}: a full Moon 60° away leaves ${Math.round(share * 100)} %`;
}

/** What is left of a picture that is not for one's own rig: "SII has hours left, but no filter in this rig"; "" when nothing is. */
export function leftForOthersWords({
  withoutFilter,
  ofOthers,
}: {
  readonly withoutFilter: readonly Channel[];
  readonly ofOthers: readonly Channel[];
}): string {
  const parts: string[] = [];
  const have = (n: number) => (n === 1 ? "has" : "have");
  if (withoutFilter.length > 0)
    parts.push(`${withoutFilter.join(" and ")} ${have(withoutFilter.length)} hours left, but no filter in this rig`);
  if (ofOthers.length > 0)
    parts.push(`${ofOthers.join(" and ")} ${have(ofOthers.length)} hours left that others have promised`);
  return parts.join("; ");
}

/** "no filter for OIII and SII here"; "" when nothing is missing. */
export const missingWords = (missing: readonly Channel[]): string =>
  missing.length === 0 ? "" : `no filter for ${missing.join(" and ")} in this rig`;
