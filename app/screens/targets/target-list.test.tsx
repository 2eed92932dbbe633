import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import fc from "fast-check";
import { createRoutesStub } from "react-router";
import { beforeAll, describe, expect, it, vi } from "vitest";
import type { CatalogEntry } from "~/core/catalog";
import { placeNight, USUAL_MOON, type ComingSeason } from "~/core/night";
import { nightDate } from "~/core/time";
import { opticsOf } from "~/core/framing";
import { testPlace, testRig } from "~/core/test-data";
import { narrowed, NO_FILTER, ordered, ORDERS, type TargetLine } from "./lines";
import { brightnessWords, needWords, rankWords, seasonWords } from "~/components/words/rank-words";
import { SearchNote } from "./SearchNote";
import { TargetFilters } from "./TargetFilters";
import { TargetList } from "./TargetList";

const night = nightDate("2026-12-05");
const open = (weeksLeft: number, clearNights: number): ComingSeason => ({
  left: { kind: "open", weeksLeft },
  worthHoursANight: 4,
  bestHoursANight: 5,
  clearNights,
});

function line(id: string, more: Partial<TargetLine> = {}, entry: Partial<CatalogEntry> = {}): TargetLine {
  return {
    row: 0,
    usableMin: 300,
    worthMin: 200,
    moonlessMin: 300,
    moonlessWorthMin: 200,
    leftWorthMin: 200,
    own: { object: 0, rest: 0 },
    isDrowned: false,
    within: null,
    channel: "L",
    missing: [],
    isStrongestMissing: false,
    isOutOfReach: false,
    mainLoss: "none",
    mainLossMin: 0,
    topAltitudeDeg: 70,
    fill: 0.4,
    panels: 1,
    belowSkyMag: null,
    season: open(12, 30),
    needHours: 8,
    needNights: 3,
    score: 10,
    ...more,
    entry: {
      id,
      name: "",
      aliases: [],
      kind: "galaxy",
      at: { frame: "icrs", raDeg: 40, decDeg: 45 },
      majorArcmin: 30,
      minorArcmin: 20,
      positionAngleDeg: 0,
      magnitude: 9,
      constellation: "Per",
      rank: 50,
      curated: null,
      ...entry,
    },
  };
}

describe("filters", () => {
  const lines = [
    line("A 1", { fill: 1.4, panels: 4, needNights: 20, season: open(4, 12) }),
    line("B 2", { channel: "Ha", usableMin: 90 }, { kind: "emissionNebula" }),
    line("C 3", { fill: 0.02, season: open(3, 9) }),
  ];
  const ids = (some: Partial<typeof NO_FILTER>) => narrowed(lines, { ...NO_FILTER, ...some }).map((l) => l.entry.id);
  it("narrow by size, light, season and hours, and combine", () => {
    expect(ids({})).toEqual(["A 1", "B 2", "C 3"]);
    expect(ids({ size: "mosaic" })).toEqual(["A 1"]);
    expect(ids({ size: "fits" })).toEqual(["B 2"]);
    expect(ids({ light: "lines" })).toEqual(["B 2"]);
    expect(ids({ season: "closing" })).toEqual(["A 1", "C 3"]);
    expect(ids({ season: "enough" })).toEqual(["B 2", "C 3"]);
    expect(ids({ minHours: "2,5" })).toEqual(["A 1", "C 3"]);
    expect(ids({ season: "closing", size: "mosaic", minHours: "6" })).toEqual([]);
  });
  it("hand on what is chosen and refuse impossible hours", async () => {
    const user = userEvent.setup();
    const [onChange, onSchool, onOrder] = [vi.fn(), vi.fn(), vi.fn()];
    const props = { onChange, onSchool, onOrder, order: "overall", school: "", placeMinDeg: 25 } as const;
    const { rerender } = render(<TargetFilters {...props} filter={NO_FILTER} />);
    await user.selectOptions(screen.getByLabelText("Kind"), "supernova remnant");
    expect(onChange).toHaveBeenCalledWith({ ...NO_FILTER, kind: "supernovaRemnant" });
    await user.selectOptions(screen.getByLabelText("Lowest altitude"), "take what there is");
    expect(onSchool).toHaveBeenCalledWith("10");
    await user.selectOptions(screen.getByLabelText("Order"), "closing soonest");
    expect(onOrder).toHaveBeenCalledWith("season");
    rerender(<TargetFilters {...props} filter={{ ...NO_FILTER, minHours: "30" }} />);
    expect(screen.getByRole("alert").textContent).toBe("0 to 24 h");
  });
});

describe("orders", () => {
  const season = fc.oneof(
    fc.record({ kind: fc.constant("open" as const), weeksLeft: fc.integer({ min: 1, max: 50 }) }),
    fc.constant({ kind: "allYear" as const }),
    fc.record({ kind: fc.constant("opens" as const), inWeeks: fc.integer({ min: 1, max: 40 }), weeks: fc.constant(9) }),
    fc.constant({ kind: "short" as const }),
  );
  const anyLine = fc
    .record({
      usableMin: fc.integer({ min: 0, max: 700 }),
      needNights: fc.option(fc.integer({ min: 1, max: 60 })),
      fill: fc.option(fc.double({ min: 0.01, max: 5, noNaN: true })),
      belowSkyMag: fc.option(fc.double({ min: -5, max: 8, noNaN: true })),
      left: season,
    })
    .map(({ left, ...more }) =>
      line("X 1", { ...more, season: { left, worthHoursANight: 1, clearNights: 1, bestHoursANight: 1 } }),
    );
  it("lose no line and are the same the second time (law)", () => {
    fc.assert(
      fc.property(fc.array(anyLine, { maxLength: 30 }), fc.constantFrom(...ORDERS), (lines, order) => {
        const once = ordered(lines, order);
        expect(new Set(once)).toEqual(new Set(lines));
        expect(ordered(once, order)).toEqual(once);
      }),
    );
  });
  it("put first what closes first, and what is open all year before what is still to come", () => {
    const lines = [
      line("opens", {
        season: {
          left: { kind: "opens", inWeeks: 2, weeks: 9 },
          worthHoursANight: 1,
          clearNights: 1,
          bestHoursANight: 1,
        },
      }),
      line("all", { season: { left: { kind: "allYear" }, worthHoursANight: 1, clearNights: 1, bestHoursANight: 1 } }),
      line("late", { season: open(20, 1) }),
      line("soon", { season: open(2, 1) }),
    ];
    expect(ordered(lines, "season").map((l) => l.entry.id)).toEqual(["soon", "late", "all", "opens"]);
    expect(ordered([line("M 10"), line("M 9")], "name").map((l) => l.entry.id)).toEqual(["M 9", "M 10"]);
  });
});

describe("the rank in words", () => {
  it("says what holds an object back, and when to hurry", () => {
    const words = rankWords(
      line("A 1", {
        topAltitudeDeg: 22.4,
        mainLoss: "skyline",
        mainLossMin: 130,
        belowSkyMag: 2.34,
        season: open(4, 12),
      }),
    );
    expect(words).toBe(
      "fills 40 % of my field · 2.3 mag fainter than your sky · tops out at 22° · 2 h 10 lost: skyline · start now, it closes in 4 weeks",
    );
  });
  it("says when the season cannot suffice", () => {
    expect(rankWords(line("A 1", { panels: 6, needNights: 40, season: open(9, 11.7) }))).toBe(
      "needs 6 panels · this season gives about 12 clear nights: not enough, keep it for two · a project for years or for a crew",
    );
  });
  it("names seasons with their dates, and needs with their nights", () => {
    expect(seasonWords({ kind: "open", weeksLeft: 1 }, night)).toEqual({
      short: "1 week left",
      date: "till about 12 Dec",
    });
    expect(seasonWords({ kind: "opens", inWeeks: 3, weeks: 10 }, night).short).toBe("opens in 3 weeks");
    expect(needWords(line("A 1", { needHours: 4.5, needNights: 1 }))).toEqual({
      hours: "4.5 h",
      nights: "≈ 1 clear night",
    });
    expect(needWords(line("A 1", { needHours: 36, needNights: null })).nights).toBe("no season");
    expect(brightnessWords(-1.2)).toBe("1.2 mag brighter than your sky");
    expect(brightnessWords(null)).toBe("");
  });
});

describe("the list", () => {
  beforeAll(() => {
    // Nothing has a size in this environment: rows would never be drawn.
    Object.defineProperty(Element.prototype, "clientHeight", { configurable: true, value: 600 });
    Object.defineProperty(Element.prototype, "clientWidth", { configurable: true, value: 800 });
    Object.defineProperty(HTMLElement.prototype, "offsetHeight", { configurable: true, value: 68 });
  });
  const lines = Array.from({ length: 200 }, (_, i) => line(`NGC ${i + 1}`));
  const onOrder = vi.fn();
  const Stub = createRoutesStub([
    {
      path: "/",
      Component: () => (
        <TargetList
          lines={lines}
          optics={opticsOf(testRig)}
          night={placeNight(testPlace, night, USUAL_MOON)}
          order="season"
          onOrder={onOrder}
          linkTo={(id) => `/targets/${id}`}
        />
      ),
    },
  ]);
  it("is a grid that tells its length and order, draws only what is in view, and is walked by keys", async () => {
    const user = userEvent.setup();
    render(<Stub />);
    const grid = await screen.findByRole("grid", { name: "Targets" });
    expect(grid.getAttribute("aria-rowcount")).toBe("201");
    expect(screen.getByRole("columnheader", { name: /Season/ }).getAttribute("aria-sort")).toBe("ascending");
    expect(screen.getAllByRole("row").length).toBeLessThan(60);
    const first = await screen.findByRole("link", { name: /^NGC 1(?!\d)/ });
    first.focus();
    await user.keyboard("{ArrowDown}{ArrowDown}");
    expect(document.activeElement?.textContent).toMatch(/^NGC 3(?!\d)/);
    await user.keyboard("{Home}");
    expect(document.activeElement?.textContent).toMatch(/^NGC 1(?!\d)/);
    await user.click(screen.getByRole("button", { name: "Usable" }));
    expect(onOrder).toHaveBeenCalledWith("usable");
  });
});

describe("a search that is no name", () => {
  const shown = (query: string) => {
    const Note = createRoutesStub([
      { path: "/", Component: () => <SearchNote query={query} isKnown={true} linkTo={(p) => `/new?position=${p}`} /> },
    ]);
    return render(<Note />).container.textContent;
  };
  it("is told that planets and comets are out of scope, and nothing of the kind for a name", () => {
    expect(shown("Saturn")).toContain("out of scope");
    for (const comet of ["C/2023 A3", "12P", "comet"]) expect(shown(comet)).toContain("Comets move");
    for (const name of ["M 31", "Saturn Nebula", "C 20", "PK 36-57.1"]) expect(shown(name)).toBe("");
  });
  it("offers to make a position a target of one's own", () => {
    expect(shown("20h50m33s +31 10")).toBe(
      "Make 20h 50m 33.0s20 hours 50 minutes 33 seconds, +31° 10′ 00″plus 31 degrees 10 minutes 0 seconds a target of your own", // written and spoken
    );
  });
});
