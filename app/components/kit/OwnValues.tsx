import { Field } from "~/components/ui/Field";
import type { KitPresets } from "~/core/exposure";
import { OWN_GROUPS, typicalTexts, type TypedKit } from "./typed-kit";

/** The numbers behind the answer, folded under what they change: typical ones until somebody types their own. */
export function OwnValues({
  presets,
  typed,
  faults,
  onType,
}: {
  readonly presets: KitPresets;
  readonly typed: TypedKit;
  readonly faults: Readonly<Record<string, string>>;
  readonly onType: (own: Readonly<Record<string, string>>) => void;
}) {
  const typical = typicalTexts(presets, typed);
  return (
    <>
      {OWN_GROUPS.map(({ title, numbers }) => {
        const own = numbers.filter((n) => (typed.own[n.name] ?? "").trim() !== "").length;
        return (
          <details
            key={title}
            className="border-rule border-t py-2"
            open={numbers.some((n) => faults[n.name]) || undefined}
          >
            <summary className="min-h-6 cursor-pointer">
              {title}{" "}
              <span className="text-note text-faint">
                {own === 0
                  ? "typical values used, as we remember them of its class"
                  : `${own} of ${numbers.length} your own`}
              </span>
            </summary>
            <div className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-3 lg:grid-cols-4">
              {numbers.map((n) => (
                <Field
                  key={n.name}
                  label={n.label}
                  {...(n.unit ? { unit: n.unit } : {})}
                  inputMode="decimal"
                  placeholder={typical[n.name] ?? ""}
                  value={typed.own[n.name] ?? ""}
                  fault={faults[n.name]}
                  hint={(typed.own[n.name] ?? "") === "" ? `typical: ${typical[n.name] ?? "?"}` : "your own"}
                  onChange={(e) => onType({ ...typed.own, [n.name]: e.target.value })}
                />
              ))}
            </div>
          </details>
        );
      })}
    </>
  );
}
