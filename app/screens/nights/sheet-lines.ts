import { foldRounds, type Block, type Rounds, type RunSheet, type SheetEvent } from "~/core/night";

/** Something the sky does during the night. */
export interface SkyEvent {
  readonly atMs: number;
  readonly words: string;
}

/** A line of the sheet: what is done, or (null) what the sky does meanwhile, in words. */
export interface SheetLine {
  readonly at: number;
  readonly line: Block | SheetEvent | Rounds | null;
  readonly words: string;
}

/** The sheet by the clock: what is done and what the sky does, in one order. */
export const sheetLines = (sheet: RunSheet, sky: readonly SkyEvent[]): readonly SheetLine[] =>
  [
    ...foldRounds(sheet.lines).map((line) => ({ at: line.startMs, line, words: "" })),
    ...sky.map((s) => ({ at: s.atMs, line: null, words: s.words })),
  ].sort((a, b) => a.at - b.at);

const PASSAGE = / (over|under) \d+°$/;

/** The heights that a target passes are left out on paper. */
export const isOnScreenOnly = (l: SheetLine): boolean => l.line === null && PASSAGE.test(l.words);

const LIST_PX = 600; // of an A4 page, what its head and the checklist leave
const LEADING = 1.32; // of a line, with its rule
const [LEAST_PX, MOST_PX] = [10.5, 15];

/** How large the sheet is printed, px: as large as a page holds, since it is read by a head lamp. */
export function paperPx(lines: readonly SheetLine[]): number {
  const printed = lines.filter((l) => !isOnScreenOnly(l)).length;
  return Math.min(MOST_PX, Math.max(LEAST_PX, LIST_PX / Math.max(1, printed) / LEADING));
}
