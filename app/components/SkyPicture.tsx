import { createContext, use, useEffect, useRef, useState } from "react";
import { useInView } from "react-intersection-observer";
import type { CatalogEntry } from "~/core/catalog";
import type { MosaicLayout } from "~/core/framing";
import { INKS, smallPictureDeg, type Ink } from "~/drawing";
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

/** More pixels than two to one of the page nobody sees. */
const MOST_RATIO = 2;

/** The theme's colours at an element. */
export function inkOf(element: Element): Ink {
  const style = getComputedStyle(element);
  return Object.fromEntries(INKS.map((name) => [name, style.getPropertyValue(`--${name}`)])) as unknown as Ink;
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
  const box = useRef<HTMLDivElement | null>(null);
  const { ref, inView } = useInView({ triggerOnce: true, rootMargin: "300px" });
  const theme = useTheme();
  const [shown, setShown] = useState<Awaited<ReturnType<PictureMaker>> | null>(null);
  const centre = frame?.centre ?? entry?.at;
  /** All that is drawn, by value: another list or frame with the same in it is no other picture. */
  const question = centre && JSON.stringify({ centre, heightDeg: smallPictureDeg(entry, frame), own: entry, frame });
  useEffect(() => {
    if (!inView || !make || !box.current || !question) return;
    let isCurrent = true;
    const px = Math.round(sizePx * Math.min(MOST_RATIO, window.devicePixelRatio));
    const sky = JSON.parse(question) as Omit<Parameters<PictureMaker>[0], "widthPx" | "heightPx">;
    const look = { theme: document.documentElement.dataset["theme"] ?? "", ink: inkOf(box.current) };
    make({ ...sky, widthPx: px, heightPx: px }, look).then(
      (picture) => isCurrent && setShown(picture),
      () => undefined, // the place stays dark: all it says is said in words beside it
    );
    return () => {
      isCurrent = false;
    };
  }, [inView, make, theme, question, sizePx]);
  const source = shown?.of ? `${shown.of}${shown.credit ? `, ${shown.credit}` : ""}` : "drawn from the catalogue";
  return (
    <div
      ref={(element) => {
        box.current = element;
        ref(element);
      }}
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
