import { decodeBand, type FitsHeader, type SamplePlan } from "~/core/formats";
import type { PixelTile } from "~/core/ledger";

const MOST_BAND = 8_000_000; // bytes read in one go: some files are measured at a time

/** The windows that stand for an image; null where the file ends before them. */
export async function readSample(file: Blob, header: FitsHeader, plan: SamplePlan): Promise<PixelTile[] | null> {
  const tiles: PixelTile[] = [];
  for (const band of plan.bands) {
    if (band.offset + band.length > file.size) return null;
    if (band.length <= MOST_BAND) {
      const bytes = await file.slice(band.offset, band.offset + band.length).arrayBuffer();
      tiles.push(...decodeBand(bytes, header, plan, band));
      continue;
    }
    // Of rows that are very wide only the windows are read.
    const pixelBytes = band.length / band.rows / plan.rowPx;
    const width = plan.widthPx * pixelBytes;
    for (const column of band.columns) {
      const window = new Uint8Array(band.rows * width);
      for (let y = 0; y < band.rows; y++) {
        const from = band.offset + (y * plan.rowPx + column) * pixelBytes;
        window.set(new Uint8Array(await file.slice(from, from + width).arrayBuffer()), y * width);
      }
      const alone = { ...plan, rowPx: plan.widthPx };
      tiles.push(...decodeBand(window.buffer, header, alone, { ...band, columns: [0] }));
    }
  }
  return tiles;
}
