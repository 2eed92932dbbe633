import { HOUR_MS } from "~/core/time";

/** Air and sky over a point in one hour, as the stand-in services' pretended world has it. */
export interface PretendedHour {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  readonly airC: number;
  readonly dewC: number;
  readonly windMs: number;
  readonly gustMs: number;
  readonly rain: number;
  readonly seeingArcsec: number;
  readonly hazeMag: number;
}

/** A number in [0, 1) that depends on nothing but its arguments. */
export function chanceOf(...parts: readonly number[]): number {
  let h = 0x811c9dc5;
  for (const part of parts) {
    h = Math.imul(h ^ (Math.round(part) | 0), 0x01000193);
    h = Math.imul(h ^ (h >>> 15), 0x85ebca6b);
    h ^= h >>> 13;
  }
  return (h >>> 0) / 4294967296;
}

/** Smooth noise in [0, 1] with a new value every `everyHours`. */
export function noise(seed: number, ms: number, everyHours: number): number {
  const x = ms / HOUR_MS / everyHours;
  const i = Math.floor(x);
  const t = (1 - Math.cos(Math.PI * (x - i))) / 2;
  return chanceOf(seed, i) * (1 - t) + chanceOf(seed, i + 1) * t;
}

const WORLD = 51 * 7919; // which of the possible worlds is pretended

const clamp01 = (v: number): number => Math.min(1, Math.max(0, v));
const steep = (v: number, middle: number): number => 1 / (1 + Math.exp(-14 * (v - middle)));

/** The weather of the pretended world at a point: smooth, seasonal, invented. The same everywhere within about 50 km. */
export function pretendedHour(latitudeDeg: number, longitudeDeg: number, ms: number): PretendedHour {
  const seed = Math.round(latitudeDeg * 2) * 1000 + Math.round(longitudeDeg * 2) + WORLD;
  const front = noise(seed + 1, ms, 31) * 0.6 + noise(seed + 2, ms, 7) * 0.4;
  const dayOfYear = (ms / 86_400_000) % 365.25;
  const season = Math.cos((2 * Math.PI * (dayOfYear - 200)) / 365.25) * (latitudeDeg < 0 ? -1 : 1);
  const localHour = (ms / HOUR_MS + longitudeDeg / 15) % 24;
  const airC =
    24 -
    0.35 * Math.abs(latitudeDeg) +
    9 * season +
    4 * Math.cos((2 * Math.PI * (localHour - 15)) / 24) +
    5 * (noise(seed + 3, ms, 60) - 0.5);
  const low = steep(front, 0.55);
  const windMs = 1 + 9 * noise(seed + 4, ms, 20) ** 2;
  return {
    low,
    middle: steep(0.5 * front + 0.5 * noise(seed + 5, ms, 11), 0.6),
    high: steep(noise(seed + 6, ms, 17), 0.68),
    airC,
    dewC: airC - 0.5 - 7 * noise(seed + 7, ms, 26) * (1 - 0.5 * low),
    windMs,
    gustMs: windMs * (1.3 + 0.6 * noise(seed + 8, ms, 9)),
    rain: clamp01((front - 0.62) * 3),
    seeingArcsec: 1.6 + 2.2 * noise(seed + 9, ms, 13),
    hazeMag: 0.35 * noise(seed + 10, ms, 40),
  };
}
