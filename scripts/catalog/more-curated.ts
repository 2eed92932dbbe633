import type { CuratedFacts } from "~/core/catalog";

/** What is known by heart of an object of the base list, whose position it keeps. */
export interface MoreCurated {
  readonly id: string;
  readonly sbClass: number;
  readonly light: CuratedFacts["light"];
  /** Ha, OIII, SII, 0 to 3; null for continuous light. */
  readonly lines: readonly [number, number, number] | null;
  readonly hoursMin: number;
  /** Arcminutes, where the list has another size or none. */
  readonly size?: readonly [major: number, minor: number];
  readonly name?: string;
  readonly framing?: string;
  readonly hasBrightCore?: boolean;
  readonly hasHydrogen?: boolean;
}

const gas = (id: string, sbClass: number, ha: number, oiii: number, sii: number, hoursMin: number, more: Partial<MoreCurated> = {}): MoreCurated =>
  ({ id, sbClass, light: ha >= 1 && oiii >= 1 && Math.abs(ha - oiii) < 2 ? "mixed" : oiii > ha ? "OIII" : "Ha", lines: [ha, oiii, sii], hoursMin, ...more }); // prettier-ignore
const dust = (id: string, sbClass: number, hoursMin: number, more: Partial<MoreCurated> = {}): MoreCurated =>
  ({ id, sbClass, light: "continuum", lines: null, hoursMin, ...more }); // prettier-ignore

/** General knowledge, not measured: confidence medium. */
export const MORE_CURATED: readonly MoreCurated[] = [
  gas("Sh2-221", 6, 2, 1, 2, 20, { size: [140, 120], framing: "A whole shell of filaments, two Moons and more across: a short lens or a mosaic." }),
  gas("Sh2-224", 6, 2, 0, 1, 20, { framing: "A ragged horseshoe, faint even in Ha." }),
  gas("Sh2-223", 6, 2, 0, 1, 20), gas("Sh2-91", 6, 2, 2, 1, 20, { size: [120, 25], framing: "One long filament of an old remnant, red and teal side by side." }),
  gas("Sh2-205", 5, 2, 0, 1, 8), gas("Sh2-202", 5, 2, 0, 1, 10), gas("Sh2-112", 4, 3, 1, 1, 5), gas("Sh2-124", 5, 2, 1, 1, 8), gas("Sh2-174", 6, 2, 2, 0, 15),
  gas("Sh2-200", 6, 1, 2, 0, 15), gas("Sh2-71", 4, 3, 2, 1, 5), gas("Sh2-82", 4, 2, 0, 1, 6, { framing: "A small red heart in a blue veil: Ha and colour." }), gas("Sh2-84", 4, 3, 1, 1, 6),
  gas("Sh2-134", 5, 2, 1, 1, 8), gas("Sh2-173", 4, 3, 1, 2, 6), gas("Sh2-249", 5, 2, 0, 1, 8, { framing: "Lies beside the Jellyfish: one frame for both with a short lens." }),
  gas("Sh2-280", 4, 2, 0, 1, 6), gas("Sh2-282", 5, 2, 0, 1, 8), gas("Sh2-301", 4, 2, 2, 1, 6), gas("Sh2-254", 4, 3, 0, 1, 5), gas("Sh2-235", 3, 3, 0, 1, 4), gas("Sh2-232", 4, 3, 0, 1, 5),
  gas("Sh2-230", 5, 2, 0, 1, 8), gas("Sh2-106", 3, 3, 0, 1, 4, { size: [3, 1.5], framing: "Tiny and bright: a long focal length and good seeing." }),
  gas("RCW 27", 5, 2, 0, 1, 8), gas("RCW 36", 4, 3, 0, 1, 5), gas("RCW 40", 4, 3, 0, 1, 5), gas("RCW 58", 5, 2, 1, 0, 10), gas("RCW 104", 5, 2, 2, 1, 10), gas("RCW 120", 4, 3, 0, 1, 6),
  gas("NGC 3576", 2, 3, 1, 1, 3), gas("NGC 3603", 2, 3, 1, 1, 3), gas("NGC 2626", 3, 2, 0, 1, 4), gas("NGC 1931", 3, 3, 0, 1, 4, { framing: "With IC 417 a degree away: spider and fly." }),
  gas("IC 417", 4, 3, 1, 1, 6), gas("NGC 6559", 3, 3, 0, 1, 4), gas("IC 1283", 4, 3, 0, 1, 5), gas("IC 1284", 4, 3, 0, 1, 5), gas("NGC 6604", 4, 3, 0, 1, 5), gas("NGC 6589", 4, 1, 0, 0, 6),
  gas("PK 219+31.1", 5, 1, 3, 0, 15, { size: [17, 17] }), gas("PK 238+34.1", 5, 1, 3, 0, 12, { size: [4.5, 4.5] }), gas("PK 047+42.1", 5, 1, 3, 0, 12, { size: [2.9, 2.9] }),
  gas("NGC 40", 2, 3, 1, 0, 3), gas("NGC 2438", 2, 2, 3, 0, 3, { framing: "In front of M 46: frame the cluster and keep the ring round." }), gas("NGC 6369", 2, 3, 2, 0, 3), gas("NGC 2440", 1, 3, 3, 1, 2), gas("IC 418", 1, 3, 2, 0, 2),
  gas("PK 158+17.1", 6, 2, 1, 0, 20, { size: [20, 20] }), gas("PK 104-29.1", 4, 1, 3, 0, 8, { size: [5.5, 5.5] }), gas("PK 136+05.1", 6, 2, 3, 0, 20, { size: [15, 15] }),
  dust("NGC 2170", 4, 7), dust("IC 447", 4, 7), dust("IC 2169", 4, 7), dust("IC 348", 4, 7), dust("vdB 14", 5, 8), dust("vdB 15", 5, 8), dust("vdB 31", 4, 8, { framing: "A blue star in the brown Taurus dust: B 26 and its neighbours belong into the frame." }),
  dust("vdB 9", 5, 9), dust("vdB 158", 4, 8), dust("LBN 552", 6, 15), dust("LBN 438", 6, 12), dust("LDN 1448", 5, 10), dust("B 207", 5, 10), dust("NGC 5367", 4, 7), dust("LDN 935", 3, 4),
  dust("NGC 1291", 4, 6), dust("NGC 1532", 3, 5), dust("NGC 2146", 3, 5), dust("NGC 3184", 4, 6, { hasHydrogen: true }), dust("NGC 3198", 4, 6, { hasHydrogen: true }), dust("NGC 3344", 4, 6, { hasHydrogen: true }),
  dust("NGC 7640", 4, 6), dust("M 95", 3, 5), dust("M 96", 3, 5), dust("M 61", 3, 5, { hasHydrogen: true }), dust("M 49", 3, 4), dust("NGC 660", 4, 6), dust("NGC 672", 4, 6, { hasHydrogen: true }), dust("NGC 1055", 4, 6),
  dust("NGC 2683", 3, 5), dust("NGC 2841", 3, 5), dust("NGC 4490", 3, 5, { hasHydrogen: true }), dust("NGC 4725", 3, 5), dust("NGC 5033", 3, 5), dust("NGC 3521", 3, 5, { hasHydrogen: true }), dust("NGC 7479", 3, 5),
  gas("Sh2-140", 4, 3, 0, 1, 6, { framing: "A bright rim at the edge of the dark cloud LDN 1204: the cloud belongs into the frame." }), gas("Sh2-245", 6, 2, 0, 1, 15, { framing: "One arc of the great loop in Eridanus and Taurus, ten degrees long: a lens." }),
  gas("IC 63", 4, 3, 0, 1, 6, { framing: "With IC 59, beside a star of second magnitude: keep that out of the middle of the frame." }), dust("IC 59", 4, 6), gas("IC 5068", 4, 3, 1, 1, 6), gas("IC 4603", 3, 0, 0, 0, 5, { light: "continuum", lines: null }),
  gas("RCW 38", 3, 3, 0, 1, 4), gas("RCW 49", 4, 3, 1, 1, 5), gas("RCW 106", 5, 2, 0, 1, 8), gas("RCW 113", 5, 2, 0, 1, 10), gas("RCW 33", 5, 2, 0, 1, 8),
  gas("Sh2-88", 4, 3, 0, 1, 6), gas("Sh2-90", 5, 2, 0, 1, 8), gas("Sh2-104", 5, 2, 0, 1, 8, { framing: "A shell seven minutes across." }), gas("Sh2-63", 5, 1, 0, 1, 8), gas("Sh2-46", 5, 2, 1, 1, 8),
  gas("Sh2-187", 4, 3, 0, 1, 6), gas("Sh2-217", 5, 2, 0, 1, 8), gas("Sh2-263", 5, 2, 0, 1, 8), gas("Sh2-297", 4, 3, 0, 1, 5),
  dust("NGC 2023", 3, 5, { framing: "Under the Horsehead: one frame holds both and the Flame." }), dust("IC 432", 4, 6), dust("IC 435", 4, 6), dust("NGC 2247", 4, 6), dust("IC 5076", 4, 7), dust("IC 4592", 4, 6, { framing: "A blue horse’s head two degrees long, with IC 4601: a short lens." }),
  dust("vdB 1", 4, 7), dust("vdB 13", 5, 8), dust("LDN 1228", 5, 10), dust("LDN 1355", 6, 12, { size: [60, 30] }), dust("LDN 1174", 5, 8), dust("LDN 1551", 5, 8), dust("LDN 183", 5, 10), dust("LDN 1157", 6, 12),
  dust("B 142", 4, 4, { framing: "With B 143 an E of dark lanes half a degree high, against the Milky Way." }), dust("B 143", 4, 4), dust("B 169", 5, 5), dust("B 170", 5, 5), dust("B 174", 5, 5), dust("B 361", 4, 4), dust("B 92", 3, 3), dust("B 68", 4, 5),
  dust("B 44", 4, 4), dust("B 59", 3, 3, { framing: "The stem of the dark Pipe: seven degrees in all, a lens." }), dust("B 78", 3, 3, { framing: "The bowl of the dark Pipe." }), dust("B 18", 5, 8), dust("B 22", 5, 8), dust("B 30", 5, 8), dust("B 35", 5, 8),
]; // prettier-ignore
