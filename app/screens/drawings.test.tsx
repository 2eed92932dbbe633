import { render, screen, within } from "@testing-library/react";
import { createMemoryRouter, RouterProvider } from "react-router";
import type { DriveAnswer } from "~/core/plan";
import { describe, expect, it, vi } from "vitest";
import type { ReactNode } from "react";
import type { LoomCell } from "~/core/ledger";
import {
  accountOf,
  placeNight,
  ribbonNight,
  seasonOf,
  targetNight,
  USUAL_MOON,
  yearNights,
  yearOf,
} from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { nightDate } from "~/core/time";
import { Loom } from "~/components/charts/Loom";
import { NightAccountChart } from "~/components/charts/NightAccountChart";
import { Unbroken } from "~/components/ui/Unbroken";
import { NightRibbon } from "~/screens/shell/NightRibbon";
import YearChart from "~/components/charts/drawn/YearChart";
import { ChosenNight } from "~/screens/target/ChosenNight";
import { SkylineDrawing } from "~/components/charts/SkylineDrawing";
import { WorthStrip } from "~/components/charts/WorthStrip";
import { PlacesCompared } from "~/screens/target/PlacesCompared";
import { SeasonWords } from "~/screens/target/SeasonWords";
import { testPlace } from "~/core/test-data";

const night = placeNight(testPlace, nightDate("2026-12-05"), USUAL_MOON);
const { steps } = night;
const { walk } = targetNight(night, { frame: "icrs", raDeg: 312, decDeg: 31 }, "Ha");

const routed = (page: ReactNode) =>
  render(<RouterProvider router={createMemoryRouter([{ path: "/", element: page }])} />);

describe("worth strip", () => {
  it("reads its stretches aloud with local clock times and causes", () => {
    render(<WorthStrip steps={steps} walk={walk} channel="Ha" zone="Europe/Paris" isTall />);
    const label = screen.getByRole("img").getAttribute("aria-label")!;
    expect(label).toMatch(/^Ha: 1[67]:\d\d to 18:\d\d light sky, 18:\d\d to 2[0-3]:\d\d usable/);
    expect(label).toContain("too low");
  });
  it("says so when the Sun does not set", () => {
    const none = { ...steps, count: 0 };
    render(<WorthStrip steps={none} walk={walk} channel="Ha" zone="Europe/Paris" />);
    expect(screen.getByText("The Sun does not set.")).toBeTruthy();
  });
});

describe("where the night goes", () => {
  it("begins with the night and ends with the exposure left after losses and overheads", () => {
    const account = accountOf(steps, walk);
    render(<NightAccountChart account={account} overheadMin={20} />);
    const value = (term: string) => within(screen.getByText(term).parentElement!).getByRole("definition").textContent;
    expect(value("sunset to sunrise")).toBe(formatMinutes(account.nightMin));
    expect(value("exposure")).toBe(formatMinutes(account.usableMin - 20));
    expect(value("light sky")).toBe(`− ${formatMinutes(account.lost.lightSky)}`);
    expect(screen.queryByText("Moon")).toBeNull();
  });
});

describe("loom", () => {
  const cell = (panel: string, channel: "Ha" | "OIII", keptMin: number): LoomCell => ({
    panel,
    channel,
    isShort: false,
    goalMin: 120,
    keptMin,
    takenMin: keptMin + 10,
    countedMin: keptMin / 2,
    share: keptMin / 240,
  });
  it("names the weakest cell in words, not by colour alone", () => {
    render(
      <Loom
        cells={[cell("P1", "Ha", 60), cell("P1", "OIII", 90), cell("P2", "Ha", 20), cell("P2", "OIII", 90)]}
        isLarge
      />,
    );
    expect(screen.getByText("0 h 10 of 2 h 00, weakest")).toBeTruthy();
    expect(
      screen.getByRole("cell", { name: /P1 OIII: 1 h 40 taken, 1 h 30 kept, counts 0 h 45 of 2 h 00/ }),
    ).toBeTruthy();
  });
  it("says what to do when there are no goals", () => {
    render(<Loom cells={[]} />);
    expect(screen.getByText(/set them under Budget/)).toBeTruthy();
  });
});

it("keeps a designation whole at the end of a line, and changes no letter of it", () => {
  const text = "Go, from 18:42: Loop, then Sh2-216, three-by-two, until 04:00.";
  const { container } = render(<Unbroken text={text} />);
  expect(container.textContent).toBe(text);
  expect([...container.querySelectorAll("span")].map((s) => s.textContent)).toEqual(["Sh2-216,"]);
});

describe("night ribbon", () => {
  it("links every night, describes it in words and marks the chosen one", async () => {
    const nights = ["2026-12-05", "2026-12-06", "2026-12-24"].map((d) => ribbonNight(testPlace, nightDate(d)));
    routed(
      <NightRibbon
        onChoose={() => undefined}
        nights={nights}
        chosen="2026-12-06"
        today="2026-12-05"
        marks={new Map([["2026-12-05", "taken"]])}
        linkTo={(d) => `/?night=${d}`}
      />,
    );
    const links = await screen.findAllByRole("link");
    expect(links.map((l) => l.getAttribute("href"))).toEqual([
      "/?night=2026-12-05",
      "/?night=2026-12-06",
      "/?night=2026-12-24",
    ]);
    expect(links[1]!.getAttribute("aria-current")).toBe("date");
    expect(links[0]!.getAttribute("aria-label")).toMatch(
      /^Sat 5 Dec: \d+ h \d\d dark, .* without Moon, Moon \d+ % lit, clear on about 40 of 100 such nights, work taken$/,
    );
    expect(links[2]!.getAttribute("aria-label")).toContain("0 h 00 of it without Moon"); // full Moon
  });
});

describe("skyline drawing", () => {
  it("shows the walk of a target with its hours", () => {
    render(
      <SkylineDrawing
        skyline={[
          { azimuthDeg: 90, altitudeDeg: 30 },
          { azimuthDeg: 270, altitudeDeg: 10 },
        ]}
        minAltitudeDeg={20}
        steps={[{ azimuthDeg: 120, altitudeDeg: 40, word: "21", isUsable: true }]}
      />,
    );
    expect(screen.getByRole("img", { name: "Skyline, highest 30°" })).toBeTruthy();
    expect(screen.getByText("21")).toBeTruthy();
    expect(screen.getByText("lowest used, 20°")).toBeTruthy();
  });
});

describe("season", () => {
  const nights = yearOf(
    yearNights(testPlace, nightDate("2026-12-01"), 365, USUAL_MOON),
    { frame: "icrs", raDeg: 71, decDeg: 46.7 },
    "L",
  );
  it("says the best weeks and the ends of the season in words", () => {
    const { container } = render(<SeasonWords season={seasonOf(nights, 60)} />);
    expect(container.textContent).toMatch(
      /^Best from \w{3} \d+ (Nov|Dec) to \w{3} \d+ (Dec|Jan)\.An hour or more, ignoring the Moon, from .* (Jul|Aug) to .* (Mar|Apr)\.$/,
    );
  });
  it("says never for what never rises", () => {
    render(<SeasonWords season={{ kind: "never" }} />);
    expect(screen.getByText(/Never an hour in a night from here/)).toBeTruthy();
  });
  it("lists the hours of every month and the chosen night in numbers, and hands over the night that is pressed", () => {
    const onChoose = vi.fn();
    render(
      <>
        <YearChart nights={nights} chosen="2026-12-05" onChoose={onChoose} />
        <ChosenNight nights={nights} chosen="2026-12-05" />
      </>,
    );
    const title = screen.getByRole("figure").getAttribute("aria-label")!;
    expect(title).toMatch(/^Worth in hours of 365 nights, Jan \d+ h, .*, Dec \d+ h$/);
    expect(
      screen.getByText(/^Sat 5 Dec: ≈ 1\d h \d\d usable, 1\d h \d\d without the Moon, which is 9 % lit/),
    ).toBeTruthy();
  });
});

it("compares places best first, in hours of the chosen one's zenith", () => {
  const place = (name: string, hereMin: number, travelMin: number, drive: DriveAnswer | null) => ({
    ...{ id: name, name, skyMagPerArcsec2: 20, usableMin: 60, hereMin, travelMin, drive },
  });
  routed(
    <PlacesCompared
      places={[
        place("Yard", 30, 0, null),
        place("Pass", 150, 65, { kind: "from", clearMin: 64 }),
        place("Hill", 20, 30, { kind: "never" }),
      ]}
      hereName="Yard"
      channel="L"
      linkTo={(id) => `?place=${id}`}
    />,
  );
  expect(screen.getAllByRole("link").map((l) => [l.textContent, l.getAttribute("href")])).toEqual([
    ["Pass", "/?place=Pass"],
    ["Yard", "/?place=Yard"],
    ["Hill", "/?place=Hill"],
  ]);
  expect(screen.getByText("With 2 h 10 of driving it pays off from 1 h 04 of clear sky there.")).toBeTruthy();
  expect(screen.getByText(/With 1 h 00 of driving it does not pay off this night/)).toBeTruthy();
  expect(screen.getByText("2 h 30")).toBeTruthy();
});
