import { useState } from "react";
import { Field, SelectField } from "~/components/ui/Field";
import type { Channel } from "~/core/exposure";
import { cycleText, readCycle, type ShootingRules } from "~/core/season";
import { RULE_FIELDS } from "~/core/records";

/** The rules with one of them changed; without a value it is as usual again. */
function withRule<K extends keyof ShootingRules>(
  rules: ShootingRules,
  key: K,
  value: ShootingRules[K] | undefined,
): ShootingRules {
  const { [key]: _, ...rest } = rules;
  return value === undefined ? rest : { ...rest, [key]: value };
}

/** How a picture is shot, where not as usual: rounds of panels, what comes first, channels in turn, stretches, runs of nights. */
export function ShootingRulesFields({
  rules,
  channels,
  hasRounds,
  onChange,
  onReads,
}: {
  readonly rules: ShootingRules;
  readonly channels: readonly Channel[];
  /** Whether there are panels to go round. */
  readonly hasRounds: boolean;
  readonly onChange: (rules: ShootingRules) => void;
  /** Whether what is typed can be read. */
  readonly onReads: (is: boolean) => void;
}) {
  const [cycle, setCycle] = useState(rules.cycle ? cycleText(rules.cycle) : "");
  const [isOpen, setOpen] = useState(Object.keys(rules).length > 0);
  const isRead = cycle.trim() === "" || readCycle(cycle, channels) !== null;
  const number = (key: "roundSubs" | "leastMin" | "clearRun", hint: string, unit?: string) => {
    const { label, min, max } = RULE_FIELDS[key];
    const value = rules[key];
    return (
      <Field
        label={label}
        type="number"
        unit={unit}
        min={min}
        max={max}
        value={value === undefined ? "" : String(value)}
        hint={hint}
        fault={
          value !== undefined && (value < min || value > max || !Number.isFinite(value))
            ? `Between ${min} and ${max}.`
            : undefined
        }
        onChange={(e) => onChange(withRule(rules, key, e.target.value === "" ? undefined : Number(e.target.value)))}
      />
    );
  };
  return (
    <details
      className="border-rule border-t pt-2 sm:col-span-2"
      open={isOpen}
      onToggle={(e) => setOpen(e.currentTarget.open)}
    >
      <summary className="min-h-6 cursor-pointer font-semibold">
        How it is shot <span className="text-note text-soft font-normal">empty = as usual</span>
      </summary>
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        {hasRounds ? number("roundSubs", "Then the next panel, round after round. Empty: once a night each.") : null}
        <Field
          label="Channels in turn"
          value={cycle}
          placeholder="3 L, R, G, B"
          spellCheck={false}
          hint="Round after round within a night. Empty: one channel after another."
          fault={
            isRead ? undefined : `Two or more of ${channels.join(", ")}, each once, with the subs in a row before it.`
          }
          onChange={(e) => {
            const read = readCycle(e.target.value, channels);
            setCycle(e.target.value);
            onReads(e.target.value.trim() === "" || read !== null);
            onChange(withRule(rules, "cycle", read ?? undefined));
          }}
        />
        <SelectField
          label="First of all"
          value={rules.first ?? ""}
          hint="Done in all panels before anything else is begun."
          onChange={(e) =>
            onChange(
              withRule(
                rules,
                "first",
                channels.find((c) => c === e.target.value),
              ),
            )
          }
        >
          <option value="">no channel before the others</option>
          {channels.map((c) => (
            <option key={c}>{c}</option>
          ))}
        </SelectField>
        <SelectField
          label="When nights are scarce"
          value={rules.isToFinish ? "finish" : "worth"}
          onChange={(e) => onChange(withRule(rules, "isToFinish", e.target.value === "finish" ? true : undefined))}
        >
          <option value="worth">most worth: nights go where their light counts most</option>
          <option value="finish">finish it: the nearer its goal, the more it counts, up to double</option>
        </SelectField>
        {number("leastMin", "Shorter stretches are not worth pointing at it. Empty: as your own rules say.", "min")}
        {number("clearRun", "Waits until so many are likely. Empty: any clear night will do.")}
      </div>
    </details>
  );
}
