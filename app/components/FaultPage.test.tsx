import { render, screen } from "@testing-library/react";
import { createRoutesStub } from "react-router";
import { expect, it } from "vitest";
import type { PageFault } from "~/core/records";
import { refusePage } from "~/desk/page-fault";
import { ACTS } from "./forms/acts-intent";
import { ScreenFault } from "./ScreenFault";

/** What a page says whose loader ends like this. */
async function saidOf(end: () => never) {
  const Page = createRoutesStub([
    { path: "/", Component: () => null, ErrorBoundary: ScreenFault, loader: end, HydrateFallback: () => null },
    { path: ACTS, action: () => ({ refusal: null, aside: 0 }) },
  ]);
  const { unmount } = render(<Page />);
  const said = (await screen.findByRole("alert")).textContent;
  unmount();
  return said;
}
const refused = (fault: PageFault) => saidOf(() => refusePage(fault));

it("a page that cannot be shown says why, that nothing is lost, and leads back", async () => {
  expect(await refused({ code: "unknownProject" })).toMatch(/^Not here.*no such project.*Nothing you entered is lost/);
  expect(await refused({ code: "badNight" })).toContain("A night is written like 2026-12-05");
  const gap = { part: "goal", reason: null } as const;
  expect(await refused({ code: "projectGap", gap })).toMatch(
    /could not be computed.*The budget of this project is not here/,
  );
  expect(await refused({ code: "projectGap", gap: { ...gap, reason: "hours below zero" } })).toContain(
    "(hours below zero)",
  );
  expect(
    await saidOf(() => {
      throw new Error("the sky fell");
    }),
  ).toMatch(/could not be computed.*the sky fell/);
});

it.each([
  "Failed to fetch dynamically imported module: http://x/assets/a.js",
  "error loading dynamically imported module: http://x/assets/a.js",
  "Importing a module script failed.",
  "Unable to preload CSS for /assets/a.css",
])("a part that did not load (%s) is no fault of what is stored: the app can be fetched anew", async (message) => {
  const said = await saidOf(() => {
    throw new TypeError(message);
  });
  expect(said).toMatch(/A part of the app did not load.*Fetch the app anew/);
  expect(said).not.toContain("stored reads");
});

it("an address that leads nowhere is told apart from a thing that is not there", async () => {
  const nowhere = await saidOf(() => {
    throw new Response("", { status: 404 });
  });
  expect(nowhere).toMatch(/^No such page.*leads nowhere/);
});

it("a page that throws has all that is stored looked through, once, and comes back where something was set aside", async () => {
  let isBroken = true;
  let asked = 0;
  const Page = createRoutesStub([
    {
      path: "/",
      Component: () => <p>The page</p>,
      ErrorBoundary: ScreenFault,
      HydrateFallback: () => null,
      loader: () => {
        if (isBroken) throw new Error("reads nothing of null");
        return null;
      },
    },
    {
      path: ACTS,
      action: () => {
        asked++;
        isBroken = asked > 1;
        return { refusal: null, aside: 1 };
      },
    },
  ]);
  render(<Page />);
  await screen.findByText("The page");
  expect(asked).toBe(1);
});

it("says so where all that is stored reads", async () => {
  const Page = createRoutesStub([
    {
      path: "/",
      Component: () => null,
      ErrorBoundary: ScreenFault,
      HydrateFallback: () => null,
      loader: () => {
        throw new Error("the sky fell");
      },
    },
    { path: ACTS, action: () => ({ refusal: null, aside: 0 }) },
  ]);
  render(<Page />);
  await screen.findByText(/All that is stored reads/);
});
