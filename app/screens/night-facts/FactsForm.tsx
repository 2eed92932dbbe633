import { useState } from "react";
import { Form } from "react-router";
import { DraftMark, useFormStart } from "~/components/forms/drafts";
import type { Faults } from "~/components/forms/form-numbers";
import { SaveButton } from "~/components/forms/SaveButton";
import { counted, plain } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { Field, SelectField, TextField } from "~/components/ui/Field";
import { TRAIN_WORDS } from "~/components/words/calibration-words";
import { LOST_CAUSES, TRAIN_PARTS, type NightFacts } from "~/core/ledger";
import { parseNumber } from "~/core/notation";
import { TIME_FIELDS } from "~/core/records";
import { lostBox, NIGHT_NUMBERS } from "./facts-form";
import { angleWords, LOST_WORDS } from "./facts-words";
import type { FactsView } from "./load";

type Told = NonNullable<FactsView["told"]>;
const DIGITS: Readonly<Record<keyof Told, number>> = { airC: 1, focusMoves: 0, cameraAngleDeg: 1, seeingArcsec: 2 };

/** What files tell of a box; null where they tell nothing of it. */
const toldOf = (view: FactsView, name: string) => (name in DIGITS ? (view.told?.[name as keyof Told] ?? null) : null);

/** What can be added to a night beside its numbers. */
const MORE = [
  { name: "dew", label: "Dew" },
  { name: "time", label: "Where the time went" },
  { name: "train", label: "Changed in the optical train" },
] as const;

/**
 * The facts of a rig's night: boxes for what is written down or what its files tell, the rest as chips to add; what is left empty is not
 * written down.
 */
export function FactsForm({ view, faults }: { readonly view: FactsView; readonly faults: Faults }) {
  const start = useFormStart();
  const known = view.facts?.data;
  const [added, setAdded] = useState<readonly string[]>([]);
  const ticked = start.texts("train", known?.train ?? []);
  const text = (name: Exclude<keyof NightFacts, "lost" | "train">) => {
    const told = view.facts === null ? toldOf(view, name) : null;
    const begin = told === null ? "" : plain(told.value, DIGITS[name as keyof Told]);
    return start.text(name, String(known?.[name] ?? begin));
  };
  const lost = (cause: (typeof LOST_CAUSES)[number]) => start.text(lostBox(cause), String(known?.lost?.[cause] ?? ""));
  const hasTime = text("programmedMin") !== "" || LOST_CAUSES.some((c) => lost(c) !== "" || faults[lostBox(c)]);
  const isOpen = (name: string): boolean => {
    if (added.includes(name) || faults[name]) return true;
    if (name === "time") return hasTime || faults["programmedMin"] !== undefined;
    if (name === "train") return ticked.length > 0;
    return text(name as "dew") !== "";
  };
  const chips = [...NIGHT_NUMBERS, ...MORE].filter(({ name }) => !isOpen(name));
  return (
    <Form
      method="post"
      className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4"
      key={`${view.placeId} ${view.night} ${view.rigId}`}
    >
      <DraftMark />
      <input type="hidden" name="night" value={view.night} />
      <input type="hidden" name="placeId" value={view.placeId} />
      <input type="hidden" name="rigId" value={view.rigId} />
      <input type="hidden" name="rev" value={view.facts?.rev ?? ""} />
      {NIGHT_NUMBERS.filter((s) => isOpen(s.name)).map((s) => (
        <NumberBox key={s.name} view={view} spec={s} start={text(s.name)} fault={faults[s.name]} />
      ))}
      {isOpen("dew") ? (
        <SelectField label="Dew" name="dew" defaultValue={text("dew")}>
          <option value="">not written down</option>
          <option value="none">none</option>
          <option value="wet">wet</option>
          <option value="ice">ice</option>
        </SelectField>
      ) : null}
      {isOpen("time") ? (
        <fieldset className="col-span-2 grid grid-cols-2 gap-3 sm:col-span-4 sm:grid-cols-4">
          <legend className="text-note text-soft mb-1">Where the time went</legend>
          <Field
            label={TIME_FIELDS.programmedMin.label}
            unit={TIME_FIELDS.programmedMin.unit}
            name="programmedMin"
            inputMode="decimal"
            defaultValue={text("programmedMin")}
            fault={faults["programmedMin"]}
          />
          {LOST_CAUSES.map((cause) => (
            <Field
              key={cause}
              label={`Lost to ${LOST_WORDS[cause]}`}
              unit="min"
              name={lostBox(cause)}
              inputMode="decimal"
              defaultValue={lost(cause)}
              fault={faults[lostBox(cause)]}
            />
          ))}
        </fieldset>
      ) : null}
      {isOpen("train") ? (
        <fieldset className="col-span-2 sm:col-span-4">
          <legend className="text-note text-soft">Changed in the optical train: flats from before are void</legend>
          <div className="mt-1 flex flex-wrap gap-x-5">
            {TRAIN_PARTS.map((p) => (
              <label key={p} className="flex min-h-6 items-center gap-2">
                <input type="checkbox" name="train" value={p} defaultChecked={ticked.includes(p)} />
                {TRAIN_WORDS[p]}
              </label>
            ))}
          </div>
        </fieldset>
      ) : null}
      {chips.length > 0 ? (
        <div className="col-span-2 flex flex-wrap gap-2 sm:col-span-4" role="group" aria-label="More to write down">
          {chips.map(({ name, label }) => (
            <Button
              key={name}
              className="text-note min-h-8 rounded-full px-3 py-0.5"
              onClick={() => setAdded([...added, name])}
            >
              + {label}
            </Button>
          ))}
        </div>
      ) : null}
      <div className="col-span-2">
        <TextField label="Trouble" name="trouble" rows={2} maxLength={4000} defaultValue={text("trouble")} />
      </div>
      <div className="col-span-2">
        <TextField label="What cured it" name="cure" rows={2} maxLength={4000} defaultValue={text("cure")} />
      </div>
      <div className="col-span-2 sm:col-span-4">
        <TextField label="Note" name="note" rows={2} maxLength={4000} defaultValue={text("note")} />
      </div>
      <div>
        <SaveButton words="Write down" />
      </div>
    </Form>
  );
}

/** A number of a night: what the files tell of it, and, of the camera's angle, whether it is the frame's. */
function NumberBox({
  view,
  spec,
  start,
  fault,
}: {
  readonly view: FactsView;
  readonly spec: (typeof NIGHT_NUMBERS)[number];
  readonly start: string;
  readonly fault: string | undefined;
}) {
  const [value, setValue] = useState(start);
  const told = toldOf(view, spec.name);
  const source = told ? `${plain(told.value, DIGITS[spec.name as keyof Told])} by ${counted(told.subs, "sub")}` : "";
  const angle = spec.name === "cameraAngleDeg" ? parseNumber(value) : null;
  const off = angle === null ? "" : angleWords(angle, view.frames);
  return (
    <div className={off ? "col-span-2" : undefined}>
      <Field
        label={spec.label}
        unit={spec.unit}
        name={spec.name}
        inputMode="decimal"
        value={value}
        onChange={(e) => setValue(e.target.value)}
        fault={fault}
        hint={source}
      />
      {off ? (
        <p className="text-note text-rust" role="status">
          {off}
        </p>
      ) : null}
    </div>
  );
}
