import fc from "fast-check";
import type { ContributionData } from "~/core/ledger";
import { describe, expect, it } from "vitest";
import {
  editRecord,
  unsoundness,
  fromTheFuture,
  joinHeads,
  mergeStores,
  nextRev,
  parseRev,
  winnerOf,
  losersOf,
  unlike,
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
          const rev = nextRev(last === "" ? [] : [last], t, "n")!;
          expect(rev > last).toBe(true);
          expect(parseRev(rev)!.ms).toBeGreaterThanOrEqual(t);
          last = rev;
        }
      }),
    );
  });
});

describe("the ends of the clock", () => {
  it("carries a full counter over to the next millisecond", () => {
    expect(nextRev(["00000000a.zzzz.n"], 0, "n")).toBe("00000000b.0000.n");
  });

  it("works from a clock in 1969, and writes nothing past 2200, where readings would not sort", () => {
    const before1970 = nextRev([], Date.UTC(1969, 6, 20), "n")!;
    expect(parseRev(before1970)).toEqual({ ms: 0, count: 0, node: "n" });
    expect(nextRev([before1970], Date.UTC(1969, 6, 20), "n")! > before1970).toBe(true);
    expect(nextRev([], Date.UTC(9999, 0, 1), "n")).toBeNull();
    const last = nextRev([], Date.UTC(2200, 11, 31, 23, 59, 59, 999), "n")!;
    expect(nextRev([last], 0, "n")).not.toBeNull();
    expect(nextRev([last.replace(".0000.", ".zzzz.")], 0, "n")).toBeNull();
  });

  it("tells versions written more than a day from now", () => {
    const at = (ms: number) => write(1, { node: "a", nowMs: ms }, null);
    const now = Date.UTC(2026, 11, 5);
    const [soon, far] = [at(now + 86_000_000), at(now + 87_000_000)];
    expect(fromTheFuture([soon, far], now)).toEqual([far]);
  });
});

let freshNodes = 0;
const write = (
  data: number,
  by: { readonly node: string; readonly nowMs: number; readonly beside?: readonly StoredRecord[] },
  base: StoredRecord | null,
  settles: readonly StoredRecord[] = [],
): StoredRecord<number> => {
  const made = editRecord(
    { id: "r", kind: "place", data },
    { author: "A", freshNode: () => `fresh-${++freshNodes}`, ...by },
    base,
    settles,
  );
  if (!made.ok) throw new Error(made.error.code);
  return made.value;
};

describe("merging", () => {
  it("lets the later of two edits win on one device even while the wall clock stands still", () => {
    const first = write(1, { node: "m", nowMs: 10 }, null);
    for (const fresh of ["a", "z"]) {
      const other = write(2, { node: "m", nowMs: 10 }, first);
      const late = write(3, { node: fresh, nowMs: 10, beside: [other] }, first);
      expect(joinHeads([other], [late]).map((h) => h.data)).toEqual([3, 2]);
    }
  });

  it("knows what a file would really bring: not what is here, nor what is built upon, and nothing of another kind", () => {
    const first = write(1, { node: "a", nowMs: 10 }, null);
    const mine = write(2, { node: "a", nowMs: 20 }, first);
    const theirs = write(3, { node: "b", nowMs: 30 }, first);
    const rig: StoredRecord = { ...mine, kind: "rig" };
    expect(newsIn(new Map([["place/r", [mine] as Heads]]), [first, mine, theirs, rig])).toEqual([theirs, rig]);
  });

  it("keeps the earlier of two edits made at once as a copy beside the winner, until someone settles it", () => {
    const first = write(1, { node: "a", nowMs: 10 }, null);
    const mine = write(2, { node: "a", nowMs: 20 }, first);
    const theirs = write(3, { node: "b", nowMs: 30 }, first);
    const heads = mergeStores(new Map([["r", [mine] as Heads]]), new Map([["r", [theirs] as Heads]])).get("r")!;
    expect([winnerOf(heads).data, losersOf(heads).map((l) => l.data)]).toEqual([3, [2]]);
    const settled = write(2, { node: "a", nowMs: 40 }, winnerOf(heads), losersOf(heads));
    expect(joinHeads(heads, [settled])).toEqual([settled]);
  });

  it("keeps the copy of another tab when a page saves once more over what it had saved itself", () => {
    // Tabs A and C save the same rig; A, which sees its own version only, saves again.
    const first = write(1, { node: "m", nowMs: 10 }, null);
    const ofC = write(2, { node: "c", nowMs: 20 }, first);
    const ofA = write(3, { node: "a", nowMs: 30, beside: [ofC] }, first);
    const copyTaken = write(4, { node: "c", nowMs: 40, beside: [ofA] }, ofC);
    const onOldCopy = write(5, { node: "c", nowMs: 50, beside: [ofA, copyTaken] }, ofC);
    expect(joinHeads([ofA, copyTaken], [onOldCopy]).map((h) => h.data)).toEqual([5, 4, 3]);
  });

  it("keeps two that bear one revision but differ, as an edited file makes them, whichever comes first", () => {
    const one = write(1, { node: "a", nowMs: 10 }, null);
    const forged = { ...one, data: 2 };
    expect(joinHeads([one], [forged])).toStrictEqual(joinHeads([forged], [one]));
    expect(joinHeads([one], [forged])).toHaveLength(2);
    expect(joinHeads([one], [{ ...one }])).toEqual([one]);
  });

  it("knows writers by any name, also those that every object in JavaScript answers to", () => {
    const one = write(1, { node: "constructor", nowMs: 10 }, null);
    const other = write(2, { node: "toString", nowMs: 20 }, null);
    expect(joinHeads([one], [other])).toEqual([other, one]);
    expect(unsoundness(one)).toBeNull();
    const next = write(3, { node: "constructor", nowMs: 30 }, one);
    expect(joinHeads([other], [next, one])).toEqual([next, other]);
    expect(newsIn(new Map([["place/r", [one] as Heads]]), [other])).toEqual([other]);
  });

  it("joins twenty thousand versions of one record, and tells what they say apart", () => {
    const node = (i: number) => `n${i}`;
    const all = Array.from({ length: 20_000 }, (_, i) => write(i % 5000, { node: node(i), nowMs: i }, null));
    const [half, rest] = [all.slice(0, 10_000), all.slice(10_000)];
    const joined = joinHeads(half, rest); // a square of this would take minutes
    expect(joined.length).toBe(20_000);
    expect(unlike(joined).length).toBe(5000);
  });

  it("sees through versions that claim more than they can have seen", () => {
    const sound = write(1, { node: "a", nowMs: 10 }, null);
    const later = nextRev([], 99, "b")!;
    const of = (seen: Record<string, string>, rev = sound.rev) => unsoundness({ rev, seen });
    expect(of(sound.seen)).toBeNull();
    expect(of({})).toMatch(/itself/);
    expect(of({ ...sound.seen, b: later })).toMatch(/later/);
    expect(of({ ...sound.seen, c: sound.rev })).toMatch(/no reading of c/);
    expect(of({ ...sound.seen, b: "yesterday" })).toMatch(/no reading of b/);
    expect(of({ a: "zzzzzzzzz.zzzz.a" }, "zzzzzzzzz.zzzz.a")).toMatch(/2200/);
  });

  it("leaves what no other version builds upon, by its definition, whatever versions claim", () => {
    const names = ["a", "b", "constructor", "toString"];
    const rev = fc.tuple(fc.integer({ min: 0, max: 4 }), fc.constantFrom(...names));
    const version = fc.tuple(rev, fc.array(rev, { maxLength: 5 }), fc.nat({ max: 1 })).map(([[ms, node], claims, data]): StoredRecord => {
      const own = nextRev([], ms, node)!;
      const readings = [...claims.map(([at, of]) => [of, nextRev([], at, of)!] as const), [node, own] as const];
      return { id: "r", kind: "place", rev: own, author: "a", data, seen: Object.fromEntries(readings) };
    });
    fc.assert(
      fc.property(fc.array(version, { minLength: 2, maxLength: 9 }), (all) => {
        const stands = (v: StoredRecord) =>
          !all.some((w) => w.rev !== v.rev && Object.entries(w.seen).some(([of, at]) => of === v.rev.slice(15) && at >= v.rev));
        const texts = new Set(all.filter(stands).map((v) => JSON.stringify([v.rev, v.data, Object.entries(v.seen).sort()])));
        const joined = joinHeads(all.slice(0, 4), all.slice(4));
        expect(new Set(joined.map((v) => JSON.stringify([v.rev, v.data, Object.entries(v.seen).sort()])))).toEqual(texts);
        expect(joined.length).toBe(texts.size);
      }),
    );
  }); // prettier-ignore

  it("never leaves a record without a version, whatever sound versions claim to have seen", () => {
    const rev = fc.tuple(fc.integer({ min: 0, max: 5 }), fc.constantFrom("a", "b", "c"));
    const version = fc.tuple(rev, fc.array(rev, { maxLength: 4 })).map(([[ms, node], claims]): StoredRecord => {
      const own = nextRev([], ms, node)!;
      const seen: Record<string, string> = {};
      for (const [at, of] of claims) {
        const reading = nextRev([], at, of)!;
        if (reading <= own) seen[of] = reading;
      }
      return { id: "r", kind: "place", rev: own, author: "a", data: {}, seen: { ...seen, [node]: own } };
    });
    fc.assert(
      fc.property(fc.array(version, { minLength: 1, maxLength: 8 }), (all) => {
        expect(all.every((v) => unsoundness(v) === null)).toBe(true);
        expect(joinHeads(all, []).length).toBeGreaterThan(0);
        expect(joinHeads(all, [])).toStrictEqual(joinHeads([], all.toReversed()));
      }),
    );
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
  const log: ContributionData[] = [
    { ...c, memberId: "ines", channel: "Ha", exposureSec: 120, taken: 20, kept: 15, worthRate: 0.5 },
    { ...c, memberId: "ines", channel: "Ha", exposureSec: 30, taken: 60, kept: 60, worthRate: null },
    { ...c, memberId: "wren", channel: "Ha", exposureSec: 300, taken: 12, kept: 12, worthRate: 1 },
  ];
  expect(
    memberTotals(log.map((e) => ({ ...e, countedMin: ((e.kept * e.exposureSec) / 60) * (e.worthRate ?? 1) }))),
  ).toEqual([
    { memberId: "ines", channel: "Ha", subs: 75, keptMin: 60, countedMin: 45 },
    { memberId: "wren", channel: "Ha", subs: 12, keptMin: 60, countedMin: 60 },
  ]);
  expect(memberTotals(log).map((t) => t.countedMin)).toEqual([60, 60]);
});
