import type { Channel } from "~/core/exposure";
import { CHANNELS } from "~/core/exposure";
import { CULL_REASONS, type ContributionData, type CullReason } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";
import { isNightDate } from "~/core/time";
import { readNumbers, textOf, type Faults, type NumberSpec } from "~/components/forms/form-numbers";

/** Number boxes of a log entry. */
export const LOG_NUMBERS = [
  { name: "exposureSec", label: "Sub", unit: "s", min: 0, max: 36_000, isAboveMin: true },
  { name: "taken", label: "Taken", unit: "subs", min: 1, max: 100_000, isWhole: true },
  { name: "kept", label: "Kept", unit: "subs", min: 0, max: 100_000, isWhole: true },
] as const satisfies readonly NumberSpec[];

/** What the form itself says; who, where and with what is added by the page. */
export type LogEntry = Pick<
  ContributionData,
  "projectId" | "panel" | "channel" | "night" | "exposureSec" | "taken" | "kept" | "reason" | "note"
>;

const isChannel = (text: string): text is Channel => (CHANNELS as readonly string[]).includes(text);
const isReason = (text: string): text is CullReason => (CULL_REASONS as readonly string[]).includes(text);

/** Reads the form of a log entry, or says beside each box what is wrong. */
export function readLogEntry(form: FormData): Result<LogEntry, Faults> {
  const { values, faults } = readNumbers(form, LOG_NUMBERS);
  const [channel, night, reason] = [textOf(form, "channel"), textOf(form, "night"), textOf(form, "reason")];
  const all: Record<string, string> = { ...faults };
  if (!isChannel(channel)) all["channel"] = "Choose a channel.";
  if (!isNightDate(night)) all["night"] = "Give the evening's date, as 2026-12-05.";
  if (!all["taken"] && !all["kept"] && values.kept > values.taken) all["kept"] = `Only ${values.taken} were taken.`;
  else if (!all["taken"] && !all["kept"] && values.kept < values.taken && !isReason(reason))
    all["reason"] = "Why were some not kept?";
  if (Object.keys(all).length > 0 || !isChannel(channel)) return err(all);
  return ok({
    projectId: textOf(form, "projectId"),
    panel: textOf(form, "panel"),
    channel,
    night,
    ...values,
    reason: values.kept < values.taken && isReason(reason) ? reason : "",
    note: textOf(form, "note").slice(0, 4000),
  });
}
