import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Survey } from "~/core/survey";

const SURVEY: Survey = {
  title: "A",
  credit: "",
  orderMin: 3,
  orderMax: 5,
  tilePx: 64,
  format: "png",
  frame: "equatorial",
};
const HERE = "http://here.example";

/** A browser's cache that lasts as long as the test, in the order things were put in. */
function cacheOfTest() {
  const kept = new Map<string, Response>();
  const at = {
    keys: () => Promise.resolve([...kept.keys()].map((url) => new Request(url))),
    match: (url: string) => Promise.resolve(kept.get(url)?.clone()),
    put: (url: string, response: Response) => Promise.resolve(void kept.set(url, response)),
    delete: (url: string) => Promise.resolve(kept.delete(url)),
  };
  return { kept, caches: { open: () => Promise.resolve(at), delete: () => Promise.resolve(void kept.clear()) } };
}

describe("tiles of a survey in the browser", () => {
  let asked: string[] = [];
  let home = cacheOfTest();
  /** What the server says to a path; absent = it has nothing there. */
  let says: (path: string) => Response | Promise<Response> = () => new Response(null, { status: 404 });
  beforeEach(() => {
    asked = [];
    home = cacheOfTest();
    vi.resetModules(); // a worker that starts anew
    vi.stubGlobal("self", { location: { origin: HERE } });
    vi.stubGlobal("caches", home.caches);
    vi.stubGlobal("fetch", (url: string) => {
      asked.push(url.slice(url.indexOf("simulated/") + 10));
      return Promise.resolve(says(url));
    });
  });
  afterEach(() => vi.unstubAllGlobals());
  const signal = new AbortController().signal;
  const worker = () => import("./survey-tiles");

  it("are asked for once, and found again by a worker that starts anew", async () => {
    says = () => new Response(new Uint8Array(500));
    const { surveyFileOf, keptTiles } = await worker();
    expect((await surveyFileOf("simulated", "Norder3/Dir0/Npix5.png", signal))?.size).toBe(500);
    expect(await keptTiles()).toMatchObject({ files: 1, bytes: 500 });
    vi.resetModules();
    const anew = await worker();
    expect((await anew.surveyFileOf("simulated", "Norder3/Dir0/Npix5.png", signal))?.size).toBe(500);
    expect(asked).toEqual(["Norder3/Dir0/Npix5.png"]);
    expect(await anew.keptTiles()).toMatchObject({ files: 1, bytes: 500 });
    await anew.forgetTiles();
    expect(await anew.keptTiles()).toMatchObject({ files: 0, bytes: 0 });
  });

  it("go where they would be too much, the oldest first", async () => {
    const half = new Uint8Array(110_000_000);
    says = (url) => new Response(url.includes("Npix3") ? new Uint8Array(10) : half);
    const { surveyFileOf, keptTiles } = await worker();
    for (const tile of [1, 2, 3]) await surveyFileOf("simulated", `Norder3/Dir0/Npix${tile}.png`, signal);
    expect([...home.kept.keys()].map((url) => /Npix(\d)/.exec(url)?.[1])).toEqual(["2", "3"]);
    expect(await keptTiles()).toMatchObject({ files: 2, bytes: 110_000_010 });
  });

  it("that are not there are not covered; a server in trouble is said, and nothing of it is kept", async () => {
    const { surveyFileOf, SurveyTrouble, keptTiles } = await worker();
    says = () => new Response(null, { status: 404 });
    expect(await surveyFileOf("simulated", "Norder3/Dir0/Npix5.png", signal)).toBeNull();
    says = () => new Response("busy", { status: 502 });
    await expect(surveyFileOf("simulated", "Norder3/Dir0/Npix5.png", signal)).rejects.toBeInstanceOf(SurveyTrouble);
    says = () => Promise.reject(new TypeError("no network"));
    await expect(surveyFileOf("simulated", "Norder3/Dir0/Npix5.png", signal)).rejects.toBeInstanceOf(SurveyTrouble);
    expect(await keptTiles()).toMatchObject({ files: 0 });
  });

  it("of the one picture of all the sky stand in at once, and never keep the whole ones from being fetched", async () => {
    const widthPx = 27 * 4;
    const data = new Uint8ClampedArray(4 * widthPx * 29 * 4).fill(90);
    vi.stubGlobal("createImageBitmap", () =>
      Promise.resolve({ width: widthPx, height: 29 * 4, close: () => undefined }),
    );
    vi.stubGlobal(
      "OffscreenCanvas",
      class {
        getContext = () => ({
          drawImage: () => undefined,
          getImageData: () => ({ width: widthPx, height: 29 * 4, data }),
        });
      },
    );
    says = () => new Response(new Uint8Array(8));
    const { Tiles } = await worker();
    const tiles = new Tiles("simulated", SURVEY);
    await Promise.all([tiles.fetchAllSky(), tiles.fetchAllSky()]);
    expect(asked).toEqual(["Norder3/Allsky.png"]);
    expect([tiles.ofOrSmall(3, 700)?.sidePx, tiles.isKnown(3, 700), tiles.ofOrSmall(4, 700)]).toEqual([4, false, null]);
    await tiles.fetch(3, 700, signal);
    expect([tiles.isKnown(3, 700), tiles.ofOrSmall(3, 700)?.sidePx]).toEqual([true, widthPx]);
  });
});
