import { useState } from "react";
import { Form } from "react-router";
import { DraftMark, useFormStart } from "~/components/forms/drafts";
import type { Faults } from "~/components/forms/form-numbers";
import { SaveButton } from "~/components/forms/SaveButton";
import { Field, SelectField } from "~/components/ui/Field";
import { MOON_SCHOOL_WORDS, TWILIGHT_WORDS } from "~/components/words/moon-words";
import { CHANNELS } from "~/core/exposure";
import { MOON_SCHOOLS, moonRuleOf, TWILIGHT_SCHOOLS } from "~/core/night";
import { MOON_SHARE_FIELD, type Settings } from "~/core/records";
import { MOON_RULE_NUMBERS } from "./moon-form";
import { CalibrationFields } from "./CalibrationFields";
import { PlanningFields } from "./PlanningFields";

/** What of the settings is a rule. */
export type Rules = Pick<
  Settings,
  "moon" | "standsBeforeDark" | "simulatedServices" | "planning" | "calibration" | "clock" | "units"
>;

/** How a person decides: one of three schools of the Moon, what each of them asks, when gear stands, what is asked about weather. */
export function RulesForm({
  rev,
  rules,
  places,
  canSimulate,
  faults,
}: {
  /** Places that are a drive away. */
  readonly places: readonly { readonly id: string; readonly name: string }[];
  readonly rev: string;
  /** Somebody can play the simulated services. */
  readonly canSimulate: boolean;
  readonly rules: Rules;
  readonly faults: Faults;
}) {
  const { moon } = rules;
  const start = useFormStart();
  const isTicked = (name: "standsBeforeDark" | "simulatedServices") =>
    start.texts(name, rules[name] ? ["on"] : []).length > 0;
  const [base] = useState(start.text("baseRev", rev));
  const school = start.text("school", moon.school);
  const twilight = start.text("twilight", moon.twilight ?? "count");
  return (
    <Form method="post" className="mt-4 max-w-3xl">
      <input type="hidden" name="baseRev" value={base} />
      <DraftMark />
      <PlanningFields rules={rules.planning} places={places} faults={faults} />
      <fieldset className="mt-6">
        <legend className="text-section">When the Moon is up</legend>
        {MOON_SCHOOLS.map((s) => (
          <label key={s} className="mt-2 grid min-h-6 grid-cols-[auto_1fr] gap-x-2">
            <input type="radio" name="school" value={s} defaultChecked={school === s} className="mt-1" />
            <span>
              <span className="font-semibold">{MOON_SCHOOL_WORDS[s].name}</span>
              <span className="text-soft block">{MOON_SCHOOL_WORDS[s].about}</span>
            </span>
          </label>
        ))}
      </fieldset>
      <fieldset className="mt-6">
        <legend className="text-section">In twilight</legend>
        {TWILIGHT_SCHOOLS.map((s) => (
          <label key={s} className="mt-2 grid min-h-6 grid-cols-[auto_1fr] gap-x-2">
            <input type="radio" name="twilight" value={s} defaultChecked={twilight === s} className="mt-1" />
            <span>
              <span className="font-semibold">{TWILIGHT_WORDS[s].name}</span>
              <span className="text-soft block">{TWILIGHT_WORDS[s].about}</span>
            </span>
          </label>
        ))}
      </fieldset>
      <div className="mt-3 w-64">
        <Field
          label={MOON_SHARE_FIELD.label}
          unit="%"
          name="leastShare"
          inputMode="decimal"
          defaultValue={start.text("leastShare", String(Math.round(moon.leastShare * 1000) / 10))}
          fault={faults["leastShare"]}
          hint="Used by “count it”. 15 % leaves out only minutes that cost seven times their worth."
        />
      </div>
      <h2 className="text-section mt-6">Channel by channel</h2>
      <p className="text-soft max-w-prose">
        The two figures belong to “keep away”: how far from a full Moon, and after how many days that distance is
        halved. Both are practice, good to about 20°.
      </p>
      <div className="mt-2 overflow-x-auto">
        <table className="w-full">
          <thead>
            <tr className="text-note text-soft text-left">
              <th scope="col">Channel</th>
              <th scope="col">When the Moon is up</th>
              {MOON_RULE_NUMBERS.map((n) => (
                <th key={n.name} scope="col">
                  {n.label}, {n.unit}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {CHANNELS.map((c) => (
              <tr key={c} className="border-rule border-t align-top">
                <th scope="row" className="pt-2 pr-3 text-left font-semibold">
                  {c}
                </th>
                <td className="py-1 pr-3">
                  <select
                    name={`school ${c}`}
                    aria-label={`${c}: when the Moon is up`}
                    className="field-box"
                    defaultValue={start.text(`school ${c}`, moon.channels?.[c] ?? "")}
                  >
                    <option value="">as above</option>
                    {MOON_SCHOOLS.map((s) => (
                      <option key={s} value={s}>
                        {MOON_SCHOOL_WORDS[s].name}
                      </option>
                    ))}
                  </select>
                </td>
                {MOON_RULE_NUMBERS.map((n) => (
                  <td key={n.name} className="py-1 pr-3">
                    <input
                      name={`${n.name} ${c}`}
                      aria-label={`${c}: ${n.label}`}
                      aria-invalid={faults[`${n.name} ${c}`] ? true : undefined}
                      inputMode="decimal"
                      autoComplete="off"
                      className="field-box w-24"
                      defaultValue={start.text(`${n.name} ${c}`, String(moonRuleOf(moon, c)[n.name]))}
                    />
                    {faults[`${n.name} ${c}`] ? (
                      <p role="alert" className="text-note text-rust">
                        {faults[`${n.name} ${c}`]}
                      </p>
                    ) : null}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <CalibrationFields calibration={rules.calibration} faults={faults} />
      <h2 className="text-section mt-6">The night itself</h2>
      <label className="mt-2 flex min-h-6 items-start gap-2">
        <input
          type="checkbox"
          name="standsBeforeDark"
          value="on"
          defaultChecked={isTicked("standsBeforeDark")}
          className="mt-1"
        />
        <span>
          Everything stands before dark
          <span className="text-soft block">
            Run sheets set up by sunset and align when the first stars show; without it, right before the first sub.
          </span>
        </span>
      </label>
      {canSimulate ? (
        <label className="mt-2 flex min-h-6 items-start gap-2">
          <input
            type="checkbox"
            name="simulatedServices"
            value="on"
            defaultChecked={isTicked("simulatedServices")}
            className="mt-1"
          />
          <span>
            Ask the simulated forecast services
            <span className="text-soft block">Pretended weather, to try the app with. The demo always asks them.</span>
          </span>
        </label>
      ) : (
        <>
          {isTicked("simulatedServices") ? <input type="hidden" name="simulatedServices" value="on" /> : null}
          <p className="text-soft mt-2">
            The simulated forecast services are played by the app’s own server; this copy comes from a host of files.
          </p>
        </>
      )}
      <fieldset className="mt-6">
        <legend className="text-section">How it is written</legend>
        <div className="mt-2 grid gap-3 sm:grid-cols-2">
          <SelectField label="Clock times" name="clock" defaultValue={start.text("clock", rules.clock ?? "24h")}>
            <option value="24h">21:05</option>
            <option value="12h">9:05 pm</option>
          </SelectField>
          <SelectField
            label="Units"
            name="units"
            defaultValue={start.text("units", rules.units ?? "metric")}
            hint="What is kept and computed is metric; every box takes either, as 394 ft or 14 °F."
          >
            <option value="metric">metres, km/h, °C</option>
            <option value="imperial">feet, inches, mph, °F</option>
          </SelectField>
        </div>
      </fieldset>
      <div className="mt-4">
        <SaveButton look="main" words="Save" />
      </div>
    </Form>
  );
}
