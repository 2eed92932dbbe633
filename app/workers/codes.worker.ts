import { expose } from "comlink";
import jsQR from "jsqr";

const api = {
  /** What a code in a picture says (pixels as RGBA, row after row); null = none is read in it. */
  read: (pixels: Uint8ClampedArray, widthPx: number, heightPx: number): string | null =>
    jsQR(pixels, widthPx, heightPx)?.data ?? null,
};

export type CodesApi = typeof api;
expose(api);
