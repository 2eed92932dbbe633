import type { Channel } from "~/core/exposure";
import { err, ok, type Result } from "~/core/result";
import { CULL_REASONS, type CullReason } from "./contribution";

/** An entry of the log as one line says it. */
export interface LogLine {
  readonly taken: number;
  readonly kept: number;
  readonly exposureSec: number;
  readonly channel: Channel;
  readonly panel: string;
  readonly reason: CullReason | "";
  readonly note: string;
}

/** What is wrong with a line, and the part of it that is. */
export interface LogLineFault {
  readonly code: "noCount" | "noChannel" | "noSub" | "noPanel" | "unknownPanel" | "tooMany" | "noReason" | "unread";
  readonly part: string;
}

/** What a line may leave unsaid. */
export interface LogLineContext {
  readonly channels: readonly Channel[];
  readonly panels: readonly string[];
  /** The sub length of a channel's goal; null = none. */
  readonly subOf: (channel: Channel) => number | null;
}

/** Words for a reason, beside its own name. */
const WORDS: Readonly<Record<CullReason, readonly string[]>> = {
  cloud: ["clouds", "cloudy", "clouded"],
  wind: ["windy", "gusts"],
  trail: ["trails", "satellite", "satellites", "aircraft"],
  seeing: [],
  guiding: ["guide", "tracking"],
  focus: ["soft"],
  light: ["lamp", "headlights"],
  other: [],
};

const reasonOf = (word: string): CullReason | null =>
  CULL_REASONS.find((r) => r === word || WORDS[r].includes(word)) ?? null;

/**
 * Reads an entry in one line: "17 of 21 x 300 s Ha P2, cloud". Kept of taken, or taken alone when all were kept; the sub length may be
 * left out where the channel has a goal, the panel where there is one; after the comma the reason and, in any words, a note.
 */
export function readLogLine(text: string, at: LogLineContext): Result<LogLine, LogLineFault> {
  const [head = "", ...tail] = text.trim().split(/[,;]/);
  let rest = ` ${head.trim()} `;
  const take = (pattern: RegExp): RegExpExecArray | null => {
    const found = pattern.exec(rest);
    if (found) rest = rest.replace(found[0], " ");
    return found;
  };
  const sub = take(/[x×*]\s*(\d+(?:\.\d+)?)\s*(s|sec|seconds|m|min|minutes)?(?=\s)/i);
  const kept = take(/(?<=\s)(\d+)\s*(?:of|\/)\s*(\d+)(?=\s)/i);
  const alone = kept ? null : take(/(?<=\s)(\d+)(?=\s)/);
  if (!kept && !alone) return err({ code: "noCount", part: head.trim() });
  const panel = take(/(?<=\s)P(\d{1,3})(?=\s)/i);
  const names = [...at.channels].sort((a, b) => b.length - a.length);
  const channel = names.find((c) => take(new RegExp(`(?<=\\s)${c}(?=\\s)`, "i")) !== null);
  if (!channel) return err({ code: "noChannel", part: rest.trim() });
  if (rest.trim() !== "") return err({ code: "unread", part: rest.trim() });
  const exposureSec = sub ? Number(sub[1]) * (/^m/i.test(sub[2] ?? "s") ? 60 : 1) : at.subOf(channel);
  if (exposureSec === null || !(exposureSec > 0)) return err({ code: "noSub", part: channel });
  const named = panel ? `P${Number(panel[1])}` : null;
  if (named !== null && !at.panels.includes(named)) return err({ code: "unknownPanel", part: named });
  if (named === null && at.panels.length !== 1) return err({ code: "noPanel", part: at.panels.join(", ") });
  const [taken, good] = kept ? [Number(kept[2]), Number(kept[1])] : [Number(alone![1]), Number(alone![1])];
  if (good > taken) return err({ code: "tooMany", part: `${good} of ${taken}` });
  const first = (tail[0] ?? "").trim();
  const reason = reasonOf(first.toLowerCase().split(/\s+/)[0] ?? "");
  if (good < taken && reason === null) return err({ code: "noReason", part: first });
  const isWord = reason !== null && first.split(/\s+/).length === 1;
  const note = [...(isWord ? [] : [first]), ...tail.slice(1).map((t) => t.trim())].filter((t) => t !== "").join(", ");
  return ok({
    taken,
    kept: good,
    exposureSec,
    channel,
    panel: named ?? at.panels[0]!,
    reason: good < taken || taken === 0 ? (reason ?? "") : "",
    note,
  });
}

/** An entry as a line that reads back the same. */
export const logLineText = (l: LogLine): string =>
  `${l.kept === l.taken ? l.taken : `${l.kept} of ${l.taken}`} x ${l.exposureSec} s ${l.channel} ${l.panel}${l.reason ? `, ${l.reason}` : ""}${l.note ? `, ${l.note}` : ""}`;
