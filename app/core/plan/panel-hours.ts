import { parseNumber } from "~/core/notation";
import { err, ok, type Result } from "~/core/result";
import type { PanelGoal } from "./goal";

/** Hours wanted of one panel in a channel. */
export const hoursFor = (goal: Pick<PanelGoal, "hoursPerPanel" | "byPanel">, panel: string): number =>
  goal.byPanel?.[panel] ?? goal.hoursPerPanel;

/** Hours wanted of all panels together in a channel. */
export const hoursOfAll = (goal: Pick<PanelGoal, "hoursPerPanel" | "byPanel">, panels: readonly string[]): number =>
  panels.reduce((sum, panel) => sum + hoursFor(goal, panel), 0);

/** Why a list of hours by panel is not one, with the part of the text that it is about. */
export interface PanelHoursFault {
  readonly code: "noSuchPanel" | "noHours";
  readonly part: string;
}

const MOST_HOURS = 500;

/** Reads "P3 40, P5 20": hours of single panels. "" = none differ. */
export function readPanelHours(
  text: string,
  panels: readonly string[],
): Result<Readonly<Record<string, number>>, PanelHoursFault> {
  const found: Record<string, number> = {};
  for (const part of text
    .split(/[,;]/)
    .map((t) => t.trim())
    .filter((t) => t !== "")) {
    const m = /^(p?\d+)\s*[:=]?\s*(.*)$/i.exec(part);
    const panel = m ? `P${m[1]!.replace(/^p/i, "")}` : "";
    if (!m || !panels.includes(panel)) return err({ code: "noSuchPanel", part });
    const hours = parseNumber(m[2]!.replace(/\s*h$/i, ""));
    if (hours === null || hours < 0 || hours > MOST_HOURS) return err({ code: "noHours", part });
    found[panel] = hours;
  }
  return ok(found);
}

/** Hours of single panels as they are typed. */
export const panelHoursText = (byPanel: PanelGoal["byPanel"]): string =>
  Object.entries(byPanel ?? {})
    .map(([panel, hours]) => `${panel} ${hours}`)
    .join(", ");
