import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import objects from "~/data/objects.json";
import { separationDeg } from "~/core/sky";
import {
  buildSearchIndex,
  packCatalog,
  packStars,
  nearestTown,
  readTowns,
  searchCatalog,
  searchKey,
  searchTowns,
  starZones,
  starsWithin,
  unpackCatalog,
  unpackStars,
  type PackedCatalog,
} from ".";

const unpacked = unpackCatalog(objects as unknown as PackedCatalog);
if (!unpacked.ok) throw new Error("catalogue does not unpack");
const entries = unpacked.value;
const index = buildSearchIndex(entries);
const first = (query: string) => searchCatalog(index, query)[0]?.id;

describe("the shipped catalogue", () => {
  it("gives every Messier number 1–110 and Caldwell number 1–109 an object (published lists)", () => {
    const missing = [...Array(110).keys()]
      .map((i) => `M ${i + 1}`)
      .concat([...Array(109).keys()].map((i) => `C ${i + 1}`))
      .filter((id) => !index.byKey.has(searchKey(id)));
    expect(missing).toEqual([]);
  });

  it("keeps every designation to one object, apart from fields that share a name", () => {
    const ids = entries.map((e) => searchKey(e.id));
    expect(new Set(ids).size).toBe(ids.length);
    const doubled = [...index.byKey]
      .filter(
        ([key, rows]) => /^(M|NGC|IC)\d+$/.test(key) && rows.filter((r) => !entries[r]!.curated?.isField).length > 1,
      )
      .map(([key]) => key);
    expect(doubled).toEqual([]);
  });

  it("holds plausible values only", () => {
    for (const e of entries) {
      expect(e.at.raDeg >= 0 && e.at.raDeg < 360 && Math.abs(e.at.decDeg) <= 90, e.id).toBe(true);
      expect((e.minorArcmin ?? 0) <= (e.majorArcmin ?? 0), e.id).toBe(true);
      expect(e.constellation, e.id).toMatch(/^[A-Z][A-Za-z]{2}$/);
    }
  });

  it("has the showpieces where and as large as observing handbooks have them (general knowledge, from memory)", () => {
    const showpieces: [string, string, number, number, number][] = [
      ["M 31", "galaxy", 10.685, 41.269, 180], ["M 42", "emissionNebula", 83.82, -5.39, 80], ["M 13", "globularCluster", 250.423, 36.46, 20],
      ["M 57", "planetaryNebula", 283.396, 33.03, 1.5], ["M 45", "openCluster", 56.75, 24.117, 110], ["M 87", "galaxy", 187.706, 12.391, 8],
      ["M 81", "galaxy", 148.888, 69.065, 27], ["NGC 7000", "emissionNebula", 314.7, 44.33, 120], ["NGC 253", "galaxy", 11.888, -25.288, 27],
      ["NGC 6960", "supernovaRemnant", 311.4, 30.7, 70], ["NGC 5139", "globularCluster", 201.697, -47.48, 36], ["IC 443", "supernovaRemnant", 94.3, 22.57, 50],
    ]; // prettier-ignore
    for (const [id, kind, raDeg, decDeg, size] of showpieces) {
      const e = searchCatalog(index, id)[0]!;
      expect([e.id, e.kind]).toEqual([id, kind]);
      expect(60 * separationDeg({ frame: "icrs", raDeg, decDeg }, e.at), id).toBeLessThan(0.25 * size + 1);
      expect(e.majorArcmin! / size, id).toBeGreaterThan(0.6);
      expect(e.majorArcmin! / size, id).toBeLessThan(1.6);
    }
  });

  it("survives packing and unpacking unchanged", () => {
    expect(packCatalog(entries)).toStrictEqual(objects);
  });

  it("says when a file is foreign, newer or cut short", () => {
    const packed = objects as unknown as PackedCatalog;
    const reason = (p: unknown) => {
      const r = unpackCatalog(p as PackedCatalog);
      return r.ok ? null : r.error.reason;
    };
    expect(
      [
        { ...packed, format: "x" },
        { ...packed, version: 2 },
        { ...packed, ra: packed.ra.slice(1) },
      ].map(reason),
    ).toEqual(["format", "version", "count"]);
  });
});

describe("search", () => {
  it("finds objects by any usual way of writing them", () => {
    const asked: Record<string, string> = {
      m81: "M 81", "m 031": "M 31", "Messier 31": "M 31", NGC0224: "M 31", "ngc-7000": "NGC 7000", "Sh 2-101": "Sh2-101", "sharpless 155": "Sh2-155", "sh2-132": "Sh2-132",
      "Caldwell 49": "NGC 2237", "Barnard 33": "B 33", "Abell 21": "Sh2-274", "PK164+31.1": "PK 164+31.1", M102: "NGC 5866", "NGC 5907": "NGC 5907", "Sh2-131": "IC 1396",
      "NGC 6960": "NGC 6960", "6960": "NGC 6960", "horse": "B 33",
    }; // prettier-ignore
    for (const [query, id] of Object.entries(asked)) {
      const found = searchCatalog(index, query);
      expect(
        found.some((e, i) => i < 3 && (e.id === id || e.aliases.includes(id))),
        `${query} → ${found[0]?.id}`,
      ).toBe(true);
    }
  });

  it("offers the whole loop and its parts for “veil”, forgives one wrong letter, and gives nothing for nonsense", () => {
    expect(searchCatalog(index, "veil").map((e) => e.id)).toEqual(
      expect.arrayContaining(["Sh2-103", "NGC 6960", "NGC 6992"]),
    );
    expect(first("andromida")).toBe("M 31");
    expect([first(""), first("qqzzx")]).toEqual([undefined, undefined]);
  });

  it("reads any designation of the catalogue back to its own object", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: entries.length - 1 }), (i) => {
        expect(searchCatalog(index, entries[i]!.id, 50).map((e) => e.id)).toContain(entries[i]!.id);
      }),
      { numRuns: 150 },
    );
  });
});

describe("stars", () => {
  const bytes = new Uint8Array(readFileSync(new URL("../../data/stars.bin", import.meta.url)));
  const stars = unpackStars(bytes);
  if (!stars.ok) throw new Error("stars do not unpack");

  it("are all 118,216 of the Hipparcos file, 4,995 brighter than 6, Sirius first at its J2000 place", () => {
    const t = stars.value;
    expect([t.count, t.magnitude.findIndex((m) => m >= 6)]).toEqual([118_216, 4995]);
    expect(t.raDeg[0]).toBeCloseTo(101.2872, 4);
    expect(t.decDeg[0]).toBeCloseTo(-16.7161, 4);
    expect([t.hip[0], new Set(t.hip).size]).toEqual([32_349, 118_216]); // Sirius is HIP 32349: Hipparcos catalogue
  });

  it("pack and unpack on their lattice", () => {
    const star = fc.record({
      raDeg: fc.integer({ min: 0, max: 3_599_999 }).map((x) => x / 1e4),
      decDeg: fc.integer({ min: -900_000, max: 900_000 }).map((x) => x / 1e4),
      magnitude: fc.integer({ min: -146, max: 1400 }).map((x) => x / 100),
      colour: fc.constant(null),
      hip: fc.integer({ min: 1, max: 120_404 }),
    });
    fc.assert(
      fc.property(fc.array(star, { maxLength: 20 }), (list) => {
        const t = unpackStars(packStars(list));
        if (!t.ok) throw new Error("did not unpack");
        list.forEach((s, i) => {
          expect(t.value.raDeg[i]).toBeCloseTo(s.raDeg, 9);
          expect(t.value.decDeg[i]).toBeCloseTo(s.decDeg, 9);
          expect(t.value.magnitude[i]).toBeCloseTo(s.magnitude, 4);
          expect(t.value.colour[i]).toBeNaN();
          expect(t.value.hip[i]).toBe(s.hip);
        });
      }),
    );
    expect(unpackStars(bytes.subarray(0, 1000)).ok).toBe(false);
  });

  it("are found in any circle, across 0h and at the poles, none missed (against a plain scan)", () => {
    const zones = starZones(stars.value);
    const t = stars.value;
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359.99, noNaN: true }),
        fc.double({ min: -90, max: 90, noNaN: true }),
        fc.double({ min: 0.2, max: 12, noNaN: true }),
        (raDeg, decDeg, radiusDeg) => {
          const found = new Set(starsWithin(zones, { raDeg, decDeg, radiusDeg, faintest: 6 }));
          for (let i = 0; i < 4995; i++) {
            const apart = separationDeg(
              { frame: "icrs", raDeg, decDeg },
              { frame: "icrs", raDeg: t.raDeg[i]!, decDeg: t.decDeg[i]! },
            );
            if (apart < radiusDeg - 1e-6) expect(found.has(i)).toBe(true);
          }
        },
      ),
      {
        numRuns: 60,
        examples: [
          [0.1, 5, 3],
          [359.9, -20, 3],
          [40, 89.8, 2],
          [10, -90, 5],
        ],
      },
    );
  });
});

describe("the gazetteer (GeoNames, CC BY 4.0)", () => {
  const towns = readTowns(readFileSync(new URL("../../data/towns.tsv", import.meta.url), "utf8"));
  const find = (query: string) => searchTowns(towns, query, 5);
  it("tells towns of one name and country apart by a large town near by, and no others", () => {
    const found = searchTowns(towns, "springfield", 8).filter((t) => t.name === "Springfield" && t.country === "US");
    expect(found.length).toBeGreaterThanOrEqual(3);
    expect(found.every((t) => t.near !== undefined && t.near !== "Springfield")).toBe(true);
    expect(searchTowns(towns, "cahors", 8).every((t) => t.near === undefined)).toBe(true);
  });
  it("finds the town nearest to any position, also across the date line, as going through all of them does", () => {
    const all = towns.lines.map((line) => line.split("\t")).map(([name, , , lat, lon]) => ({ name: name!, lat: Number(lat), lon: Number(lon) })); // prettier-ignore
    const chord = (aLat: number, aLon: number, bLat: number, bLon: number) => {
      const unit = (lat: number, lon: number) => [Math.cos((lat * Math.PI) / 180) * Math.cos((lon * Math.PI) / 180), Math.cos((lat * Math.PI) / 180) * Math.sin((lon * Math.PI) / 180), Math.sin((lat * Math.PI) / 180)]; // prettier-ignore
      const [a, b] = [unit(aLat, aLon), unit(bLat, bLon)];
      return Math.hypot(...a.map((x, i) => x - b[i]!));
    };
    // Within a degree or two of a town the flat measure and the sphere agree on who is nearest, to the size of a town.
    for (const [lat, lon] of [[43.62, 1.93], [-45.03, 168.66], [-17.7, 178.9], [-16.8, -179.9], [64.1, -21.8], [0.1, 32.5], [52.2, 179.2]] as const) {
      const near = nearestTown(towns, { latitudeDeg: lat, longitudeDeg: lon })!;
      const best = Math.min(...all.map((t) => chord(lat, lon, t.lat, t.lon)));
      expect(chord(lat, lon, near.latitudeDeg, near.longitudeDeg), near.name).toBeLessThan(best * 1.05 + 1e-4);
    } // prettier-ignore
  });
  it("finds a town by its own letters, by plain ones, and by a later word; the largest first", () => {
    expect(find("Tromsø")[0]).toMatchObject({ name: "Tromsø", country: "NO" });
    expect(find("tromso")[0]).toMatchObject({ name: "Tromsø", country: "NO" });
    expect(find("reykj")[0]).toMatchObject({ name: "Reykjavík", country: "IS" });
    expect(find("hempstead").map((t) => t.name)).toContain("Hemel Hempstead"); // a later word
  });
  it("puts it where the world has it, to a few kilometres (coordinates of Alice Springs and Suva from memory)", () => {
    const [alice] = find("alice springs");
    expect(Math.abs(alice!.latitudeDeg + 23.7) < 0.05 && Math.abs(alice!.longitudeDeg - 133.88) < 0.05).toBe(true);
    const [suva] = find("suva");
    expect(Math.abs(suva!.latitudeDeg + 18.14) < 0.05 && Math.abs(suva!.longitudeDeg - 178.44) < 0.05).toBe(true);
  });
  it("answers nothing to one letter or to what is no town", () => {
    expect([find("a"), find("xqzzy"), find("  ")]).toEqual([[], [], []]);
  });
});
