import { fixed } from "~/components/numbers";
import { CHANNEL_FACTS, type Channel, type SubAdvice, type SubEffects } from "~/core/exposure";
import { MOON_SCHOOLS, type MoonSchool } from "~/core/night";
import { MOON_SCHOOL_WORDS } from "~/components/words/moon-words";
import { formatHoursMinutes } from "~/core/notation";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import { Why } from "~/components/ui/Why";

/** One channel of a budget as typed. */
export interface BudgetDraft {
  readonly channel: Channel;
  readonly filterId: string;
  readonly hours: string;
  readonly sub: string;
  /** "" = as the project. */
  readonly moon: MoonSchool | "";
}

const seconds = (s: number) => (!Number.isFinite(s) ? "none" : s < 10 ? `${fixed(s, 1)} s` : `${fixed(s)} s`);

function decided(a: SubAdvice): string {
  switch (a.decidedBy) {
    case "readNoise":
      return "decided by read noise: shorter subs would add noise";
    case "starClipping":
      return "decided by stars that must not clip";
    case "mount":
      return "decided by the unguided mount";
    case "longestUsual":
      return "decided by a quarter of an hour: one lost longer sub costs more than read noise";
  }
}

/** A channel's sub length with the limit that decides, its hours, and what that takes by the clock. */
export function BudgetRow({
  draft,
  filterName,
  advice,
  effects,
  clipped,
  clockHours,
  panels,
  faults,
  onChange,
  onRemove,
}: {
  readonly draft: BudgetDraft;
  readonly filterName: string;
  readonly advice: SubAdvice;
  readonly effects: SubEffects | null;
  readonly clipped: number | null;
  readonly clockHours: number | null;
  readonly panels: number;
  readonly faults: { readonly hours?: string | undefined; readonly sub?: string | undefined };
  readonly onChange: (draft: BudgetDraft) => void;
  readonly onRemove: () => void;
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
          {draft.channel}
        </p>
        <p className="text-note text-soft">{filterName}</p>
        <label className="text-note text-soft block">
          Moon
          <select
            className="field-box mt-0.5"
            aria-label={`${draft.channel}: when the Moon is up`}
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
        <Button look="plain" onClick={onRemove} aria-label={`Remove ${draft.channel}`}>
          remove
        </Button>
      </div>
      <div className="text-soft">
        <p>
          <Why title={<span className="text-ink">{`${advice.subSec} s a sub`}</span>} className="font-semibold">
            <dl className="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1">
              <dt>Sky on a pixel</dt>
              <dd>{advice.skyEPerPxSec.toPrecision(3)} e⁻/s</dd>
              <dt>Shortest for read noise ({Math.round(100 * advice.wantedReadNoiseShare)} % more noise)</dt>
              <dd>{seconds(advice.readNoiseSec)}</dd>
              <dt>Longest before a protected star clips</dt>
              <dd>{seconds(advice.starClippingSec)}</dd>
              <dt>Longest the mount holds</dt>
              <dd>{seconds(advice.mountSec)}</dd>
              <dt>Star width on the sensor</dt>
              <dd>{fixed(advice.fwhmPx, 1)} px</dd>
            </dl>
            <p className="text-note text-soft mt-2">
              R²/(((1+p)²−1)(S+D)) from sky, filter and read noise; a Gaussian star centred on a pixel. V sky scaled
              into the band: about 20 % too bright for narrow bands under a dark sky.
            </p>
          </Why>
          , {decided(advice)}.
        </p>
        {effects ? (
          <p className="text-note">
            At {draft.sub} s read noise adds {fixed(100 * effects.readNoiseShare, effects.readNoiseShare < 0.1 ? 1 : 0)}{" "}
            % to the noise, and stars brighter than magnitude {fixed(effects.clippedMag, 1)} clip
            {clipped === null ? "" : `: ${clipped} of the catalogue’s in the frame`}.
          </p>
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
      <Field
        label={panels > 1 ? "Hours a panel" : "Hours"}
        unit="h"
        inputMode="decimal"
        value={draft.hours}
        fault={faults.hours}
        onChange={(e) => onChange({ ...draft, hours: e.target.value })}
      />
      <div className="text-right">
        <p className="text-note text-soft">by the clock</p>
        <p className="font-semibold">{clockHours === null ? "–" : formatHoursMinutes(clockHours)}</p>
        <p className="text-note text-faint">{CHANNEL_FACTS[draft.channel].words}</p>
      </div>
    </li>
  );
}
