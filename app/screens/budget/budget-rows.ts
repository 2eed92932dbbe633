import { numberFault } from "~/components/forms/form-numbers";
import {
  clockHoursFor,
  nightDepthHours,
  subAdvice,
  subEffects,
  type Channel,
  type SubAdvice,
  type SubEffects,
  type SubQuestion,
} from "~/core/exposure";
import { parseNumber } from "~/core/notation";
import { filterOfGoal, hoursOfAll, readPanelHours, type GoalData, type PanelHoursFault } from "~/core/plan";
import { GOAL_FIELDS } from "~/core/records";
import type { loadBudget } from "./load";
import type { BudgetDraft } from "./typed-budget";

/** What a budget is made from. */
export type BudgetMaterial = Awaited<ReturnType<typeof loadBudget>>;

/** What is wrong in a row's boxes. */
export interface RowFaults {
  readonly hours?: string | undefined;
  readonly own?: string | undefined;
  readonly sub?: string | undefined;
}

/** What a row asks for once its boxes read. */
export interface RowGoal {
  /** Exposure of a panel that has no hours of its own. */
  readonly hoursPerPanel: number;
  readonly byPanel: Readonly<Record<string, number>>;
  readonly subSec: number;
  /** Exposure over all panels. */
  readonly allHours: number;
}

/** A row of a budget as far as it can be worked out. */
export interface BudgetRowView {
  readonly draft: BudgetDraft;
  /** null = the rig has no filter for this channel. */
  readonly question: SubQuestion | null;
  readonly advice: SubAdvice | null;
  readonly effects: SubEffects | null;
  readonly faults: RowFaults;
  /** null as long as a box does not read. */
  readonly goal: RowGoal | null;
  /** By the clock, all panels; null where it cannot be told. */
  readonly clockHours: number | null;
}

const { hoursPerPanel: HOURS, subSec: SUB } = GOAL_FIELDS;
const USUAL_NIGHT_HOURS = 4; // where the chosen night has hardly an hour: common practice, no source

const panelHoursFault = ({ code, part }: PanelHoursFault): string =>
  code === "noSuchPanel" ? `“${part}”: no panel of this frame. Write P3 40, P5 20.` : `“${part}”: from 0 to 500 hours.`;

/** What is asked of a sub for a row; null without a filter. */
export function questionFor(
  row: Pick<BudgetDraft, "channel" | "filterId" | "setting" | "isShort">,
  drafts: readonly BudgetDraft[],
  protectedMag: number | null,
  m: BudgetMaterial,
): SubQuestion | null {
  const filter = filterOfGoal(row, m.filters);
  if (!filter) return null;
  const hasShort = drafts.some((x) => x.channel === row.channel && x.isShort);
  return {
    rig: m.rig,
    filter: filter.data,
    ...(row.setting === "" ? {} : { setting: row.setting }),
    // Goals are hours at the reference: as deep as so many with this rig.
    worthRate: rateOf(m, row.channel) / hourIs(m, row.channel),
    skyMagPerArcsec2: m.place.skyMagPerArcsec2,
    seeingArcsec: m.place.seeingArcsec,
    protectedMag,
    airC: m.airC,
    rotationDegPerHour: m.rotationDegPerHour,
    // Once a short set takes the core, the long subs may burn it out.
    coreMagPerArcsec2: row.isShort || !hasShort ? m.coreMag : null,
    ...(m.time.spoiltPerSec === null ? {} : { spoiltPerSec: m.time.spoiltPerSec }),
    ...(m.time.overheadSec === null ? {} : { overheadSec: m.time.overheadSec }),
  };
}

const rateOf = ({ bestRates }: BudgetMaterial, channel: Channel): number => bestRates[channel] ?? 1;
const hourIs = (m: BudgetMaterial, channel: Channel): number => m.hourIs[channel] ?? 1;

/** What the boxes of a row say; null where one does not read. */
function goalOf(
  draft: BudgetDraft,
  panelNames: readonly string[],
): { readonly goal: RowGoal | null; readonly faults: RowFaults } {
  const own = readPanelHours(draft.own, panelNames);
  const faults = {
    hours: numberFault(HOURS, draft.hours),
    own: own.ok ? undefined : panelHoursFault(own.error),
    sub: numberFault(SUB, draft.sub),
  };
  const [hoursPerPanel, subSec] = [parseNumber(draft.hours), parseNumber(draft.sub)];
  if (!own.ok || faults.hours || faults.sub || hoursPerPanel === null || subSec === null) return { goal: null, faults };
  const byPanel = own.value;
  return {
    goal: { hoursPerPanel, byPanel, subSec, allHours: hoursOfAll({ hoursPerPanel, byPanel }, panelNames) },
    faults,
  };
}

/** The rows of a budget as typed. */
export function budgetRows(
  drafts: readonly BudgetDraft[],
  protectedMag: number | null,
  m: BudgetMaterial,
): readonly BudgetRowView[] {
  return drafts.map((draft) => {
    const question = questionFor(draft, drafts, protectedMag, m);
    const { goal, faults } = goalOf(draft, m.panelNames);
    const subSec = faults.sub ? null : parseNumber(draft.sub);
    const usable = (m.offer.channels[draft.channel]?.usableMin ?? 0) / 60;
    const nightHours = usable > 1 ? usable : USUAL_NIGHT_HOURS;
    return {
      draft,
      question,
      advice: question && subAdvice(question),
      effects: question && subSec !== null ? subEffects(question, subSec) : null,
      faults,
      goal,
      clockHours:
        goal && question
          ? clockHoursFor(goal.allHours / hourIs(m, draft.channel), goal.subSec, m.rig.overheads, nightHours)
          : null,
    };
  });
}

/** What the rows that read come to, all panels. */
export function totalsOf(rows: readonly BudgetRowView[]) {
  const goals = rows.flatMap((r) => r.goal ?? []);
  return {
    hours: goals.reduce((sum, g) => sum + g.allHours, 0),
    clockHours: rows.reduce((sum, r) => sum + (r.clockHours ?? 0), 0),
    subs: goals.reduce((sum, g) => sum + (g.allHours * 3600) / g.subSec, 0),
  };
}

/** The goal as typed, every row of it, also those that this rig has no filter for: goals belong to the project. Null while a box does not read. */
export function goalAsTyped(
  before: GoalData,
  rows: readonly BudgetRowView[],
  protectedMag: number | null,
): GoalData | null {
  const channels = rows.flatMap(({ draft, goal }) =>
    goal
      ? {
          channel: draft.channel,
          filterId: draft.filterId,
          hoursPerPanel: goal.hoursPerPanel,
          ...(Object.keys(goal.byPanel).length > 0 ? { byPanel: goal.byPanel } : {}),
          subSec: goal.subSec,
          ...(draft.isShort ? { isShort: true } : {}),
          ...(draft.setting ? { setting: draft.setting } : {}),
          ...(draft.moon ? { moon: draft.moon } : {}),
        }
      : [],
  );
  return channels.length < rows.length ? null : { ...before, protectedMag, channels };
}

/** Exposure a panel of a channel that the chosen night brings when it is clear, hours as they count. */
export const nightHoursOf = (
  { channel, subSec }: { readonly channel: Channel; readonly subSec: number },
  m: BudgetMaterial,
): number =>
  nightDepthHours({
    worthMin: m.offer.channels[channel]?.worthMin ?? 0,
    bestRate: rateOf(m, channel),
    hourIs: hourIs(m, channel),
    subSec,
    overheads: m.rig.overheads,
  }) / m.panels;
