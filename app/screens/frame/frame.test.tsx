import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { createRoutesStub } from "react-router";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { packStars, starZones, unpackStars, type CatalogEntry } from "~/core/catalog";
import { readHeaderText, type PanelRow } from "~/core/formats";
import {
  mosaicPanels,
  opticsOf,
  panelName,
  type Cover,
  type PlacementFound,
  type PlacementLimits,
} from "~/core/framing";
import { layoutOf, panelsOf, type FrameData } from "~/core/plan";
import { err, ok } from "~/core/result";
import { Toasts } from "~/components/ui/Toasts";
import type { Rig } from "~/core/exposure";
import { testRig } from "~/core/test-data";
import { BackFocus } from "~/screens/kit/rig/BackFocus";
import { thingAt } from "./chart-facts";
import { ComparePanel } from "./ComparePanel";
import { Compositions } from "./Compositions";
import { CoverPanel } from "./CoverPanel";
import { FrameChoice } from "./FrameChoice";
import { InHere } from "./InHere";
import { DeskContext } from "~/at-desk";
import { testDesk } from "~/desk/desk.test-data";
import { PanelFiles } from "./PanelFiles";
import { PanelTable } from "./PanelTable";
import { RepeatPanel } from "./RepeatPanel";
import { SeamPanel } from "./SeamPanel";
import { SnapButtons } from "./SnapButtons";

const user = userEvent.setup();
const optics = opticsOf(testRig);
const frame: FrameData = {
  projectId: "p", raDeg: 100, decDeg: 20, positionAngleDeg: 0, columns: 2, rows: 1, overlap: 0.2,
}; // prettier-ignore
const layout = layoutOf(frame, optics);
const panels = mosaicPanels(layout);
const entry = (id: string, more: Partial<CatalogEntry> = {}): CatalogEntry => ({
  id, name: "", aliases: [], kind: "galaxy", at: { frame: "icrs", raDeg: 100, decDeg: 20 }, majorArcmin: 60, minorArcmin: 10, positionAngleDeg: 30,
  magnitude: 8, constellation: "Gem", rank: 60, curated: null, ...more,
}); // prettier-ignore

describe("the table of panels", () => {
  const Live = ({ seen }: { readonly seen: (f: FrameData) => void }) => {
    const [now, setNow] = useState<FrameData>({ ...frame, columns: 3 });
    const change = (part: Partial<FrameData>) => {
      const next = { ...now, ...part };
      setNow(next);
      seen(next);
    };
    return <PanelTable panels={panelsOf(now, optics)} frame={now} onChange={change} />;
  };
  it("takes names, another order, leaves panels out and brings them back", async () => {
    const seen = vi.fn<(f: FrameData) => void>();
    render(<Live seen={seen} />);
    await user.type(screen.getByLabelText("Name of P2"), "arch");
    expect(seen.mock.lastCall![0].names).toEqual({ "2": "arch" });
    await user.click(screen.getByRole("button", { name: "Shoot P3 earlier" }));
    expect(screen.getAllByRole("rowheader").map((r) => r.textContent)).toEqual(["P1", "P3", "P2"]);
    await user.click(screen.getByRole("button", { name: "Leave out P1" }));
    expect(screen.getAllByRole("rowheader").map((r) => r.textContent)).toEqual(["P3", "P2"]);
    await user.click(screen.getByRole("button", { name: "Shoot P1 again" }));
    expect(seen.mock.lastCall![0].skipped).toEqual([]);
  });
});

describe("panel files", () => {
  const onRows = vi.fn<(rows: readonly PanelRow[]) => null>(() => null);
  const show = () =>
    render(
      <Toasts onUndo={() => undefined}>
        <DeskContext value={testDesk()}>
          <PanelFiles
            panels={panels}
            layout={layout}
            frame={frame}
            optics={optics}
            sensor={testRig.sensor}
            title="Loop"
            onPicture={() => undefined}
            onRows={onRows}
          />
        </DeskContext>
      </Toasts>,
    );
  beforeEach(() => onRows.mockClear());
  const upload = (text: string, name = "list.csv") =>
    user.upload(screen.getByLabelText("Panel list"), new File([text], name));
  it("copy as CSV, a line a panel", async () => {
    show();
    await user.click(screen.getByRole("button", { name: "Copy as CSV" }));
    expect((await navigator.clipboard.readText()).split("\r\n")).toHaveLength(3);
    expect(await screen.findByText("Panel list copied.")).toBeTruthy();
  });
  it("ask whether hours or degrees are meant, and take what is answered", async () => {
    show();
    await upload("ra,dec\n6.5,20\n6.7,20");
    expect((await screen.findByRole("alert")).textContent).toContain("are these hours or degrees?");
    expect(onRows).not.toHaveBeenCalled();
    await user.selectOptions(screen.getByLabelText("Numbers of right ascension are"), "hours");
    await user.click(screen.getByRole("button", { name: "Take them" }));
    expect(onRows.mock.lastCall![0].map((r) => r.raDeg)).toEqual([97.5, 100.5]);
  });
  it("let columns of any name be told, and name the line that is wrong", async () => {
    show();
    await upload("Stelle;Länge;Breite\nA;100.5;20\nB;101.5;xx");
    expect((await screen.findByRole("alert")).textContent).toContain("No column for right ascension");
    await user.selectOptions(screen.getByLabelText("Right ascension is in"), "Länge");
    await user.selectOptions(screen.getByLabelText("Declination is in"), "Breite");
    await user.click(screen.getByRole("button", { name: "Take them" }));
    expect(screen.getByRole("alert").textContent).toContain("Line 3: “xx” cannot be read. Nothing was changed.");
  });
  it("say of another file what it is not", async () => {
    show();
    await upload("<html></html>", "a.xml");
    expect((await screen.findByRole("alert")).textContent).toContain("no VOTable");
  });
});

describe("seams", () => {
  const found: PlacementFound = {
    placement: { dxArcmin: 3, dyArcmin: -2, turnDeg: 1.5 },
    overlap: 0.2,
    cost: 0.5,
    costBefore: 7,
    isBetter: true,
    isMet: true,
    inSeams: { stars: 0, brightestMag: null },
    inSeamsBefore: { stars: 4, brightestMag: 6.21 },
  };
  const show = (answer: PlacementFound) => {
    const [onSearch, onTake] = [
      vi.fn((_limits: PlacementLimits, _hard: number | null) => Promise.resolve(answer)),
      vi.fn(),
    ];
    render(<SeamPanel found={[]} limit={8.5} onLimit={() => undefined} sideArcmin={80} overlap={0.2} labelOf={panelName} onShow={() => undefined} onSearch={onSearch} onTake={onTake} />); // prettier-ignore
    return { onSearch, onTake };
  };
  it("are searched within the limits typed; before and after are told, and the better place taken", async () => {
    const { onSearch, onTake } = show(found);
    const to = screen.getByLabelText(/Overlap to/);
    await user.clear(to);
    await user.type(to, "30");
    await user.click(screen.getByRole("button", { name: "Shift and turn to clear them" }));
    expect(onSearch.mock.lastCall![0]).toMatchObject({ shiftArcmin: 9.6, turnDeg: 5, overlap: { from: 0.2, to: 0.3 } });
    expect((await screen.findByRole("status")).textContent).toMatch(
      /Seam score 7.00 before, 0.50 after.*4 stars, brightest 6.2 mag, before, no star after/,
    );
    expect(onTake).toHaveBeenCalledWith(found);
  });
  it("take a hard limit, and say when it cannot be met", async () => {
    const { onSearch } = show({ ...found, isMet: false, inSeams: { stars: 1, brightestMag: 4.9 } });
    await user.click(screen.getByRole("checkbox", { name: /No star brighter than magnitude 8.5 in any seam/ }));
    await user.click(screen.getByRole("button", { name: "Shift and turn to clear them" }));
    expect(onSearch.mock.lastCall![1]).toBe(8.5);
    expect(await screen.findByText(/It cannot be met within these limits: a star of magnitude 4.9 stays/)).toBeTruthy();
  });
  it("stay when nothing better is found, and refuse an overlap of 95 %", async () => {
    const { onTake } = show({ ...found, cost: 7, isBetter: false });
    await user.click(screen.getByRole("button", { name: "Shift and turn to clear them" }));
    expect((await screen.findByRole("status")).textContent).toContain("it stays where it is");
    expect(onTake).not.toHaveBeenCalled();
    const to = screen.getByLabelText(/Overlap to/);
    await user.clear(to);
    await user.type(to, "95");
    expect(screen.getByRole("alert").textContent).toBe("At least the first, up to 40 %.");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Shift and turn to clear them" }).disabled).toBe(true);
  });
});

describe("covering", () => {
  const onAdd = vi.fn((name: string) => Promise.resolve(name === "Nowhere" ? "Nothing is called “Nowhere”." : ""));
  const covers: Cover[] = [
    { columns: 3, rows: 1, fromDeg: 30.6, toDeg: 39, turnDeg: 34, centre: [0, 0], slack: 0.08 },
    { columns: 2, rows: 2, fromDeg: 0, toDeg: 20, turnDeg: 10, centre: [0, 0], slack: 0.2 },
  ];
  it("asks for what is ticked, lists the smallest grids first, and takes one", async () => {
    const [onCover, onTake] = [vi.fn(() => Promise.resolve(covers)), vi.fn()];
    const outlines = [
      { key: "a", name: "Target", isDrawn: false, isWanted: true },
      { key: "b", name: "Neighbour", isDrawn: false, isWanted: false },
    ];
    render(<CoverPanel outlines={outlines} isDrawing={false} corners={0} onDraw={() => undefined} onAdd={onAdd} onRemove={() => undefined} onCover={onCover} onTake={onTake} />); // prettier-ignore
    await user.click(screen.getByLabelText("Neighbour"));
    await user.click(screen.getByLabelText("keep the camera angle"));
    await user.click(screen.getByRole("button", { name: "Smallest mosaic that contains them" }));
    expect(onCover).toHaveBeenCalledWith(["a", "b"], true);
    expect(await screen.findByText("3 × 1")).toBeTruthy();
    await user.click(screen.getAllByRole("button", { name: "Take it" })[0]!);
    expect(onTake).toHaveBeenCalledWith(covers[0], ["a", "b"]);
  });
  it("takes any object by its name, and says beside the box why one cannot be had", async () => {
    render(<CoverPanel outlines={[]} isDrawing={false} corners={0} onDraw={() => undefined} onAdd={onAdd} onRemove={() => undefined} onCover={() => Promise.resolve([])} onTake={() => undefined} />); // prettier-ignore
    const box = screen.getByLabelText<HTMLInputElement>("Another object, by name");
    await user.type(box, "Nowhere{Enter}");
    expect(await screen.findByText("Nothing is called “Nowhere”.")).toBeTruthy();
    expect(box.value).toBe("Nowhere");
    await user.clear(box);
    await user.type(box, "NGC 6979{Enter}");
    await waitFor(() => expect(box.value).toBe(""));
    expect(onAdd).toHaveBeenLastCalledWith("NGC 6979");
  });
  it("says how many corners are drawn and closes none with fewer than three", () => {
    render(<CoverPanel outlines={[]} isDrawing corners={2} onDraw={() => undefined} onAdd={onAdd} onRemove={() => undefined} onCover={() => Promise.resolve([])} onTake={() => undefined} />); // prettier-ignore
    expect(screen.getByRole("status").textContent).toContain("2 so far, 3 at least");
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Close the outline" }).disabled).toBe(true);
  });
});

describe("repeating a frame", () => {
  const cards = (more = "") =>
    `NAXIS1 = 6248\nNAXIS2 = 4176\nFOCALLEN = 803\nCTYPE1 = 'RA---TAN'\nCRVAL1 = 100.0\nCRVAL2 = 20.0\nCRPIX1 = 3124.5\nCRPIX2 = 2088.5\nCDELT1 = -0.000449\nCDELT2 = 0.000449\n${more}`;
  const show = (reflections = 0) => {
    const [onAdopt, onSeen] = [vi.fn(), vi.fn()];
    const readHeader = async (file: File) => {
      const header = readHeaderText(await file.text());
      return header.ok ? ok(header.value) : err("not a FITS file");
    };
    render(<RepeatPanel rig={{ ...testRig, reflections }} wantedDeg={113.4} readHeader={readHeader} onSeen={onSeen} onAdopt={onAdopt} />); // prettier-ignore
    return { onAdopt, onSeen };
  };
  const upload = (text: string) => user.upload(screen.getByLabelText(/Solved exposure/), new File([text], "last.fits"));
  it("tells centre, angle and deviations from the rig, advises the turn, and hands the frame over", async () => {
    const { onAdopt, onSeen } = show();
    await upload(cards("CROTA2 = -90.0"));
    expect(await screen.findByText("Header says 803 mm, your rig says 480 mm.")).toBeTruthy();
    expect(onSeen).toHaveBeenLastCalledWith(expect.objectContaining({ isMirrored: false }));
    // CROTA2 of −90 puts +y at PA 90 (astropy's table holds the sign): 23.4 more is wanted
    expect(screen.getByRole("status").textContent).toMatch(
      /Turn the camera (counter-)?clockwise by \d+\.\d°, seen from behind\./,
    );
    expect(screen.getByText(/Flats taken before the turn no longer fit/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Take its centre and angle" }));
    expect(onAdopt).toHaveBeenCalledOnce();
  });
  it.each([
    [0, "90", "Turn the camera counter-clockwise by 23.4°, seen from behind."],
    [1, "90", "Turn the camera clockwise by 23.4°, seen from behind."],
    [0, "293.4", "The camera angle is correct."],
    [0, "112.9", "The camera angle is correct."],
  ])("with %i mirrors and the camera at %s°: %s", async (reflections, now, words) => {
    show(reflections);
    await user.type(screen.getByLabelText(/Camera PA now/), now);
    expect(screen.getByRole("status").textContent).toBe(words);
  });
  it("says why a file gives no frame, and what a broken tolerance must be", async () => {
    show();
    await upload(cards().replace("RA---TAN", "RA---SIN"));
    expect((await screen.findByRole("alert")).textContent).toContain("Its projection is “RA---SIN”");
    await upload("nothing");
    expect((await screen.findByRole("alert")).textContent).toContain("not a FITS file");
    const tolerance = screen.getByLabelText(/Good enough/);
    await user.clear(tolerance);
    await user.type(tolerance, "-1");
    expect(screen.getAllByRole("alert").at(-1)!.textContent).toBe("More than 0, up to 10°.");
  });
});

describe("compositions", () => {
  const target = entry("A 1", { majorArcmin: 10 });
  const beside = entry("B 2", { at: { frame: "icrs", raDeg: 100, decDeg: 22.2 }, majorArcmin: 10 });
  const small = { ...layout, columns: 1, planeWidthArcmin: 180, planeHeightArcmin: 120 };
  const desk = (found: readonly CatalogEntry[]) => testDesk({ sky: { within: () => Promise.resolve([...found]) } });
  it("are named by what they bring in, show which one the frame has, and are taken by a press", async () => {
    const onTake = vi.fn();
    render(
      <DeskContext value={desk([target, beside])}>
        <Compositions target={target} kept={small} layout={small} onTake={onTake} />
      </DeskContext>,
    );
    const turned = await screen.findByRole("button", { name: /With B 2; camera turned by \d+° to the (east|west)/ });
    expect(screen.getByRole("button", { name: "In the middle" }).getAttribute("aria-pressed")).toBe("true");
    expect(turned.getAttribute("aria-pressed")).toBe("false");
    await user.click(screen.getByRole("button", { name: "On a third" }));
    const { raDeg, decDeg, positionAngleDeg } = onTake.mock.lastCall![0] as FrameData;
    expect([Math.abs(raDeg - 100) > 0.4, Math.abs(decDeg - 20) > 0.3, positionAngleDeg]).toEqual([true, true, 0]);
  });
  it("are no choice where there is but one", () => {
    const large = entry("C 3", { majorArcmin: 170 });
    render(
      <DeskContext value={desk([])}>
        <Compositions target={large} kept={small} layout={small} onTake={vi.fn()} />
      </DeskContext>,
    );
    expect(screen.queryByText("Composition")).toBeNull();
  });
});

describe("comparing rigs", () => {
  it("gives hours for the same depth, panels, detail and nights, quickest first; others' fields are put on the chart", async () => {
    const onShow = vi.fn<(ids: readonly string[]) => void>();
    const L = { name: "L", channel: "L" as const, centreNm: 550, bandwidthNm: 300, transmission: 0.9 };
    const kit = (id: string, more: Partial<Rig>) => ({
      id, rig: { ...testRig, name: id, ...more }, filters: [L], skyMagPerArcsec2: 20, placeName: "Yard",
    }); // prettier-ignore
    render(
      <ComparePanel
        firstId="Mine"
        kits={[kit("Colour", { isColour: true }), kit("Lens", { focalLengthMm: 200, apertureMm: 71 }), kit("Mine", {})]}
        goals={[{ channel: "L", hoursPerPanel: 10, subSec: 120 }]}
        widthArcmin={optics.planeWidthArcmin}
        heightArcmin={optics.planeHeightArcmin}
        panels={1}
        overlap={0.15}
        hoursANight={4}
        shown={["Lens"]}
        onShow={onShow}
      />,
    );
    const lines = screen.getAllByRole("listitem").map((l) => l.textContent);
    expect(lines[0]).toContain("Mine10 h 00one frame of 10 h 00");
    // 71 against 80 mm of aperture: 10 h × (80/71)² = 12 h 42 by the sky alone; reading costs large pixels less
    expect(lines[1]).toContain("Lens12 h 39one frame");
    // A colour camera with a luminance filter in front has no luminance.
    expect(lines[2]).toContain("Colour–");
    expect(lines[1]).toMatch(/2\.4 × coarser.* 4 nights like this.*17 % of its frame, crop it/);
    const fields = screen.getAllByRole<HTMLInputElement>("checkbox", { name: "Its field on the chart" });
    expect(fields.map((f) => f.checked)).toEqual([true, false]); // one's own is drawn anyhow
    await user.click(fields[0]!);
    await user.click(fields[1]!);
    expect(onShow.mock.calls).toEqual([[[]], [["Lens", "Colour"]]]);
  });
  it("asks for hours first", () => {
    render(
      <ComparePanel firstId="a" kits={[]} goals={[]} widthArcmin={1} heightArcmin={1} panels={1} overlap={0.1} hoursANight={0} shown={[]} onShow={() => undefined} />,
    ); // prettier-ignore
    expect(screen.getByText(/Set hours under Budget first/)).toBeTruthy();
  });
});

describe("around the chart", () => {
  it("what is in here, and what the border cuts", () => {
    const Stub = createRoutesStub([
      {
        path: "/",
        Component: () => (
          <InHere objects={[entry("A 1", { majorArcmin: 5 }), entry("B 2", { majorArcmin: 400 }), entry("C 3", { at: { frame: "icrs", raDeg: 140, decDeg: 20 } })]} layout={layout} panels={panels} search="" />
        ), // prettier-ignore
      },
    ]);
    render(<Stub />);
    expect(screen.getAllByRole("listitem").map((l) => l.textContent)).toEqual([
      "A 1galaxy, 5.0′, Gem".replace("5.0′", "5.0′"),
      expect.stringContaining("cut by the border"),
    ]);
  });
  it("names the smallest thing under the pointer", () => {
    const at = { frame: "icrs", raDeg: 100, decDeg: 20 } as const;
    const objects = [entry("Big", { majorArcmin: 300 }), entry("Small", { majorArcmin: 20 })];
    const charted = { objects, sky: null, faintest: 9 };
    expect(thingAt(at, 0.1, charted)?.entry?.id).toBe("Small");
    expect(thingAt({ ...at, decDeg: 60 }, 0.1, charted)).toBeNull();
  });
  it("names the nearest star drawn there before any object: by its name, else its Hipparcos number", () => {
    const star = (raDeg: number, magnitude: number, hip: number, colour: number | null) => ({ raDeg, decDeg: 20, magnitude, hip, colour }); // prettier-ignore
    const table = unpackStars(
      packStars([star(100, 3.2, 11, 1.5), star(100.05, 8.4, 12, null), star(100.2, 12, 13, 0.1)]),
    );
    if (!table.ok) throw new Error("no stars");
    const sky = { stars: starZones(table.value), named: [], nameOf: new Map([[11, "Tester"]]), figures: [], borders: [] }; // prettier-ignore
    const at = (raDeg: number, faintest: number) =>
      thingAt({ frame: "icrs", raDeg, decDeg: 20 }, 0.1, {
        objects: [entry("Big", { majorArcmin: 300 })],
        sky,
        faintest,
      });
    expect(at(100.01, 9)).toMatchObject({ words: "Tester, star of magnitude 3.2", entry: null });
    expect(at(100.01, 9)?.facts).toContain("HIP 11 · B−V 1.50 mag, orange-red");
    expect(at(100.04, 9)?.words).toBe("HIP 12, star of magnitude 8.4");
    expect(at(100.04, 9)?.facts).toContain("colour unknown");
    expect(at(100.2, 9)?.entry?.id).toBe("Big"); // fainter than the chart draws
    expect(at(100.2, 12.5)?.words).toBe("HIP 13, star of magnitude 12.0");
  });
  it("lays a long object along the long side, or towards the diagonal (MATHS C5.10: thin ones tend there)", async () => {
    const onTurn = vi.fn();
    render(
      <SnapButtons target={entry("A 1", { majorArcmin: 190, minorArcmin: 20 })} optics={optics} onTurn={onTurn} />,
    );
    await user.click(screen.getByRole("button", { name: "Long axis along the long side" }));
    expect(onTurn).toHaveBeenLastCalledWith(120);
    await user.click(screen.getByRole("button", { name: /Towards the diagonal/ }));
    expect(Math.abs((onTurn.mock.lastCall![0] as number) - 153)).toBeLessThan(2);
  });
  it("offers another frame, and lets one of several be shot", async () => {
    const [onShoot, onAnother] = [vi.fn(), vi.fn()];
    const props = { title: "", onTitle: () => undefined, onChoose: () => undefined, onAnother, onShoot };
    const { rerender } = render(
      <FrameChoice {...props} frames={[{ id: "a", title: "", number: 1 }]} current="a" shot="a" />,
    );
    await user.click(screen.getByRole("button", { name: "Another frame for this project" }));
    expect(onAnother).toHaveBeenCalledOnce();
    rerender(<FrameChoice {...props} frames={[{ id: "a", title: "", number: 1 }, { id: "b", title: "Wide", number: 2 }]} current="b" shot="a" />); // prettier-ignore
    expect(screen.getAllByRole("option").map((o) => o.textContent)).toEqual(["Frame 1, shot", "Wide"]);
    await user.click(screen.getByRole("button", { name: "Shoot this one" }));
    expect(onShoot).toHaveBeenCalledOnce();
  });
});

describe("back focus", () => {
  const filter = (name: string, thicknessMm: number) =>
    ({ name, channel: "Ha", centreNm: 656, bandwidthNm: 5, transmission: 0.9, thicknessMm }) as const;
  it("moves by a third of each filter, and a filter of 7.5 mm does not go into a slot of 7 mm", () => {
    render(<BackFocus focalRatio={6} pixelScaleArcsecPerPx={1.6} diffractionArcsec={1.46} filters={[filter("Ha", 3), filter("SII", 7.5)]} slotMm={7} moves={[]} slope={null} />); // prettier-ignore
    expect(screen.getAllByRole("listitem")[0]!.textContent).toBe("Ha+1.03 mm");
    expect(screen.getByText("7.5 mm thick: it does not go into a slot of 7 mm.")).toBeTruthy();
    expect(screen.getByText(/each wants its own focus/)).toBeTruthy();
    expect(screen.getByText("Focus is kept within 97 µm")).toBeTruthy(); // MATHS C1.12: 96.6 µm at f/6
  });
});
