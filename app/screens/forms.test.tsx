import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { decodeData } from "~/core/records";
import { numberFault, readNumbers } from "~/components/forms/form-numbers";
import { nightDate } from "~/core/time";
import { readLogEntry } from "~/screens/log/log-form";
import { readPlace } from "~/screens/kit/place/place-form";
import { PLACE_NUMBERS } from "~/screens/kit/place/place-numbers";
import {
  CAMERA_NUMBERS,
  OPTICS_NUMBERS,
  OVERHEAD_NUMBERS,
  readRig,
  rigTexts,
  SENSOR_NUMBERS,
} from "~/screens/kit/rig/rig-form";
import { testPlace, testRig } from "~/core/test-data";

const formOf = (fields: Readonly<Record<string, string | readonly string[]>>): FormData => {
  const form = new FormData();
  for (const [name, value] of Object.entries(fields))
    for (const v of typeof value === "string" ? [value] : value) form.append(name, v);
  return form;
};
const months = Object.fromEntries(Array.from({ length: 12 }, (_, i) => [`clear${i}`, "40"]));
const placeFields = {
  travelMin: "0",
  extraSetUpMin: "0",
  windPercent: "60",
  name: "Yard",
  latitudeDeg: "45.5",
  longitudeDeg: "-3,2",
  elevationM: "120",
  skyMagPerArcsec2: "20.4",
  minAltitudeDeg: "25",
  seeingArcsec: "2.8",
  timeZone: "Europe/Madrid",
  skyline: "180 30\n90 12",
  ...months,
};
const faultsOf = (r: { ok: boolean; error?: unknown }) => (r.ok ? {} : (r.error as Record<string, string>));

describe("number boxes", () => {
  const spec = { name: "x", label: "X", unit: "mm", min: -5, max: 10 };
  it("say what is wrong in words: empty, no number, outside, not whole, not above", () => {
    expect(numberFault(spec, "")).toBe("Give a number, in mm.");
    expect(numberFault(spec, "ten")).toBe("“ten” is not a number.");
    expect(numberFault(spec, "-7")).toBe("From −5 to 10 mm; −7 is outside.");
    expect(numberFault({ ...spec, isWhole: true }, "1.5")).toBe("Give a whole number.");
    expect(numberFault({ ...spec, min: 0, isAboveMin: true }, "0")).toBe("More than 0 to 10 mm; 0 is outside.");
    expect(numberFault(spec, " 3,5 ")).toBeUndefined();
  });
  it("take every number within their range and refuse every other", () => {
    fc.assert(
      fc.property(fc.double({ min: -1e4, max: 1e4, noNaN: true }), (value) => {
        const { values, faults } = readNumbers(formOf({ x: String(value) }), [spec]);
        const isInside = value >= -5 && value <= 10;
        expect(faults["x"] === undefined).toBe(isInside);
        if (isInside) expect(values.x).toBe(value + 0); // no −0
      }),
    );
  });
});

describe("the form of a place", () => {
  it("reads into a place that storage takes, with the skyline sorted", () => {
    const place = readPlace(formOf(placeFields));
    expect(place).toMatchObject({
      ok: true,
      value: {
        longitudeDeg: -3.2,
        clearChance: Array<number>(12).fill(0.4),
        skyline: [{ azimuthDeg: 90 }, { azimuthDeg: 180 }],
      },
    });
    expect(place.ok && decodeData("place", place.value).ok).toBe(true);
  });
  it("refuses each wrong value beside its own box, all at once", () => {
    const faults = faultsOf(
      readPlace(
        formOf({
          ...placeFields,
          name: " ",
          latitudeDeg: "95",
          elevationM: "high",
          skyline: "400 10",
          timeZone: "Mars/Base",
          clear3: "140",
        }),
      ),
    );
    expect(Object.keys(faults).sort()).toEqual(["clear3", "elevationM", "latitudeDeg", "name", "skyline", "timeZone"]);
    expect(faults["skyline"]).toContain("azimuth runs from 0 to 360°");
  });
  it("takes what the panorama hands over, and refuses what it never would", () => {
    const landmarks = JSON.stringify([
      { name: "<b>shed</b>", shape: "box", azimuthDeg: 10, widthDeg: 12, altitudeDeg: 20 },
    ]);
    const place = readPlace(formOf({ ...placeFields, landmarks }));
    expect(place.ok && place.value.landmarks?.[0]?.name).toBe("<b>shed</b>"); // text, whatever it looks like
    const broken = faultsOf(readPlace(formOf({ ...placeFields, landmarks: landmarks.replace("10", "4000") })));
    expect(broken["skyline"]).toContain("landmarks.0.azimuthDeg");
    expect(readPlace(formOf({ ...placeFields, lamps: "no list" })).ok).toBe(true);
  });
  it("accepts nothing that storage would refuse", () => {
    const number = fc.oneof(
      fc.double({ min: -1e5, max: 1e5, noNaN: true }).map(String),
      fc.constantFrom("", "x", "1e999", "-0", "22.2", "90"),
    );
    const fields = fc.record(Object.fromEntries(PLACE_NUMBERS.map((s) => [s.name, number])));
    fc.assert(
      fc.property(fields, (numbers) => {
        const place = readPlace(formOf({ ...placeFields, ...numbers }));
        if (place.ok) expect(decodeData("place", place.value)).toMatchObject({ ok: true });
      }),
    );
  });
});

describe("the form of a rig", () => {
  const texts = rigTexts(testRig);
  const fields = { ...texts, name: "Rig", filterIds: ["filter-a", "filter-b"], isCooled: "on", rotator: "manual" };
  it("reads back the rig it was filled from", () => {
    const rig = readRig(formOf({ ...fields, isGuided: "on", flipsAtMeridian: "on" }));
    expect(rig).toEqual({
      ok: true,
      value: {
        ...testRig,
        aboveAirC: 10,
        slotMm: 0,
        gustLimitKmh: 28,
        refocusC: 2,
        name: "Rig",
        filterIds: ["filter-a", "filter-b"],
      },
    });
    expect(rig.ok && decodeData("rig", rig.value).ok).toBe(true);
  });
  it("takes what is typed in another unit, and an aperture as a focal ratio (a lens of 200 mm at f/2.8; 8 inches)", () => {
    const of = (focalLengthMm: string, apertureMm: string) => {
      const rig = readRig(formOf({ ...fields, focalLengthMm, apertureMm }));
      return rig.ok ? [rig.value.focalLengthMm, rig.value.apertureMm] : rig.error;
    };
    expect(of("200", "f/2.8")).toEqual([200, 71.43]);
    expect(of("40 in", "8″")).toEqual([1016, 203.2]);
    expect(of("200", "f/")).toMatchObject({ apertureMm: "“f/” is not a number." });
    expect(of("8 °C", "80")).toMatchObject({ focalLengthMm: "“8 °C” is not a number." });
  });
  it("refuses a focal length and a pixel of 0, a missing name and a rig without filters", () => {
    const faults = faultsOf(
      readRig(formOf({ ...fields, name: "", focalLengthMm: "0", pixelPitchUm: "0", filterIds: [] })),
    );
    expect(Object.keys(faults).sort()).toEqual(["filterIds", "focalLengthMm", "name", "pixelPitchUm"]);
  });
  it("accepts nothing that storage would refuse", () => {
    const specs = [...OPTICS_NUMBERS, ...SENSOR_NUMBERS, ...CAMERA_NUMBERS, ...OVERHEAD_NUMBERS];
    const number = fc.oneof(
      fc.double({ min: -10, max: 5e4, noNaN: true }).map(String),
      fc.integer({ min: 0, max: 50 }).map(String),
    );
    fc.assert(
      fc.property(fc.record(Object.fromEntries(specs.map((s) => [s.name, number]))), (numbers) => {
        const rig = readRig(formOf({ ...fields, ...numbers }));
        if (rig.ok) expect(decodeData("rig", rig.value)).toMatchObject({ ok: true });
      }),
    );
  });
});

describe("the form of a log entry", () => {
  const entry = {
    projectId: "p",
    panel: "P1",
    channel: "Ha",
    night: "2026-12-05",
    exposureSec: "300",
    taken: "15",
    kept: "11",
    reason: "wind",
    note: "",
  };
  const bounds = { today: nightDate("2026-12-05") };
  const readLog = (form: FormData) => readLogEntry(form, bounds);
  it("refuses a night to come, and takes a night lost to cloud", () => {
    expect(faultsOf(readLog(formOf({ ...entry, night: "2026-12-06" })))).toEqual({
      night: "This night is still to come.",
    });
    const lost = { ...entry, taken: "0", kept: "0" };
    expect(readLog(formOf({ ...lost, reason: "cloud" }))).toMatchObject({
      ok: true,
      value: { taken: 0, reason: "cloud" },
    });
    expect(faultsOf(readLog(formOf({ ...lost, reason: "" })))).toEqual({ reason: "Nothing taken: what was the night lost to?" }); // prettier-ignore
  });
  it("keeps taken, kept and why not", () => {
    expect(readLog(formOf(entry))).toMatchObject({ ok: true, value: { taken: 15, kept: 11, reason: "wind" } });
    expect(readLog(formOf({ ...entry, kept: "15" }))).toMatchObject({ ok: true, value: { kept: 15, reason: "" } });
  });
  it("wants a reason for what was dropped, never more kept than taken, and a real night", () => {
    expect(faultsOf(readLog(formOf({ ...entry, reason: "" })))).toEqual({ reason: "Why were some not kept?" });
    expect(faultsOf(readLog(formOf({ ...entry, kept: "16" })))).toEqual({ kept: "Only 15 were taken." });
    expect(faultsOf(readLog(formOf({ ...entry, night: "2026-02-30", channel: "X", taken: "2.5" })))).toEqual({
      channel: "Choose a channel.",
      night: "Give the evening's date, as 2026-12-05.",
      taken: "Give a whole number.",
    });
  });
});

it("fills the starting values of a test place", () => {
  expect(decodeData("place", testPlace).ok).toBe(true);
});
