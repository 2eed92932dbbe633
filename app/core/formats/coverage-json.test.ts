import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { utcMs } from "~/core/time";
import { forecastOfCoverage, readForecast } from ".";

const NOW = utcMs(Date.parse("2026-12-05T16:40:00Z"));
const about = { id: "edr", name: "A service", credit: "by a service", latitudeDeg: 43.6, longitudeDeg: 1.9, issued: "2026-12-05T12:00:00Z" }; // prettier-ignore
const times = ["2026-12-05T18:00:00Z", "2026-12-05T19:00:00Z", "2026-12-05T20:00:00Z"];
const property = (name: string) => ({ id: `http://vocab.nerc.ac.uk/standard_name/${name}/`, label: { en: name } });
const parameter = (name: string, unit: string) => ({ type: "Parameter", observedProperty: property(name), unit: { symbol: { value: unit, type: "http://www.opengis.net/def/uom/UCUM/" } } }); // prettier-ignore
const series = (values: readonly (number | null)[]) => ({ type: "NdArray", dataType: "float", axisNames: ["t"], shape: [values.length], values }); // prettier-ignore
/** As the example of a point series in the standard has it (OGC 21-069r2, 6.1.5): axes x, y, t, one range a parameter. */
const coverage = (
  parameters: Readonly<Record<string, unknown>>,
  ranges: Readonly<Record<string, unknown>>,
  t: readonly unknown[] = times,
) => ({
  type: "Coverage",
  domain: { type: "Domain", domainType: "PointSeries", axes: { x: { values: [1.9] }, y: { values: [43.6] }, t: { values: t } } }, // prettier-ignore
  parameters,
  ranges,
});
const read = (answer: unknown) => {
  const made = forecastOfCoverage(typeof answer === "string" ? answer : JSON.stringify(answer), about);
  return made.ok ? readForecast(made.value, { nowMs: NOW, latitudeDeg: 43.6, longitudeDeg: 1.9 }) : made;
};
const good = (answer: unknown) => {
  const r = read(answer);
  if (!r.ok) throw new Error(`${r.error.code} ${r.error.found}`);
  return r.value;
};

describe("a forecast out of CoverageJSON", () => {
  it("knows parameters by their standard names and converts UCUM units", () => {
    const f = good(
      coverage(
        {
          tcl: parameter("low_type_cloud_area_fraction", "%"),
          t2m: parameter("air_temperature", "K"),
          gust: parameter("wind_speed_of_gust", "[kn_i]"),
          rh: { type: "Parameter", observedProperty: property("relative_humidity"), unit: { symbol: "%" } },
          u: parameter("eastward_wind", "m/s"),
          v: parameter("northward_wind", "m/s"),
        },
        {
          tcl: series([20, 40, null]),
          t2m: { ...series([273.15, 275.15, 270.15]), axisNames: ["t", "y", "x"], shape: [3, 1, 1] },
          gust: series([10, 20, 30]),
          rh: series([80, 90, 100]),
          u: series([3, 0, -6]),
          v: series([4, 5, 8]),
        },
      ),
    );
    expect(f.issuedMs).toBe(Date.parse(about.issued));
    expect(f.hours.map((h) => h.atMs)).toEqual(times.map((t) => Date.parse(t)));
    expect(f.hours.map((h) => h.lowCloud)).toEqual([0.2, 0.4, null]);
    expect(f.hours.map((h) => Math.round(h.airC! * 100) / 100)).toEqual([0, 2, -3]);
    expect(f.hours[0]!.gustMs).toBeCloseTo(5.14444, 9);
    expect(f.hours.map((h) => h.humidity)).toEqual([0.8, 0.9, 1]);
    expect(f.hours.map((h) => h.windMs)).toEqual([5, 5, 10]);
  });

  it("leaves out by name what it does not use, cannot read, or knows no unit of, and keeps the rest", () => {
    const f = good(
      coverage(
        {
          cloud: parameter("cloud_area_fraction", "1"),
          p: parameter("air_pressure", "Pa"),
          rh: parameter("relative_humidity", "g/kg"),
          t: parameter("air_temperature", "Cel"),
          d: parameter("dew_point_temperature", "Cel"),
        },
        { cloud: series([0.5, 0.6, 0.7]), p: series([1, 2, 3]), rh: series([1, 2, 3]), t: "https://elsewhere.example/t.json", d: series([1]) }, // prettier-ignore
      ),
    );
    expect(f.hours.map((h) => h.lowCloud)).toEqual([0.5, 0.6, 0.7]); // without layers, all of it
    expect(f.notes.map((n) => [n.code, n.variable])).toEqual([
      ["leftOut", "air_pressure"],
      ["leftOut", "air_temperature"],
      ["leftOut", "dew_point_temperature"],
      ["leftOut", "cloud_area_fraction"],
      ["unknownUnit", "relative_humidity"],
    ]);
  });

  it("takes the first of a collection, with the parameters they share", () => {
    const one = coverage({}, { c: series([10, 20, 30]) });
    const f = good({ type: "CoverageCollection", parameters: { c: parameter("low_type_cloud_area_fraction", "%") }, coverages: [{ ...one, parameters: undefined }] }); // prettier-ignore
    expect(f.hours.map((h) => h.lowCloud)).toEqual([0.1, 0.2, 0.3]);
  });

  it("refuses what is none, too long, without times, or built to hurt", () => {
    const code = (answer: unknown) => {
      const r = read(answer);
      return r.ok ? "ok" : r.error.code;
    };
    const cloud = { c: parameter("low_type_cloud_area_fraction", "%") };
    expect(code("<html>busy</html>")).toBe("coverageNotJson");
    expect(code({ hello: 1 })).toBe("coverageForeign");
    expect(code(coverage(cloud, { c: series([]) }, []))).toBe("coverageNoSeries");
    expect(code(" ".repeat(2_100_000))).toBe("coverageForeign");
    expect(code("[".repeat(100_000))).toBe("coverageNotJson");
    expect(code(coverage(cloud, { c: { ...series([1, 2, 3]), values: ["1", {}, []] } }))).toBe("coverageForeign");
    const hostile = `{"type":"Coverage","domain":{"axes":{"t":{"values":["2026-12-05T18:00:00Z"]}}},"parameters":{"__proto__":{"observedProperty":{"id":"x"}},"constructor":${JSON.stringify(cloud.c)}},"ranges":{"constructor":${JSON.stringify(series([50]))}}}`; // prettier-ignore
    expect(good(hostile).hours[0]!.lowCloud).toBe(0.5);
    expect(({} as Record<string, unknown>)["observedProperty"]).toBeUndefined();
  });

  it("says the same of a temperature in any unit, and never more hours than were given", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -60, max: 50 }), { minLength: 1, maxLength: 60 }), (airC) => {
        const t = airC.map((_, i) => new Date(Date.parse(times[0]!) + i * 3_600_000).toISOString());
        const cloud = { c: parameter("low_type_cloud_area_fraction", "1") };
        const of = (unit: string, to: (c: number) => number) =>
          good(coverage({ ...cloud, a: parameter("air_temperature", unit) }, { c: series(airC.map(() => 0)), a: series(airC.map(to)) }, t)).hours; // prettier-ignore
        const [cel, kelvin, fahrenheit] = [of("Cel", (c) => c), of("K", (c) => c + 273.15), of("[degF]", (c) => c * 1.8 + 32)]; // prettier-ignore
        expect(cel.length).toBe(airC.length);
        cel.forEach((h, i) => {
          expect(h.airC).toBe(airC[i]);
          expect(kelvin[i]!.airC).toBeCloseTo(h.airC!, 9);
          expect(fahrenheit[i]!.airC).toBeCloseTo(h.airC!, 9);
        });
      }),
    );
  });
});
