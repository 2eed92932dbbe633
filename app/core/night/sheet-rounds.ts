import type { Channel } from "~/core/exposure";
import type { UtcMs } from "~/core/time";
import type { Block, RunSheet, SheetEvent } from "./sheet-model";

/** One panel and channel of some rounds, all of its subs together. */
export interface RoundPart {
  readonly panel: string;
  readonly channel: Channel;
  readonly filterName: string;
  /** In a row, within a round, and in all rounds together. */
  readonly inARow: number;
  readonly subs: number;
  readonly subSec: number;
}

/** Panels or channels shot in turn, without a break: what a person sets up once, and lets run. */
export interface Rounds {
  readonly kind: "rounds";
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  readonly projectId: string;
  readonly rounds: number;
  readonly parts: readonly RoundPart[];
}

const breaks = (l: SheetEvent): boolean => l.kind === "flip" || l.kind === "wait" || l.kind === "setUp";

function roundsOf(blocks: readonly Block[]): Rounds {
  const parts = new Map<string, { -readonly [K in keyof RoundPart]: RoundPart[K] } & { times: number }>();
  for (const { panel, channel, filterName, subs, subSec } of blocks) {
    const key = `${panel} ${channel} ${subSec}`;
    const part = parts.get(key) ?? { panel, channel, filterName, inARow: subs, subs: 0, subSec, times: 0 };
    part.subs += subs;
    part.times++;
    part.inARow = Math.max(part.inARow, subs);
    parts.set(key, part);
  }
  const [first, last] = [blocks[0]!, blocks.at(-1)!];
  return {
    kind: "rounds",
    startMs: first.startMs,
    endMs: last.endMs,
    projectId: first.projectId,
    rounds: Math.max(...[...parts.values()].map((p) => p.times)),
    parts: [...parts.values()].map(({ times: _, ...part }) => part),
  };
}

/** The lines of a sheet with what is shot in turn told as rounds; the centring, filters and focus within them are part of a round. */
export function foldRounds(lines: RunSheet["lines"]): (Block | SheetEvent | Rounds)[] {
  const out: (Block | SheetEvent | Rounds)[] = [];
  let open: Block[] = [];
  let between: SheetEvent[] = [];
  const close = () => {
    if (open.length > 1) out.push(roundsOf(open));
    else out.push(...open);
    out.push(...between);
    [open, between] = [[], []];
  };
  for (const line of lines) {
    if (line.kind === "block" && line.turn !== undefined) {
      if (open.length > 0 && open[0]!.turn !== line.turn) close();
      if (open.length > 0) between = [];
      open.push(line);
    } else if (line.kind !== "block" && open.length > 0 && !breaks(line)) between.push(line);
    else {
      if (open.length > 0) close();
      out.push(line);
    }
  }
  if (open.length > 0) close();
  return out;
}
