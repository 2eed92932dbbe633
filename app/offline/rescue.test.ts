// @vitest-environment jsdom
import { beforeEach, describe, expect, it } from "vitest";
import { hasDrawn, isGoing, isInRing, rescueScript, wasGoing } from "./rescue";

describe("pages that come round and round", () => {
  beforeEach(() => sessionStorage.clear());
  const loads = (...times: number[]) => times.map((time) => isInRing(sessionStorage, time));

  it("are a ring from the third within a minute on", () => {
    expect(loads(0, 1000, 2000, 3000)).toEqual([false, false, true, true]);
  });
  it("are none where a page drew itself between, or long after, or before the clock was put back", () => {
    loads(0, 1000);
    hasDrawn(sessionStorage);
    expect(loads(2000, 3000)).toEqual([false, false]);
    expect(loads(100_000, 200_000, 300_000)).toEqual([false, false, false]);
    expect(loads(300_001, 10, 20)).toEqual([false, false, false]);
  });
  it.each(["", "{", "{}", "null", '["a"]', '"x"'])("takes %j, left by something else, for no page", (left) => {
    sessionStorage.setItem("loads", left);
    expect(loads(0, 1)).toEqual([false, false]);
  });
});

describe("where a tab was going as its page was loaded anew", () => {
  it("is asked once, and is nowhere once it came there", () => {
    isGoing(sessionStorage, "/season");
    expect([wasGoing(sessionStorage), wasGoing(sessionStorage)]).toEqual(["/season", null]);
    isGoing(sessionStorage, "/season");
    isGoing(sessionStorage, null);
    expect(wasGoing(sessionStorage)).toBeNull();
  });
});

describe("the script of the page", () => {
  const page = document.documentElement;
  (0, eval)(rescueScript("/", /did not come/));
  const rejected = (reason: unknown) =>
    window.dispatchEvent(Object.assign(new Event("unhandledrejection"), { reason }));
  beforeEach(() => delete page.dataset["unloaded"]);

  it("marks the page where a script did not load, and no picture's", () => {
    const [image, script] = ["img", "script"].map((name) => document.body.appendChild(document.createElement(name)));
    image?.dispatchEvent(new Event("error"));
    expect(page.dataset["unloaded"]).toBeUndefined();
    script?.dispatchEvent(new Event("error"));
    expect(page.dataset["unloaded"]).toBe("");
  });
  it("marks it where a part did not, and for no other fault", () => {
    rejected(new Error("something else"));
    expect(page.dataset["unloaded"]).toBeUndefined();
    rejected(new TypeError("it did not come"));
    expect(page.dataset["unloaded"]).toBe("");
  });
});
