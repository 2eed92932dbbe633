import { formatSkyline } from "~/core/formats";
import { render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Surroundings } from "./edit";
import { SkylineEditor } from "./SkylineEditor";

const start: Surroundings = {
  skyline: [
    { azimuthDeg: 10, altitudeDeg: 12 },
    { azimuthDeg: 200, altitudeDeg: 30 },
  ],
  landmarks: [],
  domes: [{ name: "the town", azimuthDeg: 300, magPerArcsec2: 19, widthDeg: 40 }],
  lamps: [],
};
const user = userEvent.setup();
const points = () => screen.getByLabelText<HTMLTextAreaElement>(/^Points/);
const lines = () => points().value.trim().split("\n");
const handle = (name: RegExp) => screen.getByRole("button", { name });

beforeEach(() => {
  render(
    <SkylineEditor
      start={start}
      startText={formatSkyline(start.skyline)}
      fault={undefined}
      minAltitudeDeg={25}
      zenithSkyMag={20.4}
      placeName="Orchard"
    />,
  );
});

describe("the skyline, by keys", () => {
  it("moves a point by a degree, finely with Shift, and goes back step by step", async () => {
    handle(/^Point 2 of 2/).focus();
    await user.keyboard("{ArrowRight}{ArrowUp}{Shift>}{ArrowUp}{/Shift}");
    expect(lines()).toEqual(["10 12", "201 31.1"]);
    await user.click(screen.getByRole("button", { name: "Undo" }));
    expect(lines()).toEqual(["10 12", "201 31"]);
    handle(/^Point 1 of 2/).focus();
    await user.keyboard("{Control>}z{/Control}{Control>}z{/Control}");
    expect(lines()).toEqual(["10 12", "200 30"]);
  });

  it("adds beside with Enter, deletes with Delete, and keeps the order of azimuths", async () => {
    handle(/^Point 1 of 2/).focus();
    await user.keyboard("{Enter}");
    expect(lines()).toEqual(["10 12", "15 12", "200 30"]);
    handle(/^Point 1 of 3/).focus();
    await user.keyboard("{Delete}");
    expect(lines()).toEqual(["15 12", "200 30"]);
  });

  it("puts down a tree with a name, which the line keeps apart from", async () => {
    await user.selectOptions(screen.getByLabelText("Press on the panorama to put down"), "a tree");
    await user.click(screen.getByRole("button", { name: "Put one in the south" }));
    expect(handle(/^Landmark 1 of 1, tree: azimuth 180°, altitude 20°/)).toBeTruthy();
    const name = screen.getByLabelText(/^Name/);
    await user.clear(name);
    await user.type(name, "<b>old pear</b>");
    expect(handle(/^Landmark 1 of 1, <b>old pear<\/b>/)).toBeTruthy(); // text, never markup
    expect(lines()).toEqual(["10 12", "200 30"]);
  });
});

describe("the skyline, as text", () => {
  it("takes what can be read, names what cannot, and says when lines run back", async () => {
    await user.clear(points());
    await user.type(points(), "90 10{Enter}361 5{Enter}20 30{Enter}40 x");
    expect(screen.getByRole("alert").textContent).toMatch(/Line 2, “361 5”.*Line 4, “40 x”/);
    expect(screen.getAllByRole("button", { name: /^Point/ }).map((b) => b.getAttribute("aria-label"))).toEqual([
      "Point 1 of 2: azimuth 20°, altitude 30°",
      "Point 2 of 2: azimuth 90°, altitude 10°",
    ]);
  });

  it("turns compass bearings by the declination: all that stands and shines", async () => {
    const declination = screen.getByLabelText(/^Magnetic declination/);
    await user.type(declination, "400");
    expect(screen.getByRole("alert").textContent).toBe("A number from −180 to 180°.");
    const turn = screen.getByRole<HTMLButtonElement>("button", { name: "Turn compass bearings to true north" });
    expect(turn.disabled).toBe(true);
    await user.clear(declination);
    await user.type(declination, "-12,5");
    await user.click(turn);
    expect(lines()).toEqual(["187.5 30", "357.5 12"]);
    expect(handle(/^Town glow 1 of 1, the town: azimuth 287.5°/)).toBeTruthy();
  });

  it("lifts the line, and refuses what is no number beside its box", async () => {
    const lift = screen.getByLabelText(/^Lift the line/);
    await user.type(lift, "abc");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Shift" }).disabled).toBe(true);
    await user.clear(lift);
    await user.type(lift, "-15");
    await user.click(screen.getByRole("button", { name: "Shift" }));
    expect(lines()).toEqual(["10 0", "200 15"]);
  });

  it("reads points from a file, and says of one too large what is wrong instead of nothing", async () => {
    const box = screen.getByLabelText("Skyline file");
    await user.upload(box, new File(["# fence\n0 5\n90 25"], "fence.txt", { type: "text/plain" }));
    await vi.waitFor(() => expect(points().value).toContain("90 25"));
    await user.upload(box, new File(["0 5\n".repeat(300_000)], "huge.txt", { type: "text/plain" }));
    expect(await screen.findByText("huge.txt: 1.2 MB is too large; 1.0 MB at most.")).toBeTruthy();
    expect(points().value).toContain("90 25");
  });
});
