import type { CatalogEntry } from "~/core/catalog";
import type { MosaicLayout } from "~/core/framing";
import type { Equatorial } from "~/core/sky";
import { slot, type Desk } from "~/desk/desk";
import { surveyHere, theSurveyChoice } from "./surveys";
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
const EDITION = 1;
const MOST_AT_HAND = 400;
const MOST_OBJECTS = 40;
/** Pictures less high than that are no place for the word "simulated": they are drawn from the catalogue instead, px. */
const LEAST_SIMULATED_PX = 150;
const SURVEY_INK: Readonly<Record<string, "red" | "onLight">> = { ember: "red", day: "onLight" };

const atHand = slot(() => new Map<string, Promise<SmallShown>>());

/** The survey that charts show, where it suits a picture of that size. */
async function surveyFor(desk: Desk, { heightPx }: SmallSky, theme: string) {
  const { id, brightness, contrast } = desk.at(theSurveyChoice).read();
  if (id === "" || !desk.surveys.includes(id)) return null;
  const { survey, isSimulated } = await surveyHere(desk, id);
  if (!survey || (isSimulated && heightPx < LEAST_SIMULATED_PX)) return null;
  return { id, survey, look: { brightness, contrast, ink: SURVEY_INK[theme] ?? ("own" as const) }, isSimulated };
}

async function made(desk: Desk, sky: SmallSky, look: SmallLook): Promise<SmallShown> {
  const { centre, heightDeg, own, frame, widthPx, heightPx } = sky;
  const of = await surveyFor(desk, sky, look.theme).catch(() => null);
  const name = JSON.stringify([EDITION, centre.raDeg, centre.decDeg, heightDeg, widthPx, heightPx, own, frame, look.theme, of && [of.id, of.look]]); // prettier-ignore
  const chart = { centre, heightDeg, widthPx, heightPx };
  const file = await desk.workers.survey.small(name, async () => {
    const radiusDeg = Math.min(90, (heightDeg / 2) * Math.hypot(1, widthPx / heightPx) * 1.5);
    const found = of ? [] : await desk.workers.sky.within({ raDeg: centre.raDeg, decDeg: centre.decDeg, radiusDeg, limit: MOST_OBJECTS }); // prettier-ignore
    const survey = of && { id: of.id, survey: of.survey, look: of.look };
    return {
      chart,
      ink: look.ink,
      objects: own ? [...found.filter((e) => e.id !== own.id), own] : found,
      frame,
      survey,
    };
  });
  return {
    url: URL.createObjectURL(file),
    of: of?.survey.title ?? "",
    credit: of?.survey.credit ?? "",
    isSimulated: of?.isSimulated ?? false,
  };
}

/** A small picture of a piece of sky, made once: a survey's where charts show one, else drawn from the catalogue. */
export function smallPicture(desk: Desk, sky: SmallSky, look: SmallLook): Promise<SmallShown> {
  const pictures = desk.at(atHand);
  const key = JSON.stringify([sky, look.theme, desk.at(theSurveyChoice).read()]);
  const known = pictures.get(key);
  if (known) return known;
  const picture = made(desk, sky, look);
  pictures.set(key, picture);
  picture.catch(() => pictures.delete(key)); // asked again next time
  for (const [oldest, its] of pictures) {
    if (pictures.size <= MOST_AT_HAND) break;
    pictures.delete(oldest);
    void its.then(({ url }) => URL.revokeObjectURL(url)).catch(() => undefined);
  }
  return picture;
}
