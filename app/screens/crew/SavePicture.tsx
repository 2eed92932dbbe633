import { downloadBlob, fileStem } from "~/components/download";
import { Button } from "~/components/ui/Button";
import { hoursWord } from "./draw-coverage";
import { type MapLines, scaleOf, inkOf, drawCoverage, BANDS } from "./draw-coverage";
import type { CoverageLayer } from "~/desk/sky/answers";

const PICTURE_PX = 1600;

/** Saves the map as a picture, larger than it is shown. */
export function SavePicture({
  layer,
  lines,
  name,
}: {
  readonly layer: CoverageLayer;
  readonly lines: MapLines;
  readonly name: string;
}) {
  const save = async () => {
    await document.fonts.ready;
    const canvas = document.createElement("canvas");
    const scale = scaleOf(layer, lines, PICTURE_PX);
    const foot = 64;
    canvas.width = PICTURE_PX;
    canvas.height = scale.heightPx + foot;
    const context = canvas.getContext("2d");
    if (!context) return;
    const ink = inkOf(document.documentElement);
    drawCoverage(context, layer, lines, scale, ink, PICTURE_PX);
    context.fillStyle = ink.ground;
    context.fillRect(0, scale.heightPx, PICTURE_PX, foot);
    context.textBaseline = "middle";
    context.textAlign = "left";
    context.fillStyle = ink.ink;
    const y = scale.heightPx + foot / 2;
    context.fillText(`${name}, ${layer.channel}`, 24, y, PICTURE_PX / 2 - 60);
    let x = PICTURE_PX / 2;
    const words =
      layer.goalHours > 0
        ? BANDS.map((b, i) => (i === 0 ? `< ${hoursWord(BANDS[1] * layer.goalHours)}` : hoursWord(b * layer.goalHours)))
        : [];
    words.forEach((word, i) => {
      context.fillStyle = ink.bands[i]!;
      context.fillRect(x, y - 12, 30, 24);
      context.fillStyle = ink.ink;
      context.fillText(word, x + 38, y);
      x += 54 + context.measureText(word).width;
    });
    canvas.toBlob((blob) => {
      if (blob) downloadBlob(`${fileStem(name)}-depth-${layer.channel.toLowerCase()}.png`, blob);
    }, "image/png");
  };
  return (
    <Button look="plain" onClick={() => void save()}>
      Save the map as a picture
    </Button>
  );
}
