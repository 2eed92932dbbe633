import { useState } from "react";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import { fixed } from "~/components/numbers";
import { readSomeNumbers, specsOf } from "~/components/forms/form-numbers";
import type { SubLimits } from "~/core/exposure";
import { LIMIT_FIELDS } from "~/core/records";

const SPECS = specsOf(LIMIT_FIELDS);

/** The owner's own rule for the subs of a rig, kept with it; an empty box is no limit. */
export function OwnLimits({
  rigName,
  limits,
  scale,
  isBusy,
  onSave,
}: {
  readonly rigName: string;
  readonly limits: SubLimits;
  /** Arcseconds a pixel, as its pictures are binned. */
  readonly scale: number;
  readonly isBusy: boolean;
  readonly onSave: (limits: SubLimits) => void;
}) {
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(
    Object.fromEntries(SPECS.map((s) => [s.name, String(limits[s.name] ?? "")])),
  );
  const { values: typed, faults } = readSomeNumbers(SPECS, (name) => texts[name] ?? "");
  const isSame = SPECS.every((s) => typed[s.name] === limits[s.name]);
  return (
    <form
      aria-label={`Your own limits for ${rigName}`}
      onSubmit={(e) => {
        e.preventDefault();
        if (Object.keys(faults).length === 0) onSave(typed);
      }}
    >
      <p className="text-note text-soft">Your own limits for {rigName}; an empty box is none</p>
      <div className="mt-1 grid grid-cols-2 gap-2">
        {SPECS.map((s) => (
          <Field
            key={s.name}
            label={s.label}
            unit={s.unit}
            inputMode="decimal"
            value={texts[s.name] ?? ""}
            fault={faults[s.name]}
            hint={s.name === "fwhmPx" && typed.fwhmPx && scale > 0 ? `${fixed(typed.fwhmPx * scale, 1)}″` : undefined}
            onChange={(e) => setTexts({ ...texts, [s.name]: e.target.value })}
          />
        ))}
      </div>
      <Button type="submit" className="mt-2" disabled={isBusy || isSame || Object.keys(faults).length > 0}>
        Save these limits
      </Button>
    </form>
  );
}
