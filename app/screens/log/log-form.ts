import type { WrittenEntry } from "~/desk/log/log";
import type { Channel } from "~/core/exposure";
import { CHANNELS } from "~/core/exposure";
import { CULL_REASONS, type CullReason } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";
import { isNightDate, type NightDate } from "~/core/time";
import { readNumbers, specsOf, textOf, type Faults } from "~/components/forms/form-numbers";
import { CONTRIBUTION_FIELDS } from "~/core/records";

/** Number boxes of a log entry. */
export const LOG_NUMBERS = specsOf(CONTRIBUTION_FIELDS);

/** What bounds an entry of a project: tonight's date there. */
export interface LogBounds {
  readonly today: NightDate;
}

const isChannel = (text: string): text is Channel => (CHANNELS as readonly string[]).includes(text);
const isReason = (text: string): text is CullReason => (CULL_REASONS as readonly string[]).includes(text);

/** Reads the form of a log entry, or says beside each box what is wrong. */
export function readLogEntry(form: FormData, bounds: LogBounds): Result<WrittenEntry, Faults> {
  const { values, faults } = readNumbers(form, LOG_NUMBERS);
  const [channel, night, reason] = [textOf(form, "channel"), textOf(form, "night"), textOf(form, "reason")];
  const all: Record<string, string> = { ...faults };
  if (!isChannel(channel)) all["channel"] = "Choose a channel.";
  if (!isNightDate(night)) all["night"] = "Give the evening's date, as 2026-12-05.";
  else if (night > bounds.today) all["night"] = "This night is still to come.";
  if (!all["taken"] && !all["kept"] && values.kept > values.taken) all["kept"] = `Only ${values.taken} were taken.`;
  else if (!all["taken"] && !all["kept"] && values.kept < values.taken && !isReason(reason))
    all["reason"] = "Why were some not kept?";
  // A night lost is a fact too; nothing taken without a reason says nothing.
  else if (!all["taken"] && values.taken === 0 && !isReason(reason))
    all["reason"] = "Nothing taken: what was the night lost to?";
  if (Object.keys(all).length > 0 || !isChannel(channel)) return err(all);
  return ok({
    projectId: textOf(form, "projectId"),
    panel: textOf(form, "panel"),
    channel,
    night,
    ...values,
    reason: (values.kept < values.taken || values.taken === 0) && isReason(reason) ? reason : "",
    note: textOf(form, "note").slice(0, 4000),
  });
}
