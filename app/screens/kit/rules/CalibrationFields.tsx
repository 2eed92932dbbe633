import { useFormStart } from "~/components/forms/drafts";
import { specsOf, type Faults } from "~/components/forms/form-numbers";
import { Field, SelectField } from "~/components/ui/Field";
import { USUAL_CALIBRATION, type CalibrationSchool } from "~/core/ledger";
import { CALIBRATION_FIELDS } from "~/core/records";

/** Number boxes of the calibration one takes. */
export const CALIBRATION_NUMBERS = specsOf(CALIBRATION_FIELDS);

/** How many calibration frames one takes, and what takes the bias off flats. */
export function CalibrationFields({
  calibration = USUAL_CALIBRATION,
  faults,
}: {
  readonly calibration?: CalibrationSchool | undefined;
  readonly faults: Faults;
}) {
  const start = useFormStart();
  return (
    <section className="mt-6">
      <h2 className="text-section">Calibration I take</h2>
      <p className="text-soft max-w-prose">Run sheets say what the night&apos;s lights still need of it.</p>
      <div className="mt-2 grid max-w-3xl gap-4 sm:grid-cols-4">
        {CALIBRATION_NUMBERS.map((s) => (
          <Field
            key={s.name}
            label={s.label}
            unit={s.unit}
            name={s.name}
            inputMode="numeric"
            defaultValue={start.text(s.name, String(calibration[s.name]))}
            fault={faults[s.name]}
          />
        ))}
        <SelectField label="Off flats goes" name="flatsBy" defaultValue={start.text("flatsBy", calibration.flatsBy)}>
          <option value="darkFlat">a dark of the flat&apos;s length</option>
          <option value="bias">bias</option>
        </SelectField>
      </div>
    </section>
  );
}
