import { readFileSync } from "node:fs";
import { unpackCatalog, unpackStars, type PackedCatalog } from "~/core/catalog";
import { coverOutlines, mosaicPanels, placeMosaic, skyToFrame, type MosaicLayout } from "~/core/framing";
import { exposureBooker, type BookingContext, type ExposureFacts } from "~/core/ledger";
import { liveState, type NightEvent } from "~/core/live";
import { NIGHT_STEP_MIN, placeNight, rankCatalog, USUAL_MOON, yearNights, yearOf } from "~/core/night";
import { nightDate, utcMs } from "~/core/time";
import { usualFilter } from "~/desk/kit/kit";
import { places, projects, rigs } from "../scripts/demo/group";

/** Timings of the hot paths on one core: the median of several runs after warming up. Reported, never asserted. */
const DATA = "app/data/"; // npm runs scripts from the root

function measure(name: string, aimMs: number, runs: number, work: () => unknown): void {
  for (let i = 0; i < 2; i++) work();
  const times = Array.from({ length: runs }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  }).sort((a, b) => a - b);
  const median = times[runs >> 1]!;
  console.log(
    `${name.padEnd(74)} ${median.toFixed(1).padStart(8)} ms   aim ${aimMs} ms   ${(median / aimMs).toFixed(2)} of it`,
  );
}

const catalog = unpackCatalog(JSON.parse(readFileSync(`${DATA}objects.json`, "utf8")) as PackedCatalog);
const stars = unpackStars(new Uint8Array(readFileSync(`${DATA}stars.bin`)));
if (!catalog.ok || !stars.ok) throw new Error("data does not unpack");
const place = places["place-garden"]!;
const FILTERS = (["L", "R", "G", "B", "Ha", "OIII"] as const).map((c) => usualFilter(c).data);
const night = nightDate("2026-12-20"); // a night with Moon, so that its part is counted

measure(
  `rank ${catalog.value.length} objects for one night, ${NIGHT_STEP_MIN} min steps, skyline and Moon`,
  150,
  11,
  () => {
    return rankCatalog(catalog.value, {
      night: placeNight(place, night, USUAL_MOON),
      rig: rigs["rig-refractor"]!,
      filters: FILTERS,
    });
  },
);

const target = { frame: "icrs", raDeg: 71, decDeg: 46.7 } as const;
const nights = yearNights(place, night, 365, USUAL_MOON);
measure("one target, 365 nights, with the year's Sun and Moon at hand", 30, 11, () => yearOf(nights, target, "L"));
measure("the year's Sun and Moon for a place, 365 nights (made once a place)", 1000, 3, () =>
  yearNights(place, night, 365, USUAL_MOON),
);

const layout: MosaicLayout = {
  centre: { frame: "icrs", raDeg: 312.9, decDeg: 30.75 },
  positionAngleDeg: 4,
  planeWidthArcmin: 137,
  planeHeightArcmin: 94,
  columns: 3,
  rows: 3,
  overlap: 0.15,
};
const wavy = Array.from({ length: 200 }, (_, i) => {
  const t = (i / 200) * 2 * Math.PI;
  const r = 150 + 40 * Math.sin(5 * t) + 12 * Math.sin(23 * t);
  return [1.6 * r * Math.cos(t), r * Math.sin(t)] as const;
});
measure("smallest grid for an outline of 200 corners, all angles", 100, 21, () => coverOutlines([wavy], layout));

const near = Array.from({ length: stars.value.count }, (_, i) => i).flatMap((i) => {
  if (stars.value.magnitude[i]! > 8) return [];
  const p = skyToFrame(layout, { frame: "icrs", raDeg: stars.value.raDeg[i]!, decDeg: stars.value.decDeg[i]! });
  return p && Math.hypot(p.xArcmin, p.yArcmin) < 350 ? [{ ...p, magnitude: stars.value.magnitude[i]! }] : [];
});
measure(`best place for a 3 × 3 grid: ${near.length} stars to mag 8, shift, turn and outline`, 150, 11, () => {
  const found = placeMosaic(
    { layout, stars: near, outline: { majorArcmin: 230, minorArcmin: 160, angleDeg: 0 } },
    { shiftArcmin: 45, turnDeg: 10 },
  );
  return mosaicPanels({ ...layout, positionAngleDeg: layout.positionAngleDeg + found.placement.turnDeg });
});

/** A hundred projects over the sky, and a thousand files of them. */
const loop = projects["project-loop"]!;
const booking: BookingContext = {
  memberId: "me",
  projects: Array.from({ length: 100 }, (_, i) => ({
    id: `p${i}`,
    project: { name: `p${i}`, targetId: "M 31", startedOn: "2026-10-01", school: "allPanelsEveryNight" as const, notes: "" },
    rigId: "rig-refractor",
    frameId: `f${i}`,
    frame: { projectId: `p${i}`, ...loop.frame, raDeg: (i * 37) % 360, decDeg: ((i * 23) % 140) - 60 },
    goals: null,
    frameRig: rigs["rig-refractor"]!,
    targetNames: [`M ${i}`],
  })),
  rigs: [{ id: "rig-refractor", rig: rigs["rig-refractor"]!, filters: FILTERS, lastPlaceId: null }],
  places: [{ id: "place-garden", place }],
}; // prettier-ignore
const files = Array.from({ length: 1000 }, (_, i): ExposureFacts => {
  const { raDeg, decDeg } = booking.projects[i % 100]!.frame;
  return {
    fileName: `${i}.fits`, sizeBytes: 1000, frameType: "light", object: null, startMs: utcMs(Date.UTC(2026, 11, 5, 23, 30) + i * 60_000), exposureSec: 300, filter: FILTERS[0]!.name, camera: null, gain: 100, temperatureC: -10, focalLengthMm: null,
    pixelPitchUm: null, binning: 1, centre: { frame: "icrs", raDeg, decDeg }, isSolved: true, solutionFault: null, widthPx: 6248, site: null, positionAngleDeg: null, pixelScaleArcsec: null, hints: [], wallMs: null, offset: null, rotatorDeg: null, measure: null,
  }; // prettier-ignore
});
measure("1,000 files booked among 100 frames", 300, 7, () => {
  const book = exposureBooker(booking);
  return files.map((facts) => book(facts));
});

const NIGHT_MS = Date.UTC(2026, 11, 5, 17);
const blocks = Array.from({ length: 40 }, (_, i) => ({
  kind: "block" as const,
  startMs: utcMs(NIGHT_MS + i * 15 * 60_000),
  endMs: utcMs(NIGHT_MS + (i + 1) * 15 * 60_000),
  projectId: "p",
  panel: `P${1 + (i % 6)}`,
  channel: "Ha" as const,
  filterName: "Ha",
  subs: 3,
  subSec: 300,
  stage: 0,
}));
const pressed: readonly NightEvent[] = Array.from({ length: 2000 }, (_, i) => ({
  id: `e${(i * 7919) % 2000}`,
  memberId: "m",
  night: nightDate("2026-12-05"),
  rigId: "r",
  atMs: NIGHT_MS + ((i * 7919) % 2000) * 18_000,
  is:
    i % 3 === 0
      ? { what: "done", of: blocks[i % 40]!, kept: 3, lost: 0, reason: "" }
      : { what: "cloud", isClear: i % 2 === 0 },
}));
measure("how a night stands after 2,000 presses", 2, 101, () => liveState({ lines: blocks }, pressed, utcMs(NIGHT_MS + 18e6))); // prettier-ignore
