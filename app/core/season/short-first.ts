import { columnOf, fitted } from "./columns";
import type { Block, Column, Programme, SeasonTask } from "./model";
import type { NightTable } from "./table";

const SLACK = [0, 1, -1, 2] as const; // slots: at dusk a slot may be half a slot

/** A programme with one of its blocks moved up to before another, longer by some slots, which the next one gives; what lies between goes later. */
function movedUp(blocks: Programme, from: number, to: number, by: number): Programme {
  const [job, begins, ends] = blocks[from]!;
  const length = ends - begins;
  const startsAt = blocks[to]![1];
  return [
    ...blocks.slice(0, to),
    [job, startsAt, startsAt + length + by],
    ...blocks.slice(to, from).map(([k, s, e], i): Block => [k, s + length + (i === 0 ? by : 0), e + length]),
    ...blocks.slice(from + 1),
  ];
}

const KEEPS = 0.8; // of what each job is brought: for more than that nothing is put off; a proposal of this project

/** Whether a night brings each job about what another one does. */
const brings = (a: Column, b: Column): boolean =>
  b.jobs.every((job, i) => (a.yields[a.jobs.indexOf(job)] ?? 0) >= KEEPS * b.yields[i]!);

/** A night that begins a project's work with what comes first of it and is still wanted, as much as is, in the place of the beginning of the rest. */
export function withShort(
  task: SeasonTask,
  table: NightTable,
  from: Column,
  isWanted: (job: number) => boolean,
): Column {
  let column = from;
  table.jobs.forEach((job) => {
    const { isAhead, project } = task.jobs[job]!;
    if (isAhead !== true || !isWanted(job) || column.blocks.some((b) => b[0] === job)) return;
    const at = column.blocks.findIndex(([j]) => task.jobs[j]!.project === project && !task.jobs[j]!.isAhead);
    if (at === -1) return;
    const [rest, s, e] = column.blocks[at]!;
    // The longest that is not more than is wanted.
    for (let length = e - s; length > 0; length--) {
      const short: Block = [job, s, s + length];
      const instead: readonly Block[] = length === e - s ? [short] : [short, [rest, s + length, e]];
      const next = columnOf(task, table, [...column.blocks.slice(0, at), ...instead, ...column.blocks.slice(at + 1)]);
      if (!next) continue;
      column = next;
      return;
    }
  });
  return column;
}

/**
 * A night with what comes first of a project before whatever else of it the night does: a short set is soon done, and is there even
 * when clouds come. Where that would cost any of it a fifth, the
 * night stays as it is.
 */
export function shortFirst(task: SeasonTask, table: NightTable, from: Column): Column {
  const isLate = (blocks: Programme, i: number) => task.jobs[blocks[i]![0]]!.isAhead === true && firstOf(blocks, i) < i;
  /** Where what it comes before begins. */
  const firstOf = (blocks: Programme, i: number) => {
    const { project } = task.jobs[blocks[i]![0]]!;
    const at = blocks.findIndex(([job]) => task.jobs[job]!.project === project && !task.jobs[job]!.isAhead);
    return at === -1 ? i : at;
  };
  let column = from;
  for (let i = 0; i < column.blocks.length; i++) {
    const { blocks } = column;
    if (!isLate(blocks, i)) continue;
    const better = SLACK.map((by) => movedUp(blocks, i, firstOf(blocks, i), by))
      .flatMap((way) => columnOf(task, table, way) ?? columnOf(task, table, fitted(task, table, way)) ?? [])
      .find((c) => brings(c, column));
    if (!better) continue;
    column = better;
    i = 0; // blocks that meet become one
  }
  return column;
}
