import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { beginWatching, lookAgain, type FolderNews, type Listed } from "./folder";

const file = (path: string, sizeBytes = 100, modifiedMs = 1): Listed => ({ path, sizeBytes, modifiedMs });
const paths = (news: FolderNews) => news.toRead.map((f) => f.path);

describe("a watched folder", () => {
  it("is not read for what lay there, and reads a new file once two looks find it the same", () => {
    const begun = beginWatching([file("old.fits")]);
    const first = lookAgain(begun, [file("old.fits"), file("new.fits", 40)]);
    expect(paths(first)).toEqual([]);
    const growing = lookAgain(first.watched, [file("old.fits"), file("new.fits", 90, 2)]);
    expect(paths(growing)).toEqual([]);
    const whole = lookAgain(growing.watched, [file("old.fits"), file("new.fits", 90, 2)]);
    expect(paths(whole)).toEqual(["new.fits"]);
    expect(paths(lookAgain(whole.watched, [file("old.fits"), file("new.fits", 90, 2)]))).toEqual([]);
  });

  it("waits with an empty file, and reads one anew that is written anew, an old one too", () => {
    let { watched } = lookAgain(beginWatching([file("old.fits")]), [file("old.fits"), file("a.fits", 0)]);
    let news = lookAgain(watched, [file("old.fits"), file("a.fits", 0)]);
    expect(paths(news)).toEqual([]);
    ({ watched } = lookAgain(news.watched, [file("old.fits", 100, 9), file("a.fits", 80, 3)]));
    news = lookAgain(watched, [file("old.fits", 100, 9), file("a.fits", 80, 3)]);
    expect(paths(news).sort()).toEqual(["a.fits", "old.fits"]);
  });

  it("follows what is renamed, moved and deleted, and reads none of it again", () => {
    const { watched } = lookAgain(lookAgain(beginWatching([]), [file("a.fits"), file("b.fits")]).watched, [file("a.fits"), file("b.fits")]); // prettier-ignore
    const moved = lookAgain(watched, [file("good/b.fits"), file("good/a.fits")]);
    expect(paths(moved)).toEqual([]);
    expect(moved.moved).toEqual(expect.arrayContaining([{ from: "a.fits", to: "good/a.fits" }, { from: "b.fits", to: "good/b.fits" }])); // prettier-ignore
    const deleted = lookAgain(moved.watched, [file("good/b.fits")]);
    expect([paths(deleted), deleted.moved]).toEqual([[], []]);
    expect(lookAgain(deleted.watched, [file("kept.fits")]).moved).toEqual([{ from: "good/b.fits", to: "kept.fits" }]);
  });

  it("reads every sub that is finished once and no half one, however a night writes, renames, moves and deletes (law)", () => {
    /** The night as it truly is: subs with a number of their own, written in pieces. */
    const step = fc.oneof(
      fc.record({ does: fc.constant("begin" as const), name: fc.integer({ min: 0, max: 30 }) }),
      fc.record({ does: fc.constantFrom("grow" as const, "finish" as const, "delete" as const, "look" as const), name: fc.integer({ min: 0, max: 30 }) }), // prettier-ignore
      fc.record({ does: fc.constant("move" as const), name: fc.integer({ min: 0, max: 30 }), to: fc.integer({ min: 31, max: 60 }) }), // prettier-ignore
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), (steps) => {
        const there = new Map<number, { id: number; size: number; at: number; isWhole: boolean }>();
        let [clock, ids] = [0, 0];
        let watched = beginWatching([]);
        const read: number[] = [];
        const look = () => {
          const listing = [...there].map(([name, f]) => file(`${name}.fits`, f.size, f.at));
          const news = lookAgain(watched, listing);
          watched = news.watched;
          for (const f of news.toRead) {
            const truth = there.get(Number.parseInt(f.path))!;
            read.push(truth.id);
          }
        };
        for (const s of steps) {
          clock++;
          const f = there.get(s.name);
          if (s.does === "begin" && !f) there.set(s.name, { id: ids++, size: 0, at: clock, isWhole: false });
          // What grows does so between any two looks: that is what makes it half.
          if (s.does === "grow" && f && !f.isWhole) [f.size, f.at] = [f.size + 1, clock];
          if (s.does === "finish" && f && !f.isWhole) [f.size, f.at, f.isWhole] = [f.size + 1, clock, true];
          if (s.does === "delete") there.delete(s.name);
          if (s.does === "move" && f && !there.has(s.to)) {
            there.delete(s.name);
            there.set(s.to, f);
          }
          if (s.does === "look") {
            look();
            for (const half of there.values()) if (!half.isWhole) [half.size, half.at] = [half.size + 1, ++clock];
          }
        }
        const whole = [...there.values()].filter((f) => f.isWhole).map((f) => f.id);
        for (const half of there.values()) if (!half.isWhole) half.at = ++clock;
        look();
        for (const half of there.values()) if (!half.isWhole) [half.size, half.at] = [half.size + 1, ++clock];
        look();
        expect(new Set(read).size).toBe(read.length); // none twice
        for (const id of whole) expect(read).toContain(id);
        for (const half of there.values()) if (!half.isWhole) expect(read).not.toContain(half.id);
      }),
    );
  });
});
