import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { CHANNELS } from "~/core/exposure";
import { CULL_REASONS } from "./contribution";
import { logLineText, readLogLine, type LogLineContext } from "./log-line";

const at: LogLineContext = { channels: ["Ha", "OIII", "L"], panels: ["P1", "P2"], subOf: (c) => (c === "Ha" ? 300 : null) }; // prettier-ignore
const read = (text: string) => {
  const r = readLogLine(text, at);
  return r.ok ? r.value : r.error.code;
};

describe("an entry in one line", () => {
  it("is read as people write it", () => {
    const full = { taken: 21, kept: 17, exposureSec: 300, channel: "Ha", panel: "P2", reason: "cloud", note: "" };
    expect(read("17 of 21 x 300 s Ha P2, cloud")).toEqual(full);
    expect(read("17/21 Ha p2, clouds")).toEqual(full); // the goal knows the sub
    expect(read("ha P2 17 of 21 × 5 min, cloud")).toEqual(full);
    expect(read("21 x 300s Ha P2")).toMatchObject({ kept: 21, reason: "" });
    expect(read("20 of 21 Ha P1, wind from two on, gusts to 40")).toMatchObject({ reason: "wind", note: "wind from two on, gusts to 40" }); // prettier-ignore
    expect(read("30 x 120 OIII P1, tilt cured by a shim")).toMatchObject({ reason: "", note: "tilt cured by a shim" });
  });
  it("is read with commas between, without blanks, and with usual names of channels (reported: both were refused)", () => {
    const entry = { taken: 24, kept: 20, exposureSec: 300, channel: "Ha", panel: "P1", reason: "cloud", note: "" };
    expect(read("20 of 24, 300, Ha, P1; cloud")).toEqual(entry);
    expect(read("20/24; P1; h-alpha; 5 min; cloud, from two on")).toEqual({ ...entry, note: "from two on" });
    expect(read("21x5min Ha P2")).toMatchObject({ taken: 21, kept: 21, exposureSec: 300, channel: "Ha", panel: "P2" });
    expect(read("17 of 21x300s O3 P1, wind")).toMatchObject({ taken: 21, kept: 17, exposureSec: 300, channel: "OIII" });
    expect(read("30 OIII P1 2.5 m")).toMatchObject({ taken: 30, exposureSec: 150 });
    // A number in a note stays one.
    expect(read("21 x 300 s Ha P2, 5 of them thin, 7 good")).toMatchObject({ taken: 21, note: "5 of them thin, 7 good" }); // prettier-ignore
    expect(read("21 x 300 s Ha P2, 300")).toMatchObject({ exposureSec: 300, note: "300" });
  });
  it("says which part is wrong", () => {
    expect(read("Ha P1")).toBe("noCount");
    expect(read("17 x 300 s P1")).toBe("noChannel");
    expect(read("17 OIII P1")).toBe("noSub");
    expect(read("17 Ha")).toBe("noPanel");
    expect(read("17 Ha P9")).toBe("unknownPanel");
    expect(read("22 of 21 Ha P1, cloud")).toBe("tooMany");
    expect(read("17 of 21 Ha P1")).toBe("noReason");
    expect(read("17 of 21 Ha P1 yesterday, cloud")).toBe("unread");
    expect(read("")).toBe("noCount");
  });
  it("comes back the same from its own text (law)", () => {
    const line = fc.record({
      taken: fc.integer({ min: 0, max: 999 }),
      lost: fc.integer({ min: 0, max: 999 }),
      exposureSec: fc.integer({ min: 1, max: 3600 }),
      channel: fc.constantFrom(...CHANNELS),
      panel: fc.constantFrom("P1", "P12"),
      reason: fc.constantFrom(...CULL_REASONS),
      note: fc.constantFrom("", "thin cloud at first", "7 of 9", "Ha", "P2", "300", "5 min", "L, then 12 x 60 s R"),
    });
    fc.assert(
      fc.property(line, ({ lost, ...l }) => {
        const kept = Math.max(0, l.taken - lost);
        const entry = { ...l, kept, reason: kept < l.taken || l.taken === 0 ? l.reason : ("" as const) };
        const found = readLogLine(logLineText(entry), { channels: CHANNELS, panels: ["P1", "P12"], subOf: () => null });
        expect(found).toEqual({ ok: true, value: entry });
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 5000 : 200 },
    );
  });
  it("never throws nor hangs, whatever is typed (law)", () => {
    fc.assert(fc.property(fc.string({ maxLength: 200 }), (text) => void readLogLine(text, at)));
  });
});
