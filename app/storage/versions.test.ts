import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  isAlike,
  joinHeads,
  RECORD_KINDS,
  undoingEdits,
  unlike,
  type Change,
  type Edit,
  type StoredRecord,
} from "~/core/crew";
import { utcMs } from "~/core/time";
import { versionsOf } from "./versions";

const dataVersions = Object.fromEntries(RECORD_KINDS.map((kind) => [kind, 1])) as Parameters<
  typeof versionsOf
>[1]["versions"];

/** Devices that edit one record, give each other what they have, and take acts back. */
const DEVICES = 3;
const nth = fc.nat({ max: 7 });
const move = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      does: fc.constant("edit" as const),
      device: fc.nat({ max: DEVICES - 1 }),
      /** Which of the versions it builds upon; past the last = on one that is gone, as a page that was open for long shows it. */
      base: nth,
      settles: fc.array(nth, { maxLength: 2 }),
      data: fc.nat({ max: 3 }),
      isDeleted: fc.boolean(),
    }),
  },
  { weight: 3, arbitrary: fc.record({ does: fc.constant("give" as const), device: fc.nat({ max: DEVICES - 1 }), to: fc.nat({ max: DEVICES - 1 }) }) },
  { weight: 3, arbitrary: fc.record({ does: fc.constant("undo" as const), device: fc.nat({ max: DEVICES - 1 }), back: nth }) },
); // prettier-ignore

interface Device {
  heads: readonly StoredRecord[];
  readonly node: string;
  readonly changes: Change[];
}

function play(
  moves: readonly (typeof move extends fc.Arbitrary<infer M> ? M : never)[],
  watch: (before: Device["heads"], after: Device["heads"], change: Change, isUndo: boolean) => void = () => undefined,
) {
  let names = 0;
  const devices: Device[] = Array.from({ length: DEVICES }, (_, i) => ({ heads: [], node: `d${i}`, changes: [] }));
  const write = (device: Device, edits: readonly Edit[], nowMs: number): Change | null => {
    const made = versionsOf(
      () => (device.heads.length > 0 ? (device.heads as [StoredRecord, ...StoredRecord[]]) : undefined),
      { node: device.node, freshNode: () => `f${++names}`, nobody: () => "m", nowMs: utcMs(Date.UTC(2026, 10, 1) + nowMs), versions: dataVersions },
      edits,
    ); // prettier-ignore
    if (!made.ok) throw new Error(made.error.code);
    device.heads = joinHeads(device.heads, made.value.records);
    return made.value.done.changes[0] ?? null;
  };
  moves.forEach((m, i) => {
    const device = devices[m.device]!;
    const before = device.heads;
    if (m.does === "give") {
      const to = devices[m.to]!;
      to.heads = joinHeads(to.heads, device.heads);
      return;
    }
    const undone = m.does === "undo" ? device.changes.at(-1 - m.back) : undefined;
    if (m.does === "undo" && !undone) return;
    const edits: readonly Edit[] =
      m.does === "edit"
        ? [
            {
              kind: "place",
              id: "r",
              data: m.data,
              baseRev: before[m.base]?.rev ?? null,
              settles: m.settles.flatMap((n) => before[n]?.rev ?? []),
              ...(m.isDeleted ? { isDeleted: true } : {}),
            },
          ]
        : undoingEdits(undone!, before);
    const change = write(device, edits, i);
    if (!change) return;
    device.changes.push(change);
    watch(before, device.heads, m.does === "undo" ? undone! : change, m.does === "undo");
  });
  return { devices, write };
}

/** What is to be read of some versions: each text once, in their order. */
const saysOf = (heads: readonly StoredRecord[]) =>
  unlike(heads).map((v) => (v.deletedAt === undefined ? v.data : "deleted"));

const RUNS = { numRuns: process.env["LAWS_SEED"] === "new" ? 10_000 : 1000 };
const history = fc.array(move, { minLength: 1, maxLength: 30 });

describe("taking acts back, whatever copies lie beside, whoever else writes", () => {
  it("leaves what was there before the act, in its order, and adds no version, as often as one goes to and fro", () => {
    fc.assert(
      fc.property(history, fc.nat({ max: DEVICES - 1 }), (moves, which) => {
        const { devices, write } = play(moves);
        const device = devices[which]!;
        const last = { kind: "place", id: "r", data: 9, baseRev: device.heads[0]?.rev ?? null } as const;
        const before = device.heads;
        let change = write(device, [last], 100)!;
        for (let i = 0; i < 3; i++) {
          change = write(device, undoingEdits(change, device.heads), 101 + 2 * i)!;
          expect(saysOf(device.heads)).toEqual(before.length > 0 ? saysOf(before) : ["deleted"]);
          expect(device.heads.length).toBeLessThanOrEqual(Math.max(1, before.length));
          change = write(device, undoingEdits(change, device.heads), 102 + 2 * i)!;
          expect(device.heads[0]).toMatchObject({ data: 9 });
          expect(device.heads.length).toBeLessThanOrEqual(Math.max(1, before.length));
        }
      }),
      RUNS,
    );
  }, 300_000);

  it("undoes any act at once to what was read before it, also one that built upon a version which was gone", () => {
    fc.assert(
      fc.property(history, move, (moves, m) => {
        const { devices, write } = play(moves);
        const device = devices[m.device]!;
        if (m.does !== "edit") return;
        const before = device.heads;
        const change = write(device, [{ kind: "place", id: "r", data: m.data, baseRev: before[m.base]?.rev ?? null, settles: m.settles.flatMap((n) => before[n]?.rev ?? []), ...(m.isDeleted ? { isDeleted: true } : {}) }], 100)!; // prettier-ignore
        write(device, undoingEdits(change, device.heads), 101);
        expect(saysOf(device.heads)).toEqual(before.length > 0 ? saysOf(before) : ["deleted"]);
      }),
      RUNS,
    );
  });

  it("takes nothing away that others have written since", () => {
    fc.assert(
      fc.property(history, (moves) => {
        play(moves, (before, after, { written }, isUndo) => {
          if (!isUndo) return;
          for (const v of before) if (!written.includes(v.rev)) expect(after.some((w) => isAlike(v, w))).toBe(true);
        });
      }),
      RUNS,
    );
  });

  it("merges to the same in any order", () => {
    fc.assert(
      fc.property(history, (moves) => {
        const [a, b, c] = play(moves).devices.map((d) => d.heads) as [StoredRecord[], StoredRecord[], StoredRecord[]];
        expect(joinHeads(joinHeads(a, b), c)).toStrictEqual(joinHeads(c, joinHeads(b, a)));
      }),
      RUNS,
    );
  });
});
