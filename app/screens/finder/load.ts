import { refusePage } from "~/desk/page-fault";
import type { Desk } from "~/desk/desk";
import { starAt, starsWithin } from "~/core/catalog";
import { opticsOf } from "~/core/framing";
import { placeSky } from "~/core/night";
import { nakedEyeLimitMag, type GuideStar } from "~/core/finder";
import { apparentVector, horizontalAt, positionAngleDeg, separationDeg, sunAltitudeDeg } from "~/core/sky";
import { MINUTE_MS, utcMs, type UtcMs } from "~/core/time";
import { loadChoice, withSchool } from "~/desk/sky/choice";
import { findTarget } from "~/desk/sky/targets";
import { skyData } from "~/desk/sky/chart-sky";

const STEP_MIN = 15;
const TWILIGHT_DEG = -6; // bright stars show from the end of civil twilight
const WELL_UP_DEG = 20; // nobody finds anything in the murk
const FAINTEST_DRAWN = 6.8;

/** What a finder for a target needs: the sky of the night, guide stars, stars to draw, and what the camera will see. Null without a place. */
export async function loadFinder(desk: Desk, request: Request, targetId: string) {
  const { library, choice } = await loadChoice(desk, request);
  const [entry, stars] = await Promise.all([findTarget(library, targetId), skyData(desk)]);
  if (!entry) refusePage({ code: "unknownTarget" });
  if (!choice.place) return { entry, view: null };
  const place = withSchool(choice.place.data, new URL(request.url).searchParams);
  const sky = placeSky(place, choice.night);
  const vectorOf = (raDeg: number, decDeg: number) => apparentVector(sky, { frame: "icrs", raDeg, decDeg });
  const guides = stars.named.map(([raDeg, decDeg, magnitude, name]): GuideStar => ({
    name,
    magnitude,
    vector: vectorOf(raDeg, decDeg),
  }));
  const times: UtcMs[] = [];
  const stepMs = STEP_MIN * MINUTE_MS;
  for (let ms = Math.ceil(sky.window.startMs / stepMs) * stepMs; ms < sky.window.endMs; ms += stepMs)
    if (sunAltitudeDeg(sky, utcMs(ms)) < TWILIGHT_DEG) times.push(utcMs(ms));
  const target = apparentVector(sky, entry.at);
  const altitudeAt = (ms: UtcMs) => horizontalAt(sky, target, ms).altitudeDeg;
  /** The first time at which it stands well up, else when it is highest. */
  const whenUp =
    times.find((ms) => altitudeAt(ms) >= WELL_UP_DEG) ??
    times.reduce<UtcMs | null>((best, ms) => (best === null || altitudeAt(ms) > altitudeAt(best) ? ms : best), null);
  const [first, last] = [times[0], times.at(-1)];
  const isNow = first !== undefined && last !== undefined && desk.now() >= first && desk.now() <= last;
  if (isNow) times.push(desk.now());
  const optics = choice.rig ? opticsOf(choice.rig.data) : null;
  const here = entry.at;
  const { stars: table } = stars.stars;
  const inField = optics
    ? starsWithin(stars.stars, {
        ...here,
        radiusDeg: Math.min(optics.fieldWidthDeg, optics.fieldHeightDeg) / 2,
        faintest: 11,
      })
        .map((row) => starAt(table, row))
        .map((s) => ({
          magnitude: s.magnitude,
          arcmin: separationDeg(here, s.at) * 60,
          positionAngleDeg: positionAngleDeg(here, s.at),
        }))
        .filter((s) => s.arcmin < 30 * Math.min(optics.fieldWidthDeg, optics.fieldHeightDeg) && s.arcmin > 0.5)
        .sort((a, b) => a.magnitude - b.magnitude)
        .slice(0, 3)
    : [];
  return {
    entry,
    view: {
      place,
      night: choice.night,
      sky,
      target,
      guides,
      drawn: Array.from({ length: table.count }, (_, row) => starAt(table, row))
        .filter((s) => s.magnitude <= FAINTEST_DRAWN)
        .map((s) => ({ magnitude: s.magnitude, vector: apparentVector(sky, s.at) })),
      times: times.sort((a, b) => a - b),
      startMs: isNow && altitudeAt(desk.now()) >= WELL_UP_DEG ? desk.now() : whenUp,
      isNow,
      eyeLimitMag: nakedEyeLimitMag(place.skyMagPerArcsec2),
      optics,
      rig: choice.rig?.data ?? null,
      inField,
    },
  };
}
