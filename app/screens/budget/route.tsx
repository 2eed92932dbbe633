import { deskOf } from "~/at-desk";
import { RestoredNote, useDraftState } from "~/components/forms/drafts";
import { BudgetRow, type BudgetDraft } from "./BudgetRow";
import { Copies } from "~/components/Copies";
import { numberFault } from "~/components/forms/form-numbers";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Field, SelectField } from "~/components/ui/Field";
import { fixed, trimmed } from "~/components/numbers";
import {
  CHANNELS,
  clockHoursFor,
  efficiencyOf,
  fileBytes,
  shortSetSec,
  subAdvice,
  subEffects,
  sharedHours,
  sharesFor,
  channelOffers,
  type ChannelOffer,
  type HoursShare,
  type SubAdvice,
  type SubQuestion,
} from "~/core/exposure";
import { formatHoursMinutes, parseNumber } from "~/core/notation";
import { MOON_SCHOOLS } from "~/core/night";
import {
  filterOfGoal,
  type GoalData,
  hoursOfAll,
  panelHoursText,
  readPanelHours,
  type PanelHoursFault,
} from "~/core/plan";
import { GOAL_FIELDS } from "~/core/records";
import type { Answer } from "~/desk/records/answer";
import type { Route } from "./+types/route";
import { budgetAction } from "./action";
import type { BudgetIntent } from "./intents";
import { DepthPanel } from "./DepthPanel";
import { loadBudget } from "./load";

const { hoursPerPanel: HOURS, subSec: SUB, protectedMag: STAR } = GOAL_FIELDS;

export const clientLoader = ({ context, request, params }: Route.ClientLoaderArgs) =>
  loadBudget(deskOf(context), request, params.projectId);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => budgetAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Budget · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

const SHARE_WORDS: Readonly<Record<HoursShare, string>> = {
  equal: "the same for each",
  narrow344: "3 : 4 : 4, Ha : OIII : SII",
  narrow12: "1 : 2, Ha : OIII, for shells and remnants",
  broad3111: "3 : 1 : 1 : 1, L : R : G : B",
  broad41: "4 : 1, broad light : Ha",
  equalSnr: "equal signal to noise",
};
const OFFER_WORDS: Readonly<Record<ChannelOffer["why"], string>> = {
  hydrogen: "Its hydrogen regions stand out in Ha",
  stars: "Beside lines, stars keep their natural colours by",
  reflected: "It reflects light as well, which lines do not show",
};

/** "Beside lines, stars keep their natural colours by R 0.5 h, G 0.5 h, B 0.5 h." */
const offerWords = ({ why, channels }: ChannelOffer): string =>
  `${OFFER_WORDS[why]}${why === "stars" ? "" : ":"} ${channels.map((c) => `${c.channel} ${trimmed(c.hours)} h`).join(", ")}.`;

const UNKNOWN_HOURS = 6; // of a target that nobody knows; common practice, no source
const FAINT_MAG = 25; // mag/arcsec², of a target whose brightness is not known

/** A budget as it is typed, and the version that was on the page when that began. */
interface TypedBudget {
  readonly rev: string;
  readonly rows: readonly BudgetDraft[];
  readonly star: string;
}

const typedOf = (rev: string, goal: GoalData): TypedBudget => ({
  rev,
  rows: goal.channels.map((g) => ({
    channel: g.channel,
    filterId: g.filterId,
    hours: String(g.hoursPerPanel),
    own: panelHoursText(g.byPanel),
    sub: String(g.subSec),
    moon: g.moon ?? "",
    isShort: g.isShort ?? false,
    setting: g.setting ?? "",
  })),
  star: goal.protectedMag === null ? "" : String(goal.protectedMag),
});

const isSameBudget = (a: TypedBudget, b: TypedBudget): boolean =>
  a.star === b.star && JSON.stringify(a.rows) === JSON.stringify(b.rows);

function readTyped(raw: unknown): TypedBudget | null {
  const { rev, rows, star } = (typeof raw === "object" && raw !== null ? raw : {}) as Partial<TypedBudget>;
  const isRow = (row: Partial<BudgetDraft> | null) =>
    CHANNELS.some((c) => c === row?.channel) &&
    [row?.filterId, row?.hours, row?.own ?? "", row?.sub, row?.setting].every((text) => typeof text === "string") &&
    typeof row?.isShort === "boolean" &&
    ["", ...MOON_SCHOOLS].some((s) => s === row?.moon);
  return typeof rev === "string" && typeof star === "string" && Array.isArray(rows) && rows.every(isRow)
    ? {
        rev,
        star,
        rows: (rows as readonly (Omit<BudgetDraft, "own"> & { readonly own?: string })[]).map((row) => ({
          ...row,
          own: row.own ?? "",
        })),
      }
    : null;
}

const panelHoursFault = ({ code, part }: PanelHoursFault): string =>
  code === "noSuchPanel" ? `“${part}”: no panel of this frame. Write P3 40, P5 20.` : `“${part}”: from 0 to 500 hours.`;

export default function BudgetRoute({ loaderData }: Route.ComponentProps) {
  const {
    goal,
    rig,
    place,
    filters,
    panels,
    panelNames,
    offer,
    firstHours,
    entry,
    starMags,
    keptHours,
    bestRates,
    hourIs,
    measuredBy,
    time,
    airC,
    rotationDegPerHour,
    coreMag,
    objectMag,
  } = loaderData;
  const { act, answer, refusal, isBusy } = useAct<BudgetIntent, Answer>();
  const typed = useDraftState<TypedBudget>(
    { name: `budget ${goal.id}`, title: "a budget" },
    typedOf(goal.rev, goal.data),
    readTyped,
    isSameBudget,
  );
  const { rows: drafts, star } = typed.value;
  // Typed on while it was being saved: then upon what was saved.
  const base = answer?.revs[goal.id] === goal.rev ? goal.rev : typed.value.rev;
  const setDrafts = (next: readonly BudgetDraft[]) => typed.set({ ...typed.value, rev: base, rows: next });
  const starFault = star.trim() === "" ? undefined : numberFault(STAR, star);
  const protectedMag = starFault ? goal.data.protectedMag : parseNumber(star);
  const hasShort = (d: BudgetDraft) => drafts.some((x) => x.channel === d.channel && x.isShort);
  const questionFor = (d: Pick<BudgetDraft, "channel" | "filterId" | "setting" | "isShort">): SubQuestion | null => {
    const filter = filterOfGoal(d, filters);
    if (!filter) return null;
    return {
      rig,
      filter: filter.data,
      ...(d.setting === "" ? {} : { setting: d.setting }),
      // Goals are hours at the reference: as deep as so many with this rig.
      worthRate: (bestRates[d.channel] ?? 1) / (hourIs[d.channel] ?? 1),
      skyMagPerArcsec2: place.skyMagPerArcsec2,
      seeingArcsec: place.seeingArcsec,
      protectedMag,
      airC,
      rotationDegPerHour,
      // Once a short set takes the core, the long subs may burn it out.
      coreMagPerArcsec2: d.isShort || !drafts.some((x) => x.channel === d.channel && x.isShort) ? coreMag : null,
      ...(time.spoiltPerSec === null ? {} : { spoiltPerSec: time.spoiltPerSec }),
      ...(time.overheadSec === null ? {} : { overheadSec: time.overheadSec }),
    };
  };
  const rows = drafts.map((d, i) => {
    const question = questionFor(d);
    const own = readPanelHours(d.own, panelNames);
    const faults = {
      hours: numberFault(HOURS, d.hours),
      own: own.ok ? undefined : panelHoursFault(own.error),
      sub: numberFault(SUB, d.sub),
    };
    const isRight = !faults.hours && !faults.sub && own.ok;
    const byPanel = own.ok && Object.keys(own.value).length > 0 ? { byPanel: own.value } : {};
    const allHours = isRight ? hoursOfAll({ hoursPerPanel: parseNumber(d.hours)!, ...byPanel }, panelNames) : 0;
    const usable = (offer.channels[d.channel]?.usableMin ?? 0) / 60;
    const clockHours =
      isRight && question
        ? clockHoursFor(
            allHours / (hourIs[d.channel] ?? 1),
            parseNumber(d.sub)!,
            rig.overheads,
            usable > 1 ? usable : 4,
          )
        : null;
    return {
      d,
      i,
      question,
      filterName: question?.filter.name ?? null,
      advice: question ? subAdvice(question) : null,
      effects: question && !faults.sub ? subEffects(question, parseNumber(d.sub)!) : null,
      faults,
      isRight,
      byPanel,
      allHours,
      clockHours,
    };
  });
  const isRight = rows.every((r) => r.isRight) && !starFault;
  const right = rows.filter((r) => r.isRight);
  const total = right.reduce((s, r) => s + r.allHours, 0);
  const clock = rows.reduce((s, r) => s + (r.clockHours ?? 0), 0);
  const subs = right.reduce((s, r) => s + (r.allHours * 3600) / parseNumber(r.d.sub)!, 0);
  const open = filters.filter((f) => !drafts.some((d) => d.channel === f.data.channel));
  /** Every row is kept, also those that this rig has no filter for: goals belong to the project. */
  const draftOf = (): GoalData => ({
    ...goal.data,
    protectedMag,
    channels: rows.map((r) => ({
      channel: r.d.channel,
      filterId: r.d.filterId,
      hoursPerPanel: parseNumber(r.d.hours)!,
      ...r.byPanel,
      subSec: parseNumber(r.d.sub)!,
      ...(r.d.isShort ? { isShort: true } : {}),
      ...(r.d.setting ? { setting: r.d.setting } : {}),
      ...(r.d.moon ? { moon: r.d.moon } : {}),
    })),
  });
  const isChanged = isRight && JSON.stringify(draftOf()) !== JSON.stringify(goal.data);
  const save = () => {
    void act({ act: "save", id: goal.id, baseRev: base, data: draftOf() });
  };
  const rowFor = (filterId: string, asked?: number): BudgetDraft | null => {
    const filter = filters.find((f) => f.id === filterId);
    if (!filter) return null;
    const row = { channel: filter.data.channel, filterId, own: "", moon: "", isShort: false, setting: "" } as const;
    const question = questionFor(row);
    if (!question) return null;
    const hours = asked ?? firstHours?.[filter.data.channel] ?? UNKNOWN_HOURS;
    return { ...row, hours: String(hours), sub: String(subAdvice(question).subSec) };
  };
  const add = (filterId: string) => {
    const row = rowFor(filterId);
    if (row) setDrafts([...drafts, row]);
  };
  const offers = entry
    ? channelOffers(entry, filters.map((f) => f.data.channel), drafts.map((d) => d.channel), firstHours ?? {})
    : []; // prettier-ignore
  const take = (offer: ChannelOffer) => {
    const rows = offer.channels.flatMap(({ channel, hours }) => {
      const filter = filters.find((f) => f.data.channel === channel);
      return (filter && rowFor(filter.id, hours)) ?? [];
    });
    setDrafts([...drafts, ...rows]);
  };
  const addShort = (at: number, advice: SubAdvice) => {
    const long = drafts[at]!;
    const sub = shortSetSec(advice, parseNumber(long.sub) ?? advice.subSec);
    if (sub === null) return;
    const short = { ...long, isShort: true, own: "", hours: "0.5", sub: String(sub) };
    setDrafts([...drafts.slice(0, at + 1), short, ...drafts.slice(at + 1)]);
  };
  /** Exposure a panel of a channel that the chosen night brings when it is clear, as it counts. */
  const nightHours = (d: BudgetDraft) =>
    (((offer.channels[d.channel]?.worthMin ?? 0) / (bestRates[d.channel] ?? 1) / 60) *
      (hourIs[d.channel] ?? 1) *
      efficiencyOf(parseNumber(d.sub) ?? 60, rig.overheads)) /
    panels;
  const shareable = rows.flatMap((r) =>
    r.question && r.isRight && !r.d.isShort
      ? [
          {
            i: r.i,
            channel: r.d.channel,
            question: r.question,
            subSec: parseNumber(r.d.sub)!,
            hours: parseNumber(r.d.hours)!,
          },
        ]
      : [],
  );
  const sum = shareable.reduce((s, r) => s + r.hours, 0);
  const shares = sum > 0 ? sharesFor(shareable.map((r) => r.channel)) : [];
  const share = (how: HoursShare) => {
    const hours = sharedHours(how, sum, shareable, objectMag ?? FAINT_MAG);
    setDrafts(
      drafts.map((d, i) => {
        const at = shareable.findIndex((r) => r.i === i);
        return at === -1 ? d : { ...d, hours: trimmed(Math.round(hours[at]! * 100) / 100) };
      }),
    );
  };
  return (
    <>
      <Copies kind="goal" of={goal} />
      <StorageRefusal fault={refusal} />
      {typed.isRestored && isChanged ? <RestoredNote onDiscard={() => typed.discard()} /> : null}
      <div className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <p className="text-figure">
            {formatHoursMinutes(total)} of exposure, {formatHoursMinutes(clock)} of clock time,{" "}
            {fixed((subs * fileBytes(rig)) / 1e9, 0)} GB
          </p>
          <p className="text-soft max-w-[64ch]">
            {panels > 1 ? `${panels} panels, so every hour counts ${panels} times. ` : ""}The clock adds downloads,
            dithers, focusing, and a set-up and a flip each night. Hours are those of the target at its best here:
            lower, or under the Moon, they count less, and the plan reckons with that.
            {measuredBy === null
              ? ""
              : ` Goals are hours with ${measuredBy}: one with your rig is ${Object.entries(hourIs)
                  .map(([channel, is]) => `${fixed(is, 2)} h in ${channel}`)
                  .join(", ")}.`}
            {firstHours === null
              ? ""
              : ` To begin with, for this target with your rig under your sky: ${drafts
                  .flatMap((d) =>
                    d.isShort || firstHours[d.channel] === undefined
                      ? []
                      : [`${d.channel} ${trimmed(firstHours[d.channel]!)} h`],
                  )
                  .join(", ")}.`}
          </p>
        </div>
        <div className="w-44">
          <Field
            label={STAR.label}
            unit={STAR.unit}
            hint="Empty: stars clip freely."
            inputMode="decimal"
            value={star}
            onChange={(e) => typed.set({ ...typed.value, rev: base, star: e.target.value })}
            fault={starFault}
          />
        </div>
      </div>
      <ul className="border-rule mt-4 border-b">
        {rows.map((r) => (
          <BudgetRow
            key={`${r.d.channel} ${r.d.isShort}`}
            draft={r.d}
            filterName={r.filterName}
            settings={rig.settings ?? []}
            advice={r.advice}
            from={{
              spoiltFrom: time.spoiltPerSec === null ? null : time.subs,
              overheadFrom: time.overheadSec === null ? null : time.gaps,
            }}
            effects={r.effects}
            clipped={r.effects ? (starMags?.filter((m) => m < r.effects!.clippedMag).length ?? null) : null}
            clockHours={r.clockHours}
            panels={panels}
            measured={
              r.question && r.isRight && parseNumber(r.d.hours)! > 0
                ? { question: r.question, hours: parseNumber(r.d.hours)!, subSec: parseNumber(r.d.sub)! }
                : null
            }
            objectMag={objectMag}
            faults={r.faults}
            onChange={(next) => setDrafts(drafts.map((d, k) => (k === r.i ? next : d)))}
            onRemove={() => setDrafts(drafts.filter((_, k) => k !== r.i))}
            onShort={r.advice && !r.d.isShort && !hasShort(r.d) ? () => addShort(r.i, r.advice!) : undefined}
          />
        ))}
      </ul>
      {offers.length > 0 ? (
        <ul className="mt-3" aria-label="Offered beside these">
          {offers.map((offer) => (
            <li key={offer.why} className="flex flex-wrap items-baseline gap-x-3">
              <span>{offerWords(offer)}</span>
              <Button look="plain" className="px-0!" onClick={() => take(offer)}>
                Add {offer.channels.map((c) => c.channel).join(", ")}
              </Button>
            </li>
          ))}
        </ul>
      ) : null}
      <div className="mt-4 flex flex-wrap items-end justify-between gap-4">
        {open.length > 0 ? (
          <div className="w-56">
            <SelectField label="Add a channel" value="" onChange={(e) => add(e.target.value)}>
              <option value="">choose …</option>
              {open.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.data.name}
                </option>
              ))}
            </SelectField>
          </div>
        ) : (
          <span />
        )}
        {shares.length > 0 ? (
          <div className="w-64">
            <SelectField
              label="Share the hours out"
              value=""
              hint="The sum a panel stays as it is."
              onChange={(e) => share(e.target.value as HoursShare)}
            >
              <option value="">choose …</option>
              {shares.map((s) => (
                <option key={s} value={s}>
                  {SHARE_WORDS[s]}
                </option>
              ))}
            </SelectField>
          </div>
        ) : null}
        <Button look="main" onClick={save} disabled={!isChanged || isBusy}>
          {isChanged ? "Save budget" : "Saved"}
        </Button>
      </div>
      <DepthPanel
        objectMag={objectMag}
        choices={rows.flatMap((r) =>
          r.question && r.isRight && !r.d.isShort
            ? [
                {
                  channel: r.d.channel,
                  question: r.question,
                  subSec: parseNumber(r.d.sub) ?? 0,
                  goalHours: parseNumber(r.d.hours) ?? 0,
                  keptHours: keptHours[r.d.channel]?.kept ?? 0,
                  countedHours: keptHours[r.d.channel]?.counted ?? 0,
                  nightHours: nightHours(r.d),
                },
              ]
            : [],
        )}
      />
    </>
  );
}
