import { cloudChoices, hoursAhead } from "~/core/live";
import { isOpen, MOMENT_MS } from "~/core/observatory";
import { MINUTE_MS, type UtcMs } from "~/core/time";
import { DEW_SPREAD_C, oddsSeen, USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import type { Way, WayKey } from "./question";
import { wayOf, type RigAtNight, type Steps } from "./rig-at-night";

const WIND_PAUSE_MS = 60 * MINUTE_MS; // at most, then one asks again
const FIND_STAR_SEC = 5 * 60;
const NOTICED = 2; // subs without a guide star until somebody sees it
const BATTERY_AHEAD_MS = 45 * MINUTE_MS;
const LOOK_AGAIN_MS = 20 * MINUTE_MS; // nobody looks up at once again
const DRY_SEC = 15 * 60;
const SETTLED = 2; // moments that a sky stays open before one trusts it

/** What may be wrong before a sub is begun. */
export function* beforeSub(r: RigAtNight): Steps {
  const { overheads, gustLimitKmh } = r.of.rig;
  if (r.flipMs !== null && r.atMs >= r.flipMs) yield* r.flip(overheads.flipMin * 60);
  yield* wind(r, gustLimitKmh ?? USUAL_GUST_LIMIT_KMH);
  const blind = r.shared.subs.filter((s) => s.rig === r.index).slice(-NOTICED);
  if (r.s.guider.hasLostStar && blind.length === NOTICED && blind.every((s) => s.exposure.hasLostStar))
    r.byHand({ do: "findGuideStar", sec: FIND_STAR_SEC });
  yield* dew(r);
  yield* battery(r);
  if (!r.isOver) yield* focusGone(r);
}

/** Gusts beyond the rig's limit: spoken of once an hour, and again after a pause that was too short. */
function* wind(r: RigAtNight, limitKmh: number): Steps {
  while (r.weather.gustKmh > limitKmh && !r.isQuiet("wind") && r.atMs < r.endMs) {
    const hour = r.shared.night.hours.findLast((h) => h.startMs <= r.atMs);
    const stays = (hour?.gustKmh ?? 0) > limitKmh;
    const [wait, goOn] = [wayOf("waitForWind", 0), wayOf("goOn", 0)];
    const trouble = { about: "wind", gustKmh: r.weather.gustKmh, limitKmh } as const;
    if ((yield* r.ask(trouble, stays ? [wait, goOn] : [goOn, wait])) === "goOn") return r.hush("wind");
    const untilMs = r.atMs + WIND_PAUSE_MS;
    while (r.weather.gustKmh > limitKmh && r.atMs < untilMs) {
      r.do({ do: "wait", untilMs: r.atMs + MOMENT_MS });
      yield* r.step();
    }
    // Whoever pauses is there when it drops, and has the star again.
    if (r.s.guider.hasLostStar) r.do({ do: "findGuideStar", sec: 0 });
  }
}

/** Glass about to be wet: the heater, a cloth, or on. */
function* dew(r: RigAtNight): Steps {
  const { airC, dewC } = r.weather;
  const spreadC = airC - dewC;
  if (spreadC >= DEW_SPREAD_C || r.s.heater.isOn || r.isQuiet("dew")) return;
  r.hush("dew");
  const { power } = r.of.rig;
  const heater = power === undefined || power.dewW > 0 ? [wayOf("heaterOn", 0)] : [];
  const does = yield* r.ask({ about: "dew", spreadC }, [...heater, wayOf("dry", DRY_SEC / 60), wayOf("goOn", 0)]);
  if (does === "heaterOn") r.do({ do: "heater", isOn: true });
  if (does === "dry") r.byHand({ do: "dry", sec: DRY_SEC });
}

/** A battery that will not last the sheet. */
function* battery(r: RigAtNight): Steps {
  const { emptyMs } = r.s.battery;
  if (emptyMs === null || emptyMs >= r.endMs || emptyMs - r.atMs >= BATTERY_AHEAD_MS || r.isQuiet("battery")) return;
  r.hush("battery");
  const cooler = r.s.camera.isCooling ? [wayOf("coolerOff", 0)] : [];
  const ways = [...cooler, wayOf("packUp", r.packUpMin), wayOf("goOn", 0)];
  const does = yield* r.ask({ about: "battery", emptyMs }, ways);
  if (does === "coolerOff") r.do({ do: "cooler", isOn: false });
  if (does === "packUp") r.packUp();
}

/** Focus gone with the air; let pass, it is spoken of at the next such change. */
function* focusGone(r: RigAtNight): Steps {
  const byC = r.weather.airC - r.s.focuser.atAirC;
  if (Math.abs(byC) < r.of.focusPerC * r.focusTold) return;
  const { focusMin } = r.of.rig.overheads;
  const does = yield* r.ask({ about: "focus", byC }, [wayOf("focusNow", focusMin), wayOf("goOn", 0)]);
  if (does === "focusNow") r.focus(focusMin * 60, true);
  else r.focusTold = Math.floor(Math.abs(byC) / r.of.focusPerC) + 1;
}

/** A sky that has closed; true = the night goes on. */
export function* closedSky(r: RigAtNight): Steps<boolean> {
  const { shared } = r;
  r.tell({ what: "cloud", isClear: false });
  for (;;) {
    const { does, untilMs, cloud } = yield* wayUnderCloud(r);
    r.tell({ what: "decided", choice: does as "wait" | "darks" | "packUp" | "sleep", untilMs });
    if (does === "sleep") {
      r.do({ do: "park" });
      r.leave();
      return false;
    }
    if (does === "packUp" || untilMs === null) {
      if (does === "darks") shared.darksMin += cloud!.darksMin;
      r.packUp();
      return false;
    }
    const fromMs = r.atMs;
    for (let open = 0; r.atMs < untilMs && open < SETTLED;) {
      r.do({ do: "wait", untilMs: Math.min(untilMs, r.atMs + MOMENT_MS) });
      yield* r.step();
      // Under the cap one sees the sky as well as anybody.
      open = isOpen(r.weather) ? open + 1 : 0;
    }
    if (does === "darks") shared.darksMin += Math.min(r.of.darksMin, (r.atMs - fromMs) / MINUTE_MS);
    if (r.atMs >= r.endMs) {
      r.packUp();
      return false;
    }
    if (isOpen(r.weather)) {
      r.tell({ what: "cloud", isClear: true });
      return true;
    }
  }
}

/** The way under a closed sky: one sky, one word, so what was just said of it beside one rig holds for the others, as far as they can. */
function* wayUnderCloud(r: RigAtNight): Steps<Way> {
  const { shared } = r;
  const look = { atMs: r.atMs, isClear: false };
  const hours = shared.night.hours.map(({ startMs, odds }) => ({ startMs, odds: oddsSeen(odds, look, startMs) }));
  const soonest = r.atMs + LOOK_AGAIN_MS;
  const ways = cloudChoices({
    nowMs: r.atMs,
    hours: hoursAhead(r.of.sheet, hours),
    darksMin: Math.max(0, r.of.darksMin - shared.darksMin),
    packUpMin: r.packUpMin,
  }).map((cloud): Way => {
    const untilMs = cloud.untilMs === null ? null : (Math.max(cloud.untilMs, soonest) as UtcMs);
    return { does: cloud.does, untilMs, cloud, takesMin: 0 };
  });
  const same = shared.cloudSaid && r.atMs < shared.cloudSaid.untilMs ? shared.cloudSaid.does : null;
  const wayTo = (does: WayKey | null) => ways.find((w) => w.does === does);
  const heard = wayTo(same) ?? (same === "darks" ? wayTo("wait") : undefined);
  const way = heard ?? wayTo(yield* r.ask({ about: "cloud" }, ways))!;
  shared.cloudSaid = { untilMs: way.untilMs ?? soonest, does: way.does };
  return way;
}
