import { deskOf } from "~/at-desk";
import { Copies } from "~/components/Copies";
import { numberFault } from "~/components/forms/form-numbers";
import { RestoredNote, useDraftState } from "~/components/forms/drafts";
import { useAct } from "~/components/forms/use-act";
import { trimmed } from "~/components/numbers";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Field } from "~/components/ui/Field";
import {
  channelOffers,
  sharedHours,
  sharesFor,
  shortSetSec,
  subAdvice,
  type ChannelOffer,
  type HoursShare,
  type SubAdvice,
} from "~/core/exposure";
import { parseNumber } from "~/core/notation";
import { GOAL_FIELDS } from "~/core/records";
import type { Answer } from "~/desk/records/answer";
import type { Route } from "./+types/route";
import { budgetAction } from "./action";
import { AddChannel, Offers, ShareOut } from "./Adding";
import { BudgetHead } from "./BudgetHead";
import {
  budgetRows,
  goalAsTyped,
  nightHoursOf,
  questionFor,
  type BudgetMaterial,
  type BudgetRowView,
} from "./budget-rows";
import { BudgetRow } from "./BudgetRow";
import { DepthPanel } from "./DepthPanel";
import type { BudgetIntent } from "./intents";
import { loadBudget } from "./load";
import { isSameBudget, readTyped, typedOf, type BudgetDraft, type TypedBudget } from "./typed-budget";

const { protectedMag: STAR } = GOAL_FIELDS;

export const clientLoader = ({ context, request, params }: Route.ClientLoaderArgs) =>
  loadBudget(deskOf(context), request, params.projectId);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => budgetAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Budget · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

const UNKNOWN_HOURS = 6; // of a target that nobody knows; common practice, no source
const SHORT_SET_HOURS = "0.5"; // common practice, no source
const FAINT_MAG = 25; // mag/arcsec², of a target whose brightness is not known

/** A row for a filter, with hours to begin with and the sub that is advised. */
function newRow(
  filter: BudgetMaterial["filters"][0],
  hours: number | undefined,
  {
    drafts,
    protectedMag,
    from,
  }: { readonly drafts: readonly BudgetDraft[]; readonly protectedMag: number | null; readonly from: BudgetMaterial },
): BudgetDraft | null {
  const { channel } = filter.data;
  const row = { channel, filterId: filter.id, own: "", moon: "", isShort: false, setting: "" } as const;
  const question = questionFor(row, drafts, protectedMag, from);
  if (!question) return null;
  const first = hours ?? from.firstHours?.[channel] ?? UNKNOWN_HOURS;
  return { ...row, hours: String(first), sub: String(subAdvice(question).subSec) };
}

/** Rows that a share of hours is about: what is asked of each, and how much it has. */
const shareable = (rows: readonly BudgetRowView[]) =>
  rows.flatMap(({ draft, question, goal }) =>
    question && goal && !draft.isShort
      ? [{ draft, channel: draft.channel, question, subSec: goal.subSec, hours: goal.hoursPerPanel }]
      : [],
  );

export default function BudgetRoute({ loaderData }: Route.ComponentProps) {
  const { goal, rig, filters, panels, entry, firstHours, starMags, keptHours, time, objectMag, panelHours, object } =
    loaderData;
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
  const rows = budgetRows(drafts, protectedMag, loaderData);
  const asTyped = starFault ? null : goalAsTyped(goal.data, rows, protectedMag);
  const changed = asTyped && JSON.stringify(asTyped) !== JSON.stringify(goal.data) ? asTyped : null;

  const add = (wanted: readonly { readonly filterId: string; readonly hours?: number }[]) =>
    setDrafts([
      ...drafts,
      ...wanted.flatMap(({ filterId, hours }) => {
        const filter = filters.find((f) => f.id === filterId);
        return (filter && newRow(filter, hours, { drafts, protectedMag, from: loaderData })) ?? [];
      }),
    ]);
  const take = ({ channels }: ChannelOffer) =>
    add(
      channels.flatMap(({ channel, hours }) => {
        const filter = filters.find((f) => f.data.channel === channel);
        return filter ? [{ filterId: filter.id, hours }] : [];
      }),
    );
  const addShort = (long: BudgetDraft, advice: SubAdvice) => {
    const sub = shortSetSec(advice, parseNumber(long.sub) ?? advice.subSec);
    if (sub === null) return;
    const short = { ...long, isShort: true, own: "", hours: SHORT_SET_HOURS, sub: String(sub) };
    setDrafts(drafts.flatMap((d) => (d === long ? [d, short] : [d])));
  };
  const shared = shareable(rows);
  const sum = shared.reduce((s, r) => s + r.hours, 0);
  const share = (how: HoursShare) => {
    const hours = sharedHours(how, sum, shared, objectMag ?? FAINT_MAG);
    const hoursOf = new Map(shared.map((r, k) => [r.draft, hours[k]]));
    setDrafts(
      drafts.map((d) => {
        const own = hoursOf.get(d);
        return own === undefined ? d : { ...d, hours: trimmed(Math.round(own * 100) / 100) };
      }),
    );
  };
  return (
    <>
      <Copies kind="goal" of={goal} />
      <StorageRefusal fault={refusal} />
      {typed.isRestored && changed ? <RestoredNote onDiscard={() => typed.discard()} /> : null}
      <div className="flex flex-wrap items-end justify-between gap-4">
        <BudgetHead rows={rows} from={loaderData} />
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
        {rows.map((row) => {
          const { draft, advice, effects, question, goal: asked } = row;
          const hasShort = drafts.some((d) => d.channel === draft.channel && d.isShort);
          return (
            <BudgetRow
              key={`${draft.channel} ${draft.isShort}`}
              draft={draft}
              filterName={question?.filter.name ?? null}
              settings={rig.settings ?? []}
              advice={advice}
              from={{
                spoiltFrom: time.spoiltPerSec === null ? null : time.subs,
                overheadFrom: time.overheadSec === null ? null : time.gaps,
              }}
              effects={effects}
              clipped={effects ? (starMags?.filter((m) => m < effects.clippedMag).length ?? null) : null}
              clockHours={row.clockHours}
              panels={panels}
              measured={
                question && asked && asked.hoursPerPanel > 0
                  ? { question, hours: asked.hoursPerPanel, subSec: asked.subSec }
                  : null
              }
              objectMag={objectMag}
              faults={row.faults}
              onChange={(next) => setDrafts(drafts.map((d) => (d === draft ? next : d)))}
              onRemove={() => setDrafts(drafts.filter((d) => d !== draft))}
              onShort={advice && !draft.isShort && !hasShort ? () => addShort(draft, advice) : undefined}
            />
          );
        })}
      </ul>
      <Offers
        offers={
          entry
            ? channelOffers(
                entry,
                filters.map((f) => f.data.channel),
                drafts.map((d) => d.channel),
                firstHours ?? {},
              )
            : []
        }
        onTake={take}
      />
      <div className="mt-4 flex flex-wrap items-end justify-between gap-4">
        <AddChannel
          filters={filters.filter((f) => !drafts.some((d) => d.channel === f.data.channel))}
          onAdd={(filterId) => add([{ filterId }])}
        />
        <ShareOut shares={sum > 0 ? sharesFor(shared.map((r) => r.channel)) : []} onShare={share} />
        <Button
          look="main"
          onClick={() => changed && void act({ act: "save", id: goal.id, baseRev: base, data: changed })}
          disabled={!changed || isBusy}
        >
          {changed ? "Save budget" : "Saved"}
        </Button>
      </div>
      <DepthPanel
        objectMag={objectMag}
        object={object}
        choices={shared.map((r) => ({
          channel: r.channel,
          question: r.question,
          subSec: r.subSec,
          goalHours: r.hours,
          keptHours: keptHours[r.channel]?.kept ?? 0,
          countedHours: keptHours[r.channel]?.counted ?? 0,
          nightHours: nightHoursOf(r, loaderData),
          panels: panels > 1 ? (panelHours[r.channel] ?? []) : [],
        }))}
      />
    </>
  );
}
