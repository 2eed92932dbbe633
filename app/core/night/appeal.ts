import type { CatalogEntry, Kind } from "~/core/catalog";

/**
 * What people set up for above all, by lead designation: common practice, no source. They are the pictures that stand on every wall of
 * every club; everything else has to make up for not being one of them.
 */
const SHOWPIECES: ReadonlySet<string> = new Set([
  "M 31", "M 33", "M 42", "M 45", "IC 434", "NGC 2024", "NGC 2237", "NGC 2264", "IC 443", "NGC 1499", "M 1", "NGC 7293", "M 81", "M 82",
  "M 81 + M 82", "M 51", "M 101", "M 106", "M 63", "M 64", "M 104", "NGC 4565", "NGC 4631", "Arp 317", "M 65", "M 66", "NGC 3628", "NGC 891",
  "NGC 2903", "NGC 253", "NGC 7331", "NGC 6946", "M 13", "M 3", "M 5", "M 22", "NGC 5139", "NGC 104", "M 8", "M 20", "M 16", "M 17",
  "M 27", "M 57", "M 97", "NGC 6960", "NGC 6992", "NGC 7000", "IC 5070", "Sh2-117", "NGC 6888", "IC 1396", "vdB 142", "IC 1805",
  "IC 1848", "NGC 281", "NGC 7635", "NGC 7380", "NGC 7822", "IC 5146", "NGC 7023", "Sh2-155", "NGC 3372", "LMC", "SMC", "NGC 2070",
  "NGC 5128", "NGC 4945", "NGC 6334", "NGC 6357", "IC 2944", "M 78", "IC 2118", "NGC 2359", "NGC 2403", "NGC 1365", "M 83",
  "NGC 300", "NGC 55", "IC 405", "IC 410", "Markarian's Chain", "NGC 869 + NGC 884", "NGC 6188", "NGC 6302", "NGC 6744", "M 74",
]); // prettier-ignore

const SHOWPIECE = 1.6;
/** How much of a subject a kind is as a rule; a proposal of this project. */
const BY_KIND: Partial<Readonly<Record<Kind, number>>> = {
  openCluster: 0.6,
  starCloud: 0.6,
  doubleStar: 0.3,
  galaxyCluster: 0.6,
  darkNebula: 0.75,
  globularCluster: 0.85,
};

/** Names of fields whose members stand for them on the list above. */
const isShowpiece = (entry: CatalogEntry): boolean =>
  SHOWPIECES.has(entry.id) ||
  (entry.curated?.isField === true &&
    entry.kind !== "galaxyCluster" &&
    entry.curated.members.filter((m) => SHOWPIECES.has(m)).length > 0);

/** How rewarding a target is, whatever the night: its static rank, what people come for, and its kind. */
export const appealOf = (entry: CatalogEntry): number =>
  (entry.rank + 5) * (isShowpiece(entry) ? SHOWPIECE : (BY_KIND[entry.kind] ?? 1));
