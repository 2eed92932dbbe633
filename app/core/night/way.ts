import { altitudeCrossings, hiddenBelowDeg, horizontalAt, type NightSky, type Vec3 } from "~/core/sky";
import { MINUTE_MS, utcMs, type UtcInterval, type UtcMs } from "~/core/time";
import type { Place } from "./place";
import type { NightSteps } from "./steps";

/** When a target rises over an altitude and sinks below it in a night; the side it stays on where it does neither. */
export interface AltitudePassage {
  readonly altitudeDeg: number;
  readonly kind: "crosses" | "always" | "never";
  readonly risesMs: UtcMs | null;
  readonly setsMs: UtcMs | null;
}

/** A stretch of a night in which something stands before a target: a named landmark, or the drawn skyline. */
export interface Obstruction extends UtcInterval {
  readonly name: string;
}

/** How a target goes through a night from a place. */
export interface NightWay {
  readonly passages: readonly AltitudePassage[];
  readonly obstructions: readonly Obstruction[];
}

/** Altitudes that people ask for: five times the air, twice the air, and what a bright sky wants; common practice, no source. */
const ASKED_DEG = [20, 30, 35] as const;

/** Clock times of a target between sunset and sunrise: passages by closed form, obstructions to the minute. Airless altitudes. */
export function nightWay(place: Place, sky: NightSky, steps: NightSteps, ofDate: Vec3): NightWay {
  const { startMs } = steps;
  const endMs = startMs + steps.count * steps.stepMin * MINUTE_MS;
  const inNight = (ms: UtcMs) => ms >= startMs && ms <= endMs;
  const passages = ASKED_DEG.map((altitudeDeg): AltitudePassage => {
    const c = altitudeCrossings(sky, ofDate, altitudeDeg);
    if (c.kind !== "crosses") return { altitudeDeg, kind: c.kind, risesMs: null, setsMs: null };
    const [risesMs, setsMs] = [c.risesMs.find(inNight) ?? null, c.setsMs.find(inNight) ?? null];
    if (risesMs !== null || setsMs !== null) return { altitudeDeg, kind: "crosses", risesMs, setsMs };
    const isAbove = steps.count > 0 && horizontalAt(sky, ofDate, startMs).altitudeDeg >= altitudeDeg;
    return { altitudeDeg, kind: isAbove ? "always" : "never", risesMs, setsMs };
  });
  const landmarks = place.landmarks ?? [];
  const things = [
    { name: "", hides: (azimuthDeg: number) => hiddenBelowDeg(place.skyline, [], azimuthDeg) },
    ...landmarks.map((l) => ({ name: l.name, hides: (azimuthDeg: number) => hiddenBelowDeg([], [l], azimuthDeg) })),
  ];
  const obstructions = things.flatMap(({ name, hides }) => {
    const found: Obstruction[] = [];
    let from: number | null = null;
    for (let ms: number = startMs; ms <= endMs; ms += MINUTE_MS) {
      const { altitudeDeg, azimuthDeg } = horizontalAt(sky, ofDate, utcMs(ms));
      const isHidden = altitudeDeg > 0 && altitudeDeg < hides(azimuthDeg) && ms < endMs;
      if (isHidden) from ??= ms;
      else if (from !== null) {
        found.push({ name, startMs: utcMs(from), endMs: utcMs(ms) });
        from = null;
      }
    }
    return found;
  });
  return { passages, obstructions: obstructions.sort((a, b) => a.startMs - b.startMs) };
}
