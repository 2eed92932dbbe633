import { useState } from "react";
import { numberFault, numberIn } from "~/components/forms/form-numbers";
import { Field, SelectField } from "~/components/ui/Field";
import { OPTICS_KINDS, type KitPresets } from "~/core/exposure";
import { Choices } from "./Choices";
import { NotInList } from "./NotInList";
import { OpticsPicture } from "./KindPicture";
import { apertureText, nearestOptics, OWN_OPTICS, type TypedKit } from "./typed-kit";

/** Optics by their kind, or by their own numbers where no kind fits. */
export function OpticsChooser({
  presets,
  typed,
  onChoose,
}: {
  readonly presets: KitPresets;
  readonly typed: TypedKit;
  readonly onChoose: (change: Partial<TypedKit>) => void;
}) {
  const { focalLengthMm = "", apertureMm = "", ...rest } = typed.own;
  const isOwn = focalLengthMm.trim() !== "" || apertureMm.trim() !== "";
  return (
    <>
      <Choices
        label="Telescope or lens"
        kinds={presets.optics}
        chosen={isOwn ? "" : typed.optics}
        picture={OpticsPicture}
        onChoose={(id) => onChoose({ optics: id, mount: "", own: rest })}
      />
      <OwnOptics
        presets={presets}
        typed={typed}
        isOpen={isOwn}
        onUse={(optics, own) => onChoose({ optics, mount: "", own: { ...rest, ...own } })}
      />
    </>
  );
}

function OwnOptics({
  presets,
  typed,
  isOpen,
  onUse,
}: {
  readonly presets: KitPresets;
  readonly typed: TypedKit;
  readonly isOpen: boolean;
  readonly onUse: (optics: string, own: Readonly<Record<string, string>>) => void;
}) {
  const [kind, setKind] = useState(presets.optics.find((o) => o.id === typed.optics)?.kind ?? "lens");
  const [focal, setFocal] = useState(typed.own["focalLengthMm"] ?? "");
  const [aperture, setAperture] = useState(typed.own["apertureMm"] ?? "");
  const texts = [focal, apertureText(aperture, focal)];
  const faults = OWN_OPTICS.map((n, i) => (texts[i]!.trim() === "" ? undefined : numberFault(n, texts[i]!)));
  const isWhole = OWN_OPTICS.every((n, i) => numberFault(n, texts[i]!) === undefined);
  return (
    <NotInList
      isOpen={isOpen}
      isWhole={isWhole}
      note="How much light it passes is taken from the nearest of its kind."
      onUse={() =>
        onUse(nearestOptics(presets, kind, numberIn(OWN_OPTICS[0]!, focal)).id, {
          focalLengthMm: focal,
          apertureMm: aperture,
        })
      }
    >
      <SelectField label="What it is" value={kind} onChange={(e) => setKind(e.target.value)}>
        {OPTICS_KINDS.map(([id, name]) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </SelectField>
      <Field
        label="Focal length"
        unit="mm"
        inputMode="decimal"
        value={focal}
        fault={faults[0]}
        onChange={(e) => setFocal(e.target.value)}
      />
      <Field
        label="Aperture"
        unit="mm"
        value={aperture}
        fault={faults[1]}
        hint="Or as f/2.8, or 8 in"
        onChange={(e) => setAperture(e.target.value)}
      />
    </NotInList>
  );
}
