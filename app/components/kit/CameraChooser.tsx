import { useState } from "react";
import { numberFault, numberIn } from "~/components/forms/form-numbers";
import { Field, SelectField } from "~/components/ui/Field";
import type { KitPresets, TypicalCamera } from "~/core/exposure";
import { Choices } from "./Choices";
import { NotInList } from "./NotInList";
import { CameraPicture } from "./KindPicture";
import { isColourOf, nearestCamera, OWN_SENSOR, type TypedKit } from "./typed-kit";

const SENSORS = [
  { id: "colour", words: "one-shot colour", isColour: true },
  { id: "mono", words: "monochrome, with filters", isColour: false },
] as const;
const PLAIN = { cooled: true, widthPx: 6000, heightPx: 4000, pixelUm: 3.8 };

/** Cameras by their kind, or by their own numbers; whether one records colour is asked and never assumed. */
export function CameraChooser({
  presets,
  typed,
  onChoose,
}: {
  readonly presets: KitPresets;
  readonly typed: TypedKit;
  readonly onChoose: (change: Partial<TypedKit>) => void;
}) {
  const { widthPx = "", heightPx = "", pixelPitchUm = "", ...rest } = typed.own;
  const isOwn = [widthPx, heightPx, pixelPitchUm].some((t) => t.trim() !== "");
  const camera = presets.cameras.find((c) => c.id === typed.camera);
  const isAsked = camera !== undefined && isColourOf(camera, typed) === null;
  return (
    <>
      <div className="mb-3">
        <p className={isAsked ? "text-lamp mb-1" : "text-note text-faint mb-1"} role={isAsked ? "status" : undefined}>
          {isAsked
            ? "Colour or monochrome? It decides which filters it takes, and what a night is good for."
            : "Cooled cameras are made as either; photo cameras are colour."}
        </p>
        <Choices
          label="Colour or monochrome"
          kinds={SENSORS}
          chosen={typed.colour}
          picture={({ isColour }) => <CameraPicture {...PLAIN} isColour={isColour} />}
          onChoose={(colour) => onChoose({ colour: colour as TypedKit["colour"], filters: "" })}
        />
      </div>
      <Choices
        label="Camera"
        kinds={presets.cameras.filter((c) => typed.colour !== "mono" || !c.colour)}
        chosen={isOwn ? "" : typed.camera}
        picture={(c: TypicalCamera) => <CameraPicture {...c} isColour={isColourOf(c, typed)} />}
        onChoose={(id) => onChoose({ camera: id, filters: "", own: rest })}
      />
      <OwnCamera
        presets={presets}
        typed={typed}
        isOpen={isOwn}
        onUse={(id, own) => onChoose({ camera: id, filters: "", own: { ...rest, ...own } })}
      />
    </>
  );
}

function OwnCamera({
  presets,
  typed,
  isOpen,
  onUse,
}: {
  readonly presets: KitPresets;
  readonly typed: TypedKit;
  readonly isOpen: boolean;
  readonly onUse: (camera: string, own: Readonly<Record<string, string>>) => void;
}) {
  const [isCooled, setCooled] = useState(presets.cameras.find((c) => c.id === typed.camera)?.cooled ?? true);
  const [own, setOwn] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(OWN_SENSOR.map(({ name }) => [name, typed.own[name] ?? ""])),
  );
  const isWhole = OWN_SENSOR.every((n) => numberFault(n, own[n.name] ?? "") === undefined);
  return (
    <NotInList
      isOpen={isOpen}
      isWhole={isWhole}
      note="Noise and full well are taken from the nearest kind until you type your own."
      onUse={() => onUse(nearestCamera(presets, isCooled, numberIn(OWN_SENSOR[2]!, own["pixelPitchUm"] ?? "")).id, own)}
    >
      <SelectField
        label="What it is"
        value={isCooled ? "cooled" : "photo"}
        onChange={(e) => setCooled(e.target.value === "cooled")}
      >
        <option value="cooled">cooled camera</option>
        <option value="photo">photo camera</option>
      </SelectField>
      {OWN_SENSOR.map((n) => (
        <Field
          key={n.name}
          label={n.label}
          {...(n.unit ? { unit: n.unit } : {})}
          inputMode="decimal"
          value={own[n.name] ?? ""}
          fault={(own[n.name] ?? "").trim() === "" ? undefined : numberFault(n, own[n.name]!)}
          onChange={(e) => setOwn({ ...own, [n.name]: e.target.value })}
        />
      ))}
    </NotInList>
  );
}
