import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { separationDeg, type Equatorial } from "~/core/sky";
import { frameCorners, frameToSky, meshFromCorners } from ".";

const at = (raDeg: number, decDeg: number): Equatorial<"icrs"> => ({ frame: "icrs", raDeg, decDeg });

describe("a picture from four corners", () => {
  it("lies where the frame with these corners lies, node by node, at the pole and across 0h (law; 2″ for 3°)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359.9, noNaN: true }),
        fc.double({ min: -89.9, max: 89.9, noNaN: true }),
        fc.double({ min: 0, max: 359.9, noNaN: true }),
        (raDeg, decDeg, positionAngleDeg) => {
          const frame = { centre: at(raDeg, decDeg), positionAngleDeg };
          const mesh = meshFromCorners(frameCorners(frame, 180, 120));
          if (typeof mesh === "string") throw new Error(mesh);
          const n = mesh.columns;
          mesh.nodes.forEach(([ra, dec], i) => {
            const [u, v] = [(i % (n + 1)) / n, Math.floor(i / (n + 1)) / n];
            const wanted = frameToSky(frame, (u - 0.5) * 180, (0.5 - v) * 120);
            expect(3600 * separationDeg(at(ra, dec), wanted)).toBeLessThan(2);
          });
        },
      ),
      { numRuns: 60 },
    );
  });
  it("is refused when corners cross, lie on a line, or are far apart", () => {
    expect(meshFromCorners([at(10, 1), at(11, 0), at(11, 1), at(10, 0)])).toBe("crossed");
    expect(meshFromCorners([at(10, 0), at(11, 0), at(12, 0), at(10, 1)])).toBe("flat");
    expect(meshFromCorners([at(10, 0), at(100, 0), at(100, 50), at(10, 50)])).toBe("tooFar");
  });
});
