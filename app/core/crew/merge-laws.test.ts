import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { editRecord, joinHeads, type StoredRecord } from ".";

/**
 * Plays devices with tabs that edit one record, exchange files and start anew, with clocks that are days wrong. What builds
 * upon what is kept here, by hand, and never read from the versions themselves.
 */
const DAY = 86_400_000;
const DEVICES = 3;
const TABS = 2;

type Move =
  | {
      readonly do: "edit";
      readonly device: number;
      readonly tab: number;
      /** Which of the versions this tab has shown the edit builds upon; counted back from the latest. */
      readonly back: number;
      readonly settles: boolean;
      readonly deletes: boolean;
    }
  | { readonly do: "look"; readonly device: number; readonly tab: number }
  | { readonly do: "give"; readonly device: number; readonly to: number; readonly part: number }
  | { readonly do: "reopen" | "clear" | "copyProfile"; readonly device: number; readonly tab: number };

interface Written {
  readonly version: StoredRecord<number>;
  readonly ancestors: ReadonlySet<StoredRecord>;
}

const index = (max: number) => fc.integer({ min: 0, max: max - 1 });
const at = { device: index(DEVICES), tab: index(TABS) };
const move: fc.Arbitrary<Move> = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      do: fc.constant("edit" as const),
      ...at,
      back: fc.integer({ min: 0, max: 2 }),
      settles: fc.boolean(),
      deletes: fc.boolean(),
    }),
  },
  { weight: 3, arbitrary: fc.record({ do: fc.constant("look" as const), ...at }) },
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant("give" as const),
      device: index(DEVICES),
      to: index(DEVICES),
      part: fc.integer({ min: 0, max: 7 }),
    }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constantFrom("reopen" as const, "clear", "copyProfile"), ...at }) },
);
const history = fc.record({
  moves: fc.array(move, { minLength: 1, maxLength: 40 }),
  /** How wrong every clock is, in days. */
  clocks: fc.tuple(...Array.from({ length: DEVICES }, () => fc.integer({ min: -4, max: 4 }))),
});

function play({ moves, clocks }: { readonly moves: readonly Move[]; readonly clocks: readonly number[] }) {
  let names = 0;
  const name = () => `n${++names}`;
  const written: Written[] = [];
  const find = (v: StoredRecord) => written.find((w) => w.version === v)!;
  const stores: StoredRecord[][] = Array.from({ length: DEVICES }, () => []);
  const tabs = stores.map(() => Array.from({ length: TABS }, () => ({ node: name(), shown: [] as StoredRecord[] })));
  /** What was handed over or was on a device that was cleared: files on a stick, so that nothing is lost by the play itself. */
  const files: StoredRecord[][] = [];
  moves.forEach((m, i) => {
    const store = stores[m.device]!;
    if (m.do === "give") {
      const file = store.filter((_, k) => ((m.part + 1) >> k) & 1);
      stores[m.to] = joinHeads(stores[m.to]!, file);
      return;
    }
    const tab = tabs[m.device]![m.tab]!;
    if (m.do === "look") tab.shown.push(...store.slice(0, 1));
    if (m.do === "reopen") Object.assign(tab, { node: name(), shown: [] });
    if (m.do === "copyProfile") {
      const to = (m.device + 1) % DEVICES;
      files.push(stores[to]!);
      stores[to] = [...store];
      tabs[to] = tabs[to]!.map(() => ({ node: name(), shown: [] }));
    }
    if (m.do === "clear") {
      files.push(store);
      stores[m.device] = [];
      tabs[m.device]!.forEach((t) => Object.assign(t, { node: name() }));
    }
    if (m.do !== "edit") return;
    const wanted = tab.shown.at(-1 - m.back);
    const base = store.find((h) => h === wanted) ?? null;
    const settles = m.settles ? store.filter((h) => h !== base) : [];
    const made = editRecord(
      { id: "r", kind: "place", data: i, ...(m.deletes ? { deletedAt: i } : {}) },
      {
        node: tab.node,
        freshNode: name,
        author: "a",
        nowMs: Date.UTC(2026, 10, 1) + clocks[m.device]! * DAY + Math.floor(i / 3),
        beside: store.filter((h) => h !== base && !settles.includes(h)),
      },
      base,
      settles,
    );
    if (!made.ok) throw new Error(made.error.code);
    const parents = [...(base ? [base] : []), ...settles].map(find);
    written.push({
      version: made.value,
      ancestors: new Set(parents.flatMap((p) => [p.version, ...p.ancestors])),
    });
    stores[m.device] = joinHeads(store, [made.value]);
    tab.shown.push(made.value);
  });
  return { written, all: [...stores, ...files] };
}

// 500 histories in `npm test`, 10,000 by `npm run laws`.
const RUNS = { numRuns: process.env["LAWS_SEED"] === "new" ? 10_000 : 500 };

describe("merging any history of edits, exchanges, copied profiles and wrong clocks", () => {
  it("loses no version that nobody has built upon, and brings none back that somebody has", () => {
    fc.assert(
      fc.property(history, (h) => {
        const { written, all } = play(h);
        const heads = all.reduce((a, b) => joinHeads(a, b), []);
        const builtUpon = new Set(written.flatMap((w) => [...w.ancestors]));
        const standing = written.filter((w) => !builtUpon.has(w.version)).map((w) => w.version.data);
        expect(heads.map((v) => v.data as number).toSorted((a, b) => a - b)).toEqual(standing);
      }),
      RUNS,
    );
  });

  it("is commutative, associative and idempotent", () => {
    fc.assert(
      fc.property(history, (h) => {
        const [a, b, c] = play(h).all as [StoredRecord[], StoredRecord[], StoredRecord[]];
        expect(joinHeads(a, b)).toStrictEqual(joinHeads(b, a));
        expect(joinHeads(joinHeads(a, b), c)).toStrictEqual(joinHeads(a, joinHeads(b, c)));
        expect(joinHeads(a, a)).toStrictEqual(a);
      }),
      RUNS,
    );
  });
});

describe("hours that several people log on several devices", () => {
  const logged = fc.array(
    fc.record({
      device: index(DEVICES),
      minutes: fc.integer({ min: 1, max: 600 }),
      givesTo: fc.option(index(DEVICES), { nil: null }),
    }),
    { minLength: 1, maxLength: 30 },
  );

  it("are the same sum whoever gave what to whom, in whatever order", () => {
    fc.assert(
      fc.property(logged, (list) => {
        const stores: Map<string, StoredRecord[]>[] = Array.from(
          { length: DEVICES },
          () => new Map<string, StoredRecord[]>(),
        );
        const join = (into: Map<string, StoredRecord[]>, from: ReadonlyMap<string, StoredRecord[]>) =>
          from.forEach((heads, id) => into.set(id, joinHeads(into.get(id) ?? [], heads)));
        list.forEach(({ device, minutes, givesTo }, i) => {
          const made = editRecord(
            { id: `c${i}`, kind: "contribution", data: { minutes } },
            { node: `d${device}`, freshNode: () => `f${i}`, author: "a", nowMs: i },
            null,
          );
          if (made.ok) stores[device]!.set(`c${i}`, [made.value]);
          if (givesTo !== null) join(stores[givesTo]!, stores[device]!);
        });
        const sum = (all: ReadonlyMap<string, StoredRecord[]>) =>
          [...all.values()].reduce((s, [winner]) => s + (winner!.data as { minutes: number }).minutes, 0);
        const [forth, back] = [new Map<string, StoredRecord[]>(), new Map<string, StoredRecord[]>()];
        stores.forEach((s) => join(forth, s));
        stores.toReversed().forEach((s) => join(back, s));
        const tally = list.reduce((s, l) => s + l.minutes, 0);
        expect([sum(forth), sum(back)]).toEqual([tally, tally]);
      }),
      RUNS,
    );
  });
});
