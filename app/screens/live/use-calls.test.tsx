import { act, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { DeskContext } from "~/at-desk";
import { memoryBrowser, testDesk } from "~/desk/desk.test-data";
import { useCallsChoice, useTelling } from "./use-calls";

const told: string[] = [];
let permission: NotificationPermission = "granted";
class Told {
  static get permission() {
    return permission;
  }
  static requestPermission = () => Promise.resolve(permission);
  constructor(words: string) {
    told.push(words);
  }
}
const flip = { what: "flip", words: "Flip at 23:10" };
const dew = { what: "dew", words: "Dew" };
let isHidden = true;

beforeEach(() => {
  told.length = 0;
  [permission, isHidden] = ["granted", true];
  vi.stubGlobal("Notification", Told);
  vi.spyOn(document, "hidden", "get").mockImplementation(() => isHidden);
});
afterEach(() => vi.unstubAllGlobals());

const open = (browser = memoryBrowser()) => {
  const desk = testDesk({ browser });
  const useCalls = (due: readonly (typeof flip)[]) => {
    const choice = useCallsChoice();
    useTelling(due, choice.calls);
    return choice;
  };
  return renderHook(({ due }) => useCalls(due), {
    initialProps: { due: [] as readonly (typeof flip)[] },
    wrapper: ({ children }) => <DeskContext value={desk}>{children}</DeskContext>,
  });
};
const settle = () => act(() => new Promise((resolve) => setTimeout(resolve, 0)));

it("tells nothing before anybody asks for it, and asks the browser for no leave", async () => {
  const ask = vi.spyOn(Told, "requestPermission");
  const page = open();
  page.rerender({ due: [flip] });
  await settle();
  expect([told, ask.mock.calls]).toEqual([[], []]);
});

it("tells what is due once while the page is hidden, again when it is due again, and remembers that it may", async () => {
  const browser = memoryBrowser();
  const page = open(browser);
  await act(() => page.result.current.choose("quiet"));
  page.rerender({ due: [flip] });
  page.rerender({ due: [{ ...flip }, dew] });
  await settle();
  expect(told).toEqual(["Flip at 23:10", "Dew"]);
  page.rerender({ due: [] });
  page.rerender({ due: [flip] });
  await settle();
  expect(told).toEqual(["Flip at 23:10", "Dew", "Flip at 23:10"]);
  expect(open(browser).result.current.calls).toBe("quiet");
});

it("tells nothing to who looks at the page, and says when the browser refuses", async () => {
  isHidden = false;
  const page = open();
  await act(() => page.result.current.choose("quiet"));
  page.rerender({ due: [flip] });
  await settle();
  expect(told).toEqual([]);
  permission = "denied";
  const other = open();
  await act(() => other.result.current.choose("quiet"));
  expect([other.result.current.calls, other.result.current.isRefused]).toEqual(["none", true]);
});
