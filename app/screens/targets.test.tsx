import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { createRoutesStub } from "react-router";
import { describe, expect, it } from "vitest";
import type { CatalogEntry } from "~/core/catalog";
import { opticsOf } from "~/core/framing";
import type { FinderPath, GuideStar } from "~/core/finder";
import { DetailPanel } from "~/screens/target/DetailPanel";
import { FinderChart } from "~/screens/finder/FinderChart";
import { FinderSteps } from "~/screens/finder/FinderSteps";
import { OwnTargetForm } from "~/screens/own-target/OwnTargetForm";
import { readOwnTarget } from "~/screens/own-target/own-target-form";
import { TestShot } from "~/screens/finder/TestShot";
import { testRig } from "~/core/test-data";
import { YearNumbers } from "~/screens/target/YearNumbers";

const optics = opticsOf(testRig);
const form = (values: Readonly<Record<string, string>>) => {
  const data = new FormData();
  for (const [name, value] of Object.entries(values)) data.set(name, value);
  return data;
};

describe("a target of one's own", () => {
  const right = { name: "Faint arc", position: "20h50m33s +31 10", kind: "supernovaRemnant", light: "OIII", size: "" };
  it("is read from a position in any notation", () => {
    const got = readOwnTarget(form(right));
    expect(got).toMatchObject({ ok: true, value: { name: "Faint arc", light: "OIII", majorArcmin: null } });
    if (got.ok) expect(got.value.raDeg).toBeCloseTo(312.6375, 6);
  });
  it("says beside each box what is wrong", () => {
    expect(readOwnTarget(form({ ...right, position: "20h50m +95" }))).toEqual({
      ok: false,
      error: { position: "Declination runs from −90 to +90°." },
    });
    const all = readOwnTarget(form({ name: " ", position: "Deneb", kind: "comet", size: "-3" }));
    expect(all.ok ? [] : Object.keys(all.error).sort()).toEqual(["kind", "name", "position", "size"]);
  });
  it("shows how the position is read, and whether it is inside a neighbour's frame", async () => {
    const near = (id: string, dRaDeg: number): CatalogEntry => ({
      id, name: "", aliases: [], kind: "openCluster", at: { frame: "icrs", raDeg: 312.6375 + dRaDeg, decDeg: 31.1667 }, majorArcmin: 5, minorArcmin: 5,
      positionAngleDeg: null, magnitude: 7, constellation: "Cyg", rank: 20, curated: null,
    }); // prettier-ignore
    const user = userEvent.setup();
    const Stub = createRoutesStub([
      {
        path: "/",
        Component: () => (
          <OwnTargetForm
            target={null}
            position=""
            baseRev=""
            faults={{}}
            field={{ widthArcmin: 120, heightArcmin: 80, rigName: "Rig" }}
            findNear={() => Promise.resolve([near("Close", 0.3), near("Side", 0.95), near("Far", 1.5)])}
          />
        ),
      },
    ]);
    render(<Stub />);
    const box = await screen.findByLabelText("Position");
    await user.type(box, "312.6375 31.1667");
    expect(screen.getByText(/Read as 20h 50m 33.0s, \+31° 10′ 00″ \(from degrees\), in Cyg/)).toBeTruthy();
    expect(await screen.findByRole("option", { name: "Close: 15.4′ away, inside at any camera angle" })).toBeTruthy();
    expect(
      screen.getByRole("option", { name: "Side: 48.8′ away, inside when the long side points there" }),
    ).toBeTruthy();
    expect(screen.getByRole("option", { name: "Far: 77.0′ away, outside your frame" })).toBeTruthy();
    await user.clear(box);
    await user.type(box, "25h +10");
    expect(screen.getByRole("alert").textContent).toBe("Right ascension runs from 0 to 24 h, or 0 to 360°.");
  });
});

describe("a detail", () => {
  it("is judged as one types, and the limit says what decides", async () => {
    const user = userEvent.setup();
    render(<DetailPanel optics={optics} rigName="Rig" channel="L" seeingArcsec={3} altitudeDeg={60} />);
    expect(screen.getByText("Comes out plainly apart.")).toBeTruthy();
    const box = screen.getByLabelText(/Detail/);
    await user.clear(box);
    await user.type(box, "2");
    expect(screen.getByText("Melts into one.")).toBeTruthy();
    expect(screen.getByText(/the air decides/)).toBeTruthy();
    await user.clear(box);
    expect(screen.getByRole("alert").textContent).toBe("More than 0, up to 3600 ″.");
  });
});

describe("the finder", () => {
  const star = (name: string, magnitude: number): GuideStar => ({ name, magnitude, vector: [1, 0, 0] });
  const path: FinderPath = {
    kind: "path",
    start: star("Alderamin", 2.45),
    startAt: { altitudeDeg: 65, azimuthDeg: 330 },
    hops: [
      {
        from: star("Alderamin", 2.45),
        to: star("ζ Cep", 3.4),
        degrees: 7.8,
        positionAngleDeg: 118,
        fromUpDeg: 5,
        way: "up",
      },
      { from: star("ζ Cep", 3.4), to: null, degrees: 2.4, positionAngleDeg: 152, fromUpDeg: 350, way: "up" },
    ],
  };
  it("tells where to begin and every hop, in degrees, fields and on the sky", () => {
    render(<FinderSteps path={path} targetName="Lion" finderDeg={5} />);
    expect(screen.getAllByRole("listitem").map((l) => l.textContent)).toEqual([
      "Alderamin, magnitude 2.5: stands 65° high towards north-west (azimuth 330°). Begin here.",
      "1 7.8° up (1.6 finder fields; on the sky towards 118°, south-east) to ζ Cep, magnitude 3.4.",
      "2 2.4° up (within the finder’s field; on the sky towards 152°, south-east) to Lion.",
    ]);
  });
  it("says when the target is behind the roof, below the horizon, or no star is to be seen", () => {
    const { rerender } = render(
      <FinderSteps
        path={{ kind: "targetDown", at: { altitudeDeg: 12, azimuthDeg: 180 } }}
        targetName="It"
        finderDeg={5}
      />,
    );
    expect(screen.getByText("It stands 12° high towards south, behind your skyline.")).toBeTruthy();
    rerender(
      <FinderSteps
        path={{ kind: "targetDown", at: { altitudeDeg: -2, azimuthDeg: 9 } }}
        targetName="It"
        finderDeg={5}
      />,
    );
    expect(screen.getByText("It is below the horizon at that time.")).toBeTruthy();
    rerender(<FinderSteps path={{ kind: "noStar" }} targetName="It" finderDeg={5} />);
    expect(screen.getByText(/No star the eye sees at once/)).toBeTruthy();
  });
  it("draws the way and turns it for what one looks through", () => {
    const props = {
      stars: [{ rightDeg: 3, upDeg: 1, magnitude: 2, label: "Star 2.0" }],
      way: [
        { rightDeg: 3, upDeg: 1 },
        { rightDeg: 0, upDeg: 0 },
      ],
      skyline: [],
      radiusDeg: 10,
      finderDeg: 5,
      fieldShortDeg: 1,
      title: "Chart",
    };
    const x = (turn: "eye" | "mirrored") => {
      const { container, unmount } = render(<FinderChart {...props} turn={turn} />);
      const at = Number(container.querySelector("circle")!.getAttribute("cx"));
      unmount();
      return at;
    };
    expect(x("eye")).toBe(320 + 96);
    expect(x("mirrored")).toBe(320 - 96);
  });
  it("advises a short test exposure and what it must show", () => {
    render(<TestShot optics={optics} rigName="Rig" stars={[{ magnitude: 6.4, arcmin: 36, positionAngleDeg: 92 }]} />);
    expect(screen.getByText(/20 s at the highest gain/)).toBeTruthy();
    expect(screen.getByText("magnitude 6.4, 36′ to the east")).toBeTruthy();
  });
});

it("a year in numbers names every month with what can be expected of it", () => {
  render(
    <YearNumbers
      months={[
        { month: "2026-12", nights: 20, usableHours: 180.4, clearHours: 45.1, longestMin: 605 },
        { month: "2027-05", nights: 0, usableHours: 0, clearHours: 0, longestMin: 0 },
      ]}
    />,
  );
  expect(
    screen
      .getAllByRole("row")
      .slice(1)
      .map((r) => r.textContent),
  ).toEqual(["Dec 20262010 h 05180 h45 h", "May 20270–0 h0 h"]);
});
