import { DraftMark, useFormStart } from "~/components/forms/drafts";
import { SaveButton } from "~/components/forms/SaveButton";
import { useState } from "react";
import { Form } from "react-router";
import type { Filter, Rig } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { CameraSettings } from "./CameraSettings";
import { BackFocus } from "./BackFocus";
import { numberFault, type Faults, type NumberSpec } from "~/components/forms/form-numbers";
import { CAMERA_NUMBERS, OPTICS_NUMBERS, OVERHEAD_NUMBERS, rigTexts, SENSOR_NUMBERS } from "./rig-form";
import { RigView } from "./RigView";
import { Field, SelectField } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";

const SWITCHES = [
  { name: "isColour", label: "Colour camera" },
  { name: "isCooled", label: "Cooled" },
  { name: "isGuided", label: "Guided" },
  { name: "flipsAtMeridian", label: "Mount flips at the meridian" },
] as const;

/** Entering or changing a rig; the field of view follows while one types. */
export function RigForm({
  rig,
  baseRev,
  filters,
  faults,
}: {
  readonly rig: Rig | null;
  readonly baseRev: string;
  readonly filters: readonly { readonly id: string; readonly data: Filter }[];
  readonly faults: Faults;
}) {
  const start = useFormStart();
  const [base] = useState(start.text("baseRev", baseRev));
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(Object.entries(rigTexts(rig)).map(([name, text]) => [name, start.text(name, text)])),
  );
  const boxes = (specs: readonly NumberSpec[]) =>
    specs.map((s) => {
      const text = texts[s.name] ?? "";
      // A value that is wrong is said at once; an empty box only after saving.
      const fault = text.trim() === "" ? faults[s.name] : numberFault(s, text);
      const about = { label: s.label, fault, ...(s.unit ? { unit: s.unit } : {}), ...(s.hint ? { hint: s.hint } : {}) };
      return (
        <Field
          key={s.name}
          {...about}
          name={s.name}
          inputMode="decimal"
          value={text}
          onChange={(e) => setTexts({ ...texts, [s.name]: e.target.value })}
        />
      );
    });
  const group = "grid gap-4 sm:grid-cols-3 xl:grid-cols-4";
  return (
    <Form method="post" className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <DraftMark />
      <input type="hidden" name="baseRev" value={base} />
      <div className="space-y-5">
        <Field label="Name" name="name" defaultValue={start.text("name", rig?.name ?? "")} fault={faults["name"]} />
        <fieldset>
          <legend className="text-section text-soft mb-1 font-serif">Optics</legend>
          <div className={group}>{boxes(OPTICS_NUMBERS)}</div>
        </fieldset>
        <fieldset>
          <legend className="text-section text-soft mb-1 font-serif">Sensor</legend>
          <div className={group}>{boxes(SENSOR_NUMBERS)}</div>
        </fieldset>
        <fieldset>
          <legend className="text-section text-soft mb-1 font-serif">Camera at its usual gain</legend>
          <div className={group}>
            {boxes(CAMERA_NUMBERS)}
            <Field
              label="Name in its files"
              name="cameraName"
              defaultValue={start.text("cameraName", rig?.cameraName ?? "")}
              hint="Keyword INSTRUME; empty = any"
            />
          </div>
          <CameraSettings settings={rig?.settings ?? []} faults={faults} />
        </fieldset>
        <fieldset>
          <legend className="text-section text-soft mb-1 font-serif">Filters</legend>
          <div className="flex flex-wrap gap-x-5 gap-y-1">
            {filters.map((f) => (
              <label key={f.id} className="flex items-center gap-2 py-1">
                <input
                  type="checkbox"
                  name="filterIds"
                  value={f.id}
                  defaultChecked={start.texts("filterIds", rig?.filterIds ?? []).includes(f.id)}
                />
                {f.data.name} <span className="text-note text-faint">{f.data.channel}</span>
              </label>
            ))}
          </div>
          {faults["filterIds"] ? (
            <p role="alert" className="text-note text-rust">
              {faults["filterIds"]}
            </p>
          ) : null}
        </fieldset>
        <fieldset>
          <legend className="text-section text-soft mb-1 font-serif">Mount</legend>
          <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
            {SWITCHES.map((s) => (
              <label key={s.name} className="flex items-center gap-2 py-1">
                <input
                  type="checkbox"
                  name={s.name}
                  defaultChecked={
                    start.texts(s.name, (rig?.[s.name] ?? s.name !== "isColour") ? ["on"] : []).length > 0
                  }
                />
                {s.label}
              </label>
            ))}
            <SelectField label="Rotator" name="rotator" defaultValue={start.text("rotator", rig?.rotator ?? "manual")}>
              <option value="none">none</option>
              <option value="manual">by hand</option>
              <option value="motor">motor</option>
            </SelectField>
          </div>
        </fieldset>
        <fieldset>
          <legend className="text-section text-soft mb-1 font-serif">Time that is not exposure</legend>
          <div className={group}>{boxes(OVERHEAD_NUMBERS)}</div>
        </fieldset>
        <SaveButton words="Save rig" />
      </div>
      <Panel title="What it sees" className="h-fit lg:sticky lg:top-4">
        <RigView texts={texts} />
        {rig ? (
          <BackFocus
            {...opticsOf(rig)}
            filters={filters.filter((f) => rig.filterIds.includes(f.id)).map((f) => f.data)}
            slotMm={rig.slotMm ?? 0}
          />
        ) : null}
      </Panel>
    </Form>
  );
}
