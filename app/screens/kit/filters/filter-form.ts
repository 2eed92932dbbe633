import { CHANNELS, type Channel, type Filter } from "~/core/exposure";
import { err, ok, type Result } from "~/core/result";
import { readNumbers, textOf, type Faults, type NumberSpec } from "~/components/forms/form-numbers";

/** Number boxes of a filter. */
export const FILTER_NUMBERS = [
  { name: "centreNm", label: "Centre", unit: "nm", min: 300, max: 1100 },
  { name: "bandwidthNm", label: "Bandwidth", unit: "nm", min: 0, max: 1000, isAboveMin: true },
  { name: "transmission", label: "Transmission", unit: "share", min: 0.05, max: 1 },
  { name: "thicknessMm", label: "Thickness", unit: "mm", min: 0, max: 30 },
] as const satisfies readonly NumberSpec[];

const isChannel = (text: string): text is Channel => (CHANNELS as readonly string[]).includes(text);

/** Reads the form of a filter, or says beside each box what is wrong. */
export function readFilter(form: FormData): Result<Filter, Faults> {
  const { values, faults } = readNumbers(form, FILTER_NUMBERS);
  const [name, channel] = [textOf(form, "name").trim(), textOf(form, "channel")];
  const all: Faults = {
    ...faults,
    ...(name === "" ? { name: "Give it the name your files use." } : {}),
    ...(isChannel(channel) ? {} : { channel: "Choose a channel." }),
  };
  return Object.keys(all).length > 0 || !isChannel(channel) ? err(all) : ok({ name, channel, ...values });
}
