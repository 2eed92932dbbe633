import type { WrittenEntry } from "~/desk/log";
import type { Channel } from "~/core/exposure";
import { CHANNELS } from "~/core/exposure";
import { CULL_REASONS, type CullReason } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";
import { isNightDate } from "~/core/time";
import { readNumbers, specsOf, textOf, type Faults } from "~/components/forms/form-numbers";
import { CONTRIBUTION_FIELDS } from "~/core/records";

/** Number boxes of a log entry. */
export const LOG_NUMBERS = specsOf({
  ...CONTRIBUTION_FIELDS,
  taken: { ...CONTRIBUTION_FIELDS.taken, min: 1 }, // a line of nothing taken says nothing
});

const isChannel = (text: string): text is Channel => (CHANNELS as readonly string[]).includes(text);
const isReason = (text: string): text is CullReason => (CULL_REASONS as readonly string[]).includes(text);

/** Reads the form of a log entry, or says beside each box what is wrong. */
export function readLogEntry(form: FormData): Result<WrittenEntry, Faults> {
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
