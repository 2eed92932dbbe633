import { INKS, type Ink } from "~/drawing";

/** More pixels of the screen to one of the page are work nobody sees. */
const MOST_RATIO = 2;

/** Pixels to one of the page that what takes long is drawn with. */
export const pixelRatio = (): number => Math.min(MOST_RATIO, window.devicePixelRatio);

/** The theme's colours at an element. */
export function inkOf(element: Element): Ink {
  const style = getComputedStyle(element);
  return Object.fromEntries(INKS.map((name) => [name, style.getPropertyValue(`--${name}`)])) as unknown as Ink;
}
