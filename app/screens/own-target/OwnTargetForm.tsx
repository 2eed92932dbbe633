import { DraftMark, useFormStart } from "~/components/forms/drafts";
import { SaveButton } from "~/components/forms/SaveButton";
import { fixed, plain } from "~/components/numbers";
import { useEffect, useState } from "react";
import { Form } from "react-router";
import { KINDS, KIND_WORDS, type CatalogEntry, type OwnTarget } from "~/core/catalog";
import { neighbourHold } from "~/core/framing";
import {
  formatDeclination,
  formatRightAscension,
  parseNumber,
  parseOffset,
  parsePosition,
  type ReadOffset,
} from "~/core/notation";
import { constellationOf } from "~/core/sky";
import type { Faults } from "~/components/forms/form-numbers";
import { positionFaultWords } from "~/components/words/fault-words";
import { LIGHT_WORDS } from "./own-target-form";
import { entryTitle } from "~/components/words/target-words";
import { Field, SelectField, TextField } from "~/components/ui/Field";

/** The field of the chosen rig, for what fits beside a neighbour. */
export interface FieldSize {
  readonly widthArcmin: number;
  readonly heightArcmin: number;
  readonly rigName: string;
}

/** "20′ east, 5′ north". */
const offsetWords = ({ eastArcmin, northArcmin }: ReadOffset): string =>
  [
    Math.abs(eastArcmin) < 0.05 ? "" : `${fixed(Math.abs(eastArcmin), 1)}′ ${eastArcmin > 0 ? "east" : "west"}`,
    Math.abs(northArcmin) < 0.05 ? "" : `${fixed(Math.abs(northArcmin), 1)}′ ${northArcmin > 0 ? "north" : "south"}`,
  ]
    .filter((w) => w !== "")
    .join(", ");

/** A target of one's own: where, what, how large, and whether to aim at a listed neighbour instead. */
export function OwnTargetForm({
  target,
  position,
  baseRev,
  faults,
  field,
  findNear,
}: {
  readonly target: OwnTarget | null;
  /** A position already typed elsewhere. */
  readonly position: string;
  readonly baseRev: string;
  readonly faults: Faults;
  readonly field: FieldSize | null;
  readonly findNear: (raDeg: number, decDeg: number, radiusDeg: number) => Promise<CatalogEntry[]>;
}) {
  const start = useFormStart();
  const [base] = useState(start.text("baseRev", baseRev)); // what was on the page when typing began
  const [text, setText] = useState(
    start.text(
      "position",
      target ? `${formatRightAscension(target.raDeg, 2)} ${formatDeclination(target.decDeg, 1)}` : position,
    ),
  );
  const [size, setSize] = useState(start.text("size", target?.majorArcmin ? String(target.majorArcmin) : ""));
  const [isTouched, setIsTouched] = useState(false);
  const read = parsePosition(text);
  const beside = read.ok ? null : parseOffset(text);
  return (
    <Form method="post" className="max-w-[44rem] space-y-4">
      <DraftMark />
      <input type="hidden" name="baseRev" value={base} />
      <Field
        label="Name"
        name="name"
        defaultValue={start.text("name", target?.name ?? "")}
        maxLength={120}
        fault={faults["name"]}
      />
      <Field
        label="Position"
        name="position"
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setIsTouched(true);
        }}
        hint={
          read.ok
            ? `Read as ${formatRightAscension(read.value.raDeg)}, ${formatDeclination(read.value.decDeg)} (from ${read.value.read}), in ${constellationOf(read.value)}. ICRS, J2000.`
            : beside
              ? `Read as ${offsetWords(beside)} of ${beside.of}; its coordinates are put in when you save.`
              : "Any usual way: 20h50m33s +31°10′, 20 50 33 +31 10, 312.64 +31.17; or beside a listed object: M 81, 20′ east."
        }
        fault={
          faults["position"] ??
          (isTouched && text.trim() !== "" && !read.ok && !beside ? positionFaultWords(read.error) : undefined)
        }
      />
      <div className="grid gap-4 sm:grid-cols-3">
        <SelectField
          label="Kind"
          name="kind"
          defaultValue={start.text("kind", target?.kind ?? "emissionNebula")}
          fault={faults["kind"]}
        >
          {KINDS.map((k) => (
            <option key={k} value={k}>
              {KIND_WORDS[k]}
            </option>
          ))}
        </SelectField>
        <SelectField label="Light" name="light" defaultValue={start.text("light", target?.light ?? "Ha")}>
          {(["Ha", "OIII", "mixed", "continuum"] as const).map((l) => (
            <option key={l} value={l}>
              {LIGHT_WORDS[l]}
            </option>
          ))}
        </SelectField>
        <Field
          label="Size"
          unit="′, longest side; may stay empty"
          name="size"
          inputMode="decimal"
          value={size}
          onChange={(e) => setSize(e.target.value)}
          fault={faults["size"]}
        />
      </div>
      <NeighbourField
        key={read.ok ? `${plain(read.value.raDeg, 3)} ${plain(read.value.decDeg, 3)}` : "none"}
        at={read.ok ? read.value : null}
        sizeArcmin={parseNumber(size) ?? 0}
        chosen={start.text("neighbourId", target?.neighbourId ?? "")}
        field={field}
        findNear={findNear}
      />
      <TextField label="Note" name="note" rows={3} defaultValue={start.text("note", target?.note ?? "")} />
      <div className="flex justify-end">
        <SaveButton words={target ? "Save target" : "Add target"} />
      </div>
    </Form>
  );
}

const HOLD_WORDS = {
  always: "inside at any camera angle",
  turned: "inside when the long side points there",
  outside: "outside your frame",
} as const;

/** Listed objects close enough to aim at, and whether the wanted one is then inside. */
function NeighbourField({
  at,
  sizeArcmin,
  chosen,
  field,
  findNear,
}: {
  readonly at: { readonly raDeg: number; readonly decDeg: number } | null;
  readonly sizeArcmin: number;
  readonly chosen: string;
  readonly field: FieldSize | null;
  readonly findNear: (raDeg: number, decDeg: number, radiusDeg: number) => Promise<CatalogEntry[]>;
}) {
  const [near, setNear] = useState<readonly CatalogEntry[]>([]);
  const [raDeg, decDeg] = [at?.raDeg, at?.decDeg];
  useEffect(() => {
    if (raDeg === undefined || decDeg === undefined || !field) return;
    let isCurrent = true;
    void findNear(raDeg, decDeg, Math.max(field.widthArcmin, field.heightArcmin) / 120).then((found) => {
      if (isCurrent) setNear(found);
    });
    return () => {
      isCurrent = false;
    };
  }, [raDeg, decDeg, field, findNear]);
  if (!at || !field) return <input type="hidden" name="neighbourId" value={chosen} />;
  const choices = near.map((entry) => ({
    entry,
    ...neighbourHold({ frame: "icrs", ...at, sizeArcmin }, entry.at, field),
  }));
  return (
    <SelectField
      key={choices.length}
      label="Aim at"
      name="neighbourId"
      defaultValue={chosen}
      hint={
        choices.length === 0
          ? `No listed object within half the frame of ${field.rigName}.`
          : `A listed neighbour can be easier to find and to centre; ${field.rigName} sees ${fixed(field.widthArcmin)}′ × ${fixed(field.heightArcmin)}′.`
      }
    >
      <option value="">the target itself</option>
      {choices.map((c) => (
        <option key={c.entry.id} value={c.entry.id}>
          {entryTitle(c.entry)}: {fixed(c.offsetArcmin, 1)}′ away, {HOLD_WORDS[c.hold]}
        </option>
      ))}
    </SelectField>
  );
}
