import { Popover } from "radix-ui";
import { useState } from "react";
import { Field } from "~/components/ui/Field";
import { counted, fixed, trimmed } from "~/components/numbers";
import { hoursForGoal, measuresOf, type GoalAsked, type SubQuestion } from "~/core/exposure";
import { parseNumber } from "~/core/notation";
import { GOAL_FIELDS } from "~/core/records";

const MOST_HOURS = GOAL_FIELDS.hoursPerPanel.max;

/** A goal in hours as subs, depth and signal to noise; each can be typed instead, and becomes hours. */
export function GoalWords({
  name,
  question,
  hours,
  subSec,
  objectMag,
  onHours,
}: {
  /** Of the channel, for the labels. */
  readonly name: string;
  readonly question: SubQuestion;
  readonly hours: number;
  readonly subSec: number;
  /** Surface brightness of the target, mag/arcsec², if that is known. */
  readonly objectMag: number | null;
  readonly onHours: (hours: string) => void;
}) {
  const [typedMag, setTypedMag] = useState("");
  const own = parseNumber(typedMag);
  const mag = own !== null && own > 5 && own < 35 ? own : (objectMag ?? USUAL_MAG);
  const { subs, depthMag, snr } = measuresOf(question, hours, subSec, mag);
  const take = (asked: GoalAsked): string | undefined => {
    const found = hoursForGoal(question, subSec, asked);
    if (!(found > 0)) return "More than 0.";
    if (found > MOST_HOURS) return `That takes ${fixed(found)} h a panel, more than ${MOST_HOURS} h.`;
    onHours(trimmed(Math.round(found * 100) / 100));
    return undefined;
  };
  return (
    <Popover.Root>
      <Popover.Trigger
        aria-label={`${counted(subs, "sub")}, ${fixed(depthMag, 1)} mag. ${name}: the goal in other measures`}
        className="text-note decoration-rule hover:decoration-lamp text-soft mt-1 block text-left underline decoration-dotted underline-offset-4"
      >
        <span className="whitespace-nowrap">{counted(subs, "sub")},</span>{" "}
        <span className="whitespace-nowrap">{fixed(depthMag, 1)} mag</span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="border-rule bg-sheet text-body text-ink z-40 w-96 max-w-[94vw] rounded-[8px] border p-4 shadow-lg"
        >
          <p className="text-note text-soft mb-2">Type what you want of {name}; it becomes hours a panel.</p>
          <div className="grid grid-cols-2 gap-3">
            <Measure
              key={`subs ${subs}`}
              label="Number of subs"
              unit={`${trimmed(subSec)} s`}
              shown={String(subs)}
              onTake={(n) => take({ measure: "subs", subs: Math.ceil(n) })}
            />
            <Measure
              key={`depth ${depthMag.toFixed(2)}`}
              label="Depth"
              unit="mag/arcsec²"
              shown={fixed(depthMag, 2)}
              onTake={(n) => take({ measure: "depth", depthMag: n })}
            />
            <Measure
              key={`snr ${snr.toFixed(1)}`}
              label="Signal to noise"
              unit="10″ × 10″"
              shown={fixed(snr, 1)}
              onTake={(n) => take({ measure: "snr", snr: n, objectMag: mag })}
            />
            <Field
              label="Object of"
              unit="mag/arcsec²"
              inputMode="decimal"
              value={typedMag === "" ? fixed(mag, 1) : typedMag}
              onChange={(e) => setTypedMag(e.target.value)}
            />
          </div>
          <p className="text-note text-soft mt-2">
            {objectMag === null
              ? "The brightness of the target is not in the catalogue; a faint one is assumed."
              : "The brightness is the target's mean from the catalogue; its faint parts are fainter."}{" "}
            Depth: 3σ over 10″ × 10″. Ideal stacking of hours with the target at its best here, without the Moon; flats
            and gradients leave real stacks 0.3 to 1 mag less deep.
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const USUAL_MAG = 25; // mag/arcsec²: outskirts of galaxies, faint nebulae; a proposal of this project

/** A number that is taken when its box is left or Enter is pressed; why it cannot be. */
function Measure({
  label,
  unit,
  shown,
  onTake,
}: {
  readonly label: string;
  readonly unit: string;
  readonly shown: string;
  readonly onTake: (value: number) => string | undefined;
}) {
  const [text, setText] = useState(shown);
  const [fault, setFault] = useState<string | undefined>();
  const take = () => {
    if (text === shown) return;
    const value = parseNumber(text);
    setFault(value === null ? `“${text.trim()}” is not a number.` : onTake(value));
  };
  return (
    <Field
      label={label}
      unit={unit}
      inputMode="decimal"
      value={text}
      fault={fault}
      onChange={(e) => setText(e.target.value)}
      onBlur={take}
      onKeyDown={(e) => e.key === "Enter" && take()}
    />
  );
}
