import { CHANNELS, type Channel, type Filter } from "~/core/exposure";
import { err, ok, type Result } from "~/core/result";
import { readNumbers, specsOf, textOf, type Faults } from "~/components/forms/form-numbers";
import { FILTER_FIELDS, NAME, THICKNESS_FIELD } from "~/core/records";

/** Number boxes of a filter. */
export const FILTER_NUMBERS = [...specsOf(FILTER_FIELDS), ...specsOf(THICKNESS_FIELD)] as const;

const isChannel = (text: string): text is Channel => (CHANNELS as readonly string[]).includes(text);

/** Reads the form of a filter, or says beside each box what is wrong. */
export function readFilter(form: FormData): Result<Filter, Faults> {
  const { values, faults } = readNumbers(form, FILTER_NUMBERS);
  const [name, channel] = [textOf(form, "name").trim(), textOf(form, "channel")];
  const all: Faults = {
    ...faults,
    ...(name === "" || name.length > NAME.max
      ? { name: `Give it the name your files use, ${NAME.max} letters at most.` }
      : {}),
    ...(isChannel(channel) ? {} : { channel: "Choose a channel." }),
  };
  return Object.keys(all).length > 0 || !isChannel(channel) ? err(all) : ok({ name, channel, ...values });
}
