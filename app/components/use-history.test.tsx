import { act, fireEvent, renderHook } from "@testing-library/react";
import fc from "fast-check";
import { describe, expect, it, vi } from "vitest";
import { useHistory } from "./use-history";

const key = (more: object, target: Element = document.body) =>
  fireEvent.keyDown(target, { key: "z", ctrlKey: true, ...more });

describe("a value with its past", () => {
  it("makes one step of a whole drag, and none of a press that moved nothing", () => {
    const { result } = renderHook(() => useHistory(0));
    act(() => result.current.put(1));
    act(() => result.current.begin());
    for (const x of [2, 3, 4]) act(() => result.current.put(x));
    act(() => result.current.commit());
    act(() => result.current.begin());
    act(() => result.current.commit());
    expect(result.current.now).toBe(4);
    act(() => result.current.undo());
    expect(result.current.now).toBe(1);
    act(() => result.current.undo());
    expect([result.current.now, result.current.canUndo]).toEqual([0, false]);
  });
  it("goes back and forth by Ctrl Z and Ctrl Shift Z, but not while somebody types", () => {
    const travel = vi.fn();
    const { result } = renderHook(() => useHistory<string>("a", travel));
    act(() => result.current.put("b"));
    const box = document.body.appendChild(document.createElement("input"));
    key({}, box);
    expect(result.current.now).toBe("b");
    key({});
    expect(result.current.now).toBe("a");
    key({ key: "Z", shiftKey: true });
    expect([result.current.now, travel.mock.calls]).toEqual(["b", [["a"], ["b"]]]);
    box.remove();
  });
  it("is a list with a finger on it, at least 200 steps deep (law, against the plain list)", () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom("put", "undo", "redo"), { maxLength: 60 }), (acts) => {
        const { result, unmount } = renderHook(() => useHistory(0));
        let [list, at] = [[0], 0];
        acts.forEach((what, i) => {
          if (what === "put") {
            list = [...list.slice(0, at + 1), i + 1];
            at++;
          } else at = what === "undo" ? Math.max(0, at - 1) : Math.min(list.length - 1, at + 1);
          act(() => (what === "put" ? result.current.put(i + 1) : result.current[what]()));
          expect(result.current.now).toBe(list[at]);
        });
        unmount();
      }),
      { numRuns: 40 },
    );
    const { result } = renderHook(() => useHistory(0));
    for (let i = 1; i <= 220; i++) act(() => result.current.put(i));
    for (let i = 0; i < 200; i++) act(() => result.current.undo());
    expect(result.current.now).toBe(20);
  });
});
