import { createHash } from "node:crypto";
import { readFileSync } from "node:fs";
import { Ajv2020 } from "ajv/dist/2020.js";
import formats from "ajv-formats";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import demo from "~/data/demo.json";
import pair from "~/data/sample-pair.json";
import south from "~/data/sample-south.json";
import { USUAL_MOON } from "~/core/night";
import { RECORD_KINDS, type StoredRecord } from "~/core/crew";
import { bundleSchema, decodeData, decodeRecord, EDITION, stamped, USUAL_WISH_HOURS } from ".";
import { schemaOf } from "./kinds";

const records = demo.records as unknown as readonly StoredRecord[];
const kindsInDemo = new Set(records.map((r) => r.kind));

describe("the schemas of records", () => {
  it("are those that the demo and the samples were written with: else a friend's file would bring all of it anew", () => {
    for (const { records } of [demo, pair, south] as unknown as readonly {
      readonly records: readonly StoredRecord[];
    }[])
      for (const { kind, v = 1 } of records) expect([kind, v]).toEqual([kind, schemaOf(kind).version]);
  });
  it("have another edition whenever one of them changes, so that stored pages are checked again", () => {
    const described = JSON.stringify(RECORD_KINDS.map((kind) => [kind, schemaOf(kind).version, schemaOf(kind).schema.describe()])); // prettier-ignore
    const hash = createHash("sha256").update(described).digest("hex").slice(0, 16);
    // When this fails, a schema has changed: raise EDITION by one and put the new hash here.
    expect([EDITION, hash]).toEqual([21, "f55fa0905ed8ebaa"]);
  });

  it("have a migration for every step from version 1", () => {
    for (const kind of RECORD_KINDS) expect(schemaOf(kind).migrations, kind).toHaveLength(schemaOf(kind).version - 1);
  });

  it("read every record of the demo group, and every kind is refused when a number of it is text", () => {
    for (const record of records) expect(decodeRecord(record).ok, record.id).toBe(true);
    for (const kind of ["place", "rig", "filter", "frame", "goal", "contribution"] as const) {
      const { data } = records.find((r) => r.kind === kind)!;
      const entries = Object.entries(data as Record<string, unknown>);
      const [name, value] =
        entries.find(([, v]) => typeof v === "number") ?? entries.find(([, v]) => Array.isArray(v))!;
      const read = decodeData(kind, { ...(data as object), [name]: typeof value === "number" ? String(value) : 7 });
      expect(read.ok ? null : read.error.path, kind).toBe(name);
    }
  });

  it("name the field by its label and its limit", () => {
    const { data } = records.find((r) => r.kind === "rig")!;
    const read = decodeData("rig", { ...(data as object), focalLengthMm: -3 });
    expect(read).toMatchObject({
      ok: false,
      error: { path: "focalLengthMm", message: "Focal length must be greater than 0" },
    });
  });
});

describe("a record of an earlier version", () => {
  // As the app of 25 November 2026 wrote it.
  const old: StoredRecord = {
    id: "settings",
    kind: "settings",
    rev: "0mwpcfz40.0000.a1b2c3d4e5f6",
    author: "member-1",
    seen: { a1b2c3d4e5f6: "0mwpcfz40.0000.a1b2c3d4e5f6" },
    data: { memberId: "member-1", placeId: "place-1", rigId: "rig-1", lastBackupMs: null },
  };
  it("gets what was absent, keeps what was said, and is the same record to every copy of it", () => {
    expect(decodeRecord(old)).toEqual({
      ok: true,
      value: {
        ...old,
        v: 5,
        data: {
          ...(old.data as object),
          wishHours: USUAL_WISH_HOURS,
          moon: USUAL_MOON,
          standsBeforeDark: true,
          simulatedServices: false,
        },
      },
    });
    const said = { ...old, data: { ...(old.data as object), wishHours: 5 } };
    expect(decodeRecord(said)).toMatchObject({ ok: true, value: { rev: old.rev, data: { wishHours: 5 } } });
  });
  it("is brought forward once: what was brought forward reads as it is (law)", () => {
    fc.assert(
      fc.property(fc.option(fc.double({ min: 0.25, max: 12, noNaN: true }), { nil: undefined }), (wishHours) => {
        const data = { ...(old.data as object), ...(wishHours === undefined ? {} : { wishHours }) };
        const once = decodeRecord({ ...old, data });
        expect(once.ok && decodeRecord(structuredClone(once.value))).toEqual(once);
      }),
    );
  });
  it("of a later version than this one's is left alone and named", () => {
    expect(decodeRecord({ ...old, v: 6 })).toMatchObject({ ok: false, error: { code: "recordNewer", path: "v" } });
  });
  it("is written with its version from version 2 on", () => {
    expect(stamped(old).v).toBe(5);
    expect("v" in stamped({ ...old, kind: "member", data: { name: "Tamsin" } })).toBe(false);
  });
});

describe("the published JSON Schema", () => {
  const ajv = new Ajv2020({ allErrors: true, strict: false });
  formats(ajv);
  const isBundle = ajv.compile(bundleSchema());
  const bundle = (list: readonly StoredRecord[]) => ({ format: "zenithar-bundle", version: 1, scope: "everything", exportedAt: "2026-12-05T16:40:00Z", records: list }); // prettier-ignore
  const written = records.map((r) => {
    const read = decodeRecord(r);
    if (!read.ok) throw new Error(r.id);
    return read.value;
  });

  it("is the file in docs (npm run schema writes it)", () => {
    expect(JSON.parse(readFileSync("docs/bundle.schema.json", "utf8"))).toEqual(bundleSchema());
  });
  it("takes the demo group, by an independent validator (Ajv), in every kind that it holds", () => {
    expect(kindsInDemo.size).toBeGreaterThan(8);
    expect(isBundle(bundle(written)), JSON.stringify(isBundle.errors?.slice(0, 3))).toBe(true);
  });
  it("refuses what the app refuses: numbers out of their range, by the same validator (law)", () => {
    const ranged = [
      ["place", "latitudeDeg", -90, 90],
      ["place", "skyMagPerArcsec2", 14, 22.2],
      ["rig", "focalLengthMm", Number.MIN_VALUE, 20_000],
      ["rig", "bits", 8, 32],
      ["filter", "transmission", 0.05, 1],
      ["frame", "overlap", 0, 0.5],
      ["contribution", "exposureSec", Number.MIN_VALUE, 36_000],
    ] as const;
    fc.assert(
      fc.property(
        fc.constantFrom(...ranged),
        fc.double({ min: -40_000, max: 40_000, noNaN: true }),
        ([kind, field, min, max], raw) => {
          const value = field === "bits" ? Math.round(raw) : raw;
          const record = written.find((r) => r.kind === kind)!;
          const changed = { ...record, data: { ...(record.data as object), [field]: value } };
          const isRight = value >= min && value <= max;
          expect(decodeRecord(changed).ok, `${kind} ${field} ${value}`).toBe(isRight);
          expect(isBundle(bundle([changed])), `${kind} ${field} ${value}`).toBe(isRight);
        },
      ),
    );
  });
});
