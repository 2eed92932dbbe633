import { runSheet, type WorkItem } from "~/core/night";
import { testFilter, testRig } from "~/core/test-data";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import objects from "~/data/objects.json";
import { unpackCatalog, type PackedCatalog } from "~/core/catalog";
import { liveState, toldSubs } from "~/core/live";
import { drawnWeather, isOpen, MOMENT_MS, type HourForecast } from "~/core/observatory";
import { HOUR_MS, MINUTE_MS, nightDate, utcMs } from "~/core/time";
import { playNight as oddsOf } from "~/core/weather";
import { hindsight, overSeeds, worthOf } from "./hindsight";
import { playNight } from "./play";
import { preparedNight, PREPARED_TARGET, type Prepared } from "./prepared";
import { panelKey, skyKey, WAYS, type RehearsalNight, type WayKey } from "./question";

const DUSK = utcMs(Date.parse("2026-12-05T17:00:00Z"));

/** Hours of a night, all alike but for what is said. */
const hoursLike = (of: (i: number) => Partial<HourForecast>): HourForecast[] =>
  Array.from({ length: 14 }, (_, i) => ({
    startMs: utcMs(DUSK + (i - 1) * HOUR_MS),
    odds: 1,
    airC: 4,
    dewC: -6,
    gustKmh: 5,
    seeingArcsec: 2.5,
    ...of(i),
  }));

/** Two panels in Hα, one behind the other, with a flip between; twelve hours. */
function testNight(more: Partial<RehearsalNight> = {}): RehearsalNight {
  const rig = { ...testRig, isGuided: true };
  const item = (panel: string, subs: number): WorkItem => ({
    projectId: "veil", panel, channel: "Ha", filterName: testFilter.name, subSec: 300, subs, need: panel, stage: 0, inOrder: true,
    windows: [{ startMs: DUSK, endMs: utcMs(DUSK + 11 * HOUR_MS) }], transitMs: utcMs(DUSK + 5 * HOUR_MS),
  }); // prettier-ignore
  const sheet = runSheet([item("P1", 50), item("P2", 40)], rig.overheads, { flips: true, standsBeforeDark: false, sunsetMs: utcMs(DUSK - 60 * MINUTE_MS), starsMs: DUSK }); // prettier-ignore
  const sky = { startMs: DUSK, stepMin: 60, passes: Array<number>(13).fill(0.8), skyOver: Array<number>(13).fill(1.2) };
  const at = (panel: string) => ({ projectId: "veil", panel, channel: "Ha" as const });
  return {
    night: nightDate("2026-12-05"),
    memberId: "me",
    site: { latitudeDeg: 45, longitudeDeg: 5 },
    zenithSkyMag: 20.5,
    hours: hoursLike(() => ({})),
    weather: null,
    rigs: [
      {
        rigId: "rig",
        rig,
        filters: { [testFilter.name]: testFilter },
        sheet,
        names: { veil: "The veil" },
        subjects: { veil: null },
        pointings: Object.fromEntries(
          ["P1", "P2"].map((p) => [panelKey(at(p)), { pointing: { frame: "icrs", raDeg: 312, decDeg: 30 }, positionAngleDeg: 0 }]), // prettier-ignore
        ),
        skies: Object.fromEntries(["P1", "P2"].map((p) => [skyKey(at(p)), sky])),
        darksMin: 60,
        focusPerC: 2,
      },
    ],
    ...more,
  };
}

const sheetOf = (night: RehearsalNight) => night.rigs[0]!.sheet;
const exposureMin = (night: RehearsalNight) =>
  sheetOf(night).lines.reduce((sum, l) => sum + (l.kind === "block" ? (l.subs * l.subSec) / 60 : 0), 0);
const byAdvice = (night: RehearsalNight, seed = 1) => playNight(night, seed, { ways: [], then: "advice" });

describe("the weather of a rehearsal", () => {
  it("has every hour clear as often as it was forecast, over many seeds, and hours that go together", () => {
    const odds = [0.1, 0.3, 0.5, 0.7, 0.9, 0.6, 0.2, 0.5, 1, 0, 0.5, 0.5, 0.5, 0.5];
    const hours = hoursLike((i) => ({ odds: odds[i]! }));
    const clear = odds.map(() => 0);
    let [same, pairs] = [0, 0];
    const RUNS = 3000;
    const totals: number[] = [];
    for (let seed = 0; seed < RUNS; seed++) {
      const { moments } = drawnWeather(hours, seed);
      moments.forEach((m, i) => (clear[Math.floor(i / 12)]! += isOpen(m) ? 1 / 12 : 0));
      const at = (hour: number) => isOpen(moments[hour * 12 + 6]!);
      pairs++;
      if (at(12) === at(13)) same++;
      totals.push(moments.filter(isOpen).length * 5);
    }
    // Persistence makes the share of a night wander: 3000 nights know a half to 0.012.
    odds.forEach((p, i) => expect(Math.abs(clear[i]! / RUNS - p)).toBeLessThan(0.035));
    expect(same / pairs).toBeGreaterThan(0.7); // half would be chance
    // The same model as the odds of a night on the other screens.
    const told = oddsOf(hours.map((h) => ({ odds: h.odds, minutes: 60 })), 0); // prettier-ignore
    totals.sort((a, b) => a - b);
    expect(Math.abs(totals[RUNS / 2]! - told.halfMin)).toBeLessThan(45);
    expect(Math.abs(totals[RUNS / 10]! - told.tenthMin)).toBeLessThan(45);
  });

  it("is the same for the same seed", () => {
    const hours = hoursLike((i) => ({ odds: i / 14 }));
    expect(drawnWeather(hours, 5)).toEqual(drawnWeather(hours, 5));
    expect(drawnWeather(hours, 5)).not.toEqual(drawnWeather(hours, 6));
  });
});

describe("a night that is rehearsed", () => {
  it("brings under a calm clear sky what its sheet says, to the sub, and asks for the flip alone", () => {
    const night = testNight();
    const played = byAdvice(night);
    expect(played.decided.map((d) => d.decision.trouble.about)).toEqual(["flip"]);
    expect(played.brought.lostMin).toBe(0);
    expect(played.brought.keptMin).toBe(exposureMin(night));
    expect(played.due).toBeNull();
  });

  it("keeps what was exposed and told one and the same, goes on the same way from any decision, and ends (law)", () => {
    const someHours = fc.array(
      fc.record({
        odds: fc.constantFrom(0, 0.2, 0.5, 0.8, 1),
        airC: fc.integer({ min: -8, max: 14 }),
        dewC: fc.integer({ min: -9, max: 9 }),
        gustKmh: fc.integer({ min: 0, max: 60 }),
      }),
      { minLength: 14, maxLength: 14 },
    );
    fc.assert(
      fc.property(someHours, fc.nat(1e6), fc.array(fc.constantFrom(...WAYS), { maxLength: 12 }), (some, seed, ways) => {
        const night = testNight({ hours: hoursLike((i) => some[i]!) });
        const played = playNight(night, seed, { ways, then: "advice" });
        expect(played.due).toBeNull();
        // Minutes add up, by sums of its own.
        const kept = played.subs.filter((s) => s.lostTo === null);
        expect(played.brought.keptMin).toBeCloseTo(kept.length * 5, 6);
        expect(played.brought.keptMin + played.brought.lostMin).toBeLessThanOrEqual(exposureMin(night) + 1e-6);
        // No block is given more than its sheet has for it.
        for (const line of sheetOf(night).lines)
          if (line.kind === "block")
            expect(played.subs.filter((s) => s.of === line).length).toBeLessThanOrEqual(line.subs);
        // What the presses tell is what was exposed.
        const told = toldSubs(played.events);
        expect(told.reduce((sum, t) => sum + t.kept, 0)).toBe(kept.length);
        expect(told.reduce((sum, t) => sum + t.taken, 0)).toBe(played.subs.length);
        // Nothing overlaps, nothing is kept under a closed sky.
        const weather = drawnWeather(night.hours, seed);
        played.subs.forEach((s, i) => {
          const { startMs, sec } = s.exposure;
          const next = played.subs[i + 1];
          if (next) expect(next.exposure.startMs).toBeGreaterThanOrEqual(startMs + sec * 1000);
          const moment = weather.moments[Math.floor((startMs + 1000 - weather.startMs) / MOMENT_MS)]!;
          if (s.lostTo === null) expect(isOpen(moment)).toBe(true);
        });
        // The same ways, the same night; what was decided alone gives it again.
        const again = playNight(night, seed, { ways: played.decided.map((d) => d.does), then: "ask" });
        expect(again.brought).toEqual(played.brought);
        expect(liveState(sheetOf(night), played.events, utcMs(DUSK + 20 * HOUR_MS)).phase).toBe("over");
        // One decision less, and it is the next one that is due.
        if (played.decided.length > 0) {
          const short = playNight(night, seed, { ways: played.decided.slice(0, -1).map((d) => d.does), then: "ask" });
          expect(short.due).toEqual(played.decided.at(-1)!.decision);
        }
      }),
    );
  });

  it("loses what a missed flip, a closed sky, gusts, dew, soft focus and an empty battery take, and says to what", () => {
    const lostTo = (night: RehearsalNight, ways: readonly WayKey[]) => [
      ...new Set(playNight(night, 3, { ways, then: "advice" }).subs.flatMap((s) => s.lostTo ?? [])),
    ];
    expect(lostTo(testNight(), Array<WayKey>(9).fill("flipLater"))).toEqual(["trail"]);
    expect(lostTo(testNight({ hours: hoursLike(() => ({ gustKmh: 70 })) }), Array<WayKey>(99).fill("goOn"))).toContain("wind"); // prettier-ignore
    expect(lostTo(testNight({ hours: hoursLike(() => ({ dewC: 4 })) }), Array<WayKey>(99).fill("goOn"))).toContain("other"); // prettier-ignore
    expect(lostTo(testNight({ hours: hoursLike(() => ({ dewC: 4 })) }), [])).toEqual([]); // the heater
    const cooling = testNight({ hours: hoursLike((i) => ({ airC: 20 - 2 * i })) });
    const noFocus = { ...cooling, rigs: [{ ...cooling.rigs[0]!, sheet: { lines: sheetOf(cooling).lines.filter((l) => l.kind !== "focus") } }] }; // prettier-ignore
    expect(lostTo(noFocus, Array<WayKey>(99).fill("goOn"))).toContain("focus");
    expect(lostTo(noFocus, [])).toEqual([]);
    const power = { mountW: 10, cameraW: 5, coolerW: 20, dewW: 10, computerW: 10, batteryWh: 180, chemistry: "lithium" } as const; // prettier-ignore
    const plain = testNight();
    const onBattery = { ...plain, rigs: [{ ...plain.rigs[0]!, rig: { ...plain.rigs[0]!.rig, power } }] };
    const dead = playNight(onBattery, 1, { ways: Array<WayKey>(99).fill("goOn"), then: "advice" });
    expect(dead.decided.map((d) => d.decision.trouble.about)).toContain("battery");
    expect(dead.subs.at(-1)!.lostTo).toBe("other");
    expect(dead.brought.keptMin).toBeLessThan(exposureMin(plain) - 60);
  });

  it("waits under cloud for what opens again, and gives up what comes after packing up or going to bed", () => {
    const open = (i: number) => i < 4 || i > 6;
    const hours = hoursLike((i) => ({ odds: open(i) ? 0.97 : 0.4 }));
    const moments = hoursLike(() => ({})).flatMap(
      (_, i) =>
      Array.from({ length: 12 }, () => ({ passes: open(i) ? 1 : 0.03, airC: 4, dewC: -6, gustKmh: 5, seeingArcsec: 2.5 })), // prettier-ignore
    );
    const night = testNight({ hours, weather: { startMs: utcMs(DUSK - HOUR_MS), moments } });
    const bring = (ways: readonly WayKey[]) => playNight(night, 1, { ways, then: "advice" }).brought;
    const waited = bring(["wait", "wait", "wait", "wait"]);
    const packed = bring(["packUp"]);
    const slept = bring(["sleep"]);
    expect(waited.keptMin).toBeGreaterThan(packed.keptMin + 120);
    expect(packed.keptMin).toBe(slept.keptMin);
    expect(slept.upMin).toBeLessThan(packed.upMin);
    expect(packed.upMin).toBeLessThan(waited.upMin - 120);
    expect(bring(["darks"]).darksMin).toBeGreaterThan(30);
  });

  it("is judged decision by decision: the best in hindsight is never worse than yours or the advice", () => {
    const night = testNight({ hours: hoursLike((i) => ({ odds: 0.5, airC: 10 - i, dewC: 2 })) });
    const yours = playNight(night, 11, { ways: ["packUp"], then: "advice" });
    const judged = [...hindsight(night, 11, yours)];
    expect(judged.length).toBe(yours.decided.length);
    for (const j of judged) {
      expect(worthOf(j.best)).toBeGreaterThanOrEqual(worthOf(j.yours));
      expect(worthOf(j.best)).toBeGreaterThanOrEqual(worthOf(j.advice));
      expect(j.decision.ways.map((w) => w.does)).toContain(j.bestWay);
    }
  });

  it("tells over ten seeds in a row how often each way under cloud did best", () => {
    const night = testNight({ hours: hoursLike(() => ({ odds: 0.5 })) });
    const seeds = Array.from({ length: 10 }, (_, i) => i + 1);
    const told = overSeeds(night, seeds)!;
    expect(told.nights).toBeGreaterThan(3);
    expect(told.ways.map((w) => w.does)).toContain("wait");
    for (const way of told.ways) expect(way.bestIn).toBeLessThanOrEqual(told.nights);
    expect(Math.max(...told.ways.map((w) => w.bestIn))).toBeGreaterThan(0);
    expect(overSeeds(testNight(), seeds)).toBeNull();
  });
});

describe("the prepared nights", () => {
  const unpacked = unpackCatalog(objects as unknown as PackedCatalog);
  const target = (unpacked.ok ? unpacked.value : []).find((e) => e.id === PREPARED_TARGET)!;
  const night = (which: Prepared) => preparedNight(which, target);
  const kept = (which: Prepared, ways: readonly WayKey[]) => playNight(night(which), 1, { ways, then: "advice" }).brought.keptMin; // prettier-ignore
  const askedIn = (which: Prepared) => [
    ...new Set(byAdvice(night(which)).decided.map((d) => d.decision.trouble.about)),
  ];

  it.each([
    ["firstLight", "focus", "goOn"],
    ["flip", "flip", "flipLater"],
    ["gap", "cloud", "packUp"],
    ["wind", "wind", "goOn"],
    ["dew", "dew", "goOn"],
    ["twoRigs", "flip", "flipLater"],
  ] as const)(
    "%s asks about %s, and whoever answers %s throughout brings less than by the advice",
    (which, about, poor) => {
      expect(askedIn(which)).toContain(about);
      const advised = kept(which, []);
      expect(advised).toBeGreaterThan(120);
      expect(kept(which, Array<WayKey>(60).fill(poor))).toBeLessThan(advised);
    },
  );

  it("has two rigs that want the same hands", () => {
    const played = byAdvice(night("twoRigs"));
    expect(
      new Set(played.decided.filter((d) => d.decision.trouble.about === "flip").map((d) => d.decision.rig)).size,
    ).toBe(2);
    const flips = played.events.filter((e) => e.is.what === "flipped").map((e) => e.atMs);
    expect(Math.abs(flips[0]! - flips[1]!)).toBeGreaterThanOrEqual(4.9 * 60_000);
  });
});
