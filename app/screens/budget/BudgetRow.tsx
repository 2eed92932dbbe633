import { CHANNEL_FACTS, type CameraSetting, type SubAdvice, type SubEffects, type SubQuestion } from "~/core/exposure";
import { MOON_SCHOOLS } from "~/core/night";
import { MOON_SCHOOL_WORDS } from "~/components/words/moon-words";
import { formatHoursMinutes } from "~/core/notation";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import type { RowFaults } from "./budget-rows";
import { GoalWords } from "./GoalWords";
import { EffectWords, SubWords, type TimeSources } from "./SubWords";
import type { BudgetDraft } from "./typed-budget";

/** "L", or "L, short set". */
const rowName = (d: BudgetDraft): string => `${d.channel}${d.isShort ? ", short set" : ""}`;

/** A channel's sub length with the limit that decides, its hours, and what that takes by the clock. */
export function BudgetRow({
  draft,
  filterName,
  settings,
  advice,
  from,
  effects,
  clipped,
  clockHours,
  panels,
  measured,
  objectMag,
  faults,
  onChange,
  onRemove,
  onShort,
}: {
  readonly draft: BudgetDraft;
  /** null = the rig has none for this channel. */
  readonly filterName: string | null;
  readonly settings: readonly CameraSetting[];
  /** null = cannot be advised without a filter. */
  readonly advice: SubAdvice | null;
  readonly from: TimeSources;
  readonly effects: SubEffects | null;
  readonly clipped: number | null;
  readonly clockHours: number | null;
  readonly panels: number;
  /** What the goal can be told in other measures by; null while it cannot. */
  readonly measured: { readonly question: SubQuestion; readonly hours: number; readonly subSec: number } | null;
  /** Surface brightness of the target, mag/arcsec²; null = not known. */
  readonly objectMag: number | null;
  readonly faults: RowFaults;
  readonly onChange: (draft: BudgetDraft) => void;
  readonly onRemove: () => void;
  /** Adds a short set beside this one; absent where there is one. */
  readonly onShort?: (() => void) | undefined;
}) {
  return (
    <li className="border-rule grid gap-x-6 gap-y-2 border-t py-4 md:grid-cols-[9rem_minmax(0,1fr)_7rem_7rem_8.5rem]">
      <div>
        <p className="flex items-center gap-2 font-semibold">
          <span
            className="inline-block h-3.5 w-1.5"
            style={{ background: CHANNEL_COLOUR[draft.channel] }}
            aria-hidden="true"
          />
          {rowName(draft)}
        </p>
        <p className="text-note text-soft">{filterName ?? "no filter for this here"}</p>
        {settings.length > 0 ? (
          <label className="text-note text-soft block">
            Setting
            <select
              className="field-box mt-0.5"
              aria-label={`${rowName(draft)}: camera setting`}
              value={settings.some((x) => x.name === draft.setting) ? draft.setting : ""}
              onChange={(e) => onChange({ ...draft, setting: e.target.value })}
            >
              <option value="">usual gain</option>
              {settings.map((x) => (
                <option key={x.name}>{x.name}</option>
              ))}
            </select>
          </label>
        ) : null}
        <label className="text-note text-soft mt-1 block">
          Moon
          <select
            className="field-box mt-0.5"
            aria-label={`${rowName(draft)}: when the Moon is up`}
            value={draft.moon}
            onChange={(e) => onChange({ ...draft, moon: MOON_SCHOOLS.find((s) => s === e.target.value) ?? "" })}
          >
            <option value="">as the project</option>
            {MOON_SCHOOLS.map((s) => (
              <option key={s} value={s}>
                {MOON_SCHOOL_WORDS[s].name}
              </option>
            ))}
          </select>
        </label>
        <Button look="plain" className="px-0!" onClick={onRemove} aria-label={`Remove ${rowName(draft)}`}>
          remove
        </Button>
      </div>
      <div className="text-soft">
        {advice && draft.isShort ? (
          <p>Shot before the long subs of its night. Its hours count as kept, whatever the sky.</p>
        ) : advice ? (
          <SubWords advice={advice} from={from} />
        ) : (
          <p className="text-lamp">
            No filter for this here. The goal stays, for whoever has one and for your next rig.
          </p>
        )}
        {effects ? <EffectWords sub={draft.sub} isShort={draft.isShort} effects={effects} clipped={clipped} /> : null}
        {onShort ? (
          <Button look="plain" className="min-h-0 px-0! py-0" onClick={onShort}>
            Add a short set{advice?.coreSec ? " for the bright core" : ""}
          </Button>
        ) : null}
      </div>
      <Field
        label="Sub"
        unit="s"
        inputMode="decimal"
        value={draft.sub}
        fault={faults.sub}
        onChange={(e) => onChange({ ...draft, sub: e.target.value })}
      />
      <div>
        <Field
          label={panels > 1 ? "Hours a panel" : "Hours"}
          unit="h"
          inputMode="decimal"
          value={draft.hours}
          fault={faults.hours}
          onChange={(e) => onChange({ ...draft, hours: e.target.value })}
        />
        {panels > 1 ? (
          <div className="mt-1">
            <Field
              label="Other panels"
              unit="h"
              placeholder="P3 40, P5 20"
              value={draft.own}
              fault={faults.own}
              onChange={(e) => onChange({ ...draft, own: e.target.value })}
            />
          </div>
        ) : null}
        {measured && !draft.isShort ? (
          <GoalWords
            name={rowName(draft)}
            {...measured}
            objectMag={objectMag}
            onHours={(hours) => onChange({ ...draft, hours })}
          />
        ) : null}
      </div>
      <div className="text-right">
        <p className="text-note text-soft">clock time</p>
        <p className="font-semibold">{clockHours === null ? "–" : formatHoursMinutes(clockHours)}</p>
        <p className="text-note text-faint">{CHANNEL_FACTS[draft.channel].words}</p>
      </div>
    </li>
  );
}
