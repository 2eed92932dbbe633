import { Constellation } from "astronomy-engine";
import { searchKey, type CatalogEntry, type Kind } from "~/core/catalog";
import { galacticToIcrs, separationDeg } from "~/core/sky";
import { fixes, readBase, readCurated, readNames, type BaseRecord, type CuratedRecord } from "./base";
import { CALDWELL } from "./caldwell";
import { MORE_CURATED } from "./more-curated";
import { ABELL_PLANETARIES, ARP, GROUP_NAME, GROUPS, POSITION_ANGLES } from "./cross-names";

const LEAD = [
  "M",
  "NGC",
  "IC",
  "C",
  "Sh2",
  "RCW",
  "VdB",
  "VdBH",
  "B",
  "LDN",
  "LBN",
  "Ced",
  "Cr",
  "SNR G",
  "PN G",
  "PK",
  "UGC",
  "VV",
  "ESO",
  "PGC",
  "ACO",
];
const POINT_LIKE: readonly Kind[] = ["galaxy", "planetaryNebula", "globularCluster", "openCluster"];
const MIXED: readonly (readonly [Kind, Kind])[] = [
  ["emissionNebula", "supernovaRemnant"], ["emissionNebula", "planetaryNebula"], ["planetaryNebula", "supernovaRemnant"], ["galaxy", "planetaryNebula"],
]; // prettier-ignore

const prefixOf = (id: string) =>
  LEAD.filter((p) => id.startsWith(`${p} `) || (p.endsWith("G") && id.startsWith(p))).sort(
    (a, b) => b.length - a.length,
  )[0] ?? "";
const leadRank = (id: string) => {
  const i = LEAD.indexOf(prefixOf(id));
  return i === -1 ? LEAD.length : i;
};
const isNgcIc = (id: string) => /^(NGC|IC) /.test(id);

function mayBeSame(a: Kind, b: Kind): boolean {
  return a === b || MIXED.some(([x, y]) => (a === x && b === y) || (a === y && b === x));
}

/** Whether two base records are the same object (catalog.md section 3). */
function isSame(a: BaseRecord, b: BaseRecord): boolean {
  if (!mayBeSame(a.kind, b.kind) || a.kind === "galaxyCluster") return false;
  const apart = 60 * separationDeg({ frame: "icrs", ...a }, { frame: "icrs", ...b });
  if (POINT_LIKE.includes(a.kind) && POINT_LIKE.includes(b.kind)) {
    if (isNgcIc(a.id) && isNgcIc(b.id))
      return apart < 0.05 && a.mag !== null && b.mag !== null && Math.abs(a.mag - b.mag) < 0.5;
    return apart <= Math.min(1.5, Math.max(0.3, 0.1 * Math.min(a.major ?? 0, b.major ?? 0)));
  }
  if (a.major === null || b.major === null) return apart <= 2;
  const [small, large] = [Math.min(a.major, b.major), Math.max(a.major, b.major)];
  return apart <= Math.max(2, small / 4) && large / small <= 3;
}

/** Groups of records that are one object, joined transitively, each sorted by lead designation. */
function groups(records: readonly BaseRecord[]): BaseRecord[][] {
  const sorted = [...records].sort((a, b) => a.decDeg - b.decDeg || a.id.localeCompare(b.id));
  const parent = sorted.map((_, i) => i);
  const root = (i: number): number => (parent[i] === i ? i : (parent[i] = root(parent[i]!)));
  sorted.forEach((a, i) => {
    const reach = Math.max(2, (a.major ?? 0) / 4) / 60;
    for (let j = i + 1; j < sorted.length && sorted[j]!.decDeg - a.decDeg <= reach; j++)
      if (isSame(a, sorted[j]!)) parent[root(j)] = root(i);
  });
  const byRoot = new Map<number, BaseRecord[]>();
  sorted.forEach((r, i) => byRoot.set(root(i), [...(byRoot.get(root(i)) ?? []), r]));
  return [...byRoot.values()].map((g) =>
    g.sort((a, b) => leadRank(a.id) - leadRank(b.id) || a.id.localeCompare(b.id, "en", { numeric: true })),
  );
}

const shown = (id: string) => id.replace(/^Sh2 /, "Sh2-").replace(/^VdB /, "vdB ");
const messierOf = (r: BaseRecord) => (/^M \d+$/.test(r.desig) ? r.desig : null);

const KIND_OF_CURATED: Readonly<Record<string, Kind>> = {
  emission_nebula: "emissionNebula", galaxy: "galaxy", open_cluster: "openCluster", planetary_nebula: "planetaryNebula", reflection_nebula: "reflectionNebula",
  globular_cluster: "globularCluster", dark_nebula: "darkNebula", supernova_remnant: "supernovaRemnant", galaxy_group: "galaxyGroup",
  wolf_rayet_nebula: "wolfRayetNebula", star_cloud: "starCloud", galaxy_cluster: "galaxyCluster",
}; // prettier-ignore

/** Static rank 0–100 (catalog.md section 6). */
function rankOf(e: Omit<CatalogEntry, "rank">): number {
  const all = [e.id, ...e.aliases];
  const size = e.majorArcmin;
  const brightness =
    e.magnitude === null
      ? e.kind.endsWith("Nebula") && size !== null
        ? 7
        : 0
      : Math.min(14, Math.max(0, 2 * (13 - e.magnitude)));
  const points =
    (e.curated?.tier === 1 ? 60 : e.curated ? 45 : 0) +
    (all.some((a) => /^M \d/.test(a)) ? 15 : 0) +
    (all.some((a) => /^C \d/.test(a)) ? 8 : 0) +
    (e.name === "" ? 0 : 8) +
    (size === null ? -20 : Math.min(18, Math.max(0, 6 * Math.log2(size / 2)))) +
    brightness -
    (e.kind === "darkNebula" || e.kind === "galaxyCluster" ? 5 : 0);
  return Math.round(Math.min(100, Math.max(0, points)));
}

const distinct = (id: string, texts: readonly string[]): string[] => {
  const seen = new Set([searchKey(id)]);
  return texts.filter((t) => t !== "" && !seen.has(searchKey(t)) && seen.add(searchKey(t)));
};

function fromCurated(c: CuratedRecord, base: ReadonlyMap<string, BaseRecord>): Omit<CatalogEntry, "rank"> {
  const desigs = c.base_ids.map((id) => base.get(id)?.desig ?? id);
  return {
    id: c.id,
    name: c.name ?? "",
    aliases: distinct(c.id, [...c.aliases, ...c.base_ids.map(shown), ...desigs.map(shown)]),
    kind: KIND_OF_CURATED[c.kind]!,
    at: { frame: "icrs", raDeg: c.ra_deg, decDeg: c.dec_deg },
    majorArcmin: c.major_arcmin,
    minorArcmin: c.minor_arcmin,
    positionAngleDeg: c.pa_deg === null ? null : c.pa_deg % 180,
    magnitude: c.magnitude,
    constellation: c.constellation,
    curated: {
      isField: c.scope === "field",
      tier: c.tier,
      sbClass: c.sb_class,
      light: c.dominant_light,
      lines: c.ha === null ? null : { ha: c.ha, oiii: c.oiii ?? 0, sii: c.sii ?? 0 },
      hasBrightCore: c.bright_core,
      ...(c.ha_boost ? { hasHydrogen: true } : {}),
      hoursMin: c.hours_min,
      framing: c.framing,
      members: c.members.map(shown),
      confidence: c.confidence,
    },
  };
}

function fromGroup(
  group: readonly BaseRecord[],
  names: Readonly<Record<string, { name: string }>>,
): Omit<CatalogEntry, "rank"> {
  const lead = group[0]!;
  const messier = group.map(messierOf).find((m) => m !== null);
  const id = shown(messier ?? lead.id);
  const position = [...group].sort((a, b) => b.decimals - a.decimals)[0]!;
  const sized = group.find((r) => r.major !== null);
  const said = group.map((r) => names[r.id]?.name).find((n) => n !== undefined && n !== "") ?? "";
  // A group's name is no name of one of its members.
  const name = lead.kind === "galaxy" && GROUP_NAME.test(said) ? "" : said;
  return {
    id,
    name,
    aliases: distinct(
      id,
      group.flatMap((r) => [shown(r.id), shown(r.desig)]),
    ),
    kind: lead.kind,
    at: { frame: "icrs", raDeg: position.raDeg, decDeg: position.decDeg },
    majorArcmin: sized?.major ?? null,
    minorArcmin: sized?.minor ?? sized?.major ?? null,
    positionAngleDeg: null,
    magnitude: group.map((r) => r.mag).find((m) => m !== null) ?? null,
    constellation: Constellation(position.raDeg / 15, position.decDeg).symbol,
    curated: null,
  };
}

/** Gives the entry that answers to `target` another name to be found by. */
function alias(entries: Omit<CatalogEntry, "rank">[], name: string, target: string): boolean {
  const key = searchKey(target);
  const i = entries.findIndex((e) => [e.id, ...e.aliases].some((a) => searchKey(a) === key));
  if (i === -1) return false;
  const e = entries[i]!;
  entries[i] = { ...e, aliases: distinct(e.id, [...e.aliases, name]) };
  return true;
}

type Entry = Omit<CatalogEntry, "rank">;

const byName = (entries: readonly Entry[], name: string): Entry | undefined => {
  const key = searchKey(name);
  return entries.find((e) => [e.id, ...e.aliases].some((a) => searchKey(a) === key));
};

const WIDEST_GROUP_DEG = 0.6;

/** Pictures of several galaxies, made of their members; those with fewer than two in the list become a name of the one. */
function groupEntries(entries: readonly Entry[]): {
  readonly added: readonly Entry[];
  readonly names: readonly (readonly [string, string])[];
} {
  const added: Entry[] = [];
  const names: [string, string][] = [];
  for (const { id, name, members } of GROUPS) {
    const found = members.flatMap((m) => byName(entries, m) ?? []);
    const [first] = found;
    if (!first || byName(entries, id)) continue;
    if (found.length < 2) {
      names.push([id, first.id]);
      if (name) names.push([name, first.id]);
      continue;
    }
    const decDeg = found.reduce((sum, e) => sum + e.at.decDeg, 0) / found.length;
    const raDeg = first.at.raDeg + found.reduce((sum, e) => sum + ((e.at.raDeg - first.at.raDeg + 540) % 360) - 180, 0) / found.length; // prettier-ignore
    const at = { frame: "icrs", raDeg: (raDeg + 360) % 360, decDeg } as const;
    const radii = found.map((e) => separationDeg(at, e.at) + (e.majorArcmin ?? 1) / 120);
    if (Math.max(...radii) > WIDEST_GROUP_DEG) throw new Error(`${id}: its members lie far apart`);
    const majorArcmin = Math.round(Math.max(...radii) * 2 * 60 * 10) / 10;
    added.push({
      id,
      name: name ?? "",
      aliases: [],
      kind: "galaxyGroup",
      at,
      majorArcmin,
      minorArcmin: majorArcmin,
      positionAngleDeg: null,
      magnitude: null,
      constellation: Constellation(at.raDeg / 15, decDeg).symbol,
      curated: { isField: true, tier: 2, sbClass: 3, light: "continuum", lines: null, hasBrightCore: false, hoursMin: 5, framing: "", members: found.map((e) => e.id), confidence: "medium" }, // prettier-ignore
    });
  }
  return { added, names };
}

const GALACTIC_REACH_DEG = 0.12; // tenths of a degree, and a little

/** The planetary nebula of the list at a galactic place; null where none lies there. */
function planetaryAt(entries: readonly Entry[], [lonDeg, latDeg]: readonly [number, number]): Entry | null {
  const at = galacticToIcrs(lonDeg, latDeg);
  const near = entries.filter((e) => ["planetaryNebula", "emissionNebula"].includes(e.kind) && Math.abs(e.at.decDeg - at.decDeg) < 0.2 && separationDeg(at, e.at) < GALACTIC_REACH_DEG); // prettier-ignore
  return near.sort((a, b) => separationDeg(at, a.at) - separationDeg(at, b.at))[0] ?? null;
}

/** Entries with what is known by heart of them, where nobody picked them before. */
function withMore(entries: readonly Entry[]): Entry[] {
  const out = [...entries];
  for (const more of MORE_CURATED) {
    const found = byName(out, more.id);
    if (!found || found.curated) continue;
    out[out.indexOf(found)] = {
      ...found,
      name: more.name ?? found.name,
      majorArcmin: more.size?.[0] ?? found.majorArcmin,
      minorArcmin: more.size?.[1] ?? found.minorArcmin,
      curated: {
        isField: false,
        tier: 2,
        sbClass: more.sbClass,
        light: more.light,
        lines: more.lines && { ha: more.lines[0], oiii: more.lines[1], sii: more.lines[2] },
        hasBrightCore: more.hasBrightCore ?? false,
        ...(more.hasHydrogen ? { hasHydrogen: true } : {}),
        hoursMin: more.hoursMin,
        framing: more.framing ?? "",
        members: [],
        confidence: "medium",
      },
    };
  }
  return out;
}

/** A galaxy with the position angle that it is known by, where it had none. */
function angled(e: Entry): Entry {
  if (e.kind !== "galaxy" || e.positionAngleDeg !== null) return e;
  const known = [e.id, ...e.aliases].map((n) => POSITION_ANGLES[n]).find((a) => a !== undefined);
  return known === undefined ? e : { ...e, positionAngleDeg: known % 180 };
}

/** The whole catalogue, best rank first. Throws when an input breaks a rule (catalog.md section 9). */
export function mergeCatalog(): CatalogEntry[] {
  const { kept, every } = readBase();
  const curated = readCurated();
  const claimed = new Map<string, string>();
  for (const c of curated.filter((x) => x.scope === "object")) {
    for (const id of c.base_ids) {
      if (!every.has(id)) throw new Error(`${c.id}: base id ${id} does not exist`);
      if (claimed.has(id)) throw new Error(`base id ${id} is claimed by ${claimed.get(id)} and ${c.id}`);
      claimed.set(id, c.id);
    }
  }
  const curatedIds = new Set(
    curated.flatMap((c) => (c.scope === "object" ? [c.id, ...c.aliases] : [c.id]).map(searchKey)),
  );
  const free = kept.filter(
    (r) => !claimed.has(r.id) && !curatedIds.has(searchKey(r.id)) && !curatedIds.has(searchKey(r.desig)),
  );
  const names = readNames();
  const entries: Omit<CatalogEntry, "rank">[] = [
    ...curated.map((c) => fromCurated(c, every)),
    ...groups(free).map((g) => fromGroup(g, names)),
  ];
  for (const a of fixes.add)
    entries.push({
      id: a.id,
      name: "Winnecke 4",
      aliases: a.aliases,
      kind: "doubleStar",
      at: { frame: "icrs", raDeg: a.ra, decDeg: a.dec },
      majorArcmin: a.size[0],
      minorArcmin: a.size[1],
      positionAngleDeg: null,
      magnitude: a.mag,
      constellation: Constellation(a.ra / 15, a.dec).symbol,
      curated: null,
    });
  for (const [lost, target] of Object.entries(fixes.lost_aliases)) alias(entries, shown(lost), target);
  CALDWELL.forEach((target, i) => alias(entries, `C ${i + 1}`, target));
  for (const [number, place] of Object.entries(ABELL_PLANETARIES)) {
    const found = planetaryAt(entries, place);
    if (found && !byName(entries, `Abell PN ${number}`)) alias(entries, `Abell ${number}`, found.id);
  }
  for (const [number, target] of Object.entries(ARP)) if (!byName(entries, `Arp ${number}`)) alias(entries, `Arp ${number}`, target); // prettier-ignore
  const pictures = groupEntries(entries);
  entries.push(...pictures.added);
  for (const [name, target] of pictures.names) alias(entries, name, target);
  return withMore(entries)
    .map(angled)
    .map((e) => ({ ...e, rank: rankOf(e) }))
    .sort((a, b) => b.rank - a.rank || a.id.localeCompare(b.id, "en", { numeric: true }));
}
