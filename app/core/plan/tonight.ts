import type { Channel } from "~/core/exposure";
import { CAUSES, targetNight, type NightSteps, type PlaceNight, type Walk } from "~/core/night";
import type { Equatorial } from "~/core/sky";
import type { UtcInterval, UtcMs } from "~/core/time";
import type { Need } from "./allocate";
import { inNightOrder } from "./channel-order";

/** A project on one night, in the channel that it would use. */
export interface TonightProject {
  readonly id: string;
  readonly channel: Channel;
  /** The channels the night would go through: the first, and the next ones while time is left after their goals. */
  readonly channels: readonly Channel[];
  readonly walk: Walk;
  readonly usableMin: number;
  readonly worthMin: number;
  /** First and last usable moment; null when there is none. */
  readonly span: { readonly startMs: UtcMs; readonly endMs: UtcMs } | null;
  /** Panels of that channel with work left, weakest first. */
  readonly panels: readonly string[];
  readonly remainingMin: number;
}

/** A project that has a usable moment tonight. */
export type UsableProject = TonightProject & { readonly span: NonNullable<TonightProject["span"]> };

/** What to shoot tonight: nothing, one project, or one until it is lost and then another. */
export type TonightChoice =
  | { readonly kind: "stayIn"; readonly reason: "noDarkness" | "tooLight" | "nothingUp" | "allDone" }
  | {
      readonly kind: "go";
      readonly first: UsableProject;
      readonly then: UsableProject | null;
      readonly startMs: UtcMs;
      readonly endMs: UtcMs;
    };

const CLOCK_PER_EXPOSURE = 1.15; // usual overheads, for telling whether a goal ends within the night
const LEAST_MIN = 45; // less is not worth setting up for; common practice, no source

/** How a project would use a night: its open channels in the order of the night, the first that finds time. */
export function projectTonight(
  night: PlaceNight,
  project: { readonly id: string; readonly target: Equatorial<"icrs">; readonly needs: readonly Need[] },
): TonightProject | null {
  const open = project.needs.filter((n) => n.remainingMin > 0.5);
  const share = (n: Need) => n.remainingMin / Math.max(1, n.goalMin);
  const candidates = [...new Set(open.map((n) => n.channel))].map((channel) => {
    const target = targetNight(night, project.target, channel);
    const [first, last] = [target.windows[0], target.windows.at(-1)];
    const mine = open.filter((n) => n.channel === channel).sort((a, b) => share(b) - share(a));
    return {
      id: project.id,
      channel,
      walk: target.walk,
      usableMin: target.usableMin,
      worthMin: target.worthMin,
      moonlessWorthMin: target.moonlessWorthMin,
      lacking: share(mine[0]!),
      span: first && last ? { startMs: first.startMs, endMs: last.endMs } : null,
      panels: mine.map((n) => n.panel),
      remainingMin: mine.reduce((sum, n) => sum + n.remainingMin, 0),
    };
  });
  const ordered = inNightOrder(candidates);
  const lead =
    ordered.find((c) => c.usableMin >= LEAST_MIN) ?? [...ordered].sort((a, b) => b.usableMin - a.usableMin)[0];
  if (!lead) return null;
  const channels: Channel[] = [];
  let filledMin = 0;
  for (const c of [lead, ...ordered.filter((o) => o !== lead && o.usableMin >= LEAST_MIN)]) {
    if (channels.length > 0 && filledMin > lead.usableMin - LEAST_MIN) break;
    channels.push(c.channel);
    filledMin += c.remainingMin * CLOCK_PER_EXPOSURE;
  }
  return { ...lead, channels };
}

/** The verdict on a night, clear sky assumed: the project lost first goes first while another takes over; two at most. */
export function chooseTonight(projects: readonly TonightProject[], steps: NightSteps): TonightChoice {
  if (steps.count === 0) return { kind: "stayIn", reason: "noDarkness" };
  if (projects.length === 0) return { kind: "stayIn", reason: "allDone" };
  const good = projects.filter((p): p is UsableProject => p.usableMin >= LEAST_MIN && p.span !== null);
  const isLight = projects.every((p) => p.walk.cause.every((c) => CAUSES[c] === "lightSky"));
  const byWorth = [...good].sort((a, b) => b.worthMin - a.worthMin);
  const [main] = byWorth;
  if (!main) return { kind: "stayIn", reason: isLight ? "tooLight" : "nothingUp" };
  const hour = LEAST_MIN * 60_000;
  const early = byWorth
    .slice(1)
    .filter((p) => p.span.endMs < main.span.endMs - hour && p.span.startMs <= main.span.startMs + hour);
  const first = early.sort((a, b) => b.worthMin - a.worthMin)[0] ?? main;
  const late = byWorth.find((p) => p.id !== first.id && p.span.endMs > first.span.endMs + hour) ?? null;
  return {
    kind: "go",
    first,
    then: late,
    startMs: first.span.startMs,
    endMs: Math.max(first.span.endMs, late?.span.endMs ?? 0) as UtcMs,
  };
}

/** Where an evening goes to two projects: the part of it that one of them has, and which the other is. */
export interface EveningShare {
  readonly within: UtcInterval;
  readonly otherId: string;
  readonly isFirst: boolean;
}

/** The part of an evening that goes to a project, so that the sheets of two never want the same minute; null = it is not shared. */
export function eveningShare(choice: TonightChoice, id: string, window: UtcInterval): EveningShare | null {
  if (choice.kind !== "go" || !choice.then) return null;
  const { first, then } = choice;
  const handoverMs = first.span.endMs;
  if (id === first.id) return { within: { ...window, endMs: handoverMs }, otherId: then.id, isFirst: true };
  if (id === then.id) return { within: { ...window, startMs: handoverMs }, otherId: first.id, isFirst: false };
  return null;
}
