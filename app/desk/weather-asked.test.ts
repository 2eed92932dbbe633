import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { demoLibrary } from "./demo-library.test-data";

const services = vi.hoisted(() => ({ askSource: vi.fn<(source: { id: string }, at: unknown, signal: AbortSignal) => Promise<unknown>>() })); // prettier-ignore
vi.mock("~/services/ask", () => services);

const MINUTE = 60_000;
const answer = { ok: true, value: { hours: [], notes: [] } };
const never = () => new AbortController().signal;
const asked = () => services.askSource.mock.calls.map(([source]) => source.id).sort();

beforeEach(() => {
  document.documentElement.dataset["now"] = String(Date.parse("2026-12-05T16:40:00Z"));
  vi.resetModules();
});
afterEach(() => {
  vi.resetAllMocks();
  vi.useRealTimers();
  delete document.documentElement.dataset["now"];
});

describe("forecasts of a place", () => {
  it("are asked once by two pages at a time, not again for ten minutes, and then again (reported: asked twice on a first visit)", async () => {
    vi.useFakeTimers({ toFake: ["Date"] });
    services.askSource.mockResolvedValue(answer);
    const { askAll, servicesOf } = await import("./weather");
    const library = demoLibrary();
    const place = library.places[0]!;
    const all = servicesOf(library).map((s) => s.id).sort(); // prettier-ignore
    expect(all.length).toBeGreaterThan(1);
    await Promise.all([askAll(library, place, never()), askAll(library, place, never())]);
    expect(asked()).toEqual(all);
    vi.setSystemTime(Date.now() + 9 * MINUTE);
    await askAll(library, place, never());
    expect(asked()).toEqual(all);
    vi.setSystemTime(Date.now() + 2 * MINUTE);
    await askAll(library, place, never());
    expect(asked()).toEqual([...all, ...all].sort());
    // Another place is another question.
    await askAll(library, library.places[1]!, never());
    expect(asked()).toHaveLength(3 * all.length);
  });

  it("are asked by whoever waits when the page that asked is left before the answer", async () => {
    services.askSource.mockImplementation(
      (_source, _at, signal) =>
        new Promise((resolve, reject) => {
          signal.addEventListener("abort", () => reject(new Error("left")));
          setTimeout(() => resolve(answer), 20);
        }),
    );
    const { askAll, servicesOf } = await import("./weather");
    const library = demoLibrary();
    const place = library.places[0]!;
    const first = new AbortController();
    const left = askAll(library, place, first.signal);
    const waiting = askAll(library, place, never());
    first.abort();
    await expect(left).rejects.toThrow("left");
    await waiting;
    expect(services.askSource).toHaveBeenCalledTimes(2 * servicesOf(library).length);
  });
});
