import { describe, expect, it } from "vitest";
import * as records from "~/core/records";
import { HELP, helpFor, HOUR_WORDS } from "./help";

/** Forms somebody fills in before anything is shot: every number on them explains itself. */
const FORMS = ["OPTICS_FIELDS", "SLOT_FIELD", "SENSOR_FIELDS", "CAMERA_FIELDS", "WARM_FIELD", "MOUNT_FIELDS", "OVERHEAD_FIELDS", "POWER_FIELDS", "PLACE_FIELDS", "AWAY_FIELDS", "FILTER_FIELDS", "THICKNESS_FIELD", "GOAL_FIELDS", "SETTING_FIELDS"] as const; // prettier-ignore

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
