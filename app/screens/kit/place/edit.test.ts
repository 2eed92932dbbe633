import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { change, moveTo, putDown, takeAway, whereIs, type Surroundings } from "./edit";

const empty: Surroundings = { skyline: [], landmarks: [], domes: [], lamps: [] };
const line = (...points: readonly (readonly [number, number])[]): Surroundings => ({
  ...empty,
  skyline: points.map(([azimuthDeg, altitudeDeg]) => ({ azimuthDeg, altitudeDeg })),
});
const to = (azimuthDeg: number, altitudeDeg: number) => ({ azimuthDeg, altitudeDeg });

describe("drawing a skyline", () => {
  it("keeps its points in order, whatever is put down or moved where", () => {
    const act = fc.record({
      put: fc.boolean(),
      index: fc.nat(20),
      azimuthDeg: fc.double({ min: -720, max: 720, noNaN: true }),
      altitudeDeg: fc.double({ min: -50, max: 200, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(act, { maxLength: 30 }), (acts) => {
        let now = line([90, 10], [180, 20]);
        for (const a of acts)
          now = a.put
            ? putDown(now, "line", a).next
            : moveTo(now, { list: "skyline", index: a.index % now.skyline.length }, a);
        return now.skyline.every(
          (p, i) =>
            p.azimuthDeg >= 0 && p.azimuthDeg < 360 && p.altitudeDeg >= 0 && p.altitudeDeg <= 90 &&
            (i === 0 || now.skyline[i - 1]!.azimuthDeg < p.azimuthDeg),
        ); // prettier-ignore
      }),
    );
  });
  it("picks what it puts down, and sets a second point at the same azimuth beside the first", () => {
    const { next, pick } = putDown(line([90, 10], [180, 20]), "line", to(90, 40));
    expect(next.skyline.map((p) => p.azimuthDeg)).toEqual([90, 90.1, 180]);
    expect([pick, whereIs(next, pick!)]).toEqual([{ list: "skyline", index: 1 }, to(90.1, 40)]);
  });
  it("does not let a point pass its neighbours", () => {
    const moved = moveTo(line([90, 10], [180, 20], [270, 5]), { list: "skyline", index: 1 }, to(300, 33));
    expect(moved.skyline[1]).toEqual(to(269.9, 33));
  });
  it("never leaves a single point, which would wall in the whole sky", () => {
    expect(takeAway(line([90, 10], [180, 20]), { list: "skyline", index: 0 })).toEqual({ next: empty, pick: null });
    const three = takeAway(line([90, 10], [180, 20], [270, 5]), { list: "skyline", index: 2 });
    expect([three.next.skyline.length, three.pick]).toEqual([2, { list: "skyline", index: 1 }]);
  });
});

describe("what stands and shines", () => {
  it("is put down with a name and moved across north", () => {
    const shed = putDown(empty, "box", to(355, 25));
    expect(shed.next.landmarks[0]).toMatchObject({ name: "shed", shape: "box", azimuthDeg: 355, altitudeDeg: 25 });
    expect(moveTo(shed.next, shed.pick!, to(361.26, 30)).landmarks[0]).toMatchObject({ azimuthDeg: 1.3, altitudeDeg: 30 }); // prettier-ignore
    const lamp = putDown(shed.next, "lamp", to(231, 9));
    expect(change(lamp.next, lamp.pick!, { name: "lane" }).lamps[0]).toMatchObject({ name: "lane", radiusDeg: 8 });
    const dome = putDown(lamp.next, "dome", to(200, 12));
    expect(whereIs(dome.next, dome.pick!)).toEqual(to(200, 30)); // where it is measured
    expect(takeAway(dome.next, lamp.pick!).next.lamps).toEqual([]);
  });
});
