import { gzipSync } from "node:zlib";
import { expect, it } from "vitest";
import { exposureFactsOf, readFitsHeader } from "~/core/formats";
import { isCardsAsText, opened } from "./packed";
import { readFileSync } from "node:fs";

const bytes = readFileSync("reference/tables/fits/light_01.fits");
const plain = new Blob([bytes]);
const packed = new Blob([gzipSync(bytes)]);

it("reads the same header and size of a file packed by gzip (node's own zlib) as of the plain one", async () => {
  const facts = await Promise.all(
    [plain, packed].map(async (blob) => {
      const file = await opened(blob);
      const header = readFitsHeader(await file.first(16 * 2880), file.sizeBytes);
      if (!header.ok) throw new Error(header.error.code);
      return exposureFactsOf(header.value, { name: "a.fits", sizeBytes: file.sizeBytes });
    }),
  );
  expect(facts[1]).toEqual(facts[0]);
  expect((await opened(packed)).isPacked).toBe(true);
});

it("unpacks no more than is asked for, and gives less where there is less", async () => {
  const file = await opened(new Blob([gzipSync(new Uint8Array(5_000_000))]));
  expect((await file.first(2880)).length).toBe(2880);
  expect((await (await opened(new Blob([gzipSync(new Uint8Array(10))]))).first(2880)).length).toBe(10);
});

it("knows header cards written as lines, although they begin like a FITS file", async () => {
  const text = "SIMPLE  =                    T / a solver wrote this\nBITPIX  = 16\n";
  expect(await isCardsAsText(new Blob([text]))).toBe(true);
  expect(await isCardsAsText(plain)).toBe(false);
});
