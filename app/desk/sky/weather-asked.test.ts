import { describe, expect, it, vi } from "vitest";
import { readerHere } from "~/desk/desk.test-data";
import { demoDesk, demoLibrary } from "~/desk/demo-library.test-data";
import { createSources, type Sources } from "~/services/sources";
import { askAll, servicesOf } from "./weather";

const never = () => new AbortController().signal;

/** The demo's library on a desk whose services answer so, and who was asked. */
function askedOf(answer: Sources["ask"]) {
  const ask = vi.fn(answer);
  const desk = demoDesk({ sources: { ...createSources(undefined, readerHere.forecast), ask } });
  const library = demoLibrary(desk);
  return { desk, library, asked: () => ask.mock.calls.map(([source]) => source.id).sort() };
}

describe("forecasts of a place", () => {
  it("are asked once by two pages at a time, not again for ten minutes, and then again (reported: asked twice on a first visit)", async () => {
    const { desk, library, asked } = askedOf(() => Promise.resolve({ ok: true, value: { hours: [], notes: [] } } as never)); // prettier-ignore
    const place = library.places[0]!;
    const all = servicesOf(library).map((s) => s.id).sort(); // prettier-ignore
    expect(all.length).toBeGreaterThan(1);
    await Promise.all([askAll(library, place, never()), askAll(library, place, never())]);
    expect(asked()).toEqual(all);
    desk.setNow("2026-12-05T16:49:00Z");
    await askAll(library, place, never());
    expect(asked()).toEqual(all);
    desk.setNow("2026-12-05T16:51:00Z");
    await askAll(library, place, never());
    expect(asked()).toEqual([...all, ...all].sort());
    // Another place is another question.
    await askAll(library, library.places[1]!, never());
    expect(asked()).toHaveLength(3 * all.length);
  });

  it("are asked by whoever waits when the page that asked is left before the answer", async () => {
    const { library, asked } = askedOf(
      (_source, _at, signal) =>
        new Promise((resolve, reject) => {
          signal.addEventListener("abort", () => reject(new Error("left")));
          setTimeout(() => resolve({ ok: true, value: { hours: [], notes: [] } } as never), 20);
        }),
    );
    const place = library.places[0]!;
    const first = new AbortController();
    const left = askAll(library, place, first.signal);
    const waiting = askAll(library, place, never());
    first.abort();
    await expect(left).rejects.toThrow("left");
    await waiting;
    expect(asked()).toHaveLength(2 * servicesOf(library).length);
  });

  it("are there for whoever asks while the answers are still being kept (reported: a drive into a gale, its forecasts not kept yet)", async () => {
    let keep: () => void = () => undefined;
    const gate = new Promise<void>((resolve) => (keep = resolve));
    const checking = vi.fn(() => gate.then(() => null));
    const hour = { atMs: Date.parse("2026-12-20T20:00:00Z"), issuedMs: Date.parse("2026-12-05T12:00:00Z"), lowCloud: 0.2, middleCloud: null, highCloud: null, humidity: null, airC: null, dewC: null, windMs: null, gustMs: null, rainChance: null, seeingArcsec: null, hazeMag: null }; // prettier-ignore
    const desk = demoDesk({
      sources: {
        ...createSources(undefined, readerHere.forecast),
        ask: () => Promise.resolve({ ok: true, value: { hours: [hour], notes: [] } } as never),
      },
      reader: { ...readerHere, refused: checking },
      supplies: { sample: () => Promise.resolve([]) },
    });
    const library = demoLibrary(desk);
    const place = library.places[0]!;
    const first = askAll(library, place, never());
    await vi.waitFor(() => expect(checking).toHaveBeenCalled());
    let isDone = false;
    const second = askAll(library, place, never()).then(() => (isDone = true));
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(isDone).toBe(false);
    keep();
    await Promise.all([first, second]);
    const kept = (await desk.library()).forecasts.filter((f) => f.data.placeId === place.id);
    expect(kept).toHaveLength(servicesOf(library).length);
  });
});
