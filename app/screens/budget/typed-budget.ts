import { CHANNELS, type Channel } from "~/core/exposure";
import { MOON_SCHOOLS, type MoonSchool } from "~/core/night";
import { panelHoursText, type GoalData } from "~/core/plan";

/** One channel of a budget as typed. */
export interface BudgetDraft {
  readonly channel: Channel;
  readonly filterId: string;
  readonly hours: string;
  /** Other hours of single panels: "P3 40, P5 20". */
  readonly own: string;
  readonly sub: string;
  /** "" = as the project. */
  readonly moon: MoonSchool | "";
  readonly isShort: boolean;
  /** Name of one of the camera's settings; "" = its usual one. */
  readonly setting: string;
}

/** A budget as it is typed, and the version that was on the page when that began. */
export interface TypedBudget {
  readonly rev: string;
  readonly rows: readonly BudgetDraft[];
  readonly star: string;
}

/** A goal as its budget is typed. */
export const typedOf = (rev: string, goal: GoalData): TypedBudget => ({
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

/** Whether two say the same, whatever version they began with. */
export const isSameBudget = (a: TypedBudget, b: TypedBudget): boolean =>
  a.star === b.star && JSON.stringify(a.rows) === JSON.stringify(b.rows);

/** A budget that was kept while it was typed; null where it is none. */
export function readTyped(raw: unknown): TypedBudget | null {
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
