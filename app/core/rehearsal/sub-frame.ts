import type { StarZones } from "~/core/catalog";
import { exposureFrame, frameSeed, type FrameAsk } from "~/core/observatory";
import { MINUTE_MS } from "~/core/time";
import { panelKey, skyKey, type RehearsalNight, type RehearsedSub } from "./question";

const WANDER_ARCSEC = 8; // between subs, by dithering and drift; a proposal

/** The exposure of a rehearsed sub, as the frame maker asks for it; null where its sky is not known. */
export function frameOfSub(
  night: RehearsalNight,
  seed: number,
  sub: Pick<RehearsedSub, "rig" | "of" | "exposure">,
  cropPx: number | null,
): FrameAsk | null {
  // prettier-ignore
  const rig = night.rigs[sub.rig]!;
  const { exposure: e, of } = sub;
  const [at, sky, filter] = [rig.pointings[panelKey(of)], rig.skies[skyKey(of)], rig.filters[of.filterName]];
  if (!at || !sky || !filter) return null;
  const middleMs = e.startMs + e.sec * 500;
  const step = Math.max(0, Math.min(sky.passes.length - 1, Math.floor((middleMs - sky.startMs) / (sky.stepMin * MINUTE_MS)))); // prettier-ignore
  const own = frameSeed(seed, rig.rig.name, e.startMs);
  const angle = (own % 6283) / 1000;
  const { raDeg, decDeg } = at.pointing;
  const off = WANDER_ARCSEC / 3600;
  const cloud = e.passes;
  // Over a flip the camera hangs the other way round.
  const turn = e.pierSide === "west" ? 180 : 0;
  return {
    scene: {
      kind: "light",
      pointing: {
        frame: "icrs",
        raDeg: (raDeg + (off * Math.cos(angle)) / Math.max(0.05, Math.cos((decDeg * Math.PI) / 180)) + 360) % 360,
        decDeg: Math.max(-90, Math.min(90, decDeg + off * Math.sin(angle))),
      },
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
  // prettier-ignore
  const ask = frameOfSub(night, seed, sub, cropPx);
  if (!ask) return null;
  const at = new Date(sub.exposure.startMs).toISOString().slice(0, 19).replaceAll(":", "");
  const words = `simulated ${at} ${sub.of.panel.split(" ")[0]} ${sub.of.channel} ${sub.rig + 1}`;
  return { name: `${words.replaceAll(/[^\w-]+/g, "_")}.fits`, bytes: exposureFrame(ask, stars) };
}
