import { useState } from "react";
import { CameraChooser } from "~/components/kit/CameraChooser";
import { OpticsChooser } from "~/components/kit/OpticsChooser";
import { MountAndFilters } from "~/components/kit/MountAndFilters";
import { isColourOf, kindsOf, type TypedKit } from "~/components/kit/typed-kit";
import type { KitPresets } from "~/core/exposure";

const STEPS = ["optics", "camera"] as const;
type Step = (typeof STEPS)[number];

/** How the form of a new rig is filled: by kinds with typical values, which one's own replace below. */
export function FromKinds({
  presets,
  typed,
  onChoose,
}: {
  readonly presets: KitPresets;
  readonly typed: TypedKit;
  readonly onChoose: (change: Partial<TypedKit>) => void;
}) {
  const camera = presets.cameras.find((c) => c.id === typed.camera);
  const isAnswered = (step: Step, now: TypedKit) =>
    step === "optics"
      ? now.optics !== ""
      : presets.cameras.some((c) => c.id === now.camera && isColourOf(c, now) !== null);
  const nextOf = (now: TypedKit) => STEPS.find((s) => !isAnswered(s, now)) ?? null;
  const [open, setOpen] = useState<Step | null>(() => nextOf(typed));
  const fill = (change: Partial<TypedKit>) => {
    onChoose(change);
    setOpen(nextOf({ ...typed, ...change }));
  };
  const kit = kindsOf(presets, typed);
  const words = { optics: "Telescope or lens", camera: "Camera" };
  return (
    <section aria-label="Begin with its kind" className="border-rule bg-sheet rounded-[10px] border p-4">
      <p className="text-note text-soft mb-2">
        Choose what comes nearest: typical values fill the boxes, marked as such, and what you type over them is yours.
      </p>
      <div className="flex flex-wrap gap-2">
        {STEPS.map((step) => (
          <button
            key={step}
            type="button"
            aria-expanded={open === step}
            onClick={() => setOpen(open === step ? null : step)}
            className={`min-h-8 rounded-[4px] border-b-2 px-1 text-left ${open === step ? "border-lamp" : "border-rule"} ${isAnswered(step, typed) ? "text-lamp" : "text-soft"}`}
          >
            {words[step]}
            {step === "camera" && camera ? `: ${camera.words}` : ""}
            {step === "optics" && typed.optics
              ? `: ${presets.optics.find((o) => o.id === typed.optics)?.words ?? ""}`
              : ""}
          </button>
        ))}
      </div>
      {open ? (
        <div className="mt-3">
          {open === "optics" ? (
            <OpticsChooser presets={presets} typed={typed} onChoose={fill} />
          ) : (
            <CameraChooser presets={presets} typed={typed} onChoose={fill} />
          )}
        </div>
      ) : null}
      {kit ? (
        <div className="mt-3 grid gap-3 sm:grid-cols-2">
          <MountAndFilters
            presets={presets}
            typed={typed}
            kit={kit}
            filtersHint="Those you have none of yet are added with the rig."
            onChoose={onChoose}
          />
        </div>
      ) : null}
    </section>
  );
}
