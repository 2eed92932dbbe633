import { beforeEach, describe, expect, it, vi } from "vitest";
import type { KeptPicture } from "./pictures";

/** A fresh copy of the storage code, as a new page has it, over the same database. */
async function page() {
  vi.resetModules();
  return { ...(await import("./pictures")), ...(await import("./store")) };
}

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
  await (await page()).takePictures();
});

describe("pictures under the chart", () => {
  it("are kept by frame for the next page, replaced by the next one, and taken away", async () => {
    await (await page()).keepPicture("frame-1", picture());
    const next = await page();
    expect((await next.pictureOf("frame-1"))?.corners).toEqual(picture().corners);
    expect([...new Uint8Array((await next.pictureOf("frame-1"))!.bytes)]).toEqual([1, 2, 3]);
    expect(await next.pictureOf("frame-2")).toBeNull();
    await next.keepPicture("frame-1", picture({ opacity: 0.3, corners: null }));
    expect(await (await page()).pictureOf("frame-1")).toMatchObject({ opacity: 0.3, corners: null });
    await next.keepPicture("frame-1", null);
    expect(await (await page()).pictureOf("frame-1")).toBeNull();
  });

  it("that do not read are passed over", async () => {
    const p = await page();
    const broken: Partial<KeptPicture>[] = [
      { opacity: 7 },
      { mesh: { columns: 1, rows: 1, nodes: [[400, 0], [9, 1], [10, 0], [9, 0]] } }, // prettier-ignore
      { bytes: "no bytes" as unknown as ArrayBuffer },
    ];
    for (const more of broken) {
      await p.keepPicture("frame-1", picture(more));
      expect(await p.pictureOf("frame-1")).toBeNull();
    }
  });

  it("are handed over when everything is deleted, and come back with it", async () => {
    const p = await page();
    await p.keepPicture("frame-1", picture());
    const all = await p.takePictures();
    expect(await p.pictureOf("frame-1")).toBeNull();
    await p.putBackPictures(all);
    expect((await p.pictureOf("frame-1"))?.name).toBe("plume.jpg");
  });
});
