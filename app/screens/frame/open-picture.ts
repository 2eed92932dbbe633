import type { LaidPicture } from "~/drawing";
import { frameFaultWords } from "./fault-words";
import type { Desk } from "~/desk/desk";
import { fileFaultWords } from "~/components/words/fault-words";

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
/** A solved FITS image as an underlay, in words why it is none, or null for a file of another kind. */

export async function readFitsImage(desk: Desk, file: File, signal: AbortSignal, onProgress: (share: number) => void) {
  const read = await desk.workers.files.image(file, signal, onProgress);
  if (!read.ok) {
    const { error } = read;
    if (error.code === "notFits") return null;
    return "found" in error ? frameFaultWords(error) : fileFaultWords(error.code);
  }
  const { width, height, rgba, mesh } = read.value;
  const image = await createImageBitmap(new ImageData(rgba, width, height));
  return {
    image,
    widthPx: width,
    heightPx: height,
    mesh,
    opacity: 0.8,
    name: file.name,
    file: await jpegOf(image),
    corners: null,
  };
}
