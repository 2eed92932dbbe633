import { drawnWeather, type Command, type TrueWeather } from "~/core/observatory";
import { MINUTE_MS, type UtcMs } from "~/core/time";
import { rigEvening } from "./evening";
import type { Decision, Played, RehearsalNight, WayKey } from "./question";
import { RigAtNight, type Shared } from "./rig-at-night";

/** The weather of a night: as it is prepared, else drawn by the seed. */
export const weatherOf = (night: RehearsalNight, seed: number): TrueWeather =>
  night.weather ?? drawnWeather(night.hours, seed);

/** By whom ways are chosen: those given first, then nobody, or the advice. */
export interface PlayBy {
  readonly ways: readonly WayKey[];
  /** What is done once those are used up: it stops and asks, or goes on by the advice. */
  readonly then: "ask" | "advice";
}

/**
 * Plays a night on the stand-in: the same night, seed and ways give the same to the last sub. Rigs run side by side, what needs hands is
 * done one after the other.
 */
export function playNight(night: RehearsalNight, seed: number, { ways, then }: PlayBy): Played {
  const weather = weatherOf(night, seed);
  const commands = night.rigs.map((): Command[] => []);
  const shared: Shared = {
    night,
    weather,
    seed,
    subs: [],
    events: [],
    commands,
    darksMin: 0,
    cloudSaid: null,
    busyMs: 0,
    leftMs: [],
  };
  const runs = night.rigs.map((rig, i) => {
    const play = rigEvening(new RigAtNight(shared, i, rig));
    return { play, at: play.next() };
  });
  const decided: { decision: Decision; does: WayKey }[] = [];
  const startMs = Math.min(...night.rigs.flatMap((r) => r.sheet.lines.map((l) => l.startMs)));
  for (;;) {
    const on = runs.filter((r) => !r.at.done);
    const first = on.reduce<(typeof on)[number] | null>((a, b) => (a && !a.at.done && !b.at.done && a.at.value.atMs <= b.at.value.atMs ? a : b), null); // prettier-ignore
    if (!first || first.at.done) break;
    const { decision, atMs } = first.at.value;
    if (decision === null) {
      first.at = first.play.next();
      continue;
    }
    const given = ways[decided.length];
    if (given === undefined && then === "ask") return broughtBy(shared, decided, decision, atMs, startMs);
    const does = decision.ways.find((w) => w.does === given)?.does ?? decision.ways[0]!.does;
    decided.push({ decision, does });
    first.at = first.play.next(does);
  }
  return broughtBy(shared, decided, null, Math.max(startMs, ...shared.leftMs), startMs);
}

function broughtBy(
  { subs, events, commands, darksMin }: Shared,
  decided: Played["decided"],
  due: Decision | null,
  untilMs: number,
  startMs: number,
): Played {
  const minutes = (isKept: boolean) => subs.reduce((sum, s) => ((s.lostTo === null) === isKept ? sum + s.of.subSec / 60 : sum), 0); // prettier-ignore
  return {
    decided,
    due,
    subs: [...subs].sort((a, b) => a.exposure.startMs - b.exposure.startMs),
    events,
    commands,
    untilMs: untilMs as UtcMs,
    brought: { keptMin: minutes(true), lostMin: minutes(false), darksMin, upMin: (untilMs - startMs) / MINUTE_MS },
  };
}
