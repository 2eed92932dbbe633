import { act, render, screen, waitFor } from "@testing-library/react";
import { useState } from "react";
import { flushSync } from "react-dom";
import { createRoutesStub } from "react-router";
import { expect, it } from "vitest";
import { DeskContext } from "~/at-desk";
import type { FrameData } from "~/core/plan";
import { testDesk } from "~/desk/desk.test-data";
import type { Entity } from "~/desk/records/library";
import type { FrameAnswer, FrameIntent } from "./intents";
import { useFrameDraft } from "./use-frame-draft";

const data: FrameData = {
  projectId: "p", raDeg: 100, decDeg: 20, positionAngleDeg: 0, columns: 1, rows: 1, overlap: 0.2,
}; // prettier-ignore
const version = (rev: string, columns: number): Entity<FrameData> => ({
  id: "f",
  rev,
  author: "m",
  data: { ...data, columns },
  copies: [],
});
const asks = () => false;

/** A page of a frame whose saves are answered by the test, and what it was asked to keep. */
function openPage() {
  const asked: { readonly intent: FrameIntent; readonly answer: (rev: string) => void }[] = [];
  let follow: (kept: Entity<FrameData>) => void = () => undefined;
  let change: (part: Partial<FrameData>) => void = () => undefined;
  const Frame = () => {
    const [kept, setKept] = useState(() => version("r0", 1));
    const draft = useFrameDraft(kept, null, "/", asks);
    follow = setKept;
    change = draft.change;
    return <p>{draft.frame.columns} columns</p>;
  };
  const Page = createRoutesStub([
    {
      path: "/",
      Component: Frame,
      action: async ({ request }) => {
        const intent = (await request.json()) as FrameIntent;
        const rev = await new Promise<string>((answer) => asked.push({ intent, answer }));
        return { refusal: null, revs: { f: rev } } satisfies FrameAnswer;
      },
    },
  ]);
  render(
    <DeskContext value={testDesk()}>
      <Page />
    </DeskContext>,
  );
  /** What the browser does when the tab goes to the back: the page keeps at once. */
  const hide = () => {
    Object.defineProperty(document, "visibilityState", { value: "hidden", configurable: true });
    document.dispatchEvent(new Event("visibilitychange"));
    Object.defineProperty(document, "visibilityState", { value: "visible", configurable: true });
  };
  return {
    asked,
    hide,
    change: (columns: number) => act(() => change({ columns })),
    hears: (kept: Entity<FrameData>) => flushSync(() => follow(kept)),
    sees: (columns: number) => screen.findByText(`${columns} columns`),
  };
}

it("shows the version that counts, when another tab's arrives while one's own is on its way (reported: two tabs, each with its own)", async () => {
  const page = openPage();
  page.change(3);
  await act(async () => {
    page.hide();
    page.hears(version("r1", 2)); // before anything of the save is to be seen on the page
    await Promise.resolve();
  });
  await waitFor(() => expect(page.asked).toHaveLength(1));
  await page.sees(3);
  await act(async () => {
    page.asked[0]!.answer("r2");
    page.hears(version("r2", 3));
    await Promise.resolve();
  });
  await page.sees(3);
});

it("follows another tab's version that counts, once its own is answered", async () => {
  const page = openPage();
  page.change(3);
  await act(async () => {
    page.hide();
    page.hears(version("r2", 2));
    await Promise.resolve();
  });
  await waitFor(() => expect(page.asked).toHaveLength(1));
  await act(async () => {
    page.asked[0]!.answer("r1");
    await Promise.resolve();
  });
  await page.sees(2);
});
