import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { createMemoryRouter, RouterProvider } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { CatalogEntry } from "~/core/catalog";
import { encodeBundle, type Bundle } from "~/core/formats";
import { panelName, starsInSeams } from "~/core/framing";
import { nightTotals, type ContributionData, type CullReason } from "~/core/ledger";
import type { PlannedBlock, ShareNight } from "~/core/season";
import { nightDate, utcMs } from "~/core/time";
import { BundleDrop } from "~/components/forms/BundleDrop";
import { FileDrop } from "~/screens/log/FileDrop";
import { FilterRow } from "~/screens/kit/filters/FilterRow";
import { LogTable } from "~/screens/log/LogTable";
import type { LogRecord } from "~/desk/log/log";
import { readBundle } from "~/desk/records/file-view";
import { testDesk } from "~/desk/desk.test-data";
import { OwnName } from "~/screens/kit/data/OwnName";
import { PlaceForm } from "~/screens/kit/place/PlaceForm";
import { PlanCalendar } from "~/screens/plan/PlanCalendar";
import { RigForm } from "~/screens/kit/rig/RigForm";
import { KIT_PRESETS, rigOfKinds } from "~/desk/kit/start";
import { SearchPalette } from "~/screens/shell/SearchPalette";
import { SeamReport } from "~/screens/frame/SeamReport";
import { testFilter, testPlace, testRig } from "~/core/test-data";
import { Toasts, useSay } from "~/components/ui/Toasts";

/** The box itself, not the help beside it. */
const BOX = { selector: "input, select, textarea" };
const user = userEvent.setup();
const routed = (page: React.ReactNode) =>
  render(<RouterProvider router={createMemoryRouter([{ path: "/", element: page, action: () => null }])} />);
const entry = (id: string, name: string): CatalogEntry => ({
  id,
  name,
  aliases: [],
  kind: "galaxy",
  at: { frame: "icrs", raDeg: 0, decDeg: 0 },
  majorArcmin: 5,
  minorArcmin: 3,
  positionAngleDeg: null,
  magnitude: 9,
  constellation: "UMa",
  rank: 50,
  curated: null,
});

describe("search", () => {
  function Harness({
    search,
    onGo,
  }: {
    readonly search: (q: string) => Promise<CatalogEntry[]>;
    readonly onGo: (to: string) => void;
  }) {
    const [open, setOpen] = useState(true);
    return (
      <SearchPalette
        open={open}
        onOpenChange={setOpen}
        own={[{ word: "Garden", kind: "place", to: "/kit/places/1" }]}
        searchObjects={search}
        onGo={onGo}
      />
    );
  }
  it("finds own things and objects, and goes there by Enter", async () => {
    const onGo = vi.fn();
    render(
      <Harness
        search={(q) => Promise.resolve(q.startsWith("m") ? [entry("M 81", "Bode's Galaxy")] : [])}
        onGo={onGo}
      />,
    );
    await user.type(screen.getByRole("combobox"), "m81");
    expect(await screen.findByText("galaxy, UMa")).toBeTruthy();
    await user.keyboard("{Enter}");
    expect(onGo).toHaveBeenCalledWith("/targets/M%2081");
  });
  it("says that planets are not in the catalogue when nothing is found", async () => {
    render(<Harness search={() => Promise.resolve([])} onGo={() => undefined} />);
    await user.type(screen.getByRole("combobox"), "jupiter");
    expect(await screen.findByText(/Planets and comets are not in the catalogue/)).toBeTruthy();
  });
});

describe("notes in passing", () => {
  it("carry an Undo that works once", async () => {
    const undo = vi.fn();
    function Page() {
      const say = useSay();
      return <button onClick={() => say("Yard deleted.", "act-7")}>delete</button>;
    }
    render(
      <Toasts onUndo={undo}>
        <Page />
      </Toasts>,
    );
    await user.click(screen.getByText("delete"));
    await user.click(await screen.findByRole("button", { name: "Undo" }));
    expect(undo.mock.calls).toEqual([["act-7"]]);
    await waitFor(() => expect(screen.queryByText("Yard deleted.")).toBeNull());
  });
});

describe("bundle drop", () => {
  const file = (text: string, name = "a.json") => new File([text], name, { type: "application/json" });
  const drop = async (onBundle: (b: Bundle) => Promise<undefined>, f: File) => {
    render(
      <BundleDrop words="Import" read={(file, signal) => readBundle(testDesk(), file, signal)} onBundle={onBundle} />,
    );
    await user.upload(screen.getByLabelText("Import"), f);
  };
  it("hands on what reads", async () => {
    const onBundle = vi.fn();
    await drop(onBundle, file(encodeBundle([], "everything", "2026-12-05T00:00:00Z")));
    await waitFor(() =>
      expect(onBundle).toHaveBeenCalledWith(
        expect.objectContaining({ records: [], refused: [] }),
        "a.json",
        expect.any(AbortSignal),
      ),
    );
  });
  it("refuses an empty file and one over the limit before reading it", async () => {
    const onBundle = vi.fn();
    await drop(onBundle, file(""));
    expect((await screen.findByRole("alert")).textContent).toContain("the file is empty");
    const big = file("{}");
    Object.defineProperty(big, "size", { value: 100e6 });
    const read = vi.spyOn(big, "text");
    await user.upload(screen.getByLabelText("Import"), big);
    await waitFor(() => expect(screen.getByRole("alert").textContent).toContain("100 MB"));
    expect(read).not.toHaveBeenCalled();
    expect(onBundle).not.toHaveBeenCalled();
  });
});

describe("file drop", () => {
  it("shows progress and stops on request", async () => {
    let stopped = false;
    render(
      <FileDrop
        onFiles={(_files, signal, onProgress) => {
          onProgress(1);
          return new Promise((_, reject) =>
            signal.addEventListener("abort", () => {
              stopped = true;
              reject(signal.reason as Error);
            }),
          );
        }}
      />,
    );
    await user.upload(screen.getByLabelText("Exposure files"), [new File(["a"], "a.fits"), new File(["b"], "b.fits")]);
    expect(await screen.findByText(/Reading headers, 1 of 2/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Stop" }));
    expect(await screen.findByRole("button", { name: "Choose files" })).toBeTruthy();
    expect(stopped).toBe(true);
  });
});

describe("log table", () => {
  const record = (id: string, change: Partial<ContributionData>): LogRecord => ({
    id,
    rev: "1",
    data: {
      projectId: "p",
      panel: "P1",
      channel: "Ha",
      night: "2026-12-04",
      memberId: "me",
      rigId: "r",
      placeId: "x",
      exposureSec: 300,
      taken: 1,
      kept: 1,
      reason: "",
      worthRate: 0.8,
      startMs: null,
      fileName: `${id}.fits`,
      note: "",
      ...change,
    },
  });
  const mount = (records: LogRecord[]) => {
    const onChange = vi.fn<(r: LogRecord, kept: number, reason: CullReason | "") => void>();
    const onRemove = vi.fn();
    render(
      <LogTable
        nights={nightTotals(records)}
        today="2026-12-05"
        memberId="me"
        memberName={(id) => (id === "me" ? "Ines" : "Wren")}
        search=""
        onChange={onChange}
        onRemove={onRemove}
      />,
    );
    return { onChange, onRemove };
  };
  it("sums a night and lets single subs be dropped with a reason", async () => {
    const { onChange, onRemove } = mount([record("a", {}), record("b", {}), record("c", { kept: 0, reason: "cloud" })]);
    expect(screen.getByText("2 of 3 × 300 s")).toBeTruthy();
    expect(screen.getByText("0 h 10")).toBeTruthy();
    await user.click(screen.getByRole("button", { expanded: false }));
    await user.click(screen.getAllByRole("checkbox")[0]!);
    expect(onChange.mock.calls[0]!.slice(1)).toEqual([0, ""]);
    await user.selectOptions(screen.getByLabelText("Why not kept"), "trails");
    expect(onChange.mock.calls[1]!.slice(1)).toEqual([0, "trail"]);
    await user.click(screen.getByRole("button", { name: "Delete these 3 entries" }));
    expect(onRemove.mock.calls[0]![0]).toHaveLength(3);
  });
  it("lets nobody change a friend's hours", () => {
    mount([record("w", { memberId: "wren", taken: 20, kept: 18 })]);
    fireEvent.click(screen.getByRole("button", { expanded: false }));
    expect(screen.getByText("w.fits")).toBeTruthy();
    expect(screen.queryByRole("spinbutton")).toBeNull();
    expect(screen.queryByRole("button", { name: /Delete/ })).toBeNull();
  });
  it("goes by the head that is pressed, and back", async () => {
    mount([
      record("a", { night: "2026-12-04", kept: 1 }),
      record("b", { night: "2026-12-03", exposureSec: 600 }),
      record("c", { night: "2026-12-02", exposureSec: 60 }),
    ]);
    const nights = () => screen.getAllByRole("button", { expanded: false }).map((b) => b.textContent.slice(0, 9));
    expect(nights()).toEqual(["Fri 4 Dec", "Thu 3 Dec", "Wed 2 Dec"]);
    await user.click(screen.getByRole("button", { name: "Time" }));
    expect(nights()).toEqual(["Thu 3 Dec", "Fri 4 Dec", "Wed 2 Dec"]);
    expect(screen.getByRole("columnheader", { name: /Time/ }).getAttribute("aria-sort")).toBe("descending");
    await user.click(screen.getByRole("button", { name: /Time/ }));
    expect(nights()).toEqual(["Wed 2 Dec", "Fri 4 Dec", "Thu 3 Dec"]);
  });
  it("draws only what can be seen of a long log", () => {
    const many = Array.from({ length: 1000 }, (_, i) =>
      record(`r${i}`, { night: `20${10 + (i % 15)}-0${1 + (i % 9)}-1${i % 9}`, panel: `P${1 + (i % 97)}` }),
    );
    mount(many);
    expect(screen.getByRole("table").getAttribute("aria-rowcount")).toBe(String(nightTotals(many).length + 1));
    expect(screen.queryAllByRole("button", { expanded: false }).length).toBeLessThan(60);
  });
  it("holds a number kept by hand within what was taken", () => {
    const { onChange } = mount([record("h", { taken: 20, kept: 18, fileName: "" })]);
    fireEvent.click(screen.getByRole("button", { expanded: false }));
    const box = screen.getByRole("spinbutton");
    fireEvent.change(box, { target: { value: "25" } });
    fireEvent.blur(box);
    expect(onChange.mock.calls[0]!.slice(1)).toEqual([20, ""]);
  });
});

describe("forms that answer while one types", () => {
  it("a new rig is filled by its kinds, with what was typed over them; its filters come with it; colour is asked", async () => {
    routed(<RigForm rig={null} baseRev="" filters={[]} faults={{}} presets={KIT_PRESETS} ofKinds={rigOfKinds} />);
    const text = (label: RegExp) => screen.getByLabelText<HTMLInputElement>(label, BOX).value;
    await user.click(await screen.findByRole("button", { name: /refractor 480 mm/ }));
    await user.click(screen.getByRole("button", { name: /cooled, APS-C, 26 megapixels/ }));
    expect(text(/Focal length/)).toBe(""); // nobody said colour or mono yet
    await user.click(screen.getByRole("button", { name: /monochrome, with filters/ }));
    expect([text(/Focal length/), text(/Pixel size/), text(/^Name$/)]).toEqual(["480", "3.76", "Refractor 480 mm f/6"]);
    for (const name of [/^L L$/, /^SII 7 nm/]) expect(screen.getByLabelText<HTMLInputElement>(name).checked).toBe(true);
    expect(screen.getByLabelText<HTMLInputElement>("Colour camera").checked).toBe(false);
    // What is typed stays when another kind is chosen; what was typical follows.
    const aperture = screen.getByLabelText(/Aperture/, BOX);
    await user.clear(aperture);
    await user.type(aperture, "f/5");
    expect(screen.queryByRole("alert")).toBeNull();
    await user.selectOptions(screen.getByLabelText("Mount"), "star tracker, no guiding");
    expect(screen.getByLabelText<HTMLInputElement>("Guided").checked).toBe(false);
    await user.click(screen.getByRole("button", { name: /^Telescope or lens/ }));
    await user.click(screen.getByRole("button", { name: /refractor 714 mm/ }));
    expect([text(/Focal length/), text(/Aperture/)]).toEqual(["714", "f/5"]);
  });
  it("a rig's field follows the focal length; what cannot be is said at once", async () => {
    routed(
      <RigForm
        rig={testRig}
        baseRev="1"
        filters={[{ id: "filter-ha", data: testFilter }]}
        faults={{}}
        presets={KIT_PRESETS}
        ofKinds={rigOfKinds}
      />,
    );
    expect((await screen.findByTestId("field")).textContent).toBe("2.80° × 1.87°");
    const box = screen.getByLabelText(/Focal length/, BOX);
    await user.clear(box);
    await user.type(box, "240");
    expect(screen.getByTestId("field").textContent).toBe("5.60° × 3.75°");
    await user.clear(box);
    await user.type(box, "0");
    expect(screen.getByRole("alert").textContent).toContain("More than 0");
    expect(screen.queryByTestId("field")).toBeNull();
    expect(screen.getByLabelText<HTMLInputElement>(/Ha 5 nm/).checked).toBe(true);
  });
  it("a place's zone is looked up from its coordinates, and its skyline drawn", async () => {
    const findZone = vi.fn(() => Promise.resolve("America/La_Paz"));
    routed(
      <PlaceForm
        presets={KIT_PRESETS}
        place={testPlace}
        baseRev="7"
        faults={{ latitudeDeg: "From −90 to 90 °; 95 is outside." }}
        learnt={null}
        findZone={findZone}
        findTowns={() => Promise.resolve([])}
      />,
    );
    const longitude = await screen.findByLabelText(/Longitude/, BOX);
    await user.clear(longitude);
    await user.type(longitude, "-68,1");
    await user.tab();
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>("Time zone").value).toBe("America/La_Paz"));
    expect(findZone).toHaveBeenCalledWith(45, -68.1);
    await user.type(screen.getByLabelText(/Points/), "90 33\n180 12");
    expect(screen.getByRole("button", { name: "Point 1 of 2: azimuth 90°, altitude 33°" })).toBeTruthy();
    const box = screen.getByLabelText(/Latitude/, BOX);
    expect([
      box.getAttribute("aria-invalid"),
      document.getElementById(box.getAttribute("aria-describedby")!)?.textContent,
    ]).toEqual(["true", "From −90 to 90 °; 95 is outside."]);
  });
  it("a town fills in coordinates, height, name and zone; a class fills in the darkness", async () => {
    const town = { name: "Quiet Harbour", country: "NZ", latitudeDeg: -43.6, longitudeDeg: 170.2, elevationM: 640 };
    const findTowns = vi.fn((query: string) => Promise.resolve(query === "quiet" ? [town] : []));
    routed(<PlaceForm place={null} baseRev="" faults={{}} learnt={null} findZone={() => Promise.resolve("Pacific/Auckland")} findTowns={findTowns} presets={KIT_PRESETS} />); // prettier-ignore
    await user.type(await screen.findByLabelText("Town near by"), "quiet");
    await screen.findByRole("option", { name: /Quiet Harbour, NZ/ });
    await user.keyboard("{Enter}");
    const value = (label: RegExp) => screen.getByLabelText<HTMLInputElement>(label, BOX).value;
    expect([value(/^Name/), value(/Latitude/), value(/Longitude/), value(/Elevation/)]).toEqual(["Quiet Harbour", "-43.6", "170.2", "640"]); // prettier-ignore
    await waitFor(() => expect(value(/Time zone/)).toBe("Pacific/Auckland"));
    await user.selectOptions(screen.getByLabelText("Darkness as a class"), "4");
    expect(value(/^Darkness ·/)).toBe("21.05");
    await user.type(screen.getByLabelText("Town near by"), "nowhere");
    expect(await screen.findByText(/No town of that name/)).toBeTruthy();
  });
  it("a skyline is drawn by keys: put down, move, undo, remove; wrong lines are named and the rest is drawn", async () => {
    routed(<PlaceForm presets={KIT_PRESETS} place={{ ...testPlace, skyline: [{ azimuthDeg: 90, altitudeDeg: 20 }, { azimuthDeg: 270, altitudeDeg: 10 }] }} baseRev="" faults={{}} learnt={null} findZone={() => Promise.resolve(null)} findTowns={() => Promise.resolve([])} />); // prettier-ignore
    const points = () => screen.getByLabelText<HTMLTextAreaElement>(/Points/).value;
    (await screen.findByRole("button", { name: /^Point 1 of 2/ })).focus();
    await user.keyboard("{ArrowUp}{ArrowUp}{ArrowRight}");
    expect(points()).toBe("91 22\n270 10");
    await user.keyboard("{Shift>}{ArrowDown}{/Shift}");
    expect(points()).toBe("91 21.9\n270 10");
    await user.click(screen.getByRole("button", { name: "Undo" }));
    expect(points()).toBe("91 22\n270 10");
    await user.selectOptions(screen.getByLabelText("Press on the panorama to put down"), "tree");
    await user.click(screen.getByRole("button", { name: "Put one in the south" }));
    const tree = screen.getByRole("button", { name: /Landmark 1 of 1, tree: azimuth 180/ });
    tree.focus();
    await user.keyboard("{Delete}");
    expect(screen.queryByRole("button", { name: /Landmark/ })).toBeNull();
    await user.clear(screen.getByLabelText(/Points/));
    await user.type(screen.getByLabelText(/Points/), "200 12\n100 30\n361 5\nroof 8");
    expect(screen.getByRole("alert").textContent).toMatch(/Line 3, “361 5”.+Line 4, “roof 8”/);
    expect(screen.getByRole("button", { name: /^Point 2 of 2: azimuth 200/ })).toBeTruthy();
  });
  it("a skyline measured by compass is turned to true north, all of it, and back with Undo", async () => {
    routed(<PlaceForm presets={KIT_PRESETS} place={{ ...testPlace, skyline: [{ azimuthDeg: 10, altitudeDeg: 20 }, { azimuthDeg: 355, altitudeDeg: 10 }], lamps: [{ name: "lane", azimuthDeg: 350, altitudeDeg: 5, radiusDeg: 6 }] }} baseRev="" faults={{}} learnt={null} findZone={() => Promise.resolve(null)} findTowns={() => Promise.resolve([])} />); // prettier-ignore
    await user.type(await screen.findByLabelText(/Magnetic declination/), "12,5");
    await user.click(screen.getByRole("button", { name: /to true north/ }));
    expect(screen.getByLabelText<HTMLTextAreaElement>(/Points/).value).toBe("7.5 10\n22.5 20");
    expect(screen.getByRole("button", { name: /Lamp 1 of 1, lane: azimuth 2.5°/ })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Undo" }));
    expect(screen.getByLabelText<HTMLTextAreaElement>(/Points/).value).toBe("10 20\n355 10");
  });
  it("a new filter starts from the usual values of its channel", async () => {
    routed(<FilterRow id="new" baseRev="" filter={null} faults={{}} isInUse={false} />);
    await user.selectOptions(await screen.findByLabelText("Channel"), "OIII");
    expect(screen.getByLabelText<HTMLInputElement>(/Centre/, BOX).value).toBe("500.7");
  });
  it("a name must not be empty", async () => {
    const onSave = vi.fn();
    render(<OwnName name="Me" onSave={onSave} />);
    const box = screen.getByLabelText("Your name");
    await user.clear(box);
    expect(screen.getByRole<HTMLButtonElement>("button").disabled).toBe(true);
    await user.type(box, " Ines ");
    await user.click(screen.getByRole("button"));
    expect(onSave).toHaveBeenCalledWith("Ines");
  });
});

describe("mosaic lists", () => {
  const layout = {
    centre: { frame: "icrs", raDeg: 100, decDeg: 20 } as const,
    positionAngleDeg: 0,
    planeWidthArcmin: 100,
    planeHeightArcmin: 60,
    columns: 2,
    rows: 1,
    overlap: 0.2,
  };
  it("name the seam, the star and its distance, bring it into view when pressed, or say that all is clear", async () => {
    const onShow = vi.fn();
    const star = { frame: "icrs", raDeg: 100, decDeg: 20.1, magnitude: 5.2, name: "ζ Gem" } as const;
    const { rerender } = render(
      <SeamReport found={starsInSeams(layout, [star])} limit={8.5} labelOf={(n) => `P${n} arch`} onShow={onShow} />,
    );
    expect(screen.getByRole("listitem").textContent).toBe("5.2 ζ GemP1 arch | P2 arch, 0.0′ from the middle");
    await userEvent.click(screen.getByRole("button", { name: /ζ Gem/ }));
    expect(onShow).toHaveBeenCalledWith(star);
    rerender(<SeamReport found={[]} limit={8.5} labelOf={panelName} onShow={onShow} />);
    expect(screen.getByText("No star brighter than 8.5 lies where panels join.")).toBeTruthy();
  });
});

it("shows a share of the plan as a calendar: from when to when, what it counts, and what is a reserve", () => {
  const at = (iso: string) => utcMs(Date.parse(iso));
  const block = (channel: "Ha" | "OIII", from: string, to: string): PlannedBlock => ({ projectId: "p", channel, subSec: 300, startMs: at(from), endMs: at(to), countsMin: 90, exposureMin: 100 }); // prettier-ignore
  const night = (date: string, needed: number, blocks: readonly PlannedBlock[]): ShareNight => ({
    night: nightDate(date),
    needed,
    blocks,
    evening: { night: nightDate(date), placeId: "x", rigIds: ["r"], chance: 0.4, usableMin: 300, blocks, isFixed: false, closed: null }, // prettier-ignore
  });
  const nights = [
    night("2026-12-05", 1, [block("Ha", "2026-12-05T18:00Z", "2026-12-05T20:00Z"), block("OIII", "2026-12-05T20:00Z", "2026-12-05T22:00Z")]), // prettier-ignore
    night("2026-12-06", 0.2, [block("Ha", "2026-12-06T18:00Z", "2026-12-06T20:00Z")]),
  ];
  routed(
    <PlanCalendar nights={nights} zone="Europe/Paris" isAssumed={() => false} linkTo={(d) => `/nights?night=${d}`} />,
  );
  const lines = [...document.querySelectorAll("ol > li")].map((l) => l.textContent);
  expect(lines).toEqual([
    "Sat 5 DecHa 19:00–21:00 · 1 h 30OIII 21:00–23:00 · 1 h 3040 % clear",
    "Sun 6 DecHa 19:00–21:00 · 1 h 3040 % clearreserve",
  ]);
});
