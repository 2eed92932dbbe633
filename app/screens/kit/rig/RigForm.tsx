import { DraftMark, useChosenBox, useFormStart } from "~/components/forms/drafts";
import { SaveButton } from "~/components/forms/SaveButton";
import { useState, type ComponentProps, type ReactNode } from "react";
import { Form, Link } from "react-router";
import { apertureText } from "~/components/kit/typed-kit";
import type { KitPresets, Rig } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { CameraSettings } from "./CameraSettings";
import { BackFocus } from "./BackFocus";
import { FromKinds } from "./FromKinds";
import { numberFault, type Faults, type NumberSpec } from "~/components/forms/form-numbers";
import {
  CAMERA_NUMBERS,
  FIRST_NUMBERS,
  GLASS_NUMBERS,
  MOUNT_NUMBERS,
  OVERHEAD_NUMBERS,
  POWER_NUMBERS,
  isSettingBox,
  KINDS_BOX,
} from "./rig-form";
import { useRigBoxes, type FilterChoice, type OfKinds, type Tick } from "./use-rig-boxes";
import { RigView } from "./RigView";
import { Field, SelectField } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";

/** Entering or changing a rig: first what a person knows, the rest folded under what it changes. The field of view follows while one types. */
export function RigForm({
  rig: stored,
  baseRev,
  filters,
  faults,
  presets,
  ofKinds,
  moves = [],
  slope = null,
  checklistTo = null,
}: {
  readonly rig: Rig | null;
  readonly baseRev: string;
  readonly filters: readonly FilterChoice[];
  readonly faults: Faults;
  readonly presets: KitPresets;
  /** What the log's subs show of the focuser. */
  readonly moves?: ComponentProps<typeof BackFocus>["moves"];
  /** What its owner wrote down of focus and air. */
  readonly slope?: ComponentProps<typeof BackFocus>["slope"];
  readonly ofKinds: OfKinds;
  /** Where the rig's checklist is; null = it is not kept yet. */
  readonly checklistTo?: string | null;
}) {
  const start = useFormStart();
  const [base] = useState(start.text("baseRev", baseRev));
  const it = useRigBoxes(stored, { start, presets, ofKinds });
  const [kindsBox, changed] = useChosenBox();
  const choose: typeof it.choose = (change) => {
    it.choose(change);
    changed();
  };
  const { rig, kinds, texts, ticks, chosen, isTypical } = it;
  const offered = [...filters, ...it.came.filter((f) => !filters.some((x) => x.id === f.id))];
  const textIn = (name: string) =>
    name === "apertureMm" ? apertureText(texts[name] ?? "", texts["focalLengthMm"] ?? "") : (texts[name] ?? "");
  const boxes = (specs: readonly NumberSpec[]) =>
    specs.map((s) => {
      const text = texts[s.name] ?? "";
      // A value that is wrong is said at once; an empty box only after saving.
      const fault = text.trim() === "" ? faults[s.name] : numberFault(s, textIn(s.name));
      const hint = isTypical(s.name) ? "typical of its class, as we remember it" : s.hint;
      return (
        <Field
          key={s.name}
          label={s.label}
          fault={fault}
          {...(s.unit ? { unit: s.unit } : {})}
          isDifference={s.isDifference}
          {...(hint ? { hint } : {})}
          name={s.name}
          inputMode="decimal"
          value={text}
          onChange={(e) => it.type(s.name, e.target.value)}
        />
      );
    });
  const tick = (name: Tick, label: string) => (
    <label key={name} className="flex items-center gap-2 py-1">
      <input type="checkbox" name={name} checked={ticks[name]} onChange={(e) => it.tick(name, e.target.checked)} />
      {label}
    </label>
  );
  const group = "grid gap-4 sm:grid-cols-3 xl:grid-cols-4";
  const typicalOf = (specs: readonly NumberSpec[]) => specs.filter((s) => isTypical(s.name)).length;
  const hasFault = (specs: readonly NumberSpec[]) =>
    specs.some(
      (s) =>
        faults[s.name] !== undefined ||
        ((texts[s.name] ?? "").trim() !== "" && numberFault(s, textIn(s.name)) !== undefined),
    );
  const isTypicalAnywhere = (rig?.typical ?? []).length > 0;
  return (
    <Form method="post" className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <DraftMark />
      <input type="hidden" name="baseRev" value={base} />
      {stored ? null : <input ref={kindsBox} type="hidden" name={KINDS_BOX} value={JSON.stringify(kinds)} />}
      <div className="space-y-4">
        {stored ? null : <FromKinds presets={presets} typed={kinds} onChoose={choose} />}
        <Field
          label="Name"
          name="name"
          value={it.name}
          fault={faults["name"]}
          onChange={(e) => it.rename(e.target.value)}
        />
        <fieldset>
          <legend className="text-section text-soft mb-1 font-serif">Telescope or lens, and sensor</legend>
          <div className={group}>{boxes(FIRST_NUMBERS)}</div>
          <div className="mt-2 flex flex-wrap gap-x-6">
            {[
              tick("isColour", "Colour camera"),
              tick("isCooled", "Cooled"),
              tick("isStock", "Photo camera as sold: it holds back hydrogen"),
            ]}
          </div>
        </fieldset>
        <fieldset>
          <legend className="text-section text-soft mb-1 font-serif">Filters</legend>
          <div className="flex flex-wrap gap-x-5 gap-y-1">
            {offered.map((f) => (
              <label key={f.id} className="flex items-center gap-2 py-1">
                <input
                  type="checkbox"
                  name="filterIds"
                  value={f.id}
                  checked={chosen.has(f.id)}
                  onChange={(e) => it.tickFilter(f.id, e.target.checked)}
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
        <div>
          <Fold
            title="The camera’s noise and gain"
            changes="sub lengths, signal to noise, what clips"
            typical={typicalOf(CAMERA_NUMBERS)}
            isOpen={hasFault(CAMERA_NUMBERS) || Object.keys(faults).some(isSettingBox)}
          >
            <div className={group}>
              {boxes(CAMERA_NUMBERS)}
              <Field
                label="Name in its files"
                name="cameraName"
                defaultValue={start.text("cameraName", rig?.cameraName ?? "")}
                hint="Keyword INSTRUME; empty = any"
              />
            </div>
            <CameraSettings
              key={kinds.camera}
              start={it.settingsStart}
              settings={rig?.settings ?? []}
              faults={faults}
            />
          </Fold>
          <Fold
            title="How much light comes through"
            changes="hours needed, and what a filter’s thickness does"
            typical={typicalOf(GLASS_NUMBERS)}
            isOpen={hasFault(GLASS_NUMBERS)}
          >
            <div className={group}>{boxes(GLASS_NUMBERS)}</div>
          </Fold>
          <Fold
            title="Mount"
            changes="longest sub, the flip, how the camera is turned, what wind spoils"
            typical={typicalOf(MOUNT_NUMBERS)}
            isOpen={hasFault(MOUNT_NUMBERS)}
          >
            <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-2">
              {[
                tick("isGuided", "Guided"),
                tick("flipsAtMeridian", "Mount flips at the meridian"),
                tick("isAltAz", "Moves in altitude and azimuth: the field turns"),
              ]}
              <SelectField
                label="Rotator"
                name="rotator"
                value={it.rotator}
                onChange={(e) => it.turnBy(e.target.value)}
              >
                <option value="none">none</option>
                <option value="manual">by hand</option>
                <option value="motor">motor</option>
              </SelectField>
            </div>
            <div className={group}>{boxes(MOUNT_NUMBERS)}</div>
          </Fold>
          <Fold
            title="Time that is not exposure"
            changes="how much exposure a night gives"
            typical={0}
            isOpen={hasFault(OVERHEAD_NUMBERS)}
          >
            <div className={group}>{boxes(OVERHEAD_NUMBERS)}</div>
          </Fold>
          <Fold
            title="Power in the field"
            changes="how long the battery lasts, on the sheet of the night"
            typical={0}
            isOpen={hasFault(POWER_NUMBERS)}
          >
            <div className={group}>
              {boxes(POWER_NUMBERS)}
              <SelectField
                label="Kind of battery"
                name="chemistry"
                defaultValue={start.text("chemistry", rig?.power?.chemistry ?? "lithium")}
              >
                <option value="lithium">lithium iron phosphate</option>
                <option value="lead">lead</option>
              </SelectField>
            </div>
            <p className="text-note text-faint mt-2">
              Leave all of them empty where there is a socket. Mains outdoors: a residual-current device before it,
              joints off the wet ground, your local code.
            </p>
          </Fold>
        </div>
        {isTypicalAnywhere ? (
          <label className="flex items-center gap-2">
            <input type="checkbox" name="isOwn" defaultChecked={start.texts("isOwn", []).length > 0} />
            All values here are this rig’s own: none is a typical one any more
          </label>
        ) : null}
        <SaveButton words="Save rig" />
      </div>
      <Panel title="What it sees" className="order-first h-fit lg:sticky lg:top-4 lg:order-none">
        <RigView texts={texts} />
        {checklistTo === null ? null : (
          <p className="mt-2">
            <Link to={checklistTo} className="underline underline-offset-4">
              Its checklist for the night
            </Link>
          </p>
        )}
        {stored ? (
          <BackFocus
            {...opticsOf(stored)}
            filters={filters.filter((f) => stored.filterIds.includes(f.id)).map((f) => f.data)}
            slotMm={stored.slotMm ?? 0}
            moves={moves}
            slope={slope}
          />
        ) : null}
      </Panel>
    </Form>
  );
}

/** Values folded under what they change. Closed boxes are part of the form all the same. */
function Fold({
  title,
  changes,
  typical,
  isOpen,
  children,
}: {
  readonly title: string;
  readonly changes: string;
  /** How many of its values are typical ones. */
  readonly typical: number;
  /** Something in it is wrong: it opens by itself. */
  readonly isOpen: boolean;
  readonly children: ReactNode;
}) {
  return (
    <details className="border-rule border-t py-2" open={isOpen || undefined}>
      <summary className="min-h-6 cursor-pointer">
        <span className="font-serif">{title}</span>{" "}
        <span className="text-note text-faint">
          changes {changes}
          {typical > 0 ? <span className="text-lamp">; typical values used</span> : ""}
        </span>
      </summary>
      <div className="pt-3 pb-2">{children}</div>
    </details>
  );
}
