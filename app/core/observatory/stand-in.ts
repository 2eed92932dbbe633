import { criticalFocusZoneUm, USUAL_ABOVE_AIR_C, type Rig } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { batteryLife } from "~/core/night";
import { FWHM_PER_SIGMA, randomFrom } from "~/core/numeric";
import { MINUTE_MS, type UtcMs } from "~/core/time";
import { DEW_SPREAD_C, USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import { frameSeed } from "./exposure-frame";
import { isOpen, MOMENT_MS, momentAt, type TrueWeather } from "./true-weather";

/** A rig of the stand-in observatory, with what no list of kit says of it. */
export interface StandInKit {
  readonly rig: Rig;
  readonly weather: TrueWeather;
  readonly seed: number;
  /** °C of air by which focus is lost. */
  readonly focusPerC: number;
  /** How long the mount goes on past the meridian before it stops, min. */
  readonly pastMeridianMin: number;
  readonly polarErrorArcmin: number;
  /** Peak to peak, and how long a turn of the worm takes. */
  readonly periodicErrorArcsec: number;
  readonly wormSec: number;
  /** By how many steps the focus moves for a degree of air, and from filter to filter by name. */
  readonly focusStepsPerC: number;
  readonly filterSteps: Readonly<Record<string, number>>;
}

/** Where a telescope is pointed. */
export interface Aim {
  readonly projectId: string;
  readonly panel: string;
  /** When it has to change sides, if it has not by then; null = it need not tonight. */
  readonly meridianMs: UtcMs | null;
}

/** All devices of a rig at an instant. */
export interface ObservatoryState {
  readonly atMs: UtcMs;
  readonly mount: { readonly aim: Aim | null; readonly pierSide: "east" | "west"; readonly isParked: boolean };
  readonly focuser: { readonly steps: number; readonly atAirC: number };
  readonly wheel: { readonly filterName: string };
  readonly camera: { readonly sensorC: number; readonly isCooling: boolean };
  readonly heater: { readonly isOn: boolean };
  readonly guider: { readonly hasLostStar: boolean };
  /** Dew on the glass, [0, 1]. */
  readonly wet: number;
  /** Taken out of the battery so far, Wh; and when it is empty at today's draw: null = mains, or no battery was told of. */
  readonly battery: { readonly spentWh: number; readonly emptyMs: UtcMs | null };
}

/** What a rig can be told to do. All take the time they say. */
export type Command =
  | { readonly do: "slew"; readonly aim: Aim; readonly sec: number }
  | { readonly do: "flip" | "focus" | "dry" | "findGuideStar"; readonly sec: number }
  | { readonly do: "filter"; readonly name: string; readonly sec: number }
  | { readonly do: "heater" | "cooler"; readonly isOn: boolean }
  | { readonly do: "wait"; readonly untilMs: number }
  | { readonly do: "park" }
  | { readonly do: "expose"; readonly sec: number; readonly restSec: number };

/** An exposure as the devices saw it. */
export interface TakenExposure {
  readonly startMs: UtcMs;
  readonly sec: number;
  /** Share of light that cloud and dew let through. */
  readonly passes: number;
  /** Whether the sky was open all along. */
  readonly isOpen: boolean;
  /** Blur by the air, focus and guiding, at the zenith; of the focus alone. Arcsec. */
  readonly fwhmArcsec: number;
  readonly focusBlurArcsec: number;
  readonly guidingRmsArcsec: number;
  /** How far stars wandered, arcsec to the right of the picture and up. */
  readonly trailArcsec: { readonly x: number; readonly y: number };
  readonly gustKmh: number;
  readonly wet: number;
  readonly airC: number;
  readonly sensorC: number;
  readonly focusSteps: number;
  readonly filterName: string;
  readonly pierSide: "east" | "west";
  /** It was taken without a guide star. */
  readonly hasLostStar: boolean;
  /** The mount stood still: it would not go past the meridian, or there was no power. */
  readonly hasStopped: boolean;
}

const LOSES_STAR = 1.5; // gusts over the rig's limit at which the guide star is gone; a proposal
const gustLimit = (rig: Rig): number => rig.gustLimitKmh ?? USUAL_GUST_LIMIT_KMH;
const SIDEREAL_ARCSEC_PER_SEC = 15.04;
const DRIFT_PER_POLAR_ARCMIN = 0.2625 / 60; // arcsec a second at most, MATHS C3.14
const WET_MIN = 40; // until glass near the dew point is blind; a proposal
const DRY_MIN = 15;
const GUIDING_OF_SEEING = 0.2; // RMS over FWHM of the air; a proposal
const MIDDLE_STEPS = 5000;
const GEOMETRIC = 0.7; // width of a disc of blur against its diameter

/** A rig as it stands when nothing has begun. */
export function standInAt(kit: StandInKit, atMs: UtcMs): ObservatoryState {
  const { airC } = momentAt(kit.weather, atMs);
  const { rig } = kit;
  const state: ObservatoryState = {
    atMs,
    mount: { aim: null, pierSide: "east", isParked: true },
    focuser: { steps: bestSteps(kit, "", airC), atAirC: airC },
    wheel: { filterName: "" },
    camera: {
      sensorC: rig.isCooled ? rig.workingTempC : airC + (rig.aboveAirC ?? USUAL_ABOVE_AIR_C),
      isCooling: rig.isCooled,
    },
    heater: { isOn: false },
    guider: { hasLostStar: false },
    wet: 0,
    battery: { spentWh: 0, emptyMs: null },
  };
  return passed(kit, state, atMs);
}

/** What a rig draws as it is switched now, W; and what its battery gives in all, Wh. Null = mains. */
function drawOf({ rig, weather }: StandInKit, s: ObservatoryState): { watts: number; usableWh: number } | null {
  if (!rig.power) return null;
  const { airC } = momentAt(weather, s.atMs);
  const life = batteryLife(rig.power, rig, { fromMs: s.atMs, airC });
  const watts = life.drawW - (s.heater.isOn ? 0 : rig.power.dewW) - (s.camera.isCooling ? 0 : life.coolerW);
  return { watts, usableWh: life.usableWh };
}

/** The same rig once so much time has gone by. */
function passed(kit: StandInKit, s: ObservatoryState, untilMs: number): ObservatoryState {
  let { wet } = s;
  for (let ms = s.atMs as number; ms < untilMs; ms += MOMENT_MS) {
    const min = Math.min(MOMENT_MS, untilMs - ms) / MINUTE_MS;
    const { airC, dewC } = momentAt(kit.weather, ms);
    const isWetting = airC - dewC < DEW_SPREAD_C && !s.heater.isOn && !s.mount.isParked;
    wet = Math.max(0, Math.min(1, wet + (isWetting ? min / WET_MIN : -min / DRY_MIN)));
  }
  const { airC } = momentAt(kit.weather, untilMs);
  const warm = airC + (kit.rig.aboveAirC ?? USUAL_ABOVE_AIR_C);
  const draw = drawOf(kit, s);
  const spentWh = s.battery.spentWh + ((draw?.watts ?? 0) * Math.max(0, untilMs - s.atMs)) / 3_600_000;
  const leftH = draw && draw.watts > 0 ? Math.max(0, draw.usableWh - spentWh) / draw.watts : null;
  return {
    ...s,
    atMs: Math.max(untilMs, s.atMs) as UtcMs,
    wet,
    camera: { ...s.camera, sensorC: s.camera.isCooling ? kit.rig.workingTempC : warm },
    battery: { spentWh, emptyMs: leftH === null ? null : ((Math.max(untilMs, s.atMs) + leftH * 3_600_000) as UtcMs) },
  };
}

/** Steps at which stars are smallest, in the filter and the air of an instant. */
const bestSteps = (kit: StandInKit, filterName: string, airC: number): number =>
  Math.round(MIDDLE_STEPS - kit.focusStepsPerC * airC + offsetOf(kit, filterName));
const offsetOf = (kit: StandInKit, filterName: string): number => kit.filterSteps[filterName] ?? 0;

/** What a rig is after a command, and what it exposed. */
export function afterCommand(
  kit: StandInKit,
  s: ObservatoryState,
  command: Command,
): { readonly state: ObservatoryState; readonly exposure: TakenExposure | null } {
  const until = (sec: number) => s.atMs + sec * 1000;
  const done = (state: ObservatoryState, exposure: TakenExposure | null = null) => ({ state, exposure });
  switch (command.do) {
    case "slew": {
      const isOther = command.aim.projectId !== s.mount.aim?.projectId;
      const pierSide = isOther ? "east" : s.mount.pierSide;
      return done(
        passed(
          kit,
          { ...s, mount: { aim: command.aim, pierSide, isParked: false }, guider: { hasLostStar: false } },
          until(command.sec),
        ),
      );
    }
    case "flip": {
      const aim = s.mount.aim && { ...s.mount.aim, meridianMs: null };
      return done(passed(kit, { ...s, mount: { ...s.mount, aim, pierSide: "west" } }, until(command.sec)));
    }
    case "focus": {
      const then = passed(kit, s, until(command.sec));
      const { airC } = momentAt(kit.weather, then.atMs);
      return done({ ...then, focuser: { steps: bestSteps(kit, s.wheel.filterName, airC), atAirC: airC } });
    }
    case "filter": {
      // Offsets of filters are known: the focuser follows.
      const moved = offsetOf(kit, command.name) - offsetOf(kit, s.wheel.filterName);
      const focuser = { ...s.focuser, steps: s.focuser.steps + moved };
      return done(passed(kit, { ...s, wheel: { filterName: command.name }, focuser }, until(command.sec)));
    }
    case "findGuideStar":
      return done({ ...passed(kit, s, until(command.sec)), guider: { hasLostStar: false } });
    case "dry":
      return done({ ...passed(kit, s, until(command.sec)), wet: 0 });
    case "heater":
      return done(passed(kit, { ...s, heater: { isOn: command.isOn } }, s.atMs));
    case "cooler":
      return done(passed(kit, { ...s, camera: { ...s.camera, isCooling: command.isOn && kit.rig.isCooled } }, s.atMs));
    case "wait":
      return done(passed(kit, s, command.untilMs));
    case "park":
      return done({ ...s, mount: { ...s.mount, aim: null, isParked: true } });
    case "expose": {
      const after = passed(kit, s, until(command.sec));
      const exposure = exposureOf(kit, s, after, command.sec);
      const hasLostStar =
        kit.rig.isGuided && (exposure.hasLostStar || exposure.gustKmh > LOSES_STAR * gustLimit(kit.rig));
      const rested = passed(kit, { ...after, guider: { hasLostStar } }, until(command.sec + command.restSec));
      return done(rested, exposure);
    }
  }
}

/** What an exposure between two instants came out like. */
function exposureOf(kit: StandInKit, s: ObservatoryState, after: ObservatoryState, sec: number): TakenExposure {
  const { rig, weather } = kit;
  const { focalRatio, focalLengthMm, diffractionArcsec } = opticsOf(rig);
  const random = randomFrom(frameSeed(kit.seed, rig.name, s.atMs));
  const moments = Array.from({ length: Math.max(1, Math.ceil((sec * 1000) / MOMENT_MS)) + 1 }, (_, i) =>
    momentAt(weather, Math.min(after.atMs, s.atMs + i * MOMENT_MS)),
  );
  const mean = (of: (m: (typeof moments)[number]) => number) => moments.reduce((a, m) => a + of(m), 0) / moments.length;
  const airC = mean((m) => m.airC);
  const gustKmh = Math.max(...moments.map((m) => m.gustKmh));
  // The focus leaves its critical zone, half of which lies on each side, by `focusPerC`; the disc of blur is the way over the focal ratio.
  const offC = (bestSteps(kit, s.wheel.filterName, airC) - s.focuser.steps) / kit.focusStepsPerC;
  const offUm = (Math.abs(offC) / kit.focusPerC) * (criticalFocusZoneUm(focalRatio) / 2);
  const focusBlurArcsec = (GEOMETRIC * offUm * 206.265) / focalRatio / focalLengthMm;
  const limit = gustLimit(rig);
  const seeing = mean((m) => m.seeingArcsec);
  const pixel = opticsOf(rig).pixelScaleArcsecPerPx;
  const guidingRmsArcsec = Math.hypot(GUIDING_OF_SEEING * seeing, 0.8 * pixel * (gustKmh / limit) ** 2);
  const emptyMs = s.battery.emptyMs;
  const meridianMs = s.mount.aim?.meridianMs ?? null;
  const hasStopped =
    s.mount.isParked ||
    (emptyMs !== null && after.atMs > emptyMs) ||
    (meridianMs !== null && rig.flipsAtMeridian && after.atMs > meridianMs + kit.pastMeridianMin * MINUTE_MS);
  const angle = 2 * Math.PI * random();
  const turn = (2 * Math.PI * (s.atMs / 1000)) / kit.wormSec;
  const worm = (kit.periodicErrorArcsec / 2) * (Math.sin(turn + (2 * Math.PI * sec) / kit.wormSec) - Math.sin(turn));
  // Guided, what is left is what gusts leave on one side; unguided, the worm in right ascension and the poles in declination.
  const trailArcsec = hasStopped
    ? { x: SIDEREAL_ARCSEC_PER_SEC * Math.min(sec, 30), y: 0 }
    : rig.isGuided
      ? { x: Math.cos(angle) * guidingRmsArcsec * (gustKmh / limit) ** 2, y: Math.sin(angle) * guidingRmsArcsec * 0.3 }
      : { x: worm, y: kit.polarErrorArcmin * DRIFT_PER_POLAR_ARCMIN * sec };
  return {
    startMs: s.atMs,
    sec,
    passes: mean((m) => m.passes) * (1 - 0.8 * (s.wet + after.wet) * 0.5),
    isOpen: moments.every(isOpen),
    fwhmArcsec: Math.hypot(seeing, diffractionArcsec, focusBlurArcsec, FWHM_PER_SIGMA * guidingRmsArcsec),
    focusBlurArcsec,
    guidingRmsArcsec,
    trailArcsec,
    gustKmh,
    wet: Math.max(s.wet, after.wet),
    airC,
    sensorC: after.camera.sensorC,
    focusSteps: s.focuser.steps,
    filterName: s.wheel.filterName,
    pierSide: s.mount.pierSide,
    hasLostStar: s.guider.hasLostStar,
    hasStopped,
  };
}
