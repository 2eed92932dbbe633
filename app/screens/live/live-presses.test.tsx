import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { expect, it, vi } from "vitest";
import { liveState, type Happening, type NightEvent } from "~/core/live";
import type { Block } from "~/core/night";
import { nightDate, utcMs } from "~/core/time";
import { LivePresses } from "./LivePresses";

const T0 = Date.UTC(2026, 11, 5, 19);
const at = (min: number) => utcMs(T0 + min * 60_000);
const block = (from: number, panel: string): Block => ({
  kind: "block",
  startMs: at(from),
  endMs: at(from + 30),
  projectId: "p",
  panel,
  channel: "Ha",
  filterName: "Ha",
  subs: 6,
  subSec: 300,
  stage: 0,
});
const sheet = { lines: [block(0, "P1 the arch"), block(30, "P2")] };
const press = (min: number, is: Happening): NightEvent => ({ id: `e${min}`, memberId: "m", night: nightDate("2026-12-05"), rigId: "r", atMs: at(min), is }); // prettier-ignore

function open(events: readonly NightEvent[], min: number) {
  const onPress = vi.fn<(is: Happening) => void>();
  const state = liveState(sheet, events, at(min));
  render(
    <LivePresses state={state} names={{ p: "Arch" }} isDitherDue={false} airC={3} isBusy={false} onPress={onPress}>
      {null}
    </LivePresses>,
  );
  return onPress;
}
const button = (name: string | RegExp) => screen.getByRole("button", { name });

it("names the block that a word is about: the one that is on, else the one that just went by", async () => {
  const onPress = open([], 10);
  await userEvent.click(button("Ha P1 done, all kept"));
  expect(onPress).toHaveBeenCalledWith({ what: "done", of: { projectId: "p", panel: "P1 the arch", channel: "Ha", subSec: 300, startMs: at(0) }, kept: 6, lost: 0, reason: "" }); // prettier-ignore
});

it("asks under cloud what was had of the block that it broke off, until that is said", async () => {
  const cloud = press(40, { what: "cloud", isClear: false });
  const onPress = open([cloud], 41);
  await userEvent.click(button("Of Ha P2 …"));
  await userEvent.clear(screen.getByLabelText(/^Lost/));
  await userEvent.type(screen.getByLabelText(/^Lost/), "4");
  await userEvent.click(button("Write down"));
  const is = onPress.mock.calls[0]![0];
  expect(is).toMatchObject({ what: "done", kept: 2, lost: 4, reason: "cloud", of: { panel: "P2" } });
  document.body.innerHTML = "";
  open([cloud, press(42, is)], 43);
  expect(screen.queryByRole("button", { name: /^Of Ha/ })).toBeNull();
});

it("takes no number of lost subs that the block does not have", async () => {
  open([], 10);
  await userEvent.click(button("Done, some lost …"));
  await userEvent.clear(screen.getByLabelText(/^Lost/));
  await userEvent.type(screen.getByLabelText(/^Lost/), "7");
  expect(screen.getByText("1 to 6")).toBeTruthy();
  expect(button("Write down")).toHaveProperty("disabled", true);
});
