import type { CatalogEntry } from "~/core/catalog";
import type { MosaicLayout } from "~/core/framing";
import type { Equatorial } from "~/core/sky";
import { slot, type Desk } from "~/desk/desk";
import { surveyHere, surveyInk, theSurveyChoice } from "./surveys";
import type { SmallPictureAsked as Asked } from "~/workers/survey.worker";

/** A small picture of a piece of sky that somebody wants to see. */
export interface SmallSky {
  readonly centre: Equatorial<"icrs">;
  /** From top to bottom, degrees. */
  readonly heightDeg: number;
  /** What it is of: drawn even where the catalogue does not have it. */
  readonly own: CatalogEntry | null;
  readonly frame: MosaicLayout | null;
  /** Pixels of the screen. */
  readonly widthPx: number;
  readonly heightPx: number;
}

/** How it is to look: the theme's colours, and its name. */
export interface SmallLook {
  readonly theme: string;
  readonly ink: Asked["ink"];
}

/** A small picture as it is shown. */
export interface SmallShown {
  readonly url: string;
  /** What it was made from: a survey of this name, or "" = drawn from the catalogue. */
  readonly of: string;
  readonly credit: string;
  readonly isSimulated: boolean;
}

/** Drawn anew where the drawing itself has changed. */
const EDITION = 2;
const MOST_AT_HAND = 400;
const MOST_OBJECTS = 40;
/** Objects are asked for in a wider field than is shown: large ones reach in from outside. */
const AROUND = 1.5;
/** Pictures less high than that are no place for the word "simulated": they are drawn from the catalogue instead, px. */
const LEAST_SIMULATED_PX = 150;

/** A survey as a picture is made from it. */
interface From {
  readonly asked: NonNullable<Asked["survey"]>;
  readonly isSimulated: boolean;
}

/** By name, those used last at the end; null = the survey was silent. */
const atHand = slot(() => new Map<string, Promise<SmallShown | null>>());

/** The survey that charts show, where it suits a picture of that size. */
async function surveyFor(desk: Desk, { heightPx }: SmallSky, theme: string): Promise<From | null> {
  const { id, brightness, contrast } = desk.at(theSurveyChoice).read();
  if (id === "" || !desk.surveys.includes(id)) return null;
  const { survey, isSimulated } = await surveyHere(desk, id);
  if (!survey || (isSimulated && heightPx < LEAST_SIMULATED_PX)) return null;
  return { asked: { id, survey, look: { brightness, contrast, ink: surveyInk(theme) } }, isSimulated };
}

/** Makes a picture; null = the survey is silent. */
async function made(desk: Desk, sky: SmallSky, ink: Asked["ink"], from: From | null, name: string) {
  const { centre, heightDeg, own, frame, widthPx, heightPx } = sky;
  const file = await desk.workers.survey.small(name, async () => {
    const { raDeg, decDeg } = centre;
    const radiusDeg = Math.min(90, AROUND * (heightDeg / 2) * Math.hypot(1, widthPx / heightPx));
    const found = from ? [] : await desk.workers.sky.within({ raDeg, decDeg, radiusDeg, limit: MOST_OBJECTS });
    const objects = own ? [...found.filter((e) => e.id !== own.id), own] : found;
    return { chart: { centre, heightDeg, widthPx, heightPx }, ink, objects, frame, survey: from?.asked ?? null };
  });
  if (!file) return null;
  const { title, credit } = from?.asked.survey ?? { title: "", credit: "" };
  return { url: URL.createObjectURL(file), of: title, credit, isSimulated: from?.isSimulated ?? false };
}

/** A picture by its name, made once: the same sky in the same colours from the same source. */
function named(desk: Desk, sky: SmallSky, ink: Asked["ink"], from: From | null): Promise<SmallShown | null> {
  const pictures = desk.at(atHand);
  const name = JSON.stringify([EDITION, sky, ink, from && [from.asked.id, from.asked.look]]);
  const forget = () => void pictures.delete(name); // asked again next time
  const picture = pictures.get(name) ?? made(desk, sky, ink, from, name);
  forget();
  pictures.set(name, picture);
  picture.then((shown) => shown ?? forget(), forget);
  for (const [oldest, its] of pictures) {
    if (pictures.size <= MOST_AT_HAND) break;
    pictures.delete(oldest);
    void its.then((shown) => shown && URL.revokeObjectURL(shown.url)).catch(() => undefined);
  }
  return picture;
}

/** A small picture of a piece of sky: a survey's where charts show one that answers, else drawn from the catalogue. */
export async function smallPicture(desk: Desk, sky: SmallSky, { theme, ink }: SmallLook): Promise<SmallShown> {
  const from = await surveyFor(desk, sky, theme).catch(() => null);
  const shown = (from && (await named(desk, sky, ink, from))) ?? (await named(desk, sky, ink, null));
  if (!shown) throw new Error("what is drawn is never silent");
  return shown;
}
