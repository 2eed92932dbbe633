import type { CloudChoice, CloudDecision } from "~/core/live";
import { formatSpan } from "~/core/notation";
import { MINUTE_MS } from "~/core/time";
import { clockTime } from "~/components/clock";

const WAYS = { wait: "Wait", darks: "Darks meanwhile", packUp: "Pack up", sleep: "Go to bed" } as const;

const span = (min: number): string => formatSpan(min * MINUTE_MS);

/** "Wait until 20:00". */
export const wayWords = (does: CloudDecision, untilMs: number | null, zone: string): string =>
  `${WAYS[does]}${untilMs === null ? "" : ` until ${clockTime(untilMs, zone)}`}`;

/** What a way to go on under cloud keeps and costs. */
export function choiceWords(c: CloudChoice): string {
  const keeps = c.keepsMin >= 1 ? `about ${span(c.keepsMin)} of exposure to be expected` : "nothing more tonight";
  const costs = c.givesUpMin >= 1 ? `, gives up ${span(c.givesUpMin)}` : "";
  const darks = c.darksMin >= 1 ? `, ${span(c.darksMin)} of darks` : "";
  return `${keeps}${costs}${darks}${c.does === "sleep" ? "; the rig stays out as it stands" : ""}`;
}
