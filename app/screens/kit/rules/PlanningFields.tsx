import { useFormStart } from "~/components/forms/drafts";
import type { Faults } from "~/components/forms/form-numbers";
import { Field } from "~/components/ui/Field";
import { USUAL_PERSON_RULES, type PersonRules } from "~/core/season";
import { PLANNING_FIELDS } from "~/core/records";
import { DRIVE, planningTexts, WEEKDAYS } from "./planning-form";

/** How nights are planned: free evenings, how long, how many targets, how many rigs. */
export function PlanningFields({
  rules = USUAL_PERSON_RULES,
  places,
  faults,
}: {
  readonly rules?: PersonRules | undefined;
  /** Places that are a drive away. */
  readonly places: readonly { readonly id: string; readonly name: string }[];
  readonly faults: Faults;
}) {
  const start = useFormStart();
  const texts = planningTexts(rules);
  const free = start.texts(
    "free",
    WEEKDAYS.flatMap(({ day }) => (rules.busyWeekdays.includes(day) ? [] : [String(day)])),
  );
  const isOneRig = start.texts("isOneRig", rules.isOneRig ? ["on"] : []).length > 0;
  const box = (name: keyof typeof texts, hint?: string) => (
    <Field
      label={PLANNING_FIELDS[name].label}
      unit={PLANNING_FIELDS[name].unit}
      name={name}
      inputMode="decimal"
      defaultValue={start.text(name, texts[name])}
      fault={faults[name]}
      {...(hint ? { hint } : {})}
    />
  );
  return (
    <section className="mt-6">
      <h2 className="text-section">Planning my nights</h2>
      <p className="text-soft max-w-prose">
        Season, Tonight and the run sheets keep to it; single nights are fixed or freed in Season.
      </p>
      <fieldset className="mt-2">
        <legend className="text-note text-soft">Evenings that can be used</legend>
        <div className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
          {WEEKDAYS.map(({ day, word }) => (
            <label key={day} className="flex min-h-6 items-center gap-2">
              <input type="checkbox" name="free" value={day} defaultChecked={free.includes(String(day))} />
              {word}
            </label>
          ))}
        </div>
        {faults["free"] ? (
          <p role="alert" className="text-note text-rust">
            {faults["free"]}
          </p>
        ) : null}
      </fieldset>
      <div className="mt-3 grid max-w-2xl gap-4 sm:grid-cols-3">
        {box("targetsANight", "One, or two, gives good pictures.")}
        {box("minBlockMin")}
        {box("mostHours", "Empty: as long as it is dark.")}
      </div>
      {places.length > 0 ? (
        <div className="mt-3 grid max-w-2xl gap-4 sm:grid-cols-3">
          {places.map((p) => (
            <Field
              key={p.id}
              label={`Drive to ${p.name} from`}
              unit={PLANNING_FIELDS.fromHours.unit}
              name={`${DRIVE}${p.id}`}
              inputMode="decimal"
              defaultValue={start.text(
                `${DRIVE}${p.id}`,
                String(rules.drives?.find((d) => d.placeId === p.id)?.fromHours ?? ""),
              )}
              fault={faults[`${DRIVE}${p.id}`]}
              hint="Hours that count, more than at home. Empty: never."
            />
          ))}
        </div>
      ) : null}
      <label className="mt-3 flex min-h-6 items-center gap-2">
        <input type="checkbox" name="isOneRig" defaultChecked={isOneRig} />
        One rig at a time: my rigs share the night
      </label>
    </section>
  );
}
