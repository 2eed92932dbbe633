import { describe, expect, it } from "vitest";
import { memoryBrowser, testDesk } from "~/desk/desk.test-data";
import { areSingleKeysOn, setSingleKeys } from "./single-keys";

describe("single keys", () => {
  it("work until somebody switches them off, for good in this browser", () => {
    const browser = memoryBrowser();
    const desk = testDesk({ browser });
    expect(areSingleKeysOn(desk)).toBe(true);
    setSingleKeys(desk, false);
    expect(areSingleKeysOn(desk)).toBe(false);
    expect(areSingleKeysOn(testDesk({ browser }))).toBe(false);
    setSingleKeys(desk, true);
    expect(areSingleKeysOn(testDesk({ browser }))).toBe(true);
  });
});
