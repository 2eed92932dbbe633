import { readFileSync } from "node:fs";
import Papa from "papaparse";
import fc from "fast-check";
import ICAL from "ical.js";
import { describe, expect, it } from "vitest";
import reference from "../../../reference/tables/fits.json";
import { DEFAULT_OVERHEADS } from "~/core/exposure";
import { mosaicPanels } from "~/core/framing";
import { runSheet } from "~/core/night";
import { decodeData, decodeRecord, stamped } from "~/core/records";
import { separationDeg } from "~/core/sky";
import { wrap180 } from "~/core/units";
import { utcMs } from "~/core/time";
import {
  decodeBundle,
  encodeBundle,
  exposureFactsOf,
  formatSkyline,
  panelRows,
  panelsToCsv,
  parseSkyline,
  readFitsHeader,
  readHeaderText,
  readWcs,
  printable,
  runSheetToCalendar,
} from ".";

const bytesOf = (file: string) =>
  new Uint8Array(readFileSync(new URL(`../../../reference/tables/fits/${file}`, import.meta.url)));
const icrs = (raDeg: number, decDeg: number) => ({ frame: "icrs", raDeg, decDeg }) as const;
type Expected = (typeof reference.files)[number] & {
  values?: Record<string, unknown>;
  wcs?: {
    pa_up_deg: number;
    parity: string;
    form: string;
    centre_ra_deg: number;
    centre_dec_deg: number;
    scale_x_arcsec: number;
    scale_y_arcsec: number;
    corners_deg: number[][];
  };
};

describe("FITS headers (reference/tables/fits.json, astropy and CFITSIO)", () => {
  const valid = (reference.files as Expected[]).filter((f) => f.valid && f.file !== "bad_05.fits");

  it("reads type, object, start to the millisecond, exposure, filter and temperature of every file", () => {
    for (const f of valid) {
      const bytes = bytesOf(f.file);
      const header = readFitsHeader(bytes, bytes.length);
      if (!header.ok) throw new Error(`${f.file}: ${header.error.code}`);
      expect(header.value.hdu, f.file).toBe(f.image_hdu);
      expect(header.value.axes.slice(0, 2), f.file).toEqual(f.naxis!.slice(0, 2));
      const facts = exposureFactsOf(header.value, { name: f.file, sizeBytes: bytes.length });
      expect(facts.frameType, f.file).toBe(f.frame_type);
      expect([facts.object, facts.filter, facts.exposureSec], f.file).toEqual([
        f.object ?? null,
        f.filter ?? null,
        f.exposure_s,
      ]);
      expect(facts.startMs, f.file).toBe(Date.parse(f.start_utc!.replace(/(\.\d{3})\d+Z/, "$1Z")));
      if (f.ccd_temp_c !== undefined) expect(facts.temperatureC, f.file).toBe(f.ccd_temp_c);
      for (const [key, value] of Object.entries(f.values ?? {}))
        expect(header.value.values.get(key), `${f.file} ${key}`).toEqual(value);
    }
  });

  it("solves centre to 0.1″, scale to 1e-4, position angle to 0.002°, corners to 0.2″, and parity", () => {
    for (const f of valid) {
      const bytes = bytesOf(f.file);
      const header = readFitsHeader(bytes, bytes.length);
      const read = header.ok ? readWcs(header.value) : null;
      const wcs = read?.ok ? read.value : null;
      expect(wcs !== null, f.file).toBe(f.solved ?? false);
      if (!wcs || !f.wcs) continue;
      expect(wcs.form, f.file).toBe(f.wcs.form);
      expect(3600 * separationDeg(wcs.centre, icrs(f.wcs.centre_ra_deg, f.wcs.centre_dec_deg)), f.file).toBeLessThan(
        0.1,
      );
      expect(Math.abs(wcs.scaleXArcsec / f.wcs.scale_x_arcsec - 1), f.file).toBeLessThan(1e-4);
      expect(Math.abs(wcs.scaleYArcsec / f.wcs.scale_y_arcsec - 1), f.file).toBeLessThan(1e-4);
      const turn = Math.abs(wcs.positionAngleDeg - f.wcs.pa_up_deg);
      expect(Math.min(turn, 360 - turn), f.file).toBeLessThan(0.002);
      expect(wcs.isMirrored, f.file).toBe(f.wcs.parity === "mirrored");
      const shown = f.wcs.as_displayed ?? f.wcs;
      expect(Math.abs(wrap180(wcs.shown.positionAngleDeg - shown.pa_up_deg)), f.file).toBeLessThan(0.002);
      expect(wcs.shown.isMirrored, f.file).toBe(shown.parity === "mirrored");
      wcs.corners.forEach((c, i) =>
        expect(
          3600 * separationDeg(c, icrs(f.wcs.corners_deg[i]![0]!, f.wcs.corners_deg[i]![1]!)),
          f.file,
        ).toBeLessThan(0.2),
      );
    }
  });

  const unit = (cards: readonly string[], data = 0) =>
    [...cards, "END"].map((c) => c.padEnd(80)).join("").padEnd(2880) + "\0".repeat(data); // prettier-ignore
  const n = (name: string, value: string | number) => `${name.padEnd(8)}= ${String(value).padStart(20)}`;

  it("reads size, facts and solution of a tile-compressed image from the header of its table (FITS Standard 4.0, § 10.1)", () => {
    const text =
      unit([n("SIMPLE", "T"), n("BITPIX", 16), n("NAXIS", 0)]) +
      unit([n("XTENSION", "'BINTABLE'"), n("BITPIX", 8), n("NAXIS", 2), n("NAXIS1", 8), n("NAXIS2", 4), n("PCOUNT", 100), n("GCOUNT", 1), n("TFIELDS", 1), n("ZIMAGE", "T"), n("ZBITPIX", 16), n("ZNAXIS", 2), n("ZNAXIS1", 6248), n("ZNAXIS2", 4176), n("EXPTIME", 180), "FILTER  = 'Ha 5 nm '", "IMAGETYP= 'LIGHT   '", "DATE-OBS= '2026-12-05T21:00:00'", "CTYPE1  = 'RA---TAN'", "CTYPE2  = 'DEC--TAN'", n("CRVAL1", 50), n("CRVAL2", 20), n("CRPIX1", 3124.5), n("CRPIX2", 2088.5), n("CDELT1", "-4.5E-4"), n("CDELT2", "4.5E-4")], 2880); // prettier-ignore
    const bytes = new TextEncoder().encode(text);
    const header = readFitsHeader(bytes, bytes.length);
    if (!header.ok) throw new Error(header.error.code);
    expect(header.value.axes).toEqual([6248, 4176]);
    const facts = exposureFactsOf(header.value, { name: "a.fits.fz", sizeBytes: bytes.length });
    expect(facts).toMatchObject({
      frameType: "light",
      exposureSec: 180,
      filter: "Ha 5 nm",
      isSolved: true,
      widthPx: 6248,
    });
    expect(3600 * separationDeg(facts.centre!, icrs(50, 20))).toBeLessThan(0.01);
  });

  it("does not tie an image in an extension to the sky by what the primary header says of another, unless it inherits", () => {
    const solved = ["CTYPE1  = 'RA---TAN'", "CTYPE2  = 'DEC--TAN'", n("CRVAL1", 50), n("CRVAL2", 20), n("CRPIX1", 50.5), n("CRPIX2", 40.5), n("CD1_1", "-4.5E-4"), n("CD2_2", "4.5E-4")]; // prettier-ignore
    const file = (more: readonly string[]) =>
      unit([n("SIMPLE", "T"), n("BITPIX", 16), n("NAXIS", 0), "FILTER  = 'Ha 5 nm '", "OBJCTRA = '03 20 00'", "OBJCTDEC= '+20 00 00'", ...solved]) + // prettier-ignore
      unit([n("XTENSION", "'IMAGE   '"), n("BITPIX", 8), n("NAXIS", 2), n("NAXIS1", 100), n("NAXIS2", 80), n("PCOUNT", 0), n("GCOUNT", 1), ...more], 8640); // prettier-ignore
    const of = (more: readonly string[]) => {
      const bytes = new TextEncoder().encode(file(more));
      const header = readFitsHeader(bytes, bytes.length);
      if (!header.ok) throw new Error(header.error.code);
      return exposureFactsOf(header.value, { name: "a.fits", sizeBytes: bytes.length });
    };
    // How it was taken still holds, and where the mount pointed.
    expect(of([])).toMatchObject({ filter: "Ha 5 nm", isSolved: false, centre: { raDeg: 50, decDeg: 20 } });
    expect(of([n("INHERIT", "T")])).toMatchObject({ isSolved: true });
    expect(of([n("INHERIT", "F")])).toMatchObject({ isSolved: false });
    expect(of(solved)).toMatchObject({ isSolved: true });
  });

  it("reads air and focuser where they are told, and no −999 of an instrument that is silent", () => {
    const of = (cards: string) => {
      const header = readHeaderText(`NAXIS1 = 100\nNAXIS2 = 80\n${cards}`);
      if (!header.ok) throw new Error(header.error.code);
      const { airC, focusSteps } = exposureFactsOf(header.value, { name: "a.fits", sizeBytes: 1 });
      return [airC, focusSteps];
    };
    expect(of("AMBTEMP = 3.5\nFOCUSPOS = 12034.0")).toEqual([3.5, 12_034]);
    expect(of("AMB-TEMP = -999.0\nFOCPOS = 7")).toEqual([undefined, 7]);
    expect(of("EXPTIME = 60")).toEqual([undefined, undefined]);
  });

  it("takes 30 February for no date, and a refused solution for none, with its reason", () => {
    const of = (cards: string) => {
      const header = readHeaderText(`NAXIS1 = 100\nNAXIS2 = 80\n${cards}`);
      if (!header.ok) throw new Error(header.error.code);
      return exposureFactsOf(header.value, { name: "a.fits", sizeBytes: 1 });
    };
    expect(of("DATE-OBS = '2026-02-30T21:00:00'").startMs).toBeNull();
    expect(of("DATE-OBS = '2026-02-28T24:30:00'").startMs).toBeNull();
    expect(of("DATE-OBS = '2028-02-29T21:00:00'").startMs).toBe(Date.parse("2028-02-29T21:00:00Z"));
    const old = of("CTYPE1 = 'RA---TAN'\nCTYPE2 = 'DEC--TAN'\nCRVAL1 = 10.0\nCRVAL2 = 20.0\nCRPIX1 = 50\nCRPIX2 = 40\nCDELT1 = -0.001\nCDELT2 = 0.001\nEQUINOX = 1950.0\nRA = 11.0\nDEC = 21.0"); // prettier-ignore
    expect(old).toMatchObject({ isSolved: false, solutionFault: { code: "frameSystem", found: "FK4, equinox 1950" } });
    expect(old.centre).toMatchObject({ raDeg: 11, decDeg: 21 }); // where the mount said it pointed
    expect(of("DATE-OBS = '2026-12-05'").solutionFault).toBeNull();
  });

  it("names what is wrong with a file cut short, an empty one and a text", () => {
    const code = (file: string) => {
      const bytes = bytesOf(file);
      const r = readFitsHeader(bytes, bytes.length);
      return r.ok ? "ok" : r.error.code;
    };
    expect(["bad_01", "bad_02", "bad_03", "bad_04", "bad_05"].map((b) => code(`${b}.fits`))).toEqual([
      "truncatedHeader",
      "notFits",
      "truncatedHeader",
      "notFits",
      "truncatedData",
    ]);
    const text = new TextEncoder().encode("Dear diary, it was clear tonight.");
    expect(readFitsHeader(text, text.length)).toEqual({ ok: false, error: { code: "notFits" } });
  });

  it("asks for more of a file whose header is longer than the piece it got, and never throws on noise", () => {
    const bytes = bytesOf("light_17.fits");
    expect(readFitsHeader(bytes.subarray(0, 2880), bytes.length)).toEqual({ ok: false, error: { code: "needMore" } });
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 6000 }), (noise) => {
        const file = new Uint8Array([
          ...new TextEncoder().encode("SIMPLE  =                    T".padEnd(80)),
          ...noise,
        ]);
        expect(typeof readFitsHeader(file, file.length).ok).toBe("boolean");
      }),
    );
  });
});

describe("skyline text", () => {
  it("reads lines in any order and writes them back the same", () => {
    const point = fc.record({
      azimuthDeg: fc.integer({ min: 0, max: 3599 }).map((x) => x / 10),
      altitudeDeg: fc.integer({ min: 0, max: 900 }).map((x) => x / 10),
    });
    fc.assert(
      fc.property(fc.uniqueArray(point, { minLength: 2, selector: (p) => p.azimuthDeg }), (points) => {
        const sorted = [...points].sort((a, b) => a.azimuthDeg - b.azimuthDeg);
        expect(parseSkyline(formatSkyline(points))).toEqual({ ok: true, value: sorted });
      }),
    );
    expect(parseSkyline("# roof\n180, 32\n 190;35 # ridge\n\n360 5")).toEqual({
      ok: true,
      value: [
        { azimuthDeg: 0, altitudeDeg: 5 },
        { azimuthDeg: 180, altitudeDeg: 32 },
        { azimuthDeg: 190, altitudeDeg: 35 },
      ],
    });
  });
  it("says which line is wrong and why", () => {
    const fault = (text: string) => {
      const r = parseSkyline(text);
      return r.ok ? null : [r.error.code, r.error.line];
    };
    expect([fault("10 5\n400 20"), fault("10 5\n20 95"), fault("10 5\nroof"), fault("90 12"), fault("10 5\n10 9"), fault("")]).toEqual([
      ["skylineAzimuth", 2], ["skylineAltitude", 2], ["skylineLine", 2], ["skylineTooFew", 1], ["skylineTwice", 2], null,
    ]); // prettier-ignore
  });
});

describe("files out", () => {
  const layout = {
    centre: icrs(359.9, -0.2),
    positionAngleDeg: 30,
    planeWidthArcmin: 120,
    planeHeightArcmin: 80,
    columns: 2,
    rows: 2,
    overlap: 0.15,
  };
  const panels = mosaicPanels(layout);

  it("lists panels as CSV that a spreadsheet reads back to 0.01″", () => {
    const rows = Papa.parse<Record<string, string>>(panelsToCsv(panelRows(panels, layout)), { header: true }).data;
    rows.forEach((row, i) =>
      expect(3600 * separationDeg(icrs(Number(row["ra_deg"]), Number(row["dec_deg"])), panels[i]!.centre)).toBeLessThan(
        0.01,
      ),
    );
    expect(rows.map((r) => r["panel"])).toEqual(["P1", "P2", "P3", "P4"]);
  });

  const start = utcMs(Date.UTC(2026, 11, 5, 18));
  const sheet = runSheet(
    [
      {
        projectId: "p",
        panel: "P1",
        channel: "Ha",
        filterName: "Ha 5 nm",
        subSec: 300,
        subs: 12,
        need: "P1 Ha",
        stage: 0,
        windows: [{ startMs: start, endMs: utcMs(start + 3 * 3_600_000) }],
        transitMs: utcMs(start - 3_600_000),
      },
    ],
    DEFAULT_OVERHEADS,
    { flips: true, standsBeforeDark: false, sunsetMs: null, starsMs: null },
  );

  it("writes an RFC 5545 calendar: UTC times, CRLF, folded lines, one event a block", () => {
    const text = runSheetToCalendar(sheet, {
      titleOf: () => "A nebula; long, with commas and a very long name that needs folding",
      place: "Yard",
      uidBase: "n1",
      stampMs: start,
    });
    expect(text.startsWith("BEGIN:VCALENDAR\r\nVERSION:2.0")).toBe(true);
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(sheet.lines.filter((l) => l.kind === "block").length);
    expect(text).toMatch(/DTSTART:20261205T\d{6}Z\r\n/);
    expect(text.split("\r\n").every((l) => new TextEncoder().encode(l).length <= 75)).toBe(true);
    expect(text).toContain("A nebula\\; long\\, with");
  });

  it("is read by an independent reader as it was meant, whatever the names are (ical.js)", () => {
    fc.assert(
      fc.property(
        fc.string({ unit: "binary", maxLength: 80 }),
        fc.string({ unit: "grapheme", maxLength: 80 }),
        (title, place) => {
          const text = runSheetToCalendar(sheet, { titleOf: () => title, place, uidBase: "n1", stampMs: start });
          expect(text.split("\r\n").every((l) => new TextEncoder().encode(l).length <= 75)).toBe(true);
          // eslint-disable-next-line no-control-regex -- none may be there
          expect(text).not.toMatch(/[\u0000-\u0008\u000B\u000C\u000E-\u001F]/);
          const events = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents("vevent");
          const blocks = sheet.lines.filter((l) => l.kind === "block");
          expect(events).toHaveLength(blocks.length);
          const words = printable(title).replaceAll(/\s+/g, " ");
          events.forEach((event, i) => {
            const { summary, startDate, endDate } = new ICAL.Event(event);
            expect(summary.startsWith(`${words}: `)).toBe(true);
            expect(startDate.toUnixTime()).toBe(Math.floor(blocks[i]!.startMs / 1000));
            expect(endDate.toUnixTime()).toBe(Math.floor(blocks[i]!.endMs / 1000));
            const stamp = event.getFirstPropertyValue("dtstamp") as ICAL.Time;
            expect(stamp.toUnixTime()).toBe(Math.floor(start / 1000));
          });
        },
      ),
      { numRuns: 100 },
    );
  });
});

describe("records and bundles", () => {
  const place = {
    name: "Yard",
    latitudeDeg: 45,
    longitudeDeg: 9,
    elevationM: 120,
    timeZone: "Europe/Rome",
    skyMagPerArcsec2: 20.4,
    skyline: [],
    minAltitudeDeg: 25,
    seeingArcsec: 2.8,
    clearChance: Array<number>(12).fill(0.4),
  };
  const record = {
    id: "p1",
    kind: "place" as const,
    rev: "0abcdefgh.0000.node1",
    author: "m1",
    seen: { node1: "0abcdefgh.0000.node1" },
    data: place,
  };

  it("refuses a latitude of 95, a text for the elevation and a skyline of one point, naming the field", () => {
    const path = (change: object) => {
      const r = decodeData("place", { ...place, ...change });
      return r.ok ? null : r.error.path;
    };
    expect([
      path({}),
      path({ latitudeDeg: 95 }),
      path({ elevationM: "high" }),
      path({ skyline: [{ azimuthDeg: 10, altitudeDeg: 5 }] }),
      path({ timeZone: "Moon/Sea" }),
    ]).toEqual([null, "latitudeDeg", "elevationM", "skyline", "timeZone"]);
  });

  it("keeps fields a later version may have added", () => {
    expect(decodeRecord({ ...record, data: { ...place, orchard: 3 } })).toMatchObject({
      ok: true,
      value: { data: { orchard: 3 } },
    });
  });

  it("writes and reads back everything, and sets broken records aside without losing the rest", () => {
    const text = encodeBundle([record], "everything", "2026-12-05T16:00:00Z");
    expect(decodeBundle(text)).toEqual({
      ok: true,
      value: { scope: "everything", exportedAt: "2026-12-05T16:00:00Z", records: [stamped(record)], refused: [] },
    });
    const broken = text
      .replace('"latitudeDeg": 45', '"latitudeDeg": 95')
      .replace('"records": [', `"records": [${JSON.stringify({ ...record, id: "p2" })},`);
    const read = decodeBundle(broken);
    expect(
      read.ok && [read.value.records.map((r) => r.id), read.value.refused.map((r) => [r.key, r.fault.path])],
    ).toEqual([["p2"], [["place/p1", "data.latitudeDeg"]]]);
  });

  it("refuses an empty file, one that is no JSON, a foreign one and one of a newer version", () => {
    const code = (text: string) => {
      const r = decodeBundle(text);
      return r.ok ? "ok" : r.error.code;
    };
    expect([
      code(" "),
      code("PK\u0003"),
      code('{"hello":1}'),
      code("null"),
      code('{"format":"zenithar-bundle","version":2,"records":[]}'),
    ]).toEqual(["bundleEmpty", "bundleNotJson", "bundleForeign", "bundleForeign", "bundleNewer"]);
  });
});
