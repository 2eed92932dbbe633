import { BORNE_TRAIL_PX } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import type { CullReason } from "~/core/ledger";
import { cloudChoices, hoursAhead, type Happening, type NightEvent } from "~/core/live";
import type { Block, SheetEvent } from "~/core/night";
import {
  afterCommand, drawnWeather, isOpen, MOMENT_MS, momentAt, standInAt,
  type Command, type ObservatoryState, type StandInKit, type TakenExposure, type TrueWeather,
} from "~/core/observatory"; // prettier-ignore
import { MINUTE_MS, type UtcMs } from "~/core/time";
import { DEW_SPREAD_C, oddsSeen, USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import type { Decision, Played, RehearsalNight, RehearsalRig, RehearsedSub, Trouble, Way, WayKey } from "./question";

/** What the stand-in's mount and focuser are like; proposals, as usual kit is. */
const FOIBLES = {
  pastMeridianMin: 20,
  polarErrorArcmin: 2,
  periodicErrorArcsec: 12,
  wormSec: 480,
  focusStepsPerC: 12,
} as const;
const FILTER_STEPS = 15; // from one filter to the next
const AGAIN_MS = 60 * MINUTE_MS; // wind and dew are spoken of once an hour
const FLIP_LATER_MS = 15 * MINUTE_MS;
const WIND_PAUSE_MS = 60 * MINUTE_MS; // at most, then one asks again
const FIND_STAR_SEC = 5 * 60;
const NOTICED = 2; // subs without a guide star until somebody sees it
const BATTERY_AHEAD_MS = 45 * MINUTE_MS;
const LOOK_AGAIN_MS = 20 * MINUTE_MS; // nobody looks up at once again
const DRY_SEC = 15 * 60;
const SETTLED = 2; // moments that a sky stays open before one trusts it
const WET = 0.5; // half blind
const SOFT = 1.3; // focus that blurs so much more than all else together: stars 1.6 times as wide

/** Why a sub is of no use; null = it is. */
export function spoiltBy(e: TakenExposure, rig: RehearsalRig["rig"], hasPower: boolean): CullReason | null {
  const scale = opticsOf(rig).pixelScaleArcsecPerPx;
  if (e.hasStopped) return hasPower ? "trail" : "other";
  if (!e.isOpen) return "cloud";
  if (e.gustKmh > (rig.gustLimitKmh ?? USUAL_GUST_LIMIT_KMH)) return "wind";
  if (e.hasLostStar) return "guiding";
  if (e.wet > WET) return "other";
  if (e.focusBlurArcsec > SOFT * Math.sqrt(e.fwhmArcsec ** 2 - e.focusBlurArcsec ** 2)) return "focus";
  if (Math.hypot(e.trailArcsec.x, e.trailArcsec.y) > BORNE_TRAIL_PX * scale) return rig.isGuided ? "guiding" : "trail";
  return null;
}

/** What all rigs of a night share: the sky, and the hands of one person. */
interface Shared {
  readonly night: RehearsalNight;
  readonly weather: TrueWeather;
  readonly seed: number;
  readonly subs: RehearsedSub[];
  readonly events: NightEvent[];
  /** What each rig was told to do. */
  readonly commands: Command[][];
  darksMin: number;
  /** What was said last of a closed sky, and until when it holds. */
  cloudSaid: { readonly untilMs: number; readonly does: WayKey } | null;
  /** Until when somebody is at a rig. */
  busyMs: number;
  /** When each rig was left for the night. */
  readonly leftMs: number[];
}

/** A rig as its night goes; hands out each decision and goes on by the way it is given. */
type RigPlay = Generator<{ readonly atMs: number; readonly decision: Decision | null }, void, WayKey | undefined>;

/** A rig as the stand-in has it. */
export const standInKit = (rig: RehearsalRig, weather: TrueWeather, seed: number): StandInKit => ({
  ...FOIBLES,
  rig: rig.rig,
  weather,
  seed,
  focusPerC: rig.focusPerC,
  filterSteps: Object.fromEntries(Object.keys(rig.filters).map((n, i) => [n, i * FILTER_STEPS])),
});

/** The weather of a night: as it is prepared, else drawn by the seed. */
export const weatherOf = (night: RehearsalNight, seed: number): TrueWeather =>
  night.weather ?? drawnWeather(night.hours, seed);

/** One rig's evening: its sheet, line by line and sub by sub, on the stand-in. */
class RigEvening {
  private s: ObservatoryState;
  private readonly kit: StandInKit;
  private readonly lines: readonly (Block | SheetEvent)[];
  private readonly endMs: number;
  private isOver = false;
  /** When each trouble may be spoken of again. */
  private readonly quietMs = new Map<Trouble["about"], number>();
  private focusTold = 1;
  private flipMs: number | null = null;
  private count = 0;
  /** Of each block so far: cloud may break it off and let it go on. */
  private readonly tallies = new Map<number, { kept: number; lost: number; why: CullReason | "" }>();

  constructor(
    private readonly shared: Shared,
    private readonly index: number,
    private readonly rig: RehearsalRig,
  ) {
    this.lines = [...rig.sheet.lines].sort((a, b) => a.startMs - b.startMs);
    this.endMs = this.lines.findLast((l) => l.kind === "block")?.endMs ?? 0;
    this.kit = standInKit(rig, shared.weather, shared.seed);
    this.s = standInAt(this.kit, this.lines[0]?.startMs ?? (0 as UtcMs));
  }

  /** Plays it to the end. */
  *play(): RigPlay {
    if (this.lines.length > 0) this.tell({ what: "begun" });
    for (let i = 0; i < this.lines.length && !this.isOver;) {
      yield { atMs: this.s.atMs, decision: null };
      const line = this.lines[i]!;
      if (line.kind !== "packUp" && this.s.atMs >= this.endMs) {
        i++; // what is late by the whole sheet is not begun any more
        continue;
      }
      // What the sheet itself leaves free is for the sky's sake: nothing after it comes before its time.
      const gapMs = line.startMs - (this.lines[i - 1]?.endMs ?? line.startMs);
      if (gapMs > MINUTE_MS && line.startMs > this.s.atMs) this.do({ do: "wait", untilMs: line.startMs });
      if (line.kind === "block") i = yield* this.block(line, i);
      else i = yield* this.event(line, i);
    }
    this.leave(this.s.atMs);
  }

  private tell(is: Happening): void {
    const { night, memberId } = this.shared.night;
    const id = `${this.rig.rigId}-${String(this.count++).padStart(4, "0")}`;
    this.shared.events.push({ id, memberId, night, rigId: this.rig.rigId, atMs: this.s.atMs, is });
  }

  private do(command: Command): TakenExposure | null {
    this.shared.commands[this.index]!.push(command);
    const { state, exposure } = afterCommand(this.kit, this.s, command);
    this.s = state;
    return exposure;
  }

  /** A command that needs hands: it waits until they are free. */
  private byHand(command: Command): void {
    if (this.shared.busyMs > this.s.atMs) this.do({ do: "wait", untilMs: this.shared.busyMs });
    this.do(command);
    this.shared.busyMs = this.s.atMs;
  }

  private leave(atMs: number): void {
    if (this.shared.leftMs[this.index] === undefined) this.shared.leftMs[this.index] = atMs;
    this.isOver = true;
  }

  /** Puts a decision, and is told the way. */
  private *ask(
    trouble: Trouble,
    ways: readonly Way[],
  ): Generator<{ atMs: number; decision: Decision }, WayKey, WayKey | undefined> {
    const way = yield { atMs: this.s.atMs, decision: { atMs: this.s.atMs, rig: this.index, trouble, ways } };
    return ways.find((w) => w.does === way)?.does ?? ways[0]!.does;
  }

  private *event(
    line: SheetEvent,
    i: number,
  ): Generator<{ atMs: number; decision: Decision | null }, number, WayKey | undefined> {
    const sec = (line.endMs - line.startMs) / 1000;
    switch (line.kind) {
      case "wait":
        this.do({ do: "wait", untilMs: Math.max(this.s.atMs, line.endMs) });
        break;
      case "filter":
        this.do({ do: "filter", name: line.detail, sec });
        break;
      case "focus":
      case "align":
        this.do({ do: "focus", sec });
        this.focusTold = 1;
        if (line.kind === "focus")
          this.tell({ what: "focused", airC: this.s.focuser.atAirC, steps: this.s.focuser.steps });
        break;
      case "flip":
        yield* this.flip(sec);
        break;
      case "packUp":
        this.packUp(sec);
        break;
      case "setUp":
      case "centre": // the block that follows says where to
        this.do({ do: "wait", untilMs: this.s.atMs + sec * 1000 });
    }
    return i + 1;
  }

  private packUp(sec: number): void {
    this.do({ do: "park" });
    this.do({ do: "wait", untilMs: this.s.atMs + sec * 1000 });
    this.tell({ what: "packedUp" });
    this.leave(this.s.atMs);
  }

  private *flip(sec: number): Generator<{ atMs: number; decision: Decision | null }, void, WayKey | undefined> {
    const meridianMs = this.s.mount.aim?.meridianMs ?? this.s.atMs;
    const stopsMs = (meridianMs + FOIBLES.pastMeridianMin * MINUTE_MS) as UtcMs;
    const does = yield* this.ask({ about: "flip", stopsMs }, [wayOf("flipNow", sec / 60), wayOf("flipLater", 0)]);
    if (does === "flipLater") {
      this.flipMs = this.s.atMs + FLIP_LATER_MS;
      return;
    }
    this.flipMs = null;
    this.byHand({ do: "flip", sec });
    this.tell({ what: "flipped" });
  }

  /** Sees to it that the rig points there, with that filter. */
  private prepare(block: Block, i: number): void {
    const { overheads } = this.rig.rig;
    const { aim, pierSide, isParked } = this.s.mount;
    const { projectId, panel } = block;
    const isOfSheet =
      this.lines[i - 1] !== undefined && this.lines[i - 1]!.kind !== "block" && this.lines[i - 1]!.kind !== "wait";
    if (aim?.projectId !== projectId || aim.panel !== panel || isParked) {
      // To change sides by the sheet, unless it has.
      const flip = this.lines.findIndex((l) => l.kind === "flip" && (l.projectId ?? projectId) === projectId);
      const isEast = aim?.projectId !== projectId || pierSide === "east";
      const meridianMs = flip > i && isEast ? this.lines[flip]!.startMs : null;
      this.do({ do: "slew", aim: { projectId, panel, meridianMs }, sec: isOfSheet ? 0 : overheads.panelChangeSec });
    }
    if (this.s.wheel.filterName !== block.filterName)
      this.do({ do: "filter", name: block.filterName, sec: isOfSheet ? 0 : overheads.filterChangeSec });
  }

  private *block(
    block: Block,
    i: number,
  ): Generator<{ atMs: number; decision: Decision | null }, number, WayKey | undefined> {
    this.prepare(block, i);
    const cycle = (block.endMs - block.startMs) / block.subs / 1000;
    const tally = this.tallies.get(i) ?? { kept: 0, lost: 0, why: "" };
    this.tallies.set(i, tally);
    const close = () => {
      const { projectId, panel, channel, subSec, startMs } = block;
      if (tally.kept + tally.lost > 0)
        this.tell({ what: "done", of: { projectId, panel, channel, subSec, startMs }, kept: tally.kept, lost: tally.lost, reason: tally.why }); // prettier-ignore
    };
    for (
      let sub = tally.kept + tally.lost;
      sub < block.subs && this.s.atMs + block.subSec * 1000 <= this.endMs + MINUTE_MS;
      sub++
    ) {
      yield { atMs: this.s.atMs, decision: null };
      if (!isOpen(momentAt(this.shared.weather, this.s.atMs))) {
        close();
        const isOn = yield* this.cloud();
        return isOn ? this.lineAt(this.s.atMs, i) : this.lines.length;
      }
      yield* this.beforeSub();
      if (this.isOver) break;
      const e = this.do({ do: "expose", sec: block.subSec, restSec: Math.max(0, cycle - block.subSec) })!;
      const hasPower = this.s.battery.emptyMs === null || this.s.battery.emptyMs > this.s.atMs;
      const lostTo = spoiltBy(e, this.rig.rig, hasPower);
      this.shared.subs.push({ rig: this.index, of: block, exposure: e, lostTo });
      if (lostTo === null) tally.kept++;
      else {
        tally.lost++;
        tally.why ||= lostTo;
      }
      if (!hasPower) {
        close();
        this.leave(this.s.atMs);
        return this.lines.length;
      }
    }
    close();
    return i + 1;
  }

  /** The line that is on by the clock, from one on. */
  private lineAt(ms: number, from: number): number {
    const i = this.lines.findIndex((l, k) => k >= from && l.endMs > ms && l.kind !== "centre" && l.kind !== "filter");
    if (i < 0) return this.lines.length;
    // A flip that went by under cloud is done before anything else.
    const missed = this.lines.slice(from, i).some((l) => l.kind === "flip");
    if (missed) {
      this.byHand({ do: "flip", sec: this.rig.rig.overheads.flipMin * 60 });
      this.tell({ what: "flipped" });
    }
    return i;
  }

  private isQuiet(about: Trouble["about"]): boolean {
    return this.s.atMs < (this.quietMs.get(about) ?? 0);
  }
  private hush(about: Trouble["about"]): void {
    this.quietMs.set(about, this.s.atMs + AGAIN_MS);
  }

  /** Gusts beyond the rig's limit: spoken of once an hour, and again after a pause that was too short. */
  private *wind(limitKmh: number): Generator<{ atMs: number; decision: Decision | null }, void, WayKey | undefined> {
    const gust = () => momentAt(this.shared.weather, this.s.atMs).gustKmh;
    while (gust() > limitKmh && !this.isQuiet("wind") && this.s.atMs < this.endMs) {
      const hour = this.shared.night.hours.findLast((h) => h.startMs <= this.s.atMs);
      const stays = (hour?.gustKmh ?? 0) > limitKmh;
      const [wait, goOn] = [wayOf("waitForWind", 0), wayOf("goOn", 0)];
      const does = yield* this.ask({ about: "wind", gustKmh: gust(), limitKmh }, stays ? [wait, goOn] : [goOn, wait]);
      if (does === "goOn") return this.hush("wind");
      const untilMs = this.s.atMs + WIND_PAUSE_MS;
      while (gust() > limitKmh && this.s.atMs < untilMs) {
        this.do({ do: "wait", untilMs: this.s.atMs + MOMENT_MS });
        yield { atMs: this.s.atMs, decision: null };
      }
      // Whoever pauses is there when it drops, and has the star again.
      if (this.s.guider.hasLostStar) this.do({ do: "findGuideStar", sec: 0 });
    }
  }

  /** What may be wrong before a sub is begun. */
  private *beforeSub(): Generator<{ atMs: number; decision: Decision | null }, void, WayKey | undefined> {
    const { rig } = this.rig;
    if (this.flipMs !== null && this.s.atMs >= this.flipMs) yield* this.flip(rig.overheads.flipMin * 60);
    yield* this.wind(rig.gustLimitKmh ?? USUAL_GUST_LIMIT_KMH);
    const blind = this.shared.subs.filter((s) => s.rig === this.index).slice(-NOTICED);
    if (this.s.guider.hasLostStar && blind.length === NOTICED && blind.every((s) => s.exposure.hasLostStar))
      this.byHand({ do: "findGuideStar", sec: FIND_STAR_SEC });
    const now = momentAt(this.shared.weather, this.s.atMs);
    const spreadC = now.airC - now.dewC;
    if (spreadC < DEW_SPREAD_C && !this.s.heater.isOn && !this.isQuiet("dew")) {
      this.hush("dew");
      const heater = rig.power === undefined || rig.power.dewW > 0 ? [wayOf("heaterOn", 0)] : [];
      const does = yield* this.ask({ about: "dew", spreadC }, [...heater, wayOf("dry", DRY_SEC / 60), wayOf("goOn", 0)]); // prettier-ignore
      if (does === "heaterOn") this.do({ do: "heater", isOn: true });
      if (does === "dry") this.byHand({ do: "dry", sec: DRY_SEC });
    }
    const { emptyMs } = this.s.battery;
    if (
      emptyMs !== null &&
      emptyMs < this.endMs &&
      emptyMs - this.s.atMs < BATTERY_AHEAD_MS &&
      !this.isQuiet("battery")
    ) {
      this.hush("battery");
      const cooler = this.s.camera.isCooling ? [wayOf("coolerOff", 0)] : [];
      const does = yield* this.ask({ about: "battery", emptyMs }, [...cooler, wayOf("packUp", this.packUpMin()), wayOf("goOn", 0)]); // prettier-ignore
      if (does === "coolerOff") this.do({ do: "cooler", isOn: false });
      if (does === "packUp") this.packUp(this.packUpMin() * 60);
    }
    const byC = now.airC - this.s.focuser.atAirC;
    if (!this.isOver && Math.abs(byC) >= this.rig.focusPerC * this.focusTold) {
      const { focusMin } = rig.overheads;
      const does = yield* this.ask({ about: "focus", byC }, [wayOf("focusNow", focusMin), wayOf("goOn", 0)]);
      if (does === "focusNow") {
        this.byHand({ do: "focus", sec: focusMin * 60 });
        this.focusTold = 1;
        this.tell({ what: "focused", airC: this.s.focuser.atAirC, steps: this.s.focuser.steps });
      } else this.focusTold = Math.floor(Math.abs(byC) / this.rig.focusPerC) + 1;
    }
  }

  private packUpMin(): number {
    const last = this.lines.at(-1);
    return last?.kind === "packUp" ? (last.endMs - last.startMs) / MINUTE_MS : 0;
  }

  /** A sky that has closed; true = the night goes on. */
  private *cloud(): Generator<{ atMs: number; decision: Decision | null }, boolean, WayKey | undefined> {
    const { weather, night } = this.shared;
    this.tell({ what: "cloud", isClear: false });
    for (;;) {
      const look = { atMs: this.s.atMs, isClear: false };
      const hours = night.hours.map(({ startMs, odds }) => ({ startMs, odds: oddsSeen(odds, look, startMs) }));
      const choices = cloudChoices({
        nowMs: this.s.atMs,
        hours: hoursAhead(this.rig.sheet, hours),
        darksMin: Math.max(0, this.rig.darksMin - this.shared.darksMin),
        packUpMin: this.packUpMin(),
      });
      const soonest = this.s.atMs + LOOK_AGAIN_MS;
      const ways = choices.map((cloud): Way => {
        const untilMs = cloud.untilMs === null ? null : (Math.max(cloud.untilMs, soonest) as UtcMs);
        return { does: cloud.does, untilMs, cloud, takesMin: 0 };
      });
      // One sky, one word: what was just said of it beside one rig holds for the others, as far as they can.
      const said = this.shared.cloudSaid;
      const same = said && this.s.atMs < said.untilMs ? said.does : null;
      const isOpenTo = (does: WayKey | null) => ways.some((w) => w.does === does);
      const does = isOpenTo(same)
        ? same!
        : same === "darks" && isOpenTo("wait")
          ? "wait"
          : yield* this.ask({ about: "cloud" }, ways);
      this.shared.cloudSaid = { untilMs: ways.find((w) => w.does === does)!.untilMs ?? soonest, does };
      const { untilMs } = ways.find((w) => w.does === does)!;
      this.tell({ what: "decided", choice: does as "wait" | "darks" | "packUp" | "sleep", untilMs });
      if (does === "sleep") {
        this.do({ do: "park" });
        this.leave(this.s.atMs);
        return false;
      }
      if (does === "packUp" || untilMs === null) {
        if (does === "darks") this.shared.darksMin += ways.find((w) => w.does === does)!.cloud!.darksMin;
        this.packUp(this.packUpMin() * 60);
        return false;
      }
      const fromMs = this.s.atMs;
      for (let open = 0; this.s.atMs < untilMs && open < SETTLED;) {
        this.do({ do: "wait", untilMs: Math.min(untilMs, this.s.atMs + MOMENT_MS) });
        yield { atMs: this.s.atMs, decision: null };
        // Under the cap one sees the sky as well as anybody.
        open = isOpen(momentAt(weather, this.s.atMs)) ? open + 1 : 0;
      }
      if (does === "darks") this.shared.darksMin += Math.min(this.rig.darksMin, (this.s.atMs - fromMs) / MINUTE_MS);
      if (this.s.atMs >= this.endMs) {
        this.packUp(this.packUpMin() * 60);
        return false;
      }
      if (isOpen(momentAt(weather, this.s.atMs))) {
        this.tell({ what: "cloud", isClear: true });
        return true;
      }
    }
  }
}

const wayOf = (does: WayKey, takesMin: number): Way => ({ does, untilMs: null, cloud: null, takesMin });

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
    const play = new RigEvening(shared, i, rig).play();
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
