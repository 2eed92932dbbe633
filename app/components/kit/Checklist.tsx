import { useState } from "react";
import { Link } from "react-router";
import { ACTS, type ActsAnswer, type ActsIntent } from "~/components/forms/acts-intent";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { checkWords, PART_WORDS } from "~/components/words/care-words";
import type { Check } from "~/core/care";
import { CARE_PARTS, type CarePart, type Rig } from "~/core/exposure";
import type { NightDate } from "~/core/time";

/** A line of the checklist that the night itself brings: its battery, the calibration it wants. */
export interface NightLine {
  readonly id: string;
  readonly part: CarePart;
  readonly words: string;
}

/** What to check in a night with a rig, part by part; ticks are kept with the night. The first part with something left lies open. */
export function Checklist({
  rig,
  rigId,
  night,
  checks,
  lines = [],
  parts: shown = CARE_PARTS,
  done,
  search,
  isLarge = false,
  isFolded = false,
}: {
  readonly rig: Rig;
  readonly rigId: string;
  readonly night: NightDate;
  readonly checks: readonly Check[];
  readonly lines?: readonly NightLine[];
  /** Of which parts of the night; absent = all. */
  readonly parts?: readonly CarePart[];
  readonly done: ReadonlySet<string>;
  readonly search: string;
  /** For gloves. */
  readonly isLarge?: boolean;
  /** No part lies open by itself. */
  readonly isFolded?: boolean;
}) {
  const { act, refusal } = useAct<ActsIntent, ActsAnswer>({ action: ACTS });
  // Shown as pressed at once, until it is kept; refused, it goes back. From then on what is kept counts, whoever ticks it.
  const [pressed, setPressed] = useState<ReadonlyMap<string, boolean>>(new Map());
  const awaited = [...pressed].filter(([id, is]) => done.has(id) !== is);
  if (awaited.length < pressed.size) setPressed(new Map(awaited));
  const [opened, setOpened] = useState<ReadonlyMap<CarePart, boolean>>(new Map());
  const isDone = (id: string) => (refusal ? undefined : pressed.get(id)) ?? done.has(id);
  const tick = (check: string, isNow: boolean) => {
    setPressed(new Map([...(refusal ? [] : pressed), [check, isNow]]));
    void act({ act: "tick", night, rigId, check, isDone: isNow });
  };
  const parts = shown
    .map((part) => ({
      part,
      items: [
        ...checks.filter((c) => c.part === part).map((c) => ({ id: c.id, words: checkWords(c, rig) })),
        ...lines.filter((l) => l.part === part),
      ],
    }))
    .filter((p) => p.items.length > 0);
  // As it was kept: a part does not close under the finger that ticks its last line.
  const first = parts.find((p) => p.items.some((i) => !done.has(i.id)))?.part;
  return (
    <>
      <StorageRefusal fault={refusal} />
      {parts.map(({ part, items }) => {
        const isOpen = opened.get(part) ?? (!isFolded && part === first);
        const left = items.filter((i) => !isDone(i.id)).length;
        return (
          <section key={part} aria-label={PART_WORDS[part]} className="print:mt-0.5">
            <h3 className="font-sans print:inline print:font-semibold">
              <span className="hidden print:inline">{PART_WORDS[part]}:</span>
              <button
                type="button"
                aria-expanded={isOpen}
                onClick={() => setOpened(new Map([...opened, [part, !isOpen]]))}
                className={`no-print hover:bg-raised flex w-full justify-between gap-3 text-left ${isLarge ? "min-h-14 items-center text-lg" : "min-h-7 items-baseline"}`}
              >
                {PART_WORDS[part]}
                <span className="text-note text-faint">{left === 0 ? "done" : `${left} left`}</span>
              </button>
            </h3>
            <ul className={`${isOpen ? "mb-2" : "hidden"} print:mb-0 print:inline`}>
              {items.map(({ id, words }) => (
                <li key={id} className="print:inline">
                  <label className={`flex gap-2.5 print:inline ${isLarge ? "min-h-14 items-center text-lg" : "py-1"}`}>
                    <input
                      type="checkbox"
                      className={`shrink-0 ${isLarge ? "h-6 w-6" : "mt-[3px] h-3.5 w-3.5"} print:mr-0.5 print:ml-1.5 print:h-2 print:w-2`}
                      checked={isDone(id)}
                      aria-busy={isDone(id) !== done.has(id)}
                      onChange={(e) => tick(id, e.target.checked)}
                    />
                    <span className={isDone(id) ? "text-faint print:text-inherit" : ""}>{words}</span>
                  </label>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      {/* In the dark nobody writes lists. */}
      {isLarge ? null : (
        <p className="no-print mt-2">
          <Link
            to={`/kit/rigs/${rigId}/checklist${search}`}
            className="text-note text-soft underline underline-offset-4"
          >
            Change this list
          </Link>
        </p>
      )}
    </>
  );
}
