import type { CullReason } from "~/core/ledger";
import type { Happening, NightEvent } from "~/core/live";
import type { Block, SheetEvent } from "~/core/night";
import {
  afterCommand, momentAt, standInAt,
  type Command, type ObservatoryState, type StandInKit, type TakenExposure, type SkyMoment, type TrueWeather,
} from "~/core/observatory"; // prettier-ignore
import { MINUTE_MS, type UtcMs } from "~/core/time";
import type { Decision, RehearsalNight, RehearsalRig, RehearsedSub, Trouble, Way, WayKey } from "./question";

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

/** What all rigs of a night share: the sky, and the hands of one person. */
export interface Shared {
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

/** A rig as its night goes, step by step; hands out each decision and goes on by the way it is given. */
export type Steps<Done = void> = Generator<
  { readonly atMs: number; readonly decision: Decision | null },
  Done,
  WayKey | undefined
>;

/** A rig as the stand-in has it. */
export const standInKit = (rig: RehearsalRig, weather: TrueWeather, seed: number): StandInKit => ({
  ...FOIBLES,
  rig: rig.rig,
  weather,
  seed,
  focusPerC: rig.focusPerC,
  filterSteps: Object.fromEntries(Object.keys(rig.filters).map((n, i) => [n, i * FILTER_STEPS])),
});

export const wayOf = (does: WayKey, takesMin: number): Way => ({ does, untilMs: null, cloud: null, takesMin });

/** One rig in a night on the stand-in: how it stands, what is done with it, and what is told of it. */
export class RigAtNight {
  readonly lines: readonly (Block | SheetEvent)[];
  /** When the last block of its sheet ends. */
  readonly endMs: number;
  readonly tallies = new Map<number, { kept: number; lost: number; why: CullReason | "" }>();
  isOver = false;
  /** Times the change of air that loses focus that somebody let pass, and one. */
  focusTold = 1;
  /** When a flip that was put off is due; null = none was. */
  flipMs: number | null = null;
  private state: ObservatoryState;
  private readonly kit: StandInKit;
  /** When each trouble may be spoken of again. */
  private readonly quietMs = new Map<Trouble["about"], number>();
  private count = 0;

  constructor(
    readonly shared: Shared,
    readonly index: number,
    readonly of: RehearsalRig,
  ) {
    this.lines = [...of.sheet.lines].sort((a, b) => a.startMs - b.startMs);
    this.endMs = this.lines.findLast((l) => l.kind === "block")?.endMs ?? 0;
    this.kit = standInKit(of, shared.weather, shared.seed);
    this.state = standInAt(this.kit, this.lines[0]?.startMs ?? (0 as UtcMs));
  }

  get s(): ObservatoryState {
    return this.state;
  }

  get atMs(): UtcMs {
    return this.state.atMs;
  }

  /** The sky and the air as they are now. */
  get weather(): SkyMoment {
    return momentAt(this.shared.weather, this.state.atMs);
  }

  /** Writes down what happens. */
  tell(is: Happening): void {
    const { night, memberId } = this.shared.night;
    const id = `${this.of.rigId}-${String(this.count++).padStart(4, "0")}`;
    this.shared.events.push({ id, memberId, night, rigId: this.of.rigId, atMs: this.atMs, is });
  }

  do(command: Command): TakenExposure | null {
    this.shared.commands[this.index]!.push(command);
    const { state, exposure } = afterCommand(this.kit, this.state, command);
    this.state = state;
    return exposure;
  }

  waitSec(sec: number): void {
    this.do({ do: "wait", untilMs: this.atMs + sec * 1000 });
  }

  /** A command that needs hands: it waits until they are free. */
  byHand(command: Command): void {
    if (this.shared.busyMs > this.atMs) this.do({ do: "wait", untilMs: this.shared.busyMs });
    this.do(command);
    this.shared.busyMs = this.atMs;
  }

  /** Focuses, and writes it down. */
  focus(sec: number, isByHand: boolean): void {
    if (isByHand) this.byHand({ do: "focus", sec });
    else this.do({ do: "focus", sec });
    this.focusTold = 1;
    this.tell({ what: "focused", airC: this.s.focuser.atAirC, steps: this.s.focuser.steps });
  }

  leave(): void {
    this.shared.leftMs[this.index] ??= this.atMs;
    this.isOver = true;
  }

  get packUpMin(): number {
    const last = this.lines.at(-1);
    return last?.kind === "packUp" ? (last.endMs - last.startMs) / MINUTE_MS : 0;
  }

  packUp(sec = this.packUpMin * 60): void {
    this.do({ do: "park" });
    this.waitSec(sec);
    this.tell({ what: "packedUp" });
    this.leave();
  }

  isQuiet(about: Trouble["about"]): boolean {
    return this.atMs < (this.quietMs.get(about) ?? 0);
  }

  /** Says no more of it for an hour. */
  hush(about: Trouble["about"]): void {
    this.quietMs.set(about, this.atMs + AGAIN_MS);
  }

  /** A step that asks nothing: others may go on first. */
  *step(): Steps {
    yield { atMs: this.atMs, decision: null };
  }

  /** Puts a decision, and is told the way. */
  *ask(trouble: Trouble, ways: readonly Way[]): Steps<WayKey> {
    const way = yield { atMs: this.atMs, decision: { atMs: this.atMs, rig: this.index, trouble, ways } };
    return ways.find((w) => w.does === way)?.does ?? ways[0]!.does;
  }

  /** The side of the mount is due to be changed: now, or a little later. */
  *flip(sec: number): Steps {
    const meridianMs = this.s.mount.aim?.meridianMs ?? this.atMs;
    const stopsMs = (meridianMs + FOIBLES.pastMeridianMin * MINUTE_MS) as UtcMs;
    const does = yield* this.ask({ about: "flip", stopsMs }, [wayOf("flipNow", sec / 60), wayOf("flipLater", 0)]);
    if (does === "flipLater") this.flipMs = this.atMs + FLIP_LATER_MS;
    else this.flipNow(sec);
  }

  flipNow(sec: number): void {
    this.flipMs = null;
    this.byHand({ do: "flip", sec });
    this.tell({ what: "flipped" });
  }
}
