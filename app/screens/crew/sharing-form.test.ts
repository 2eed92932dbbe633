import { describe, expect, it } from "vitest";
import { isSameSharing, typedSharing } from "./sharing-form";

describe("a draft of who shoots what", () => {
  it("says the same whoever's box was typed into first, and another thing where a text differs", () => {
    const rules = (hours: Readonly<Record<string, number>>) => typedSharing("r", { way: "advantage", hours });
    expect(isSameSharing(rules({ a: 1, b: 2 }), rules({ b: 2, a: 1 }))).toBe(true);
    expect(isSameSharing(rules({ a: 1, b: 2 }), rules({ a: 2, b: 1 }))).toBe(false);
    expect(isSameSharing(rules({ a: 1 }), { ...rules({ a: 1 }), rev: "other" })).toBe(true);
    expect(isSameSharing(rules({ a: 1 }), { ...rules({ a: 1 }), ratio: "1:2" })).toBe(false);
  });
});
