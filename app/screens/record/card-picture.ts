import { sourceWords, type ShownPicture } from "~/components/SkyPicture";
import type { CardLine } from "./card-text";

const WIDTH = 1200;
const MARGIN = 64;
const HEAD_WIDTH = 220;
const LINE = 34;
const SOURCE_LINE = 22;
/** Side of the frame's picture, px. */
export const PICTURE = 240;

/** Words in lines that fit a width. */
function wrapped(context: CanvasRenderingContext2D, words: string, width: number): string[] {
  const lines: string[] = [];
  let line = "";
  for (const word of words.split(" ")) {
    const next = line === "" ? word : `${line} ${word}`;
    if (line !== "" && context.measureText(next).width > width) {
      lines.push(line);
      line = word;
    } else line = next;
  }
  return line === "" ? lines : [...lines, line];
}

/** A picture that can be drawn; null where it does not load. */
async function loaded(url: string): Promise<HTMLImageElement | null> {
  const image = new Image();
  image.src = url;
  return image.decode().then(
    () => image,
    () => null,
  );
}

/** The card as a picture, in the colours of the page, with the picture of its frame and what that was made from: a PNG, or null where the browser draws none. */
export async function cardPicture(
  title: string,
  lines: readonly CardLine[],
  shown: ShownPicture | null,
): Promise<Blob | null> {
  await document.fonts.ready;
  const frame = shown && (await loaded(shown.url));
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string) => style.getPropertyValue(name).trim() || "#222";
  const canvas = document.createElement("canvas");
  const context = canvas.getContext("2d");
  if (!context) return null;
  const { fontFamily } = getComputedStyle(document.body);
  const face = (weight: number, px: number) => `${weight} ${px}px ${fontFamily}`;
  canvas.width = WIDTH;
  context.font = face(400, 24);
  // The picture stands at the top right; the words leave it its room all the way down, which keeps the lines even.
  const room = frame ? PICTURE + 32 : 0;
  const rows = lines.map((l) => ({ ...l, rows: wrapped(context, l.words, WIDTH - 2 * MARGIN - HEAD_WIDTH - room) }));
  context.font = face(400, 16);
  const source = shown && frame ? wrapped(context, sourceWords(shown), PICTURE) : [];
  const words = 80 + rows.reduce((sum, r) => sum + r.rows.length * LINE + 10, 0);
  canvas.height = 2 * MARGIN + Math.max(words, frame ? PICTURE + 12 + source.length * SOURCE_LINE : 0);
  context.fillStyle = colour("--ground");
  context.fillRect(0, 0, WIDTH, canvas.height);
  context.textBaseline = "top";
  context.fillStyle = colour("--ink");
  context.font = face(600, 40);
  context.fillText(title, MARGIN, MARGIN, WIDTH - 2 * MARGIN - room);
  if (frame) context.drawImage(frame, WIDTH - MARGIN - PICTURE, MARGIN, PICTURE, PICTURE);
  context.font = face(400, 16);
  context.fillStyle = colour("--soft");
  source.forEach((line, i) =>
    context.fillText(line, WIDTH - MARGIN - PICTURE, MARGIN + PICTURE + 12 + i * SOURCE_LINE),
  );
  let y = MARGIN + 80;
  for (const row of rows) {
    context.font = face(600, 24);
    context.fillStyle = colour("--soft");
    context.fillText(row.head, MARGIN, y, HEAD_WIDTH - 16);
    context.font = face(400, 24);
    context.fillStyle = colour("--ink");
    for (const words of row.rows) {
      context.fillText(words, MARGIN + HEAD_WIDTH, y);
      y += LINE;
    }
    y += 10;
  }
  return new Promise((resolve) => canvas.toBlob(resolve, "image/png"));
}
