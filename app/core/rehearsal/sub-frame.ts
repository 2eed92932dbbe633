import type { StarZones } from "~/core/catalog";
import { exposureFrame, frameSeed, type FrameAsk } from "~/core/observatory";
import { offsetBy } from "~/core/sky";
import { MINUTE_MS, utcMs } from "~/core/time";
import { panelKey, skyKey, type RehearsalNight, type RehearsedSub } from "./question";

const WANDER_ARCSEC = 8; // between subs, by dithering and drift; a proposal

/** The exposure of a rehearsed sub, as the frame maker asks for it; null where its sky is not known. */
export function frameOfSub(
  night: RehearsalNight,
  seed: number,
  sub: Pick<RehearsedSub, "rig" | "of" | "exposure">,
  cropPx: number | null,
): FrameAsk | null {
  const rig = night.rigs[sub.rig]!;
  const { exposure: e, of } = sub;
  const [at, sky, filter] = [rig.pointings[panelKey(of)], rig.skies[skyKey(of)], rig.filters[of.filterName]];
  if (!at || !sky || !filter) return null;
  const middleMs = e.startMs + e.sec * 500;
  const step = Math.max(0, Math.min(sky.passes.length - 1, Math.floor((middleMs - sky.startMs) / (sky.stepMin * MINUTE_MS)))); // prettier-ignore
  const own = frameSeed(seed, rig.rig.name, e.startMs);
  const cloud = e.passes;
  // Over a flip the camera hangs the other way round.
  const turn = e.pierSide === "west" ? 180 : 0;
  return {
    scene: {
      kind: "light",
      pointing: offsetBy(at.pointing, { positionAngleDeg: own % 360, distanceDeg: WANDER_ARCSEC / 3600 }),
      positionAngleDeg: (at.positionAngleDeg + turn) % 360,
      subject: rig.subjects[of.projectId] ?? null,
      passes: Math.max(1e-4, sky.passes[step]! * cloud),
      // Cloud lit from below is brighter than the sky it hides; a proposal.
      skyOver: sky.skyOver[step]! * (1 + 1.5 * (1 - cloud)),
      zenithSkyMag: night.zenithSkyMag,
      fwhmArcsec: e.fwhmArcsec,
      trailArcsec: e.trailArcsec,
    },
    rig: rig.rig,
    filter,
    startMs: e.startMs,
    exposureSec: e.sec,
    object: `${rig.names[of.projectId] ?? ""} ${of.panel}`.trim(),
    sensorC: Math.round(e.sensorC * 10) / 10,
    airC: Math.round(e.airC * 10) / 10,
    focusSteps: e.focusSteps,
    pierSide: e.pierSide,
    site: night.site,
    cropPx,
    seed: own,
  };
}

/** The file that a frame of a sub is, and its name. */
export function fileOfSub(
  night: RehearsalNight,
  seed: number,
  sub: Pick<RehearsedSub, "rig" | "of" | "exposure">,
  cropPx: number | null,
  stars: StarZones,
): { readonly name: string; readonly bytes: Uint8Array<ArrayBuffer> } | null {
  const ask = frameOfSub(night, seed, sub, cropPx);
  if (!ask) return null;
  const at = new Date(sub.exposure.startMs).toISOString().slice(0, 19).replaceAll(":", "");
  const words = `simulated ${at} ${sub.of.panel.split(" ")[0]} ${sub.of.channel} ${sub.rig + 1}`;
  return { name: `${words.replaceAll(/[^\w-]+/g, "_")}.fits`, bytes: exposureFrame(ask, stars) };
}

/** How many calibration frames of a kind are made; enough to be matched, not to be stacked. */
const OF_A_KIND = 10;

/** The calibration frames of a night as files: darks of every sub length, bias, and flats of every filter that was used. */
export function* calibrationFiles(
  night: RehearsalNight,
  seed: number,
  subs: readonly RehearsedSub[],
  cropPx: number | null,
  stars: StarZones,
): Generator<{ readonly name: string; readonly bytes: Uint8Array<ArrayBuffer> }> {
  for (const [index, { rig, filters }] of night.rigs.entries()) {
    const mine = subs.filter((s) => s.rig === index);
    const last = mine.at(-1)?.exposure;
    if (!last) continue;
    const lengths = [...new Set(mine.map((s) => s.exposure.sec))];
    const used = [...new Set(mine.map((s) => s.of.filterName))].flatMap((name) => filters[name] ?? []);
    const first = Object.values(filters)[0]!;
    const sets = [
      ...lengths.map((sec) => ({ kind: "dark" as const, sec, filter: first })),
      { kind: "bias" as const, sec: 0, filter: first },
      ...used.map((filter) => ({ kind: "flat" as const, sec: 2, filter })),
    ];
    let startMs = last.startMs + (last.sec + 60) * 1000;
    for (const { kind, sec, filter } of sets)
      for (let i = 0; i < OF_A_KIND; i++, startMs += (sec + 5) * 1000) {
        const { sensorC, airC, focusSteps } = last;
        const ask: FrameAsk = {
          scene: { kind }, rig, filter, startMs: utcMs(startMs), exposureSec: sec, object: "", cropPx, site: night.site,
          sensorC: Math.round(sensorC * 10) / 10, airC: Math.round(airC * 10) / 10, focusSteps, pierSide: null,
          seed: frameSeed(seed, rig.name, startMs),
        }; // prettier-ignore
        const words = `simulated ${kind} ${sec} ${kind === "flat" ? filter.name : ""} ${i + 1} ${index + 1}`;
        yield { name: `${words.replaceAll(/[^\w-]+/g, "_")}.fits`, bytes: exposureFrame(ask, stars) };
      }
  }
}
