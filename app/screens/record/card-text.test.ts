import Papa from "papaparse";
import { describe, expect, it } from "vitest";
import type { AcquisitionCard } from "~/core/ledger";
import { cardAsCsv, cardAsMarkdown, cardAsText } from "./card-text";

const card = (name: string): AcquisitionCard => ({
  hours: 1.5,
  subs: 18,
  panels: 1,
  channels: [{ channel: "Ha", hours: 1.5, sets: [{ exposureSec: 300, subs: 18 }] }],
  nights: 1,
  first: "2026-12-05",
  last: "2026-12-05",
  moon: null,
  seasons: [],
  members: [
    { name, hours: 1.5, channels: [{ channel: "Ha", hours: 1.5 }], kit: [name], places: [{ name, skyMagPerArcsec2: null }] },
  ],
}); // prettier-ignore

// Names as malice makes them: formulas behind full-width signs, letters of no width, control characters, line ends, marks.
const HOSTILE = [
  "=1+1",
  "＝1+1",
  "\u200B=1+1",
  "\u0007@x",
  " \t-1",
  "\uFEFF+1",
  "'=1",
  "a\r\n=1",
  "a\n\n# head",
  "[x](y)",
  "<b>",
  "​",
];

describe("a picture's card for other programs", () => {
  it.each(HOSTILE)("is no formula in a spreadsheet, and one line a line, whatever people are called: %j", (name) => {
    const rows = Papa.parse<string[]>(cardAsCsv(name, card(name))).data;
    expect(rows.length).toBe(5); // title, exposure, channel, nights, member
    for (const cell of rows.flat()) expect(cell).not.toMatch(/^[\s\p{Cf}\p{Cc}]*[=+\-@＝＋－＠]/u);
    const markdown = cardAsMarkdown(name, card(name)).split("\n");
    expect(markdown.length).toBe(7);
    expect(markdown.filter((line) => /^\s*#/.test(line)).length).toBe(1);
    expect(markdown.join("")).not.toMatch(/(?<!\\)[[<]/);
    expect(cardAsText(name, card(name)).split("\n").length).toBe(7);
  });
});
