import { describe, expect, it } from "vitest";
import * as records from "~/core/records";
import { anchorOf } from "./anchor";
import { HELP, helpFor, HOUR_WORDS } from "./help";
import { TERMS, termOf } from "./terms";

/** Forms somebody fills in before anything is shot: every number on them explains itself. */
const FORMS = ["OPTICS_FIELDS", "SLOT_FIELD", "SENSOR_FIELDS", "CAMERA_FIELDS", "WARM_FIELD", "MOUNT_FIELDS", "OVERHEAD_FIELDS", "FOCUS_FIELDS", "POWER_FIELDS", "PLACE_FIELDS", "AWAY_FIELDS", "FILTER_FIELDS", "THICKNESS_FIELD", "GOAL_FIELDS", "SETTING_FIELDS"] as const; // prettier-ignore

describe("help beside the boxes of forms", () => {
  it("has a sentence for every number of the forms of kit, place and budget", () => {
    const labels = FORMS.flatMap((form) =>
      Object.values(records[form]).map((f: { readonly label: string }) => f.label),
    );
    expect(labels.length).toBeGreaterThan(45);
    expect(labels.filter((label) => helpFor(label) === null)).toEqual([]);
  });

  it("is a sentence or three each, ends as one, and never repeats its label alone", () => {
    for (const [label, text] of Object.entries({ ...HELP, ...HOUR_WORDS })) {
      expect(text, label).toMatch(/[.?]$/);
      expect(text.length, label).toBeGreaterThan(20);
      expect(text.length, label).toBeLessThan(190);
    }
    expect(helpFor("constructor")).toBeNull();
  });
});

describe("the glossary", () => {
  it("has every word that a page explains where it is first met", () => {
    const pages = import.meta.glob<string>("../../**/*.tsx", { query: "?raw", import: "default", eager: true });
    const asked = Object.values(pages).flatMap((text) => [...text.matchAll(/<Term word="([^"]+)"/g)].map((m) => m[1]!));
    expect(asked.length).toBeGreaterThan(4);
    for (const word of asked) expect(termOf(word).says.length).toBeGreaterThan(20);
    expect(() => termOf("no such word")).toThrow("no such word");
  });

  it("has every word that is explained anywhere, once, each under an address of its own", () => {
    const words = TERMS.map((t) => t.word.toLowerCase());
    expect(new Set(words).size).toBe(words.length);
    expect(new Set(TERMS.map((t) => anchorOf(t.word))).size).toBe(words.length);
    for (const label of [...Object.keys(HELP), ...Object.keys(HOUR_WORDS)])
      expect(words, label).toContain(label.toLowerCase());
    for (const { word, says } of TERMS) {
      expect(says, word).toMatch(/[.?]$/);
      expect(says.length, word).toBeGreaterThan(20);
    }
  });
  it("explains on the page what the glossary of the code has for users", () => {
    const words = TERMS.map((t) => t.word.toLowerCase());
    for (const word of [
      "sub",
      "panel",
      "seam",
      "worth",
      "reserve",
      "solved exposure",
      "dark flat",
      "run sheet",
      "counts",
    ])
      expect(words, word).toContain(word);
  });
});
