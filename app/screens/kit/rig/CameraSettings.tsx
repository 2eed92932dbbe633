import { useState } from "react";
import type { FormStart } from "~/components/forms/drafts";
import type { Faults } from "~/components/forms/form-numbers";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import type { CameraSetting } from "~/core/exposure";
import { MOST_SETTINGS, SETTING_NAME } from "~/core/records";
import { SETTING_NUMBERS, settingBox } from "./rig-form";

/** Other settings of a camera, such as its ISO values: a line of boxes each; a channel of a budget chooses one. */
export function CameraSettings({
  start,
  settings,
  faults,
}: {
  readonly start: Pick<FormStart, "texts">;
  readonly settings: readonly CameraSetting[];
  readonly faults: Faults;
}) {
  const texts = (name: keyof CameraSetting) =>
    start.texts(
      settingBox(name),
      settings.map((s) => String(s[name])),
    );
  const [rows, setRows] = useState(() =>
    texts("name").map((name, i) => ({
      key: i,
      name,
      numbers: Object.fromEntries(SETTING_NUMBERS.map((n) => [n.name, texts(n.name)[i] ?? ""])),
    })),
  );
  const add = () => {
    const key = Math.max(-1, ...rows.map((r) => r.key)) + 1;
    setRows([...rows, { key, name: "", numbers: {} }]);
  };
  return (
    <div className="mt-3">
      <p className="text-note text-soft">
        Other settings of it, such as ISO 800 or gain 100: each has its own gain, read noise and full well, and a
        channel of a budget can choose it.
      </p>
      {rows.map((row, i) => (
        <div key={row.key} className="mt-2 grid gap-3 sm:grid-cols-[1.2fr_1fr_1fr_1fr_auto]">
          <Field
            label={SETTING_NAME.label}
            name={settingBox("name")}
            maxLength={SETTING_NAME.max}
            defaultValue={row.name}
            fault={faults[`${settingBox("name")} ${i}`]}
          />
          {SETTING_NUMBERS.map((n) => (
            <Field
              key={n.name}
              label={n.label}
              {...(n.unit ? { unit: n.unit } : {})}
              name={settingBox(n.name)}
              inputMode="decimal"
              defaultValue={row.numbers[n.name] ?? ""}
              fault={faults[`${settingBox(n.name)} ${i}`]}
            />
          ))}
          <Button
            look="plain"
            className="self-end"
            aria-label={`Remove setting ${row.name || i + 1}`}
            onClick={() => setRows(rows.filter((r) => r.key !== row.key))}
          >
            Remove
          </Button>
        </div>
      ))}
      {rows.length < MOST_SETTINGS ? (
        <Button className="mt-2" onClick={add}>
          Add a setting
        </Button>
      ) : null}
    </div>
  );
}
