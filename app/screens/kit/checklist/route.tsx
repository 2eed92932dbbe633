import { useState } from "react";
import { Link, useSearchParams } from "react-router";
import { deskOf, useDesk } from "~/at-desk";
import { RestoredNote, textDraft, useDraftState } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Field, SelectField } from "~/components/ui/Field";
import { checkWords, OCCASION_WORDS, PART_WORDS, usualWords } from "~/components/words/care-words";
import { leftOutOf, wholeChecklist, type CareChange, type Check } from "~/core/care";
import { CARE_OCCASIONS, CARE_PARTS, type CareOccasion, type CarePart, type Rig } from "~/core/exposure";
import { CHECK_WORDS } from "~/core/records";
import { refusePage } from "~/desk/page-fault";
import { theDrafts } from "~/desk/records/kept";
import { libraryHere } from "~/desk/records/open-library";
import { keptSearch } from "~/desk/sky/choice";
import type { Route } from "./+types/route";
import { checklistAction } from "./action";
import type { ChecklistIntent } from "./intents";

export async function clientLoader({ context, params }: Route.ClientLoaderArgs) {
  const library = await libraryHere(deskOf(context));
  const rig = library.rigs.find((r) => r.id === params.rigId);
  if (!rig) refusePage({ code: "unknownRig" });
  return { rig };
}
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request, params }: Route.ClientActionArgs) =>
  checklistAction(deskOf(context), request, params.rigId);

export const meta: Route.MetaFunction = () => [{ title: "Checklist · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

/** The checklist of a rig, for all occasions, and what its owner changes of it. */
export default function ChecklistRoute({ loaderData: { rig } }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const { act, refusal, isBusy } = useAct<ChecklistIntent>();
  const change = (c: CareChange) => void act({ act: "change", baseRev: rig.rev, change: c });
  const checks = wholeChecklist(rig.data);
  const leftOut = leftOutOf(rig.data);
  return (
    <div className="max-w-[56rem]">
      <p className="text-note text-soft">
        <Link to={`/kit/rigs/${rig.id}${keptSearch(params)}`} className="underline underline-offset-4">
          {rig.data.name}
        </Link>
      </p>
      <h1 className="text-headline">Checklist</h1>
      <p className="text-soft mt-1 max-w-prose">
        What such kit usually asks for, in the order of a night. It is ticked on the run sheet and beside the mount, and
        printed with the sheet. Say it your way, leave out what you never need, add what you once forgot.
      </p>
      <StorageRefusal fault={refusal} />
      {CARE_PARTS.map((part) => (
        <Part key={part} part={part} rigId={rig.id} rig={rig.data} checks={checks} isBusy={isBusy} onChange={change} />
      ))}
      {leftOut.length > 0 ? (
        <section className="mt-6" aria-label="Left out">
          <h2 className="text-section text-soft">Left out</h2>
          <ul>
            {leftOut.map((id) => (
              <li key={id} className="border-rule flex items-baseline justify-between gap-4 border-t py-1">
                <span className="text-faint">{usualWords(id, rig.data)}</span>
                <Button look="plain" disabled={isBusy} onClick={() => change({ what: "takeBack", id })}>
                  Take it back
                </Button>
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {rig.data.care ? (
        <p className="mt-6">
          <Button disabled={isBusy} onClick={() => change({ what: "asUsual" })}>
            All as usual for such kit
          </Button>
        </p>
      ) : null}
    </div>
  );
}

/** What is typed of a check, or for a part of the night, is kept under it until it is saved. */
const draftName = (rigId: string, of: string): string => `check ${rigId} ${of}`;

/** Whether something was typed there and not saved: its box is open then. */
const useHasDraft = (name: string): boolean => useDesk().at(theDrafts).names().includes(name);

function Part({
  part,
  rigId,
  rig,
  checks,
  isBusy,
  onChange,
}: {
  readonly part: CarePart;
  readonly rigId: string;
  readonly rig: Rig;
  readonly checks: readonly Check[];
  readonly isBusy: boolean;
  readonly onChange: (change: CareChange) => void;
}) {
  const name = draftName(rigId, part);
  const [isAdding, setAdding] = useState(useHasDraft(name));
  const add = (words: string, occasion: CareOccasion) => {
    setAdding(false);
    onChange({ what: "add", part, occasion, words });
  };
  return (
    <section className="mt-5" aria-label={PART_WORDS[part]}>
      <h2 className="text-section text-soft">{PART_WORDS[part]}</h2>
      <ul>
        {checks
          .filter((c) => c.part === part)
          .map((c) => (
            <Line key={c.id} rigId={rigId} check={c} rig={rig} isBusy={isBusy} onChange={onChange} />
          ))}
      </ul>
      {isAdding ? (
        <Words
          name={name}
          start=""
          isBusy={isBusy}
          hasOccasion
          save="Add"
          onSave={add}
          onBack={() => setAdding(false)}
        />
      ) : (
        <Button look="plain" onClick={() => setAdding(true)} aria-label={`Add a check: ${PART_WORDS[part]}`}>
          Add a check
        </Button>
      )}
    </section>
  );
}

function Line({
  rigId,
  check,
  rig,
  isBusy,
  onChange,
}: {
  readonly rigId: string;
  readonly check: Check;
  readonly rig: Rig;
  readonly isBusy: boolean;
  readonly onChange: (change: CareChange) => void;
}) {
  const words = checkWords(check, rig);
  const { id } = check;
  const name = draftName(rigId, id);
  const [isOpen, setOpen] = useState(useHasDraft(name));
  if (isOpen)
    return (
      <li className="border-rule border-t py-2">
        <Words
          name={name}
          start={words}
          isBusy={isBusy}
          save="Save"
          onSave={(w) => {
            setOpen(false);
            if (w !== words) onChange({ what: "reword", id, words: w });
          }}
          onBack={() => setOpen(false)}
        />
      </li>
    );
  return (
    <li className="border-rule flex flex-wrap items-baseline justify-between gap-x-4 border-t py-1">
      <span className="min-w-60 flex-1">
        {words}
        {check.occasion === "always" ? null : (
          <span className="text-note text-faint"> · {OCCASION_WORDS[check.occasion]}</span>
        )}
        {check.words === null ? null : <span className="text-note text-lamp"> · your words</span>}
      </span>
      <span className="flex gap-1">
        <Button look="plain" aria-label={`Reword: ${words}`} onClick={() => setOpen(true)}>
          Reword
        </Button>
        <Button
          look="plain"
          disabled={isBusy}
          aria-label={`${check.usual === null ? "Remove" : "Leave out"}: ${words}`}
          onClick={() => onChange({ what: "leaveOut", id })}
        >
          {check.usual === null ? "Remove" : "Leave out"}
        </Button>
      </span>
    </li>
  );
}

/** A box for a check's words, and for when it is there. */
function Words({
  name,
  start,
  hasOccasion = false,
  save,
  isBusy,
  onSave,
  onBack,
}: {
  /** What is typed is kept under it until it is saved. */
  readonly name: string;
  readonly start: string;
  readonly hasOccasion?: boolean;
  readonly save: string;
  readonly isBusy: boolean;
  readonly onSave: (words: string, occasion: CareOccasion) => void;
  readonly onBack: () => void;
}) {
  const {
    value: words,
    set: setWords,
    discard,
    isRestored,
  } = useDraftState({ name, title: "a check" }, start, textDraft);
  const [occasion, setOccasion] = useState<CareOccasion>("always");
  const text = words.trim();
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (text === "") return;
        discard();
        onSave(text, occasion);
      }}
    >
      <div className="min-w-72 flex-1">
        <Field
          label="What to check"
          autoFocus
          maxLength={CHECK_WORDS.max}
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
      </div>
      {hasOccasion ? (
        <SelectField label="When" value={occasion} onChange={(e) => setOccasion(e.target.value as CareOccasion)}>
          {CARE_OCCASIONS.map((o) => (
            <option key={o} value={o}>
              {OCCASION_WORDS[o]}
            </option>
          ))}
        </SelectField>
      ) : null}
      <Button type="submit" look="main" disabled={isBusy || text === ""}>
        {save}
      </Button>
      <Button
        onClick={() => {
          discard();
          onBack();
        }}
      >
        Back
      </Button>
      {isRestored ? <RestoredNote onDiscard={discard} /> : null}
    </form>
  );
}
