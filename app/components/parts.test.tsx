import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { createMemoryRouter, RouterProvider } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { CatalogEntry } from "~/core/catalog";
import { encodeBundle, type Bundle } from "~/core/formats";
import { mosaicPanels, starsInSeams } from "~/core/framing";
import type { ContributionData } from "~/core/ledger";
import type { PlannedNight } from "~/core/plan";
import { nightDate } from "~/core/time";
import { BundleDrop } from "./BundleDrop";
import { FileDrop } from "./FileDrop";
import { FilterRow } from "./FilterRow";
import { LogTable, type LogRecord } from "./LogTable";
import { OwnName } from "./OwnName";
import { PanelTable } from "./PanelTable";
import { PlaceForm } from "./PlaceForm";
import { PlanCalendar } from "./PlanCalendar";
import { RigForm } from "./RigForm";
import { SearchPalette } from "./SearchPalette";
import { SeamReport } from "./SeamReport";
import { testFilter, testPlace, testRig } from "./test-data";
import { Toasts, useSay } from "./ui/Toasts";

const user = userEvent.setup();
const routed = (page: React.ReactNode) =>
  render(<RouterProvider router={createMemoryRouter([{ path: "/", element: page, action: () => null }])} />);
const entry = (id: string, name: string): CatalogEntry => ({
  id,
  name,
  aliases: [],
  kind: "galaxy",
  raDeg: 0,
  decDeg: 0,
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
      return <button onClick={() => say("Yard deleted.", undo)}>delete</button>;
    }
    render(
      <Toasts>
        <Page />
      </Toasts>,
    );
    await user.click(screen.getByText("delete"));
    await user.click(await screen.findByRole("button", { name: "Undo" }));
    expect(undo).toHaveBeenCalledOnce();
    await waitFor(() => expect(screen.queryByText("Yard deleted.")).toBeNull());
  });
});

describe("bundle drop", () => {
  const file = (text: string, name = "a.json") => new File([text], name, { type: "application/json" });
  const drop = async (onBundle: (b: Bundle) => void, f: File) => {
    render(<BundleDrop words="Import" onBundle={onBundle} />);
    await user.upload(screen.getByLabelText("Import"), f);
  };
  it("hands on what reads", async () => {
    const onBundle = vi.fn();
    await drop(onBundle, file(encodeBundle([], "everything", "2026-12-05T00:00:00Z")));
    await waitFor(() =>
      expect(onBundle).toHaveBeenCalledWith(expect.objectContaining({ records: [], refused: [] }), "a.json"),
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
    const onChange = vi.fn<(r: LogRecord, data: ContributionData) => void>();
    const onRemove = vi.fn();
    render(
      <LogTable
        records={records}
        memberId="me"
        memberName={(id) => (id === "me" ? "Ines" : "Wren")}
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
    await user.click(screen.getAllByRole("checkbox", { hidden: true })[0]!);
    expect(onChange.mock.calls[0]![1]).toMatchObject({ kept: 0, reason: "other" });
    await user.selectOptions(screen.getByLabelText("Why not kept"), "trails");
    expect(onChange.mock.calls[1]![1]).toMatchObject({ kept: 0, reason: "trail" });
    await user.click(screen.getByRole("button", { name: "Delete these 3 entries", hidden: true }));
    expect(onRemove.mock.calls[0]![0]).toHaveLength(3);
  });
  it("lets nobody change a friend's hours", () => {
    mount([record("w", { memberId: "wren", taken: 20, kept: 18 })]);
    expect(screen.queryByRole("spinbutton", { hidden: true })).toBeNull();
    expect(screen.queryByRole("button", { name: /Delete/, hidden: true })).toBeNull();
  });
  it("holds a number kept by hand within what was taken", () => {
    const { onChange } = mount([record("h", { taken: 20, kept: 18, fileName: "" })]);
    const box = screen.getByRole("spinbutton", { hidden: true });
    fireEvent.change(box, { target: { value: "25" } });
    fireEvent.blur(box);
    expect(onChange.mock.calls[0]![1]).toMatchObject({ kept: 20, reason: "" });
  });
});

describe("forms that answer while one types", () => {
  it("a rig's field follows the focal length; what cannot be is said at once", async () => {
    routed(<RigForm rig={testRig} baseRev="1" filters={[{ id: "filter-ha", data: testFilter }]} faults={{}} />);
    expect((await screen.findByTestId("field")).textContent).toBe("2.80° × 1.87°");
    const box = screen.getByLabelText(/Focal length/);
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
        place={testPlace}
        baseRev="7"
        faults={{ latitudeDeg: "From −90 to 90 °; 95 is outside." }}
        findZone={findZone}
      />,
    );
    const longitude = await screen.findByLabelText(/Longitude/);
    await user.clear(longitude);
    await user.type(longitude, "-68,1");
    await user.tab();
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>("Time zone").value).toBe("America/La_Paz"));
    expect(findZone).toHaveBeenCalledWith(45, -68.1);
    await user.type(screen.getByLabelText(/Points/), "90 33\n180 12");
    expect(screen.getByRole("img", { name: "Skyline, highest 33°" })).toBeTruthy();
    const box = screen.getByLabelText(/Latitude/);
    expect([
      box.getAttribute("aria-invalid"),
      document.getElementById(box.getAttribute("aria-describedby")!)?.textContent,
    ]).toEqual(["true", "From −90 to 90 °; 95 is outside."]);
  });
  it("a new filter starts from the usual values of its channel", async () => {
    routed(<FilterRow id="new" baseRev="" filter={null} faults={{}} isInUse={false} />);
    await user.selectOptions(await screen.findByLabelText("Channel"), "OIII");
    expect(screen.getByLabelText<HTMLInputElement>(/Centre/).value).toBe("500.7");
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
  it("show exact centres and copy them as CSV", async () => {
    // userEvent.setup gives the page a clipboard of its own
    render(
      <Toasts>
        <PanelTable panels={mosaicPanels(layout)} field={{ widthArcmin: 100, heightArcmin: 60 }} title="Loop" />
      </Toasts>,
    );
    expect(screen.getAllByRole("row")).toHaveLength(3);
    await user.click(screen.getByRole("button", { name: "Copy as CSV" }));
    expect((await navigator.clipboard.readText()).split("\r\n")).toHaveLength(3);
    expect(await screen.findByText("Panel list copied.")).toBeTruthy();
  });
  it("name the seam, the star and its distance, or say that all is clear", () => {
    const star = { frame: "icrs", raDeg: 100, decDeg: 20.1, magnitude: 5.2, name: "ζ Gem" } as const;
    const { rerender } = render(<SeamReport found={starsInSeams(layout, [star])} limit={8.5} />);
    expect(screen.getByRole("listitem").textContent).toBe("5.2 ζ GemP1 | P2, 0.0′ from the middle");
    rerender(<SeamReport found={[]} limit={8.5} />);
    expect(screen.getByText("No star brighter than 8.5 lies where panels join.")).toBeTruthy();
  });
});

it("shows a plan as a calendar: what each night gives, and what is left free", () => {
  const nights: PlannedNight[] = [
    {
      date: nightDate("2026-12-05"),
      usableMin: 300,
      work: [
        { panel: "P1", channel: "Ha", exposureMin: 120 },
        { panel: "P2", channel: "Ha", exposureMin: 60 },
        { panel: "P1", channel: "OIII", exposureMin: 40 },
      ],
    },
    { date: nightDate("2026-12-06"), usableMin: 90, work: [] },
    { date: nightDate("2026-12-07"), usableMin: 0, work: [] },
  ];
  routed(
    <PlanCalendar
      nights={nights}
      offers={new Map([["2026-12-05", { Ha: { usableMin: 300 } }]])}
      linkTo={(d) => `/nights?night=${d}`}
    />,
  );
  expect(screen.getAllByRole("listitem").map((l) => l.textContent)).toEqual([
    "Sat 5 DecHa 3 h 00, OIII 0 h 40Ha P1 P2, OIII P1",
    "Sun 6 Dec1 h 30 free",
    "Mon 7 Decnothing usable",
  ]);
  expect(screen.getByTitle("usable: Ha 5 h 00")).toBeTruthy();
});
