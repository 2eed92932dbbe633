import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  editRecord,
  joinHeads,
  mergeStores,
  nextRev,
  parseRev,
  winnerOf,
  losersOf,
  newsIn,
  memberTotals,
  type Heads,
  type StoredRecord,
} from ".";

describe("the clock", () => {
  it("always moves forward, even when the wall clock runs back, and sorts as text", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 2e12 }), { minLength: 2, maxLength: 40 }), (times) => {
        let last = "";
        for (const t of times) {
          const rev = nextRev(last === "" ? [] : [last], t, "n");
          expect(rev > last).toBe(true);
          expect(parseRev(rev)!.ms).toBeGreaterThanOrEqual(t);
          last = rev;
        }
      }),
    );
  });
});

/** Plays edits on a few devices that sometimes exchange what they have; returns every version ever written and each device's store. */
function history(moves: readonly { readonly device: number; readonly meets: number; readonly value: number }[]) {
  const stores: StoredRecord<number>[][] = [[], [], []];
  const written: StoredRecord<number>[] = [];
  moves.forEach((m, i) => {
    if (m.meets !== m.device) {
      stores[m.device] = joinHeads(stores[m.device]!, stores[m.meets]!) as StoredRecord<number>[];
      return;
    }
    const base = stores[m.device]![0] ?? null;
    const next = editRecord(
      { id: "r", kind: "place", data: m.value },
      { node: `d${m.device}`, author: "a", nowMs: 1000 + (i % 3) },
      base,
    );
    stores[m.device] = joinHeads(stores[m.device]!, [next]) as StoredRecord<number>[];
    written.push(next);
  });
  return { stores, written };
}

const moves = fc.array(
  fc.record({ device: fc.integer({ min: 0, max: 2 }), meets: fc.integer({ min: 0, max: 2 }), value: fc.integer() }),
  { minLength: 1, maxLength: 25 },
);

describe("merging", () => {
  it("is commutative, associative and idempotent for any history of edits and exchanges", () => {
    fc.assert(
      fc.property(moves, (list) => {
        const [a, b, c] = history(list).stores as [StoredRecord[], StoredRecord[], StoredRecord[]];
        expect(joinHeads(a, b)).toStrictEqual(joinHeads(b, a));
        expect(joinHeads(joinHeads(a, b), c)).toStrictEqual(joinHeads(a, joinHeads(b, c)));
        expect(joinHeads(a, a)).toStrictEqual(a);
      }),
    );
  });

  it("loses no edit that nobody has built upon", () => {
    fc.assert(
      fc.property(moves, (list) => {
        const { stores, written } = history(list);
        const merged = joinHeads(joinHeads(stores[0]!, stores[1]!), stores[2]!);
        for (const v of written) {
          const builtUpon = written.some((w) => w.rev !== v.rev && (w.seen[v.rev.slice(15)] ?? "") >= v.rev);
          expect(merged.some((m) => m.rev === v.rev) || builtUpon).toBe(true);
        }
      }),
    );
  });

  it("lets the later of two edits win on one device even while the wall clock stands still", () => {
    const first = editRecord({ id: "r", kind: "place", data: 1 }, { node: "m", author: "A", nowMs: 10 }, null);
    for (const fresh of ["a", "z"]) {
      const other = editRecord({ id: "r", kind: "place", data: 2 }, { node: "m", author: "A", nowMs: 10 }, first);
      const late = editRecord(
        { id: "r", kind: "place", data: 3 },
        { node: fresh, author: "A", nowMs: 10, heard: [other.rev] },
        first,
      );
      expect(joinHeads([other], [late]).map((h) => h.data)).toEqual([3, 2]);
    }
  });

  it("knows what a file would really bring: not what is here, nor what is built upon", () => {
    const first = editRecord({ id: "r", kind: "place", data: 1 }, { node: "a", author: "A", nowMs: 10 }, null);
    const mine = editRecord({ id: "r", kind: "place", data: 2 }, { node: "a", author: "A", nowMs: 20 }, first);
    const theirs = editRecord({ id: "r", kind: "place", data: 3 }, { node: "b", author: "B", nowMs: 30 }, first);
    expect(newsIn([mine], [first, mine, theirs])).toEqual([theirs]);
  });

  it("keeps the earlier of two edits made at once as a copy beside the winner, until someone settles it", () => {
    const first = editRecord({ id: "r", kind: "place", data: 1 }, { node: "a", author: "A", nowMs: 10 }, null);
    const mine = editRecord({ id: "r", kind: "place", data: 2 }, { node: "a", author: "A", nowMs: 20 }, first);
    const theirs = editRecord({ id: "r", kind: "place", data: 3 }, { node: "b", author: "B", nowMs: 30 }, first);
    const heads = mergeStores(new Map([["r", [mine] as Heads]]), new Map([["r", [theirs] as Heads]])).get("r")!;
    expect([winnerOf(heads).data, losersOf(heads).map((l) => l.data)]).toEqual([3, [2]]);
    const settled = editRecord(
      { id: "r", kind: "place", data: 2 },
      { node: "a", author: "A", nowMs: 40 },
      winnerOf(heads),
      losersOf(heads),
    );
    expect(joinHeads(heads, [settled])).toEqual([settled]);
  });
});

it("adds hours by member and channel without doubling: 15 × 120 s is 30 min (common practice, no source)", () => {
  const c = {
    projectId: "p",
    panel: "P1",
    night: "2026-11-01",
    rigId: "r",
    placeId: "x",
    reason: "",
    startMs: null,
    fileName: "",
    note: "",
  } as const;
  const totals = memberTotals([
    { ...c, memberId: "ines", channel: "Ha", exposureSec: 120, taken: 20, kept: 15, worthRate: 0.5 },
    { ...c, memberId: "ines", channel: "Ha", exposureSec: 30, taken: 60, kept: 60, worthRate: null },
    { ...c, memberId: "wren", channel: "Ha", exposureSec: 300, taken: 12, kept: 12, worthRate: 1 },
  ]);
  expect(totals).toEqual([
    { memberId: "ines", channel: "Ha", subs: 75, keptMin: 60, worthMin: 45 },
    { memberId: "wren", channel: "Ha", subs: 12, keptMin: 60, worthMin: 60 },
  ]);
});
