import type { Channel } from "~/core/exposure";
import { err, ok, type Result } from "~/core/result";
import { CULL_REASONS, type CullReason } from "./contribution";
import { channelOfFilter } from "./filter-name";

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

/** What has been read of a line so far. */
interface Slots {
  taken?: number;
  kept?: number;
  exposureSec?: number;
  channel?: Channel;
  panel?: string;
}

const UNIT = "(s|secs?|seconds?|m|mins?|minutes?)?";
const secondsOf = (number: string, unit: string | undefined): number =>
  Number(number) * (unit?.toLowerCase().startsWith("m") ? 60 : 1);

/** The channel that a word names: as the project calls it, else as people write it. */
function channelOf(word: string, channels: readonly Channel[]): Channel | null {
  const own = channels.find((c) => c.toLowerCase() === word.toLowerCase());
  const usual = own ?? channelOfFilter(word, []);
  return usual !== null && channels.includes(usual) ? usual : null;
}

/** Fills what a piece of a line says, where that is still open; gives what is left of it. */
function fill(slots: Slots, piece: string, channels: readonly Channel[]): string {
  let rest = ` ${piece.trim()} `;
  const take = (pattern: RegExp, isOpen: boolean): RegExpExecArray | null => {
    const found = isOpen ? pattern.exec(rest) : null;
    if (found) rest = rest.replace(found[0], " ");
    return found;
  };
  const kept = take(/(?<=\s)(\d+)\s*(?:of|\/)\s*(\d+)(?=[\sx×*])/i, slots.taken === undefined);
  if (kept) [slots.kept, slots.taken] = [Number(kept[1]), Number(kept[2])];
  const times = take(
    new RegExp(`(?<=[\\s\\d])[x×*]\\s*(\\d+(?:\\.\\d+)?)\\s*${UNIT}(?=\\s)`, "i"),
    slots.exposureSec === undefined,
  );
  if (times) slots.exposureSec = secondsOf(times[1]!, times[2]);
  const panel = take(/(?<=\s)P(\d{1,3})(?=\s)/i, slots.panel === undefined);
  if (panel) slots.panel = `P${Number(panel[1])}`;
  // "300 s", "5min": a length by its unit.
  const long = take(
    new RegExp(`(?<=\\s)(\\d+(?:\\.\\d+)?)\\s*${UNIT.slice(0, -1)}(?=\\s)`, "i"),
    slots.exposureSec === undefined,
  );
  if (long) slots.exposureSec = secondsOf(long[1]!, long[2]);
  const count = take(/(?<=\s)(\d+)(?=\s)/, slots.taken === undefined);
  if (count) slots.taken = slots.kept = Number(count[1]);
  // "20 of 24, 300": a number after the count is a length.
  const bare = take(/(?<=\s)(\d+(?:\.\d+)?)(?=\s)/, slots.exposureSec === undefined && slots.taken !== undefined);
  if (bare) slots.exposureSec = Number(bare[1]);
  if (slots.channel === undefined) {
    const word = rest.split(/\s+/).find((w) => w !== "" && channelOf(w, channels) !== null);
    if (word !== undefined) {
      slots.channel = channelOf(word, channels)!;
      rest = ` ${rest.trim().split(/\s+/).filter((w, i, all) => i !== all.indexOf(word)).join(" ")} `; // prettier-ignore
    }
  }
  return rest.trim();
}

/**
 * Reads an entry in one line: "17 of 21 x 300 s Ha P2, cloud", "20 of 24, 300, Ha, P1; cloud", "21x5min Ha". Kept of taken, or taken
 * alone when all were kept; the sub length may be left out where the channel has a goal, the panel where there is one; after that the
 * reason and, in any words, a note.
 */
export function readLogLine(text: string, at: LogLineContext): Result<LogLine, LogLineFault> {
  const [head = "", ...tail] = text.trim().split(/[,;]/);
  const slots: Slots = {};
  const left = fill(slots, head, at.channels);
  // Pieces after the first belong to it as long as they say what is still open, and nothing else.
  while (tail.length > 0 && left === "") {
    const more = { ...slots };
    if (tail[0]!.trim() === "" || fill(more, tail[0]!, at.channels) !== "") break;
    Object.assign(slots, more);
    tail.shift();
  }
  const { taken, kept, channel, panel } = slots;
  if (taken === undefined || kept === undefined) return err({ code: "noCount", part: head.trim() });
  if (!channel) return err({ code: "noChannel", part: left });
  if (left !== "") return err({ code: "unread", part: left });
  const exposureSec = slots.exposureSec ?? at.subOf(channel);
  if (exposureSec === null || !(exposureSec > 0)) return err({ code: "noSub", part: channel });
  if (panel !== undefined && !at.panels.includes(panel)) return err({ code: "unknownPanel", part: panel });
  if (panel === undefined && at.panels.length !== 1) return err({ code: "noPanel", part: at.panels.join(", ") });
  if (kept > taken) return err({ code: "tooMany", part: `${kept} of ${taken}` });
  const first = (tail[0] ?? "").trim();
  const reason = reasonOf(first.toLowerCase().split(/\s+/)[0] ?? "");
  if (kept < taken && reason === null) return err({ code: "noReason", part: first });
  const isWord = reason !== null && first.split(/\s+/).length === 1;
  const note = [...(isWord ? [] : [first]), ...tail.slice(1).map((t) => t.trim())].filter((t) => t !== "").join(", ");
  return ok({
    taken,
    kept,
    exposureSec,
    channel,
    panel: panel ?? at.panels[0]!,
    reason: kept < taken || taken === 0 ? (reason ?? "") : "",
    note,
  });
}

/** An entry as a line that reads back the same. */
export const logLineText = (l: LogLine): string =>
  `${l.kept === l.taken ? l.taken : `${l.kept} of ${l.taken}`} x ${l.exposureSec} s ${l.channel} ${l.panel}${l.reason ? `, ${l.reason}` : ""}${l.note ? `, ${l.note}` : ""}`;
