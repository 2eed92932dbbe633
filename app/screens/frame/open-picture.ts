import type { LaidPicture } from "~/components/sky-chart/underlay-layer";

/** A picture that waits for its place on the sky. */
export type OpenedPicture = Pick<LaidPicture, "image" | "widthPx" | "heightPx" | "file" | "name">;

const LONGEST_PX = 2400; // more than a chart shows, and light to draw and to keep

/** Opens a JPEG, PNG or whatever else the browser reads, made smaller when it is large; null when it is no picture. */
export async function openPicture(file: File): Promise<OpenedPicture | null> {
  const whole = await createImageBitmap(file).catch(() => null);
  if (!whole) return null;
  const shrink = LONGEST_PX / Math.max(whole.width, whole.height);
  if (shrink >= 1) return { image: whole, widthPx: whole.width, heightPx: whole.height, file, name: file.name };
  const [widthPx, heightPx] = [Math.round(whole.width * shrink), Math.round(whole.height * shrink)];
  const image = await createImageBitmap(whole, { resizeWidth: widthPx, resizeHeight: heightPx, resizeQuality: "high" });
  whole.close();
  return { image, widthPx, heightPx, file: await jpegOf(image), name: file.name };
}

/** An image as a JPEG file. */
export function jpegOf(image: ImageBitmap): Promise<Blob> {
  const canvas = new OffscreenCanvas(image.width, image.height);
  canvas.getContext("2d")?.drawImage(image, 0, 0);
  return canvas.convertToBlob({ type: "image/jpeg", quality: 0.92 });
}
