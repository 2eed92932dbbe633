import { describe, expect, it, vi } from "vitest";
import { utcMs } from "~/core/time";
import { readForecast } from "~/core/formats";
import { askSource, type ReadAnswer } from "./ask";
import type { ForecastSource } from "./source";
import { ServiceRefusal } from "./refusal";

const at = { nowMs: utcMs(Date.parse("2026-12-05T16:40:00Z")), latitudeDeg: 43.6, longitudeDeg: 1.9 };
const patience = { timeoutMs: 40, tries: 3, waitMs: 1 };
const good = JSON.stringify({
  format: "zenithar-forecast",
  version: 1,
  source: { id: "t", name: "T" },
  place: { latitude: 43.6, longitude: 1.9 },
  issued: "2026-12-05T12:00:00Z",
  units: { low_type_cloud_area_fraction: "1" },
  time: ["2026-12-05T18:00:00Z"],
  low_type_cloud_area_fraction: [0.2],
});
/** A source that gives these answers in turn; null = it hangs. */
const source = (...answers: readonly (string | Error | null)[]) => {
  let asked = 0;
  const ask = vi.fn((): Promise<string> => {
    const answer = answers[Math.min(asked++, answers.length - 1)]!;
    if (answer === null) return new Promise<string>(() => undefined); // does not even heed its signal
    return answer instanceof Error ? Promise.reject(answer) : Promise.resolve(answer);
  });
  return { id: "t", name: "T", isSimulated: false, ask };
};
const read: ReadAnswer = (text, asked) => Promise.resolve(readForecast(text, asked));
const never = new AbortController().signal;
const code = async (s: ForecastSource) => {
  const r = await askSource(read, s, at, never, patience);
  return r.ok ? "ok" : `${r.error.code} ${r.error.found}`;
};

describe("asking a forecast service", () => {
  it("asks again after a failure, a hang and nonsense, and takes the good answer", async () => {
    for (const first of [new ServiceRefusal(503), new TypeError("network"), null, "<html>busy</html>"] as const) {
      const s = source(first, good);
      expect(await code(s)).toBe("ok");
      expect(s.ask).toHaveBeenCalledTimes(2);
    }
  });
  it("gives up after its tries and says why", async () => {
    expect(await code(source(null))).toBe("timedOut 0.04 s");
    expect(await code(source(new ServiceRefusal(503)))).toBe("refused 503");
    expect(await code(source(new TypeError("network is down")))).toBe("unreachable network is down");
    expect(await code(source("<html>"))).toBe("forecastNotJson <html>");
  });
  it("does not insist where asking again cannot help", async () => {
    const s = source(new ServiceRefusal(404), good);
    expect([await code(s), s.ask.mock.calls.length]).toEqual(["refused 404", 1]);
    const newer = source(good.replace('"version":1', '"version":3'), good);
    expect([await code(newer), newer.ask.mock.calls.length]).toEqual(["forecastNewer 3", 1]);
  });
  it("stops at once when nobody waits any more", async () => {
    const stop = new AbortController();
    const answer = askSource(read, source(null), at, stop.signal, { ...patience, timeoutMs: 10_000 });
    setTimeout(() => stop.abort(new Error("left")), 5);
    await expect(answer).rejects.toThrow("left");
  });
});
