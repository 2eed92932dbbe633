import { createContext, use, useEffect, useState } from "react";
import { useInView } from "react-intersection-observer";
import type { CatalogEntry } from "~/core/catalog";
import type { MosaicLayout } from "~/core/framing";
import { smallPictureDeg, type Ink } from "~/drawing";
import { inkOf, pixelRatio } from "./canvas";
import { useTheme } from "./use-theme";

/** What makes small pictures: the desk's, given by the shell. */
export type PictureMaker = (
  sky: {
    readonly centre: CatalogEntry["at"];
    readonly heightDeg: number;
    readonly own: CatalogEntry | null;
    readonly frame: MosaicLayout | null;
    readonly widthPx: number;
    readonly heightPx: number;
  },
  look: { readonly theme: string; readonly ink: Ink },
) => Promise<{ readonly url: string; readonly of: string; readonly credit: string; readonly isSimulated: boolean }>;

/** Where pages find it; null = no pictures, as where a page is drawn on the server. */
export const SmallPictures = createContext<PictureMaker | null>(null);

/** A picture as it is shown, and what tells it from others. */
export type ShownPicture = Awaited<ReturnType<PictureMaker>>;

/** What a picture was made from, in words that may stand beside it. */
export const sourceWords = ({ of, credit }: ShownPicture): string =>
  of === "" ? "drawn from the catalogue" : [of, credit].filter((w) => w !== "").join(", ");

/** What there is to be seen of a target, a frame or both, by value: the same in it is the same picture. "" = nothing. */
function questionOf(entry: CatalogEntry | null, frame: MosaicLayout | null): string {
  const centre = frame?.centre ?? entry?.at;
  return centre ? JSON.stringify({ centre, heightDeg: smallPictureDeg(entry, frame), own: entry, frame }) : "";
}

/** Has a square picture made in the colours of the theme, `px` of the screen wide. */
function ask(make: PictureMaker, question: string, px: number): Promise<ShownPicture> {
  const root = document.documentElement;
  const sky = JSON.parse(question) as Omit<Parameters<PictureMaker>[0], "widthPx" | "heightPx">;
  const look = { theme: root.dataset["theme"] ?? "", ink: inkOf(root) };
  return make({ ...sky, widthPx: px, heightPx: px }, look);
}

/** The way to a picture that is to be put somewhere else, as in a file; null = there is none. */
export function usePictureOf(): (
  entry: CatalogEntry | null,
  frame: MosaicLayout,
  px: number,
) => Promise<ShownPicture | null> {
  const make = use(SmallPictures);
  return async (entry, frame, px) => (make ? ask(make, questionOf(entry, frame), px).catch(() => null) : null);
}

/**
 * A small picture of a target or a frame, north up and east left, made once it comes into view. Beside a name it says nothing of its own
 * (`label` ""); by itself it is labelled.
 */
export function SkyPicture({
  entry,
  frame = null,
  sizePx,
  label = "",
  className = "",
}: {
  /** What lies there; null = only a frame, around its own middle. */
  readonly entry: CatalogEntry | null;
  readonly frame?: MosaicLayout | null;
  /** Side of the square, px of the page. */
  readonly sizePx: number;
  readonly label?: string;
  readonly className?: string;
}) {
  const make = use(SmallPictures);
  const { ref, inView } = useInView({ triggerOnce: true, rootMargin: "300px" });
  const theme = useTheme();
  const [shown, setShown] = useState<ShownPicture | null>(null);
  const question = questionOf(entry, frame);
  useEffect(() => {
    if (!inView || !make || question === "") return;
    let isCurrent = true;
    ask(make, question, Math.round(sizePx * pixelRatio())).then(
      (picture) => isCurrent && setShown(picture),
      () => undefined, // the place stays dark: all it says is said in words beside it
    );
    return () => {
      isCurrent = false;
    };
  }, [inView, make, theme, question, sizePx]);
  const source = shown ? sourceWords(shown) : "";
  return (
    <div
      ref={ref}
      className={`bg-ground border-rule relative shrink-0 overflow-hidden rounded-[6px] border ${className}`}
      style={{ width: sizePx, maxWidth: "100%", aspectRatio: "1" }}
      title={shown ? `North up, east left; ${source}` : undefined}
    >
      {shown ? (
        <img
          src={shown.url}
          width={sizePx}
          height={sizePx}
          alt={label && `${label}; north up, east left, ${source}`}
          className="turns-to-ink block size-full"
        />
      ) : null}
      {shown?.isSimulated ? (
        <span className="text-note bg-ground/80 text-soft absolute right-1 bottom-1 rounded px-1">simulated</span>
      ) : null}
    </div>
  );
}
