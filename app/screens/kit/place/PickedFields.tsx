import { numberFault, numberIn, specsOf, type NumberSpec } from "~/components/forms/form-numbers";
import { AROUND_FIELDS, THING_NAME } from "~/core/records";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import type { Pick, Surroundings } from "./edit";

const LAST_AZIMUTH_DEG = 359.9; // north itself is 0
const SPECS: Readonly<Record<keyof Surroundings, readonly NumberSpec[]>> = {
  skyline: specsOf(AROUND_FIELDS.skyline),
  landmarks: specsOf(AROUND_FIELDS.landmarks),
  domes: specsOf(AROUND_FIELDS.domes),
  lamps: specsOf({ ...AROUND_FIELDS.lamps, altitudeDeg: { ...AROUND_FIELDS.lamps.altitudeDeg, min: 0 } }),
};
const TITLES: Readonly<Record<keyof Surroundings, string>> = {
  skyline: "Point of the line",
  landmarks: "Landmark",
  domes: "Town glow",
  lamps: "Lamp",
};

/** The picked thing in numbers, for those who measured. A value outside its range is refused beside its box. */
export function PickedFields({
  now,
  pick,
  onChange,
  onMove,
  onRemove,
}: {
  readonly now: Surroundings;
  readonly pick: Pick;
  readonly onChange: (fields: Readonly<Record<string, number | string>>) => void;
  readonly onMove: (azimuthDeg: number) => void;
  readonly onRemove: () => void;
}) {
  const thing = now[pick.list][pick.index];
  if (!thing) return null;
  const values = thing as unknown as Readonly<Record<string, number | string>>;
  return (
    <div className="mt-2 flex flex-wrap items-end gap-3">
      <p className="text-soft w-full">{TITLES[pick.list]}</p>
      {"name" in thing ? (
        <div className="w-44">
          <Field
            label="Name of it"
            maxLength={THING_NAME.max}
            value={thing.name}
            onChange={(e) => onChange({ name: e.target.value })}
          />
        </div>
      ) : null}
      {SPECS[pick.list]
        .map((s) => (s.name === "azimuthDeg" ? { ...s, max: LAST_AZIMUTH_DEG } : s))
        .map((spec) => (
          <NumberBox
            key={`${pick.list} ${pick.index} ${spec.name} ${String(values[spec.name])}`}
            spec={spec}
            value={Number(values[spec.name])}
            onValue={(v) =>
              spec.name === "azimuthDeg" && pick.list === "skyline" ? onMove(v) : onChange({ [spec.name]: v })
            }
          />
        ))}
      <Button look="stop" onClick={onRemove}>
        Remove it
      </Button>
    </div>
  );
}

/** Takes its value when one leaves it or presses Enter; the form around it is not sent. */
function NumberBox({
  spec,
  value,
  onValue,
}: {
  readonly spec: NumberSpec;
  readonly value: number;
  readonly onValue: (value: number) => void;
}) {
  const take = (box: HTMLInputElement) => {
    const fault = numberFault(spec, box.value);
    box.setCustomValidity(fault ?? "");
    box.reportValidity();
    const read = numberIn(spec, box.value);
    if (!fault && read !== null && read !== value) onValue(read);
  };
  return (
    <div className="w-32">
      <Field
        label={spec.label}
        {...(spec.unit ? { unit: spec.unit } : {})}
        inputMode="decimal"
        defaultValue={value}
        onBlur={(e) => take(e.target)}
        onKeyDown={(e) => {
          if (e.key !== "Enter") return;
          e.preventDefault();
          take(e.currentTarget);
        }}
      />
    </div>
  );
}
