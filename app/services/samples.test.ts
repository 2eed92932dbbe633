import { describe, expect, it } from "vitest";
import { decodeRecord } from "~/core/records";
import demo from "~/data/demo.json";
import pair from "~/data/sample-pair.json";
import south from "~/data/sample-south.json";

describe("the samples that ship with the app", () => {
  it.each([
    ["demo", demo],
    ["pair", pair],
    ["south", south],
  ])("%s: every record reads, and as it is, so that nothing need check it", (_, { records }) => {
    expect(records.length).toBeGreaterThan(10);
    for (const record of records) expect(decodeRecord(record)).toEqual({ ok: true, value: record });
  });
});
