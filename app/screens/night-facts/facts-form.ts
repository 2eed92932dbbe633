import { readSomeNumbers, specsOf, textOf, type Faults } from "~/components/forms/form-numbers";
import { LOST_CAUSES, TRAIN_PARTS, type LostCause, type NightFacts } from "~/core/ledger";
import { NIGHT_FIELDS, TIME_FIELDS } from "~/core/records";
import { err, ok, type Result } from "~/core/result";

/** Number boxes of a night's facts. */
export const NIGHT_NUMBERS = specsOf(NIGHT_FIELDS);

/** The box of the minutes lost to a cause. */
export const lostBox = <C extends LostCause>(cause: C) => `lost-${cause}` as const;

const PROGRAMMED = specsOf({ programmedMin: TIME_FIELDS.programmedMin });
const LOST_NUMBERS = LOST_CAUSES.map((cause) => ({ name: lostBox(cause), ...TIME_FIELDS.lostMin }));

const DEWS = ["none", "wet", "ice"] as const;

/** What a form says of a night, beside which night it is. */
export type WrittenFacts = Omit<NightFacts, "night" | "placeId" | "memberId">;

/** Reads the facts of a night, or says beside each box what is wrong; an empty box is not written down. */
export function readFactsForm(form: FormData): Result<WrittenFacts, Faults> {
  const textIn = (name: string) => textOf(form, name);
  const { values, faults: numberFaults } = readSomeNumbers([...NIGHT_NUMBERS, ...PROGRAMMED], textIn);
  const { values: minutes, faults: lostFaults } = readSomeNumbers(LOST_NUMBERS, textIn);
  const faults: Faults = { ...numberFaults, ...lostFaults };
  if (Object.keys(faults).length > 0) return err(faults);
  const lost: Partial<Record<LostCause, number>> = Object.fromEntries(
    LOST_CAUSES.flatMap((cause) => {
      const min = minutes[lostBox(cause)] ?? 0;
      return min > 0 ? [[cause, min]] : [];
    }),
  );
  const dew = DEWS.find((d) => d === textOf(form, "dew"));
  const rigId = textOf(form, "rigId");
  const train = TRAIN_PARTS.filter((p) => form.getAll("train").includes(p));
  const words = (name: string) => textOf(form, name).trim().slice(0, 4000);
  return ok({
    ...values,
    ...(dew ? { dew } : {}),
    ...(rigId ? { rigId } : {}),
    ...(train.length > 0 ? { train } : {}),
    ...(Object.keys(lost).length > 0 ? { lost } : {}),
    trouble: words("trouble"),
    cure: words("cure"),
    note: words("note"),
  });
}
