import fc from "fast-check";
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import fits from "../../../reference/tables/fits.json";
import { testRig } from "~/core/test-data";
import { mosaicPanels, opticsOf, type MosaicLayout } from "~/core/framing";
import { layoutOf, panelsOf, type FrameData } from "~/core/plan";
import { separationDeg } from "~/core/sky";
import { degToRad } from "~/core/units";
import {
  csvTable, deviationsOf, frameOfPanels, guessColumns, headerCards, panelRows, pixelToSky, panelsToCsv, panelsToVotable, readFitsHeader, readHeaderText,
  readPanelRows, readPanelVotable, readWcs, type PanelRow,
} from "."; // prettier-ignore

const optics = opticsOf(testRig);
const frame = (more: Partial<FrameData> = {}): FrameData => ({
  projectId: "p",
  raDeg: 314,
  decDeg: 60,
  positionAngleDeg: 30,
  columns: 3,
  rows: 2,
  overlap: 0.15,
  ...more,
});
const rowsOf = (f: FrameData): PanelRow[] => panelRows(panelsOf(f, optics), layoutOf(f, optics), f.names ?? {});
const framed = (rows: readonly PanelRow[]) => {
  const made = frameOfPanels(rows, optics);
  if (!made.ok) throw new Error(made.error.code);
  return made.value;
};
const readCsv = (text: string) => {
  const table = csvTable(text);
  if (!table.ok) throw new Error(table.error.code);
  return readPanelRows(table.value);
};
const arcsec = (a: { raDeg: number; decDeg: number }, b: { raDeg: number; decDeg: number }) =>
  3600 * separationDeg({ frame: "icrs", ...a }, { frame: "icrs", ...b });

describe("panel lists", () => {
  const odd = frame({ names: { "2": 'Łuk, "der Bogen" <ü>', "4": "=1+1" }, skipped: [3], order: [4, 1, 2, 5, 6] });
  it("come back from CSV without change, names of any letters and formulas included", () => {
    const text = panelsToCsv(rowsOf(odd));
    const back = readCsv(text);
    expect(back.ok && panelsToCsv(back.value)).toBe(text);
    expect(text).toContain("'=1+1"); // no spreadsheet runs it
    expect(back.ok && back.value[0]!.name).toBe("=1+1");
  });
  it("come back from VOTable without change", () => {
    const xml = panelsToVotable(rowsOf(odd), "Loop & more <2>");
    expect(xml).toContain('ucd="pos.eq.ra;meta.main"');
    expect(xml).toContain('<COOSYS ID="icrs" system="ICRS"');
    const back = readPanelVotable(xml);
    expect(back.ok && panelsToVotable(back.value, "Loop & more <2>")).toBe(xml);
  });
  it("become the same frame again: grid, overlaps, moved rows, left out, by hand, names, order; at any place (law)", () => {
    const share = fc.double({ min: 0.05, max: 0.4, noNaN: true });
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359.9, noNaN: true }),
        fc.double({ min: -89, max: 89, noNaN: true }),
        fc.double({ min: 0, max: 179, noNaN: true }),
        fc.integer({ min: 2, max: 5 }),
        fc.integer({ min: 2, max: 4 }),
        share,
        share,
        fc.constantFrom(0, 0.25, 0.5),
        (raDeg, decDeg, positionAngleDeg, columns, rows, overlap, overlapRows, rowShift) => {
          const start = frame({
            raDeg,
            decDeg,
            positionAngleDeg,
            columns,
            rows,
            overlap,
            overlapRows,
            rowShift,
            skipped: [2],
            extra: [{ xArcmin: 200, yArcmin: -150 }],
          });
          const back = readCsv(panelsToCsv(rowsOf(start)));
          if (!back.ok) throw new Error(back.error.code);
          const again = { ...frame(), ...framed(back.value) };
          expect([again.columns, again.rows, again.skipped, again.extra?.length]).toEqual([columns, rows, [2], 1]);
          const [a, b] = [panelsOf(start, optics), panelsOf(again, optics)];
          expect(b.map((p) => p.number)).toEqual(a.map((p) => p.number));
          a.forEach((p, i) => expect(arcsec(p.centre, b[i]!.centre)).toBeLessThan(0.5));
        },
      ),
      { numRuns: 60 },
    );
  });
  it("from elsewhere become panels by hand where the list says", () => {
    const back = readCsv("Tile;RA;Dec;PA\nA;20h45m00s;+30 30 00;12\nB;20:49:00;+30:30:00;12.4");
    expect(back.ok && back.value.map((r) => [r.name, r.raDeg])).toEqual([["A", 311.25], ["B", 312.25]]); // prettier-ignore
    if (!back.ok) return;
    const made = { ...frame(), ...framed(back.value) };
    const panels = panelsOf(made, optics);
    expect(panels.map((p) => p.number)).toEqual([2, 3]);
    panels.forEach((p, i) => expect(arcsec(p.centre, back.value[i]!)).toBeLessThan(0.01));
    expect(made.names).toEqual({ "2": "A", "3": "B" });
    panels.forEach((p) => expect(Math.abs(p.positionAngleDeg - 12.2)).toBeLessThan(0.4));
  });
  it("ask when hours and degrees cannot be told apart, and read either on demand", () => {
    const table = csvTable("ra,dec\n20.75,30.5\n20.82,30.5");
    if (!table.ok) throw new Error();
    const mapping = guessColumns(table.value.heads);
    expect(readPanelRows(table.value, mapping)).toMatchObject({ ok: false, error: { code: "listRaUnclear" } });
    const hours = readPanelRows(table.value, { ...mapping, raUnit: "hours" });
    const degrees = readPanelRows(table.value, { ...mapping, raUnit: "degrees" });
    expect(hours.ok && hours.value[0]!.raDeg).toBeCloseTo(311.25, 9);
    expect(degrees.ok && degrees.value[0]!.raDeg).toBeCloseTo(20.75, 9);
  });
  it.each([
    ["ra,dec\n311.2,30.5\n311.9,abc", { code: "listCell", found: "abc", line: 3 }],
    ["ra,dec\n400,30", { code: "listCell", found: "400", line: 2 }],
    ["x,y\n1,2", { code: "listNoColumns", line: 1 }],
  ])("name the cell that is wrong: %s", (text, error) => {
    expect(readCsv(text)).toMatchObject({ ok: false, error });
  });
  it("refuse what is no table", () => {
    expect(csvTable("")).toMatchObject({ ok: false, error: { code: "listEmpty" } });
    expect(readPanelVotable("<VOTABLE><RESOURCE>")).toMatchObject({ ok: false, error: { code: "listNotXml" } });
    expect(readPanelVotable("<html/>")).toMatchObject({ ok: false, error: { code: "listNotVotable" } });
    expect(readPanelVotable('<!DOCTYPE x [<!ENTITY a "b">]><VOTABLE/>')).toMatchObject({
      error: { code: "listNotXml" },
    });
  });
});

describe("header cards of a panel", () => {
  it("are 80 columns each and solve back to its centre, scale and angle (0.01″, 1e-4, 0.001°)", () => {
    for (const layout of [
      layoutOf(frame(), optics),
      layoutOf(frame({ raDeg: 0.05, decDeg: -85, positionAngleDeg: 211 }), optics),
    ] as MosaicLayout[])
      for (const panel of mosaicPanels(layout)) {
        const text = headerCards({ panel, label: "P1 Łuk", object: "Loop", widthPx: 6248, heightPx: 4176, scaleArcsecPerPx: optics.pixelScaleArcsecPerPx, focalLengthMm: 480 }); // prettier-ignore
        for (const line of text.split("\n")) expect(line).toMatch(/^[\x20-\x7e]{80}$/);
        const header = readHeaderText(text);
        const read = header.ok ? readWcs(header.value) : null;
        const wcs = read?.ok ? read.value : null;
        expect(arcsec(wcs!.centre, panel.centre)).toBeLessThan(0.01);
        expect(wcs!.scaleYArcsec / optics.pixelScaleArcsecPerPx).toBeCloseTo(1, 4);
        expect(Math.abs(((wcs!.positionAngleDeg - panel.positionAngleDeg + 540) % 360) - 180)).toBeLessThan(0.001);
        expect(wcs!.isMirrored).toBe(false);
      }
  });
});

describe("a frame from a header", () => {
  const light = (name: string) => {
    const bytes = new Uint8Array(readFileSync(`reference/tables/fits/${name}`));
    const header = readFitsHeader(bytes, bytes.length);
    if (!header.ok) throw new Error(header.error.code);
    return header.value;
  };
  it("comes from every exposure that the reference table calls solved, and from no other (astropy.wcs): centre to 0.1″", () => {
    const lights = fits.files.filter((f) => f.file.startsWith("light"));
    expect(lights.length).toBeGreaterThan(10);
    for (const f of lights) {
      const wcs = readWcs(light(f.file));
      expect(wcs.ok, f.file).toBe(f.solved);
      if (wcs.ok && f.wcs)
        expect(arcsec(wcs.value.centre, { raDeg: f.wcs.centre_ra_deg, decDeg: f.wcs.centre_dec_deg })).toBeLessThan(
          0.1,
        );
    }
  });
  it("says which part is missing: no image, no solution, another projection, a matrix without area, too large a field", () => {
    const of = (cards: string) => {
      const header = readHeaderText(cards);
      const wcs = header.ok ? readWcs(header.value) : null;
      return wcs?.ok === false ? wcs.error.code : "ok";
    };
    const size = "NAXIS1 = 100\nNAXIS2 = 80\n";
    const solved = "CRVAL1 = 10.0\nCRVAL2 = 20.0\nCRPIX1 = 50\nCRPIX2 = 40\n";
    const type = "CTYPE1 = 'RA---TAN'\nCTYPE2 = 'DEC--TAN'\n";
    expect(of(`NAXIS = 0\n${type}${solved}CDELT1 = -0.001\nCDELT2 = 0.001`)).toBe("frameNoImage");
    expect(of(`${size}EXPTIME = 60`)).toBe("frameNoSolution");
    expect(of(`${size}CTYPE1 = 'RA---SIN'\n${solved}CDELT1 = -0.001\nCDELT2 = 0.001`)).toBe("frameNotTan");
    expect(of(`${size}${type}${solved}CD1_1 = 0\nCD1_2 = 0\nCD2_1 = 0\nCD2_2 = 0`)).toBe("frameSingular");
    expect(of(`${size}${type}${solved}CDELT1 = -1\nCDELT2 = 1`)).toBe("frameTooLarge");
    const scale = "CDELT1 = -0.001\nCDELT2 = 0.001\n";
    expect(of(`${size}${type}${solved}${scale}`)).toBe("ok");
    expect(of(`${type}${solved}${scale}`)).toBe("frameNoImage"); // a solution without a size has no centre
    for (const [cards, code] of [
      ["RADESYS = 'FK4'", "frameSystem"],
      ["RADECSYS = 'FK4'", "frameSystem"],
      ["EQUINOX = 1950.0", "frameSystem"],
      ["RADESYS = 'FK5'\nEQUINOX = 2026.9", "frameSystem"],
      ["RADESYS = 'FK5'\nEQUINOX = 2000.0", "ok"],
      ["RADESYS = 'ICRS'\nEQUINOX = 1950.0", "ok"], // ICRS has no equinox (FITS Standard 4.0, § 8.3)
      ["EQUINOX = 2000.0", "ok"],
      ["LONPOLE = 180.0", "ok"],
      ["LONPOLE = 90.0", "framePole"],
    ] as const)
      expect(of(`${size}${type}${solved}${scale}${cards}`), cards).toBe(code);
    expect(of(`${size}${type}${solved.replace("CRVAL2 = 20.0", "CRVAL2 = 200.0")}${scale}`)).toBe("frameNoPosition");
    expect(readHeaderText("nothing here")).toMatchObject({ ok: false, error: { code: "notFits" } });
  });

  // The example of the standard's draft of 1988: CDELTi and PC00i00j, the same turn as CDi_j = CDELTi PCi_j (Calabretta & Greisen 2002, § 2.1.2).
  it("reads the matrix of an old draft as the one of today, and rows that are stored from the top", () => {
    const of = (cards: string) => {
      const header = readHeaderText(
        `NAXIS1 = 100\nNAXIS2 = 80\nCTYPE1 = 'RA---TAN'\nCTYPE2 = 'DEC--TAN'\nCRVAL1 = 10.0\nCRVAL2 = 20.0\nCRPIX1 = 50.5\nCRPIX2 = 40.5\n${cards}`,
      );
      const wcs = header.ok ? readWcs(header.value) : null;
      if (!wcs?.ok) throw new Error("no solution");
      return wcs.value;
    };
    const [c, s] = [Math.cos(degToRad(2.4)), Math.sin(degToRad(2.4))];
    const cd = of(`CD1_1 = ${-0.001 * c}\nCD1_2 = ${0.001 * s}\nCD2_1 = ${0.001 * s}\nCD2_2 = ${0.001 * c}`);
    const old = of(
      `CDELT1 = -0.001\nCDELT2 = 0.001\nPC001001 = ${c}\nPC001002 = ${-s}\nPC002001 = ${s}\nPC002002 = ${c}`,
    );
    expect(cd.positionAngleDeg).toBeCloseTo(2.4, 3);
    expect(old).toMatchObject({ form: "PC", isMirrored: false });
    expect(old.positionAngleDeg).toBeCloseTo(cd.positionAngleDeg, 9);
    expect(old.corners.map((p, i) => 3600 * separationDeg(p, cd.corners[i]!)).every((off) => off < 1e-6)).toBe(true);

    // The same picture with its rows the other way round: shown, it is the same sky the same way up.
    const flipped = of(
      `ROWORDER = 'TOP-DOWN'\nCD1_1 = ${-0.001 * c}\nCD1_2 = ${-0.001 * s}\nCD2_1 = ${0.001 * s}\nCD2_2 = ${-0.001 * c}`,
    );
    expect(flipped).toMatchObject({ isMirrored: true, shown: { isMirrored: false } });
    expect(flipped.shown.positionAngleDeg).toBeCloseTo(cd.shown.positionAngleDeg, 9);
    expect(of(`ROWORDER = 'BOTTOM-UP'\nCDELT1 = -0.001\nCDELT2 = 0.001`).shown.isMirrored).toBe(false);
    expect(of(`CDELT1 = 0.001\nCDELT2 = 0.001`).shown.isMirrored).toBe(true);
  });
  it("is the same with declination as the first axis (law: the two orders of one solution)", () => {
    const any = fc.record({ ra: fc.double({ min: 0, max: 359, noNaN: true }), dec: fc.double({ min: -89, max: 89, noNaN: true }), turn: fc.double({ min: 0, max: 359, noNaN: true }) }); // prettier-ignore
    fc.assert(
      fc.property(any, ({ ra, dec, turn }) => {
        const [c, n] = [Math.cos((turn * Math.PI) / 180) / 2000, Math.sin((turn * Math.PI) / 180) / 2000];
        const size = "NAXIS1 = 300\nNAXIS2 = 200\nCRPIX1 = 40\nCRPIX2 = 70\n";
        const of = (cards: string) => {
          const header = readHeaderText(size + cards);
          const wcs = header.ok ? readWcs(header.value) : null;
          if (!wcs?.ok) throw new Error(cards);
          return wcs.value;
        };
        const usual = of(`CTYPE1 = 'RA---TAN'\nCTYPE2 = 'DEC--TAN'\nCRVAL1 = ${ra}\nCRVAL2 = ${dec}\nCD1_1 = ${-c}\nCD1_2 = ${n}\nCD2_1 = ${n}\nCD2_2 = ${c}`); // prettier-ignore
        const other = of(`CTYPE1 = 'DEC--TAN'\nCTYPE2 = 'RA---TAN'\nCRVAL1 = ${dec}\nCRVAL2 = ${ra}\nCD1_1 = ${n}\nCD1_2 = ${c}\nCD2_1 = ${-c}\nCD2_2 = ${n}`); // prettier-ignore
        expect(arcsec(usual.centre, other.centre)).toBeLessThan(1e-6);
        expect(usual.isMirrored).toBe(other.isMirrored);
        expect(Math.abs(((usual.positionAngleDeg - other.positionAngleDeg + 540) % 360) - 180)).toBeLessThan(1e-6);
      }),
    );
  });
  it("takes in SIP distortion as its paper defines it (Shupe et al. 2005): u + A u², v + B uv, in centre and corners", () => {
    const scale = 2 / 3600;
    const cards = (sip: string) => `NAXIS1 = 2000\nNAXIS2 = 1000\nCTYPE1 = 'RA---TAN${sip === "" ? "" : "-SIP"}'\nCTYPE2 = 'DEC--TAN${sip === "" ? "" : "-SIP"}'\nCRPIX1 = 1.0\nCRPIX2 = 1.0\nCRVAL1 = 50.0\nCRVAL2 = 0.0\nCDELT1 = ${-scale}\nCDELT2 = ${scale}\n${sip}`; // prettier-ignore
    const at = (sip: string, x: number, y: number) => {
      const header = readHeaderText(cards(sip));
      return (header.ok ? pixelToSky(header.value) : null)!(x, y);
    };
    const sip = "A_ORDER = 2\nB_ORDER = 2\nA_2_0 = 1.0E-5\nB_1_1 = -2.0E-5\n";
    for (const [x, y] of [
      [1001, 501],
      [2000, 1000],
      [1, 1],
    ] as const) {
      const [u, v] = [x - 1, y - 1];
      const moved = at("", 1 + u + 1e-5 * u * u, 1 + v - 2e-5 * u * v); // where the same pixel lies without distortion
      expect(arcsec(at(sip, x, y), moved)).toBeLessThan(1e-6);
    }
    const header = readHeaderText(cards(sip));
    const wcs = header.ok ? readWcs(header.value) : null;
    expect(wcs?.ok && wcs.value.isDistorted).toBe(true);
    expect(arcsec(at(sip, 1000, 500), at("", 1000, 500))).toBeGreaterThan(10); // it matters
  });
  it("names what is not as the rig has it: header says 803 mm, the rig says 480", () => {
    const scale = (206.264806 * 3.76) / 803 / 3600;
    const header = readHeaderText(
      `NAXIS1 = 6248\nNAXIS2 = 4176\nFOCALLEN = 803\nINSTRUME = 'Other'\nCTYPE1 = 'RA---TAN'\nCRVAL1 = 10.0\nCRVAL2 = 20.0\nCRPIX1 = 1\nCRPIX2 = 1\nCDELT1 = ${-scale}\nCDELT2 = ${scale}`,
    );
    if (!header.ok) throw new Error();
    const wcs = readWcs(header.value);
    if (!wcs.ok) throw new Error(wcs.error.code);
    expect(deviationsOf(header.value, wcs.value, { ...testRig, cameraName: "Mono" })).toEqual([
      { code: "focalLength", found: "803", wanted: "480" },
      { code: "headerFocalLength", found: "803", wanted: "480" },
      { code: "camera", found: "Other", wanted: "Mono" },
    ]);
  });
  it("keeps a swapped parity apart: mirrored when the determinant is positive", () => {
    const cards = (sign: number) => `NAXIS1 = 100\nNAXIS2 = 80\nCTYPE1 = 'RA---TAN'\nCRVAL1 = 10.0\nCRVAL2 = 20.0\nCRPIX1 = 50\nCRPIX2 = 40\nCDELT1 = ${-sign * 0.001}\nCDELT2 = 0.001`; // prettier-ignore
    const mirrored = (sign: number) => {
      const header = readHeaderText(cards(sign));
      const wcs = header.ok ? readWcs(header.value) : null;
      return wcs?.ok ? wcs.value.isMirrored : null;
    };
    expect([mirrored(1), mirrored(-1)]).toEqual([false, true]);
  });
});

describe("pixels to the sky (wcslib, MATHS section 12)", () => {
  const solve = (cards: string, pixels: readonly (readonly [number, number])[]) => {
    const header = readHeaderText(cards);
    const at = header.ok ? pixelToSky(header.value) : null;
    return pixels.map(([x, y]) => at!(x, y));
  };
  it("W1: a frame at PA 30, by a CD matrix; corners to 0.05″", () => {
    const s = 1.6157 / 3600;
    const [c, n] = [Math.cos(Math.PI / 6) * s, Math.sin(Math.PI / 6) * s];
    const cards = `NAXIS1 = 6248\nNAXIS2 = 4176\nCTYPE1 = 'RA---TAN'\nCRPIX1 = 3124.5\nCRPIX2 = 2088.5\nCRVAL1 = 314.0\nCRVAL2 = 44.5\nCD1_1 = ${-c}\nCD1_2 = ${n}\nCD2_1 = ${n}\nCD2_2 = ${c}`;
    const corners = solve(cards, [[1, 1], [6248, 1], [6248, 4176], [1, 4176]]); // prettier-ignore
    const wanted = [[315.01881, 42.98355], [311.6469, 44.3654], [312.92695, 46.00691], [316.36202, 44.58609]] as const; // prettier-ignore
    corners.forEach((p, i) => expect(arcsec(p, { raDeg: wanted[i]![0], decDeg: wanted[i]![1] })).toBeLessThan(0.05));
  });
  it("W3: the sample header of Calabretta & Greisen around the south pole; to 0.01″", () => {
    const cards = "NAXIS1 = 192\nNAXIS2 = 192\nCTYPE1 = 'RA---TAN'\nCRPIX1 = -268.0658087122\nCRPIX2 = -.5630437201085\nCDELT1 = -0.06666666666667\nCDELT2 = 0.06666666666667\nCRVAL1 = 0.0\nCRVAL2 = -90.0"; // prettier-ignore
    const found = solve(cards, [[1, 1], [97, 97], [192, 192]]); // prettier-ignore
    const wanted = [[270.332836, -72.615832], [284.9625, -66.265833], [292.712013, -59.872989]] as const; // prettier-ignore
    found.forEach((p, i) => expect(arcsec(p, { raDeg: wanted[i]![0], decDeg: wanted[i]![1] })).toBeLessThan(0.01));
  });
});
