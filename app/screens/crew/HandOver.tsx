import { fixed } from "~/components/numbers";
import { download, fileStem } from "~/components/download";
import { Button } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";
import { groupBy } from "~/core/numeric";
import type { HandOverData, HandOverItem } from "~/core/crew";

const FORMS = {
  stacks: "calibrated stacks, unstretched",
  calibratedSubs: "calibrated subs",
  rawSubs: "raw subs with their calibration",
} as const satisfies Readonly<Record<HandOverData["form"], string>>;

const itemWords = (i: HandOverItem): string =>
  `${i.channel}${i.panels > 1 ? `, ${i.panels} panels` : ""}, ${fixed(i.scaleArcsec, 2)} ″/px${i.binning > 1 ? `, binned ${i.binning}` : ""}`;

/** What each one hands over, in which form and under which name; ticked off as it comes. */
export function HandOver({
  name,
  terms,
  items,
  isBusy,
  onChange,
}: {
  readonly name: string;
  readonly terms: Pick<HandOverData, "form" | "bits" | "done">;
  readonly items: readonly HandOverItem[];
  /** While a change is being kept: the next one builds upon it. */
  readonly isBusy: boolean;
  readonly onChange: (terms: Pick<HandOverData, "form" | "bits" | "done">) => void;
}) {
  if (items.length === 0) return null;
  const people = [...groupBy(items, (i) => i.memberId).values()].map(
    (theirs) => [theirs[0]!.memberName, theirs] as const,
  );
  const open = items.filter((i) => !i.isDone).length;
  const text = () =>
    [
      `${name}: what to hand over`,
      `${FORMS[terms.form]}, ${terms.bits} bits a pixel, at the scale of the camera`,
      "",
      ...people.flatMap(([person, theirs]) => [
        `${person}:`,
        ...theirs.map((i) => `  [${i.isDone ? "x" : " "}] ${itemWords(i)}, as ${i.fileName}.fits`),
        "",
      ]),
    ].join("\n");
  return (
    <Panel title="Hand over" aside={open === 0 ? "all here" : `${open} of ${items.length} to come`}>
      <div className="grid gap-2">
        <SelectField
          disabled={isBusy}
          label="Form"
          value={terms.form}
          onChange={(e) =>
            onChange({
              ...terms,
              form: (Object.keys(FORMS) as HandOverData["form"][]).find((f) => f === e.target.value) ?? terms.form,
            })
          }
        >
          {Object.entries(FORMS).map(([form, words]) => (
            <option key={form} value={form}>
              {words}
            </option>
          ))}
        </SelectField>
        <SelectField
          disabled={isBusy}
          label="Bits a pixel"
          value={String(terms.bits)}
          onChange={(e) => onChange({ ...terms, bits: e.target.value === "16" ? 16 : 32 })}
        >
          <option value="32">32, real numbers</option>
          <option value="16">16</option>
        </SelectField>
      </div>
      {people.map(([person, theirs]) => (
        <section key={theirs[0]!.memberId} aria-label={person} className="border-rule mt-2 border-t pt-1">
          <h3 className="flex justify-between gap-2 font-semibold">
            {person}
            <span className="text-note text-faint font-normal">
              {theirs.every((i) => i.isDone)
                ? "all here"
                : `${theirs.filter((i) => !i.isDone).length} of ${theirs.length} to come`}
            </span>
          </h3>
          <ul>
            {theirs.map((i) => (
              <li key={i.key} className="py-0.5">
                <label className="flex min-h-6 items-start gap-2">
                  <input
                    type="checkbox"
                    className="mt-1"
                    disabled={isBusy}
                    checked={i.isDone}
                    onChange={(e) =>
                      onChange({
                        ...terms,
                        done: e.target.checked ? [...terms.done, i.key] : terms.done.filter((k) => k !== i.key),
                      })
                    }
                  />
                  <span className="min-w-0">
                    {itemWords(i)}
                    <span className="text-note text-soft block break-words">{i.fileName}.fits</span>
                  </span>
                </label>
              </li>
            ))}
          </ul>
        </section>
      ))}
      <Button
        className="mt-2"
        disabled={isBusy}
        onClick={() => download(`${fileStem(name)}-hand-over.txt`, text(), "text/plain")}
      >
        Export the list
      </Button>
    </Panel>
  );
}
