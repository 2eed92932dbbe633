import type { ContributionData } from "~/core/ledger";
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { createRoutesStub, MemoryRouter } from "react-router";
import { describe, expect, it, vi } from "vitest";
import type { StoredRecord } from "~/core/crew";
import { DEFAULT_OVERHEADS, subAdvice, subEffects } from "~/core/exposure";
import { placeNight, runSheet, USUAL_MOON } from "~/core/night";
import { chooseTonight, hoursOf, judgeNight, projectTonight, weighNight, type FrameData } from "~/core/plan";
import type { PlannedBlock } from "~/core/season";
import { testEvening, wholeBlock } from "~/core/plan/plan.test-data";
import { addMs, HOUR_MS, nightDate, utcMs } from "~/core/time";
import { BudgetRow } from "./budget/BudgetRow";
import { Copies } from "~/components/Copies";
import { CrewTable } from "./crew/CrewTable";
import { FrameControls } from "./frame/FrameControls";
import { IntakeReportView } from "./log/IntakeReport";
import { FilePreview } from "~/components/FilePreview";
import { SetAside } from "./kit/data/SetAside";
import { RunSheetView } from "./nights/RunSheetView";
import type { FieldChange } from "~/core/records";
import { TonightVerdict } from "./tonight/TonightVerdict";
import { testFilter, testPlace, testRig } from "~/core/test-data";
import { bookingFaultWords, bundleFaultWords, fileFaultWords, skylineFaultWords } from "~/components/words/fault-words";
import { mismatchWords } from "~/components/words/log-words";

const user = userEvent.setup();

const lightOf = (more: Partial<ContributionData>): ContributionData => ({
  projectId: "project-1",
  panel: "P1",
  channel: "Ha",
  night: "2026-12-04",
  memberId: "me",
  rigId: "rig-1",
  placeId: "place-1",
  exposureSec: 300,
  taken: 1,
  kept: 1,
  reason: "",
  worthRate: null,
  startMs: null,
  fileName: "",
  note: "",
  ...more,
});

describe("frame controls", () => {
  const frame: FrameData = {
    projectId: "p",
    raDeg: 312.5,
    decDeg: 30.7,
    positionAngleDeg: 4,
    columns: 1,
    rows: 1,
    overlap: 0.15,
  };
  const type = async (label: RegExp, text: string) => {
    const box = screen.getByLabelText(label, { selector: "input, select" });
    await user.clear(box);
    await user.type(box, `${text}{Enter}`);
  };
  it("take coordinates in any usual notation and angles all round", async () => {
    const onChange = vi.fn<(change: Partial<FrameData>) => void>();
    render(<FrameControls frame={frame} onChange={onChange} />);
    await type(/Right ascension/, "20h 51m 36s");
    await type(/Declination/, "-12 30");
    await type(/Position angle/, "-10");
    await type(/Overlap/, "22,5");
    const changes = onChange.mock.calls.map(([c]) => c);
    expect(changes[0]!.raDeg).toBeCloseTo(312.9, 9);
    expect(changes.slice(1)).toEqual([{ decDeg: -12.5 }, { positionAngleDeg: 350 }, { overlap: 0.225 }]);
  });
  it("refuse 60 % overlap, a declination of 95 and words, beside the box, and change nothing", async () => {
    const onChange = vi.fn();
    render(<FrameControls frame={frame} onChange={onChange} />);
    await type(/Overlap/, "60");
    await type(/Declination/, "95");
    await type(/Right ascension/, "over there");
    expect(screen.getAllByRole("alert").map((a) => a.textContent)).toEqual([
      "Write it as 20 50 33.4, or 312.64 deg.",
      "Declination runs from −90° to +90°.",
      "From 0 to 50 %; 60 is outside. 10 to 25 % is usual.",
    ]);
    expect(onChange).not.toHaveBeenCalled();
  });
});

describe("budget row", () => {
  it("names the deciding limit, what the typed sub does, and opens its reasons", async () => {
    const question = { rig: testRig, filter: testFilter, skyMagPerArcsec2: 20.5, seeingArcsec: 3, protectedMag: 7 };
    const advice = subAdvice(question);
    const draft = {
      channel: "Ha" as const,
      filterId: "f",
      hours: "3",
      sub: "120",
      own: "",
      moon: "" as const,
      isShort: false,
      setting: "",
    };
    const onChange = vi.fn();
    render(
      <MemoryRouter>
        <BudgetRow
          draft={draft}
          filterName="Ha 5 nm"
          settings={[]}
          from={{ spoiltFrom: null, overheadFrom: null }}
          advice={advice}
          effects={subEffects(question, 120)}
          clipped={12}
          clockHours={3.8}
          panels={2}
          measured={{ question, hours: 2, subSec: 120 }}
          objectMag={22.5}
          faults={{}}
          onChange={onChange}
          onRemove={() => undefined}
        />
      </MemoryRouter>,
    );
    expect(screen.getByText(/decided by the stars that you protect/)).toBeTruthy();
    expect(screen.getByText(/At 120 s a clock hour brings .* %/).textContent).toContain(
      "12 of the catalogue’s in the frame",
    );
    expect(screen.getByText("3 h 48")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: `${advice.subSec} s a sub` }));
    expect(await screen.findByText("A protected star clips from")).toBeTruthy();
    await user.keyboard("{Escape}");
    // The same goal in subs, depth and signal to noise; typed there it becomes hours.
    await user.click(screen.getByRole("button", { name: /Ha: the goal in other measures/ }));
    const subs = await screen.findByLabelText<HTMLInputElement>(/Number of subs/);
    expect(subs.value).toBe("60");
    await user.clear(subs);
    await user.type(subs, "90{Enter}");
    expect(onChange).toHaveBeenLastCalledWith({ ...draft, hours: "3" });
    const depth = screen.getByLabelText<HTMLInputElement>(/Depth/);
    await user.clear(depth);
    await user.type(depth, "35{Enter}");
    expect(screen.getByText(/more than 500 h/)).toBeTruthy(); // nobody shoots that long: named beside its cause
  });
});

describe("verdict", () => {
  const at = placeNight(testPlace, nightDate("2026-12-05"), USUAL_MOON);
  const { steps } = at;
  const need = { panel: "P1", channel: "OIII" as const, goalMin: 600, remainingMin: 600, subSec: 300 };
  const wanted = [
    { id: "a", target: { frame: "icrs", raDeg: 312, decDeg: 31 } as const, needs: [need], own: {} },
    { id: "b", target: { frame: "icrs", raDeg: 70, decDeg: 46 } as const, needs: [need], own: {} },
  ];
  const projects = wanted.map((p) => projectTonight(at, p, ["OIII"])!);
  const early = wholeBlock(at, wanted[0]!, "OIII");
  const late = wholeBlock(at, wanted[1]!, "OIII");
  const evening = testEvening(at, [early, { ...late, startMs: early.endMs }]);
  const rules = { wishMin: 120, setUpMin: 25, gustLimitKmh: 28, fromMs: steps.startMs };
  /** The verdict on screen when every hour has these odds. */
  const show = (
    odds: (hour: number) => number,
    basis: "forecast" | "longTerm",
    of = projects,
    darkAgain: string | null = null,
  ) => {
    const walkOf = (b: PlannedBlock) => of.find((p) => p.id === b.projectId)?.walk ?? null;
    const choice = chooseTonight([evening], { isDark: true, steps, projects: of, walkOf });
    const weather = hoursOf(steps).map((atMs, i) => ({
      atMs, bySource: [odds(i)], odds: odds(i), spread: null, basis, airC: null, dewC: null, humidity: null, windMs: null, seeingArcsec: null, hazeMag: null, gustMs: null, highCloud: null, rainOdds: null, rainChance: null,
    })); // prettier-ignore
    const weighed = weighNight({ steps, choice, projects: of, weather, rules });
    const verdict = judgeNight({ steps, choice, weighed, rules, away: [], look: null });
    const names = new Map([
      ["a", "Evening loop"],
      ["b", "Winter shell"],
    ]);
    render(
      <TonightVerdict
        isSimulated={false} verdict={verdict} choice={choice} names={names} steps={steps} zone="Europe/Paris" hasProjects others="" darkAgain={darkAgain} isAssumed={false} wishHours={2} nowMs={steps.startMs} rest={null}
        rigNames={{ rig: "Refractor" }} />,
    ); // prettier-ignore
    return screen.getByRole("heading").textContent;
  };
  it("is one sentence with both targets, their channels and the local times", () => {
    expect(show(() => 0.9, "forecast")).toMatch(
      /^Go, from 18:\d\d: Evening loop, in OIII, until it stands too low at 2\d:\d\d, then Winter shell, in OIII, until .+ at 0\d:\d\d\.$/,
    );
    expect(screen.getByRole("list", { name: "What decides it" }).children).toHaveLength(3);
    expect(screen.getByText(/Two targets are enough/)).toBeTruthy();
  });
  it("names only the later target when cloud takes the evening", () => {
    expect(show((hour) => (hour < 8 ? 0.05 : 0.9), "forecast")).toMatch(/^Go late, from 0\d:\d\d: then Winter shell|^Go late, from 0\d:\d\d: Winter shell/); // prettier-ignore
    expect(screen.getByText(/Cloud until about/)).toBeTruthy();
  });
  it("promises nothing without a forecast", () => {
    expect(show(() => 0.4, "longTerm")).toMatch(/^If it clears, go from 18:\d\d: Evening loop/);
    expect(screen.getByText(/over the years 40 % of such nights are clear here/)).toBeTruthy();
  });
  it("says stay in, why, and when it is dark again", () => {
    expect(show(() => 0.1, "forecast")).toBe("Stay in tonight.");
    expect(screen.getByText(/would change it/)).toBeTruthy();
    cleanup();
    expect(show(() => 0.9, "forecast", [], "2026-08-06")).toBe("Nothing left to do: every goal is met.");
  });
});

describe("run sheet", () => {
  it("puts blocks, breaks and the sky in one order, by local clock with UTC on hover", () => {
    const start = utcMs(Date.UTC(2026, 11, 5, 18));
    const sheet = runSheet(
      [
        {
          projectId: "p",
          panel: "P2",
          channel: "Ha",
          filterName: "Ha 5 nm",
          subSec: 300,
          subs: 12,
          need: "P2 Ha",
          stage: 0,
          windows: [{ startMs: start, endMs: addMs(start, 4 * HOUR_MS) }],
          transitMs: addMs(start, -HOUR_MS),
        },
      ],
      DEFAULT_OVERHEADS,
      { flips: true, standsBeforeDark: false, sunsetMs: null, starsMs: null },
    );
    render(
      <RunSheetView
        nameOf={() => null}
        isCooled
        sheet={sheet}
        sky={[{ atMs: addMs(start, HOUR_MS / 4), words: "Moon rises" }]}
        zone="Europe/Paris"
      />,
    );
    const lines = screen.getAllByRole("listitem").map((l) => l.textContent);
    expect(lines[0]).toContain("18:35Set up");
    expect(lines.findIndex((l) => l.includes("Moon rises"))).toBeGreaterThan(
      lines.findIndex((l) => l.includes("P2 Ha: ")),
    );
    expect(screen.getByText("18:35").getAttribute("title")).toBe("17:35 UTC");
  });
});

describe("crew", () => {
  it("adds up by channel and says how far the goal is", () => {
    const total = (memberId: string, keptMin: number) => ({
      memberId,
      channel: "OIII" as const,
      subs: keptMin / 5,
      keptMin,
      countedMin: keptMin / 2,
    });
    render(
      <CrewTable
        totals={[total("a", 120), total("b", 60)]}
        members={{ a: "Ines", b: "Wren" }}
        goals={[{ channel: "OIII", goalMin: 600 }]}
      />,
    );
    expect(screen.getByRole("row", { name: /Together 3 h 00 counts 1.5 h · 15 % of 10 h 00/ })).toBeTruthy();
  });
  it("shows what a file brings before joining it, asks field by field what it may change here, and says what does not read", async () => {
    const onJoin = vi.fn();
    const field = (name: string, from: unknown, to: unknown, unit = ""): FieldChange => ({ path: [name], label: name === "name" ? "Name" : "Latitude", unit, from, to }); // prettier-ignore
    const bundle = {
      scope: "project" as const,
      exportedAt: "",
      records: [{ id: "m", kind: "member", rev: "", author: "", seen: {}, data: { name: "Wren" } } as StoredRecord],
      refused: [
        {
          key: "place/x",
          fault: { code: "recordInvalid" as const, path: "data.kept", message: "too many" },
          raw: null,
        },
      ],
    };
    render(
      <FilePreview
        view={{
          fileName: "w.json",
          bundle,
          fresh: 2,
          news: [{ memberId: "m", channel: "L", subs: 9, keptMin: 9, countedMin: 9 }],
          members: { m: "Wren" },
          ahead: [{ kind: "place", name: "Far", atMs: Date.UTC(2031, 0, 1) }],
          own: [{ what: "You are", from: "Ines", to: "Wren" }],
          changes: [
            {
              kind: "project",
              id: "q",
              name: "Veil",
              isMine: false,
              isDeleted: false,
              fields: [field("name", "Veil", "Cirrus")],
            },
            {
              kind: "goal",
              id: "g",
              name: "Veil",
              isMine: false,
              isDeleted: false,
              fields: [field("channels", [], [{ channel: "Ha", hoursPerPanel: 2, subSec: 300 }])],
            },
            {
              kind: "place",
              id: "p",
              name: "Garden",
              isMine: true,
              isDeleted: false,
              fields: [field("latitudeDeg", 43.62, 45, "°, north positive"), field("name", "Garden", "Yard")],
            },
            { kind: "rig", id: "r", name: "Refractor", isMine: true, isDeleted: true, fields: [] },
          ],
          names: {},
          owner: "friend",
        }}
        members={{}}
        note="It is about another project, which it will add."
        canBeMine
        keyOf={(of, f) => `${of.kind} ${f?.path.join(".") ?? "gone"}`}
        onJoin={onJoin}
        onLeave={() => undefined}
      />,
    );
    expect(screen.getByText("Wren: 9 subs, 0 h 09 of L")).toBeTruthy();
    expect(screen.getByText(/One does not read and is left out: place\/x \(data.kept: too many\)/)).toBeTruthy();
    expect(screen.getByText(/about another project/)).toBeTruthy();
    expect(screen.getByText("place Far, 2031-01-01")).toBeTruthy();
    // What is one's own stays as it is unless it is ticked; what all share is agreed upon by importing.
    const box = (name: RegExp) => screen.getByRole<HTMLInputElement>("checkbox", { name });
    expect(box(/Latitude: 43.62° → 45°/).checked).toBe(false);
    expect(box(/delete it: it was deleted there/).checked).toBe(false);
    expect(box(/Channels: nothing → Ha 2 h 00 of 300 s/).checked).toBe(false);
    expect(box(/Name: Veil → Cirrus/).checked).toBe(true);
    await user.click(box(/Name: Garden → Yard/));
    expect(screen.queryByText("You are: Ines → Wren")).toBeNull();
    await user.click(screen.getByRole("radio", { name: /My own backup/ }));
    expect(screen.getByText("You are: Ines → Wren")).toBeTruthy();
    expect(screen.getByText(/One does not read and is kept as unreadable/)).toBeTruthy();
    await user.click(screen.getByRole("checkbox", { name: /Let it in/ }));
    await user.click(screen.getByRole("button", { name: "Merge" }));
    expect(onJoin).toHaveBeenCalledWith({
      owner: "mine",
      letsAheadIn: true,
      chosen: ["project name", "place name"],
    });
  });
});

describe("what two wrote at once", () => {
  const version = (rev: string, more: object) =>
    ({ id: "p", kind: "place", rev, author: "b", seen: {}, data: { name: "Theirs", elevationM: 5 }, ...more }) as StoredRecord; // prettier-ignore
  const shown = (copies: readonly StoredRecord[]) => {
    const asked = vi.fn();
    const Stub = createRoutesStub([
      { path: "/", Component: () => <Copies kind="place" of={{ id: "p", rev: "9", data: { name: "Mine", elevationM: 5 }, copies }} /> }, // prettier-ignore
      {
        path: "/acts",
        action: async ({ request }) => {
          asked(await request.json());
          return { refusal: null };
        },
      },
    ]);
    render(<Stub />);
    return asked;
  };

  it("is told value by value, and the chosen version is settled with the copies that were shown", async () => {
    const asked = shown([version("1", {})]);
    expect((await screen.findAllByRole("row")).slice(1).map((r) => r.textContent)).toEqual(["NameMineTheirs"]);
    await user.click(screen.getByRole("button", { name: "Take this one instead" }));
    await vi.waitFor(
      () =>
      expect(asked).toHaveBeenCalledWith({ act: "settle", kind: "place", id: "p", rev: "9", copies: ["1"], data: { name: "Theirs", elevationM: 5 }, isDeleted: false }), // prettier-ignore
    );
  });

  it("can be taken field by field: what counts now of the one, the other's of the other", async () => {
    const asked = shown([version("1", { data: { name: "Theirs", elevationM: 640 } })]);
    await screen.findAllByRole("radio");
    expect(screen.queryByRole("button", { name: "Keep it as chosen" })).toBeNull();
    await user.click(await screen.findByRole("radio", { name: "Elevation: as the other says" }));
    await user.click(screen.getByRole("button", { name: "Keep it as chosen" }));
    await vi.waitFor(() =>
      expect(asked.mock.calls[0]![0]).toMatchObject({ copies: ["1"], data: { name: "Mine", elevationM: 640 } }),
    );
  });

  it("is shown and asked about when one of them deleted it", async () => {
    const asked = shown([version("2", { deletedAt: 5 })]);
    expect(screen.getByText(/Somebody deleted this/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Delete it" }));
    await vi.waitFor(() => expect(asked.mock.calls[0]![0]).toMatchObject({ copies: ["2"], isDeleted: true }));
  });
});

describe("things that do not read", () => {
  it("are listed with their reason; mending that does not do says why beside the text", async () => {
    const asked = vi.fn();
    const thing = { key: "place/p", reason: "data.latitudeDeg: too large", raw: { kind: "place", id: "p" } };
    const Stub = createRoutesStub([
      {
        path: "/",
        Component: () => <SetAside things={[thing]} />,
        action: async ({ request }) => {
          asked(await request.json());
          return { fault: "data.name: is missing" };
        },
      },
    ]);
    render(<Stub />);
    expect(screen.getByText(/too large/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Look at it and mend it" }));
    expect(screen.getByRole<HTMLTextAreaElement>("textbox").value).toContain('"kind": "place"');
    await user.click(screen.getByRole("button", { name: "Keep it mended" }));
    expect(await screen.findByText("data.name: is missing")).toBeTruthy();
    expect(asked).toHaveBeenCalledWith({ act: "mend", thing, text: JSON.stringify(thing.raw, null, 2) });
  });
});

describe("filters and reports", () => {
  it("tell of every file: booked where, known, left out and why", () => {
    render(
      <IntakeReportView
        isAdded
        report={{
          doubts: [
            { key: "a", why: { code: "twiceAtOnce" }, projectName: "Veil", rigName: "R", night: "2026-12-04", count: 7, isSure: false },
            { key: "b", why: { code: "beforeBegun", startedOn: "2026-12-05" }, projectName: "Loop", rigName: "R", night: "2026-12-04", count: 8, isSure: true },
          ], // prettier-ignore
          clocks: [
            {
              session: "s",
              camera: "Mono-26",
              firstMs: utcMs(Date.UTC(2026, 11, 4, 17)),
              lastMs: utcMs(Date.UTC(2026, 11, 4, 23)),
              files: 3,
              lights: 2,
              lit: 1,
              sunDeg: 4,
              hours: 2,
              zone: "Europe/Paris",
              isPutRight: true,
            },
          ],
          measured: 0,
          total: 4,
          known: 1,
          open: [],
          booked: [
            {
              booking: {
                kind: "light",
                projectName: "Loop",
                data: lightOf({ panel: "P1", channel: "Ha", night: "2026-12-04", exposureSec: 300 }),
                mismatches: [],
              },
              count: 2,
              notes: [{ mismatch: { code: "rotation", found: 3, wanted: 90 }, count: 1 }],
            },
          ],
          refused: [{ name: "a.fits", why: { kind: "unreadable", code: "notFits" } }],
        }}
      />,
    );
    const text = screen.getByRole("status").textContent;
    for (const part of [
      "4 files: 2 added, 1 already here, 1 left out, 7 to be asked about.",
      "7 exposures of Veil, 2026-12-04: this rig exposed something else at the same time",
      "3 × Mono-26, 3 files, lights from Fri 4 Dec 18:00 to Sat 5 Dec 00:00 by its clock: the clock, 2 hours ahead, is put right.",
      "(1 of 2)",
      "2 × Loop: P1 Ha",
      "camera angle 3.0°",
      "a.fits: neither a FITS file nor a picture that tells how it was taken",
    ])
      expect(text).toContain(part);
  });
});

describe("words", () => {
  it("exist for every fault, end in no code and blame nobody", () => {
    const all = [
      ...(["skylineLine", "skylineAzimuth", "skylineAltitude", "skylineTwice", "skylineTooFew"] as const).map((code) =>
        skylineFaultWords({ code, line: 3, text: "x" }),
      ),
      ...(["bundleEmpty", "bundleTooLarge", "bundleNotJson", "bundleForeign", "bundleNewer"] as const).map((code) =>
        bundleFaultWords({ code, found: "9" }),
      ),
      ...(["notFits", "truncatedHeader", "truncatedData", "unreadable", "needMore"] as const).map(fileFaultWords),
      ...(["notALight", "noStart", "noExposure", "noFilter", "unknownFilter", "noPointing", "noProject"] as const).map(
        (code) => bookingFaultWords({ code, found: "H?" }),
      ),
      ...(["rotation", "pointing", "focalLength", "exposure", "temperature", "notPlanned"] as const).map((code) =>
        mismatchWords({ code, found: 1, wanted: 2 }),
      ),
    ];
    for (const words of all) {
      expect(words.length).toBeGreaterThan(10);
      expect(words).not.toMatch(/undefined|NaN|your fault|invalid|[a-z][A-Z]/);
    }
    expect(new Set(all).size).toBeGreaterThanOrEqual(all.length - 1); // a header that asks for more is a short header
  });
});
