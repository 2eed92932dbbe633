import { CULL_WORDS } from "~/components/words/log-words";
import { readLogLine, type LogLine, type LogLineContext, type LogLineFault } from "~/core/ledger";
import { formatHoursMinutes } from "~/core/notation";
import type { LoggableProject } from "./LogForm";

/** What a line of a project may leave unsaid. */
export const lineContext = (project: LoggableProject): LogLineContext => ({
  channels: [...new Set(project.channels.map((c) => c.channel))],
  panels: project.panels,
  subOf: (channel) => project.channels.find((c) => c.channel === channel && !c.isShort)?.subSec ?? null,
});

/** What is wrong with a line, in words. */
export function logLineWords({ code, part }: LogLineFault, line: number): string {
  const at = `Line ${line}: `;
  switch (code) {
    case "noCount":
      return `${at}how many subs? Such as “17 of 21”.`;
    case "noChannel":
      return `${at}which channel? ${part === "" ? "" : `“${part}” is none of this project.`}`;
    case "noSub":
      return `${at}how long are the subs in ${part}? Such as “x 300 s”.`;
    case "noPanel":
      return `${at}which panel: ${part}?`;
    case "unknownPanel":
      return `${at}the frame has no ${part}.`;
    case "tooMany":
      return `${at}“${part}” cannot be.`;
    case "noReason":
      return `${at}why were some not kept? After a comma: cloud, wind, trails, seeing, guiding, focus, light or other.`;
    case "unread":
      return `${at}“${part}” is not understood. A note comes after a comma.`;
  }
}

/** A line as it was understood: "17 of 21 × 300 s Ha P2, 1 h 25 kept; not kept: cloud; note: thin at first". */
function readWords({ taken, kept, exposureSec, channel, panel, reason, note }: LogLine): string {
  const count = kept === taken ? String(taken) : `${kept} of ${taken}`;
  const parts = [
    `${count} × ${exposureSec} s ${channel} ${panel}, ${formatHoursMinutes((kept * exposureSec) / 3600)} kept`,
    reason === "" ? "" : `not kept: ${CULL_WORDS[reason]}`,
    note === "" ? "" : `note: ${note}`,
  ];
  return parts.filter((p) => p !== "").join("; ");
}

/** Every line that says something, as it is understood so far, or what it still lacks. */
export function understood(
  project: LoggableProject,
  text: string,
): readonly { readonly line: number; readonly words: string; readonly isRead: boolean }[] {
  const at = lineContext(project);
  return text.split(/\r?\n/).flatMap((words, i) => {
    if (words.trim() === "") return [];
    const read = readLogLine(words, at);
    return read.ok
      ? { line: i + 1, words: readWords(read.value), isRead: true }
      : { line: i + 1, words: logLineWords(read.error, i + 1), isRead: false };
  });
}
