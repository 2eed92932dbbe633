import fc from "fast-check";
import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { opticsOf } from "~/core/framing";
import { layoutOf, panelsOf, type FrameData } from "~/core/plan";
import { decodeData } from "~/core/records";
import type { Result } from "~/core/result";
import { testPlace, testRig } from "~/core/test-data";
import { nightWindow } from "~/core/sky";
import { nightDate, utcMs } from "~/core/time";
import {
  decodeBundle,
  encodeBundle,
  exposureFactsOf,
  formatSkyline,
  readWcs,
  frameOfPanels,
  openPanelList,
  panelRows,
  panelsToCsv,
  panelsToVotable,
  pixelPlan,
  readFitsHeader,
  readForecast,
  readHeaderText,
  readSkyline,
  readTypedForecast,
} from ".";

/**
 * Files as accidents and malice make them. Every reader either reads or refuses with a named fault; none throws, none runs
 * without end, none needs much memory. What is read must then be fit to be kept.
 */
const here = { nowMs: utcMs(Date.UTC(2026, 11, 5, 16)), latitudeDeg: 45, longitudeDeg: 9 };
const typed = {
  window: nightWindow({ longitudeDeg: 12, timeZone: "Europe/Rome" }, nightDate("2026-12-05")),
  zone: "Europe/Rome",
  nowMs: here.nowMs,
};
const optics = opticsOf(testRig);
const frame: FrameData = {
  projectId: "p",
  raDeg: 314,
  decDeg: 60,
  positionAngleDeg: 30,
  columns: 3,
  rows: 2,
  overlap: 0.15,
};
const rows = panelRows(panelsOf(frame, optics), layoutOf(frame, optics), { "1": "=one", "2": "two" });

/** Name of the fault, or "read". */
type Verdict = string;
const verdictOf = (r: Result<unknown, { readonly code: string }>): Verdict => (r.ok ? "read" : r.error.code);

/** Reads a list as the Frame screen does: what comes of it must be a frame that can be kept. */
function readList(text: string): Verdict {
  const { rows: read } = openPanelList(text);
  if (!read.ok) return read.error.code;
  const made = frameOfPanels(read.value, optics);
  if (!made.ok) return made.error.code;
  const kept = decodeData("frame", { ...frame, ...made.value });
  return kept.ok ? "read" : `unfit ${kept.error.path}: ${kept.error.message}`;
}

function readFits(bytes: Uint8Array): Verdict {
  const header = readFitsHeader(bytes, bytes.length);
  if (!header.ok) return header.error.code;
  exposureFactsOf(header.value, { name: "x.fits", sizeBytes: bytes.length });
  readWcs(header.value);
  const plan = pixelPlan(header.value, 1400);
  return plan && plan.bytesPerRow > 10_000_000 ? "unfit row" : "read";
}

interface Kind {
  readonly seeds: readonly Uint8Array[];
  readonly read: (bytes: Uint8Array) => Verdict;
}

const bytesOf = (text: string) => new TextEncoder().encode(text);
const asText = (read: (text: string) => Verdict) => (bytes: Uint8Array) => read(new TextDecoder().decode(bytes));
const FITS = new URL("../../../reference/tables/fits/", import.meta.url);
const forecast = {
  format: "zenithar-forecast", version: 1, source: { id: "x", name: "X" }, place: { latitude: 45, longitude: 9 },
  issued: "2026-12-05T12:00:00Z", units: { low_type_cloud_area_fraction: "1" },
  time: ["2026-12-05T18:00:00Z", "2026-12-05T19:00:00Z"], low_type_cloud_area_fraction: [0.5, 1],
}; // prettier-ignore
const rev = "0abcdefgh.0000.node1";
const record = {
  id: "p1",
  kind: "place" as const,
  rev,
  author: "m1",
  seen: { node1: rev },
  data: { ...testPlace, name: "Yard" },
};

const KINDS: Readonly<Record<string, Kind>> = {
  fits: {
    seeds: readdirSync(FITS)
      .filter((f) => f.endsWith(".fits"))
      .slice(0, 12)
      .map((f) => new Uint8Array(readFileSync(new URL(f, FITS)).subarray(0, 5 * 2880))),
    read: readFits,
  },
  headerText: {
    seeds: [bytesOf("SIMPLE  = T\nCTYPE1  = 'RA---TAN'\nCRVAL1  = 312.5\nIMAGEW = 4000 / px\nOBJECT = 'it''s'\n")],
    read: asText((t) => verdictOf(readHeaderText(t))),
  },
  panelCsv: {
    seeds: [bytesOf(panelsToCsv(rows)), bytesOf("Tile;RA;Dec;PA\nA;20h45m00s;+30 30 00;12\n")],
    read: asText(readList),
  },
  panelVotable: { seeds: [bytesOf(panelsToVotable(rows, "Loop"))], read: asText(readList) },
  forecast: {
    seeds: [bytesOf(JSON.stringify(forecast, null, 1))],
    read: asText((t) => verdictOf(readForecast(t, here))),
  },
  typedForecast: {
    seeds: [bytesOf("18-23 20\n23-3 80 35 # gusts\n")],
    read: asText((t) => verdictOf(readTypedForecast(t, typed))),
  },
  skyline: {
    seeds: [bytesOf("# yard\n0 10\n90, 12.5\n180;20\n359.5 3\n")],
    read: asText((t) => {
      const { skyline, faults } = readSkyline(t);
      const again = readSkyline(formatSkyline(skyline));
      if (skyline.length !== 1 && again.skyline.length !== skyline.length) return "unfit skyline";
      return faults[0]?.code ?? "read";
    }),
  },
  bundle: {
    seeds: [bytesOf(encodeBundle([record], "everything", "2026-12-05T16:00:00Z", [{ kind: "place", id: "bad" }]))],
    read: asText((t) => {
      const read = decodeBundle(t);
      if (read.ok) JSON.stringify(read.value.records); // it can be stored
      return verdictOf(read);
    }),
  },
};

/** What accidents do to bytes: flips, cuts, pieces doubled or moved, runs of one thing, numbers made large, odd letters. */
const mutation = fc.oneof(
  fc.record({ do: fc.constant("flip" as const), at: fc.nat(), by: fc.integer({ min: 1, max: 255 }) }),
  fc.record({ do: fc.constant("cut" as const), at: fc.nat(), count: fc.integer({ min: 1, max: 4000 }) }),
  fc.record({ do: fc.constant("double" as const), at: fc.nat(), count: fc.integer({ min: 1, max: 400 }), times: fc.integer({ min: 1, max: 200 }) }),
  fc.record({ do: fc.constant("insert" as const), at: fc.nat(), what: fc.constantFrom("-", "-1", "1e308", "NaN", "null", '"', "'", ",", ";", "\n", "\r\n", "\u0000", "[", "{", "<a>", "</TD>", "]]>", "__proto__", "CONTINUE", "\u202E", "＝", " ".repeat(80), "9".repeat(40), "&amp;", "<!DOCTYPE x>"), times: fc.constantFrom(1, 1, 2, 30, 3000) }),
  fc.record({ do: fc.constant("number" as const), at: fc.nat(), to: fc.constantFrom("-1", "0", "99999999999", "1e9", "-1e300", "P1000000000", "") }),
); // prettier-ignore
type Mutation = typeof mutation extends fc.Arbitrary<infer M> ? M : never;

function mutate(bytes: Uint8Array, m: Mutation): Uint8Array {
  const at = bytes.length === 0 ? 0 : m.at % bytes.length;
  const join = (...parts: readonly Uint8Array[]) => new Uint8Array(parts.flatMap((p) => [...p]));
  switch (m.do) {
    case "flip":
      return bytes.map((b, i) => (i === at ? b ^ m.by : b));
    case "cut":
      return join(bytes.subarray(0, at), bytes.subarray(at + m.count));
    case "double": {
      const piece = bytes.subarray(at, at + m.count);
      return join(bytes.subarray(0, at), ...Array<Uint8Array>(m.times).fill(piece), bytes.subarray(at));
    }
    case "insert":
      return join(bytes.subarray(0, at), bytesOf(m.what.repeat(m.times)), bytes.subarray(at));
    case "number": {
      const text = new TextDecoder("latin1").decode(bytes);
      const found = /-?\d+(?:\.\d+)?/.exec(text.slice(at));
      if (!found) return bytes;
      const from = at + found.index;
      return join(bytes.subarray(0, from), bytesOf(m.to), bytes.subarray(from + found[0].length));
    }
  }
}

// 8 kinds × 250 = 2,000 files in `npm test`, 20,000 by `npm run laws`.
const RUNS = process.env["LAWS_SEED"] === "new" ? 2500 : 250;
const NAMED =
  /^(read|(?:bundle|forecast|typed|list|skyline)[A-Z]\w*|notFits|truncatedHeader|truncatedData|needMore|brokenHeader)$/;

describe("files mutated at random", () => {
  it.each(Object.entries(KINDS))("of the kind %s are read, or refused with a named fault", (_, { seeds, read }) => {
    fc.assert(
      fc.property(fc.constantFrom(...seeds), fc.array(mutation, { minLength: 1, maxLength: 5 }), (seed, mutations) => {
        expect(read(mutations.reduce(mutate, seed))).toMatch(NAMED);
      }),
      { numRuns: RUNS },
    );
  });

  it("as they came are read", () => {
    for (const [kind, { seeds, read }] of Object.entries(KINDS))
      for (const seed of seeds)
        expect([kind, read(seed)]).toEqual([kind, expect.stringMatching(/^(read|trunc\w+|needMore|notFits)$/)]);
  });
});

/** Files that once hung the page or killed the process, each with the fault it is refused by. */
const card = (text: string) => text.padEnd(80);
const fitsOf = (cards: readonly string[], blocks = 4) => {
  const text = ["SIMPLE  =                    T", ...cards, "END"].map(card).join("");
  return bytesOf(text.padEnd(Math.ceil(text.length / 2880) * 2880 + blocks * 2880));
};
const csv = (cell: string) => `panel,row,column,ra_deg,dec_deg\n${cell},1,1,10,20\n`;
const HOSTILE: readonly (readonly [string, () => Result<unknown, { readonly code: string }> | Verdict, string])[] = [
  ["a panel of the number 1,000,000,000", () => readList(csv("P1000000000")), "listCell"],
  ["80,000 blanks in a forecast", () => readForecast(`[${" ".repeat(80_000)}NaN`, here), "forecastNotJson"],
  ["a forecast of 500,000 brackets", () => readForecast("[".repeat(500_000), here), "forecastForeign"],
  ["a bundle 100,000 levels deep", () => decodeBundle(`{"format":"zenithar-bundle","version":1,"records":[${'{"a":'.repeat(100_000)}1${"}".repeat(100_000)}]}`), "bundleForeign"],
  ["a bundle of 1,000,000 empty records", () => decodeBundle(`{"format":"zenithar-bundle","version":1,"records":[${"{},".repeat(999_999)}{}]}`), "bundleTooMany"],
  ["20,000 versions of one record", () => decodeBundle(`{"format":"zenithar-bundle","version":1,"records":[${Array.from({ length: 20_000 }, (_, i) => `{"kind":"place","id":"place-1","rev":"${i}"}`).join()}]}`), "bundleTooManyVersions"],
  ["PCOUNT below nothing", () => readFits(fitsOf(["BITPIX  =                    8", "NAXIS   =                    1", "NAXIS1  =                   10", "PCOUNT  =               -10000"])), "brokenHeader"],
  ["NAXIS1 below nothing", () => readFits(fitsOf(["BITPIX  =                    8", "NAXIS   =                    2", "NAXIS1  =                -5760", "NAXIS2  =                    1"])), "brokenHeader"],
  ["10,000 CONTINUE cards", () => readFits(fitsOf(["BITPIX  =                    8", "NAXIS   =                    0", `OBJECT  = '${"x".repeat(60)}&'`, ...Array<string>(10_000).fill(`CONTINUE  '${"y".repeat(60)}&'`)], 0)), "read"],
  ["a VOTable 50,000 deep", () => readList(`<VOTABLE>${"<RESOURCE>".repeat(50_000)}`), "listNotVotable"],
  ["a VOTable of 4 MB", () => readList(`<VOTABLE>${"<TR><TD>1</TD></TR>".repeat(210_000)}</VOTABLE>`), "listTooLong"],
  ["a CSV of quotes", () => readList('"'.repeat(900_000)), "listTooLong"],
  ["a CSV of 900,000 heads", () => readList(",".repeat(900_000)), "listTooLong"],
  ["a CSV of quotes that never end, in many lines", () => readList('a,b\n"'.repeat(100_000)), "listTooLong"],
  ["a skyline of 30,000 lines", () => readSkyline(Array.from({ length: 30_000 }, (_, i) => `${(i * 0.01).toFixed(2)} 10`).join("\n")).faults[0]?.code ?? "read", "skylineTooMany"],
  ["a skyline of one line of commas", () => readSkyline(",".repeat(900_000)).faults[0]?.code ?? "read", "skylineLine"],
  ["a typed forecast of one long line", () => readTypedForecast(`18-23 ${"9 ".repeat(9000)}x`, typed), "typedLine"],
  ["a header text of one long line", () => readHeaderText(`A${" ".repeat(3_000_000)}`), "notFits"],
  ["a header text of one quote", () => readHeaderText(`A = '${"''".repeat(1_500_000)}\n`), "read"],
  ["60,000 rows", () => readList(`ra_deg,dec_deg\n${"1,2\n".repeat(60_000)}`), "listTooLong"],
  ["an angle with seconds and no minutes", () => readList("ra,dec\n20h50m00s,59′30\n"), "listCell"],
  ["an angle of 900,000 blanks", () => readList(`ra,dec\n20h50m00s,1${" ".repeat(900_000)}x\n`), "listCell"],
  ["a right ascension of 900,000 blanks", () => readList(`ra,dec\n1${" ".repeat(900_000)}x,20\n`), "listCell"],
  ["a camera angle beyond all numbers", () => readList("ra_deg,dec_deg,position_angle_deg\n1,2,1e999\n"), "listCell"],
  ["panels all round the sky", () => readList("ra_deg,dec_deg\n0,0\n90,0\n180,0\n270,0\n"), "listTooFar"],
  ["150 panels that are no grid", () => readList(`ra_deg,dec_deg\n${Array.from({ length: 150 }, (_, i) => `${10 + i / 100},${i / 90}`).join("\n")}`), "listTooMany"],
  ["a panel name of 61 letters", () => readList(`name,ra_deg,dec_deg\n${"n".repeat(61)},1,2\n`), "listCell"],
]; // prettier-ignore

describe("files made to hang or to break", () => {
  it.each(HOSTILE)("%s: refused, or read, by name", (_, read, verdict) => {
    const found = read();
    expect(typeof found === "string" ? found : verdictOf(found)).toBe(verdict);
  });
});

describe("what goes out to other programs", () => {
  const roundTrip = (name: string): string | null => {
    const table = panelsToCsv([{ ...rows[0]!, name }]);
    const back = openPanelList(table).rows;
    return back.ok ? back.value[0]!.name : null;
  };

  it("has no cell that a spreadsheet runs, and every name comes back as it was", () => {
    for (const name of ["=1+1", "'=1", "''=1", "+1", "-1", "@x", "＝1", "＋1", "－1", "＠x", "'x", "x", "a=b"]) {
      expect(roundTrip(name)).toBe(name);
      const cell = panelsToCsv([{ ...rows[0]!, name }])
        .split("\r\n")[1]!
        .split(",")[1]!
        .replace(/^"/, "");
      expect(cell).not.toMatch(/^[=+\-@\t\r\n＝＋－＠]/);
    }
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        const name = text.trim();
        expect(roundTrip(name)).toBe(name);
      }),
    );
  });

  it("has no letter that XML cannot hold", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary", maxLength: 40 }), (title) => {
        const xml = panelsToVotable([{ ...rows[0]!, name: title }], title);
        // eslint-disable-next-line no-control-regex -- none may be there
        expect(xml).not.toMatch(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/);
        expect(xml.isWellFormed()).toBe(true);
        expect(openPanelList(xml).rows.ok).toBe(true);
      }),
    );
  });
});
