import { numberFault, numberIn, specsOf, textOf, type Faults } from "~/components/forms/form-numbers";
import { LOST_CAUSES, TRAIN_PARTS, type LostCause, type NightFacts } from "~/core/ledger";
import { NIGHT_FIELDS, TIME_FIELDS } from "~/core/records";
import { err, ok, type Result } from "~/core/result";

/** Number boxes of a night's facts. */
export const NIGHT_NUMBERS = specsOf(NIGHT_FIELDS);

const DEWS = ["none", "wet", "ice"] as const;

/** What a form says of a night, beside which night it is. */
export type WrittenFacts = Omit<NightFacts, "night" | "placeId" | "memberId">;

/** Reads the facts of a night, or says beside each box what is wrong; an empty box is not written down. */
export function readFactsForm(form: FormData): Result<WrittenFacts, Faults> {
  const faults: Record<string, string> = {};
  const values: Partial<Record<keyof typeof NIGHT_FIELDS, number>> = {};
  for (const spec of NIGHT_NUMBERS) {
    const text = textOf(form, spec.name);
    if (text.trim() === "") continue;
    const fault = numberFault(spec, text);
    if (fault) faults[spec.name] = fault;
    else values[spec.name] = numberIn(spec, text)! + 0;
  }
  const lost: Partial<Record<LostCause, number>> = {};
  for (const cause of LOST_CAUSES) {
    const text = textOf(form, `lost-${cause}`);
    if (text.trim() === "") continue;
    const fault = numberFault(TIME_FIELDS.lostMin, text);
    if (fault) faults[`lost-${cause}`] = fault;
    else if (numberIn(TIME_FIELDS.lostMin, text)! > 0) lost[cause] = numberIn(TIME_FIELDS.lostMin, text)!;
  }
  const programmed = textOf(form, "programmedMin");
  const programmedFault = programmed.trim() === "" ? undefined : numberFault(TIME_FIELDS.programmedMin, programmed);
  if (programmedFault) faults["programmedMin"] = programmedFault;
  if (Object.keys(faults).length > 0) return err(faults);
  const dew = DEWS.find((d) => d === textOf(form, "dew"));
  const rigId = textOf(form, "rigId");
  const train = TRAIN_PARTS.filter((p) => form.getAll("train").includes(p));
  const words = (name: string) => textOf(form, name).trim().slice(0, 4000);
  return ok({
    ...values,
    ...(dew ? { dew } : {}),
    ...(rigId ? { rigId } : {}),
    ...(train.length > 0 ? { train } : {}),
    ...(programmed.trim() === "" ? {} : { programmedMin: numberIn(TIME_FIELDS.programmedMin, programmed)! }),
    ...(Object.keys(lost).length > 0 ? { lost } : {}),
    trouble: words("trouble"),
    cure: words("cure"),
    note: words("note"),
  });
}
