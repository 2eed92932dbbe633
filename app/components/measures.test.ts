import { afterEach, describe, expect, it } from "vitest";
import { axisHour, clockTime, weekdayTime } from "./clock";
import { setHabits } from "./habits";
import { besideBox, elevation, setTemperature, temperature, temperatureGap, windSpeed } from "./measures";

const ZONE = "Europe/Paris";
const at = (clock: string) => Date.parse(`2026-12-05T${clock}:00Z`);

describe("how a reader is used to reading", () => {
  afterEach(() => setHabits(null));

  it("is metric and by 24 hours until they say otherwise", () => {
    expect([temperature(-10), temperatureGap(5), windSpeed(25), elevation(120)]).toEqual(["−10 °C", "5 °C", "25 km/h", "120 m"]); // prettier-ignore
    expect([clockTime(at("20:05"), ZONE), axisHour(at("20:00"), ZONE)]).toEqual(["21:05", "21"]);
    expect(besideBox({ label: "Elevation", unit: "m" }, 120)).toBeNull();
    expect([setTemperature(-7.5), setTemperature(-10)]).toEqual(["−7.5 °C", "−10 °C"]); // not rounded away
  });

  it("changes every measure at once, and no number that is stored", () => {
    setHabits({ clock: "12h", units: "imperial" });
    expect([temperature(-10), temperatureGap(5), windSpeed(25), elevation(120)]).toEqual(["14 °F", "9 °F", "16 mph", "394 ft"]); // prettier-ignore
    expect([clockTime(at("20:05"), ZONE), axisHour(at("20:00"), ZONE), weekdayTime(at("20:05"), ZONE)]).toEqual(["9:05 pm", "9p", "Sat 9:05 pm"]); // prettier-ignore
    expect([clockTime(at("23:00"), ZONE), clockTime(at("11:30"), ZONE)]).toEqual(["12:00 am", "12:30 pm"]);
    expect(besideBox({ label: "Elevation", unit: "m" }, 120)).toBe("394 ft");
    expect(besideBox({ label: "Aperture", unit: "mm" }, 203)).toBe("8.0 in");
    // Focal lengths are in mm wherever one lives.
    expect(besideBox({ label: "Focal length", unit: "mm" }, 480)).toBeNull();
    expect(besideBox({ label: "Sensor above the air", unit: "°C" }, 10, true)).toBe("18 °F");
  });
});
