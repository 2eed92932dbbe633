import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { frameToSky, mosaicPanels, movedFrame, opticsOf, panelName, skyToFrame } from "~/core/framing";
import { testRig } from "~/core/test-data";
import { frameChange, panelCountedFor, panelMoves, type FrameStock } from "./frame-history";
import { layoutOf, type FrameData } from "./project";

const runs = (few: number, many: number) => (process.env["LAWS_SEED"] === "new" ? many : few);
const optics = opticsOf(testRig);
const frame: FrameData = {
  projectId: "p",
  raDeg: 313,
  decDeg: 31,
  positionAngleDeg: 10,
  columns: 2,
  rows: 3,
  overlap: 0.15,
};
const stockOf = (...frames: FrameStock["frames"]): FrameStock => ({ frames, referenceId: frames.at(-1)!.id });
const hour = (panel: string, frameId?: string) => ({
  panel,
  kept: 12,
  exposureSec: 300,
  ...(frameId === undefined ? {} : { frameId }),
});
/** A frame moved along its own sides, in shares of a panel. */
const shifted = (f: FrameData, x: number, y: number): FrameData => {
  const layout = layoutOf(f, optics);
  return moved(f, x * layout.planeWidthArcmin, y * layout.planeHeightArcmin);
};
function moved(f: FrameData, dxArcmin: number, dyArcmin: number, turnDeg = 0): FrameData {
  const { centre, positionAngleDeg } = movedFrame(layoutOf(f, optics), { dxArcmin, dyArcmin, turnDeg });
  return { ...f, raDeg: centre.raDeg, decDeg: centre.decDeg, positionAngleDeg };
}

describe("a frame with hours that is changed", () => {
  const stored = { id: "f", data: frame };
  const change = (after: FrameData, entries = ["P1", "P2", "P6"].map((p) => hour(p))) =>
    frameChange(stored, after, stockOf(stored), optics, entries);

  it("asks nothing as long as no panel with hours stands elsewhere: names, order, a panel more, one left out", () => {
    expect(change({ ...frame, names: { "1": "the arch" }, order: [3, 1] }).moves).toEqual([]);
    expect(change({ ...frame, extra: [{ xArcmin: 90, yArcmin: 0 }] }).moves).toEqual([]);
    expect(change({ ...frame, skipped: [2] }).moves).toEqual([]);
    expect(change(shifted(frame, 0.5, 0), []).moves).toEqual([]);
  });
  it("lets hours count within what the overlap gives, panel by panel (MATHS 5.5), and not beyond", () => {
    const small = change(shifted(frame, 0.06, 0));
    expect(small.moves.map((m) => [m.panel, m.becomes])).toEqual([["P1", "P1"], ["P2", "P2"], ["P6", "P6"]]); // prettier-ignore
    expect(small.keptMin).toBeCloseTo(180, 9);
    expect(small.follows).toEqual({ frameId: "f", panels: { P1: "P1", P2: "P2", P6: "P6" } });
    const large = change(shifted(frame, 0.09, 0)); // 2 e = 18 % of the width, the overlap is 15 %
    expect(large.moves.every((m) => m.becomes === null)).toBe(true);
    expect(large.follows).toBeNull();
    // Turned about its centre: panels far out move most, so some fall out before others.
    const turned = change({ ...frame, positionAngleDeg: 14 }, [hour("P1"), hour("P3")]);
    expect(turned.moves.map((m) => m.becomes)).toEqual([null, null]);
    // Turned by half a circle every panel stands where another one stood, and its hours go there.
    expect(change({ ...frame, positionAngleDeg: 190 }).follows?.panels).toEqual({ P1: "P6", P2: "P5", P6: "P1" });
  });
  it("knows panels by where they stand: a column more gives them other numbers, and the hours go along", () => {
    const layout = layoutOf(frame, optics);
    const step = layout.planeWidthArcmin * (1 - layout.overlap);
    const wider = { ...moved(frame, step / 2, 0), columns: 3 };
    const { moves, follows } = change(wider);
    // Two columns are numbered 1 2 / 3 4 / 5 6, three 1 2 3 / 4 5 6 / 7 8 9: sides drawn from the old centre.
    expect(moves.find((m) => m.panel === "P6")?.becomes).toBe("P8");
    expect(follows?.panels).toEqual({ P1: "P1", P2: "P2", P6: "P8" });
  });
  it("holds every change against where the hours were taken, so that many small moves do not add up unseen", () => {
    let now = stored;
    let frames: FrameStock["frames"] = [stored];
    const entries = [hour("P1", "f")];
    const allowed: boolean[] = [];
    for (let i = 1; i <= 4; i++) {
      const after = shifted(frame, 0.03 * i, 0);
      const { follows, hasOwnHours } = frameChange(now, after, { frames, referenceId: now.id }, optics, entries);
      allowed.push(follows !== null);
      if (!follows) break;
      expect(hasOwnHours).toBe(i === 1);
      expect(follows.frameId).toBe("f"); // what never had hours of its own leaves no step behind
      now = { id: "g", data: { ...after, follows } };
      frames = [stored, now];
    }
    expect(allowed).toEqual([true, true, false]);
  });
  it("lets no exposure count that would leave a gap: where hours still count, the old frame covers the panel but for its overlap (a law, by points on the sky)", () => {
    const slack = 1.002; // the two tangent planes differ a little away from the centre
    fc.assert(
      fc.property(
        fc.record({
          decDeg: fc.double({ min: -70, max: 70, noNaN: true }),
          overlap: fc.double({ min: 0.05, max: 0.3, noNaN: true }),
          x: fc.double({ min: -0.12, max: 0.12, noNaN: true }),
          y: fc.double({ min: -0.12, max: 0.12, noNaN: true }),
          turn: fc.double({ min: -6, max: 6, noNaN: true }),
          columns: fc.integer({ min: 1, max: 3 }),
        }),
        ({ decDeg, overlap, x, y, turn, columns }) => {
          const before: FrameData = { ...frame, decDeg, overlap, columns, rows: 1 };
          const { planeWidthArcmin: width, planeHeightArcmin: height } = layoutOf(before, optics);
          const after = moved(before, x * width, y * height, turn);
          const old = mosaicPanels(layoutOf(before, optics));
          const names = old.map((p) => panelName(p.number));
          const layout = layoutOf(after, optics);
          for (const move of panelMoves(before, after, optics, names)) {
            if (move.becomes === null) continue;
            const now = mosaicPanels(layout).find((p) => panelName(p.number) === move.becomes)!;
            const was = old.find((p) => panelName(p.number) === move.panel)!;
            for (const sx of [-1, 0, 1])
              for (const sy of [-1, 0, 1]) {
                const [w, h] = [layout.planeWidthArcmin / 2, layout.planeHeightArcmin / 2];
                const at = frameToSky(now, sx * w * (1 - overlap), sy * h * (1 - overlap));
                const there = skyToFrame(was, at)!;
                expect(Math.abs(there.xArcmin)).toBeLessThanOrEqual(w * slack);
                expect(Math.abs(there.yArcmin)).toBeLessThanOrEqual(h * slack);
              }
          }
        },
      ),
      { numRuns: runs(200, 5000) },
    );
  });
});

describe("which panel an entry counts for", () => {
  const chain: FrameStock = {
    referenceId: "c",
    frames: [
      { id: "a", data: frame },
      { id: "b", data: { ...frame, follows: { frameId: "a", panels: { P1: "P2", P2: "P3" } } } },
      { id: "c", data: { ...frame, follows: { frameId: "b", panels: { P2: "P1", P9: "P4" } } } },
      { id: "other", data: frame },
    ],
  };
  it("follows it from frame to frame; another frame's hours count for none of this one's", () => {
    const inC = panelCountedFor("c", chain);
    expect(inC(hour("P1", "a"))).toBe("P1"); // P1 → P2 → P1
    expect(inC(hour("P2", "a"))).toBeNull(); // P2 → P3, which the last one no longer has
    expect(inC(hour("P9", "b"))).toBe("P4");
    expect(inC(hour("P7", "c"))).toBe("P7");
    expect(inC(hour("P1", "other"))).toBeNull();
    expect(inC(hour("P1"))).toBe("P1"); // no frame named: the first of the reference's line
    expect(panelCountedFor("other", chain)(hour("P1"))).toBeNull();
    expect(panelCountedFor("a", chain)(hour("P1", "c"))).toBeNull(); // what came later does not count backwards
  });
  it("ends at a ring of frames, as only an edited file has it", () => {
    const ring: FrameStock = {
      referenceId: "x",
      frames: [
        { id: "x", data: { ...frame, follows: { frameId: "y", panels: { P1: "P1" } } } },
        { id: "y", data: { ...frame, follows: { frameId: "x", panels: { P1: "P1" } } } },
      ],
    };
    expect(panelCountedFor("x", ring)(hour("P1", "y"))).toBe("P1");
  });
});
