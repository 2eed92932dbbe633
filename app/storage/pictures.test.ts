import { beforeEach, describe, expect, it } from "vitest";
import { browserCupboard } from "./browser";
import { createPictures, type KeptPicture } from "./pictures";

/** The pictures as a new page has them, over the same database. */
const page = () => createPictures(browserCupboard(false));

const picture = (more: Partial<KeptPicture> = {}): KeptPicture => ({
  name: "plume.jpg",
  bytes: Uint8Array.from([1, 2, 3]).buffer,
  type: "image/jpeg",
  mesh: { columns: 1, rows: 1, nodes: [[10, 1], [9, 1], [10, 0], [9, 0]] }, // prettier-ignore
  opacity: 0.8,
  corners: ["00h40m +1°", "00h36m +1°", "00h36m +0°", "00h40m +0°"],
  ...more,
});

beforeEach(async () => {
  await page().takeAll();
});

describe("pictures under the chart", () => {
  it("are kept by frame for the next page, replaced by the next one, and taken away", async () => {
    await page().keep("frame-1", picture());
    const next = page();
    expect((await next.of("frame-1"))?.corners).toEqual(picture().corners);
    expect([...new Uint8Array((await next.of("frame-1"))!.bytes)]).toEqual([1, 2, 3]);
    expect(await next.of("frame-2")).toBeNull();
    await next.keep("frame-1", picture({ opacity: 0.3, corners: null }));
    expect(await page().of("frame-1")).toMatchObject({ opacity: 0.3, corners: null });
    await next.keep("frame-1", null);
    expect(await page().of("frame-1")).toBeNull();
  });

  it("that do not read are passed over", async () => {
    const p = page();
    const broken: Partial<KeptPicture>[] = [
      { opacity: 7 },
      { mesh: { columns: 1, rows: 1, nodes: [[400, 0], [9, 1], [10, 0], [9, 0]] } }, // prettier-ignore
      { bytes: "no bytes" as unknown as ArrayBuffer },
    ];
    for (const more of broken) {
      await p.keep("frame-1", picture(more));
      expect(await p.of("frame-1")).toBeNull();
    }
  });

  it("are handed over when everything is deleted, and come back with it", async () => {
    const p = page();
    await p.keep("frame-1", picture());
    const all = await p.takeAll();
    expect(await p.of("frame-1")).toBeNull();
    await p.putBack(all);
    expect((await p.of("frame-1"))?.name).toBe("plume.jpg");
  });
});
