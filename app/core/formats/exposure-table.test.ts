import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { isTableName, readExposureTable } from "./exposure-table";

const read = (text: string) => {
  const r = readExposureTable(text, "night.csv");
  if (!r.ok) throw new Error(r.error.code);
  return r.value;
};

describe("a table of exposures", () => {
  it("gives a row each, by the names of its columns, quoted and in any order (RFC 4180)", () => {
    const [a, b] = read('\uFEFFfile,"Exposure_s",filter,start_utc,FWHM px,eccentricity,stars,background,ra deg,dec deg,position angle deg,target\r\n"a, 1.fits",300,Ha 5 nm,2026-12-05T21:10:31Z,1.72,0.41,912,1180.5,70.84,46.7,12,Sh2-216\r\nb.fits,"300",,2026-12-05 21:15:40,,,,,4h43m21s,"+46 42 00",,\r\n'); // prettier-ignore
    expect(a).toMatchObject({
      fileName: "a, 1.fits", exposureSec: 300, filter: "Ha 5 nm", object: "Sh2-216", frameType: "light", isSolved: true, positionAngleDeg: 12,
      measure: { fwhmPx: 1.72, eccentricity: 0.41, stars: 912, background: 1180.5, from: "table" }, centre: { raDeg: 70.84, decDeg: 46.7 },
    }); // prettier-ignore
    expect(new Date(a!.startMs!).toISOString()).toBe("2026-12-05T21:10:31.000Z");
    expect(b).toMatchObject({ filter: null, measure: null, isSolved: false });
    expect(new Date(b!.startMs!).toISOString()).toBe("2026-12-05T21:15:40.000Z"); // the column says UTC
    expect(b!.centre!.raDeg).toBeCloseTo(70.8375, 6);
    expect(b!.centre!.decDeg).toBeCloseTo(46.7, 9);
  });
  it("leaves a time without a zone to the clock of the place, and takes one with a zone for an instant", () => {
    const [wall, zoned, none] = read(
      "date,exposure\n2026-12-05 22:10,60\n2026-12-05T22:10:00+01:00,60\nyesterday,60\n",
    );
    expect([wall!.startMs, wall!.wallMs]).toEqual([null, Date.parse("2026-12-05T22:10:00Z")]);
    expect([zoned!.startMs, zoned!.wallMs]).toEqual([Date.parse("2026-12-05T21:10:00Z"), null]);
    expect([none!.startMs, none!.wallMs]).toEqual([null, null]);
    expect(none!.fileName).toBe("night.csv, row 4");
  });
  it("is refused without the columns it needs, or with more rows than a season has", () => {
    expect(readExposureTable("a,b\n1,2\n", "x.csv")).toEqual({ ok: false, error: { code: "tableNoColumns" } });
    const long = `file,exposure\n${"a,1\n".repeat(20_001)}`;
    expect(readExposureTable(long, "x.csv")).toEqual({ ok: false, error: { code: "tableTooLong" } });
    expect([isTableName("A.CSV"), isTableName("a.tsv"), isTableName("a.fits")]).toEqual([true, true, false]);
  });
  it("never throws, and gives no number that is none (law)", () => {
    const cell = fc.oneof(
      fc.string(),
      fc.constantFrom("=1+1", "<script>", "1e999", "-0", "2026-02-30T10:00:00Z", '"', "NaN"),
    );
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell, cell, cell), { maxLength: 12 }), (rows) => {
        const text = ["file,exposure,start,fwhm", ...rows.map((r) => r.map((c) => `"${c.replaceAll('"', '""')}"`).join(","))].join("\n"); // prettier-ignore
        const r = readExposureTable(text, "x.csv");
        if (!r.ok) return;
        for (const f of r.value) {
          expect(f.exposureSec === null || Number.isFinite(f.exposureSec)).toBe(true);
          expect(f.startMs === null || Number.isFinite(f.startMs)).toBe(true);
          expect(f.measure === null || f.measure.fwhmPx > 0).toBe(true);
        }
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 10_000 : 200 },
    );
  });
});
